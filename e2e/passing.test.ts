/** Whoever goes through a form and types nothing has changed nothing, whatever stands there: numbers of many digits, words of several lines. */
import { expect, test } from '@jest/globals';
import { button } from './support/bench';
import { suite } from './support/suite';
import { savedState } from './support/world';

const { project, open, stored } = suite('passing');

const LINES = ' a line\nand another,\n\n\tthen a third ';
/** The number next to it that has more digits than are shown. */
const awkward = (value: number) => value * (1 - 1e-9);

/** The demo with awkward numbers and notes of several lines. @returns its id */
const awkwardDemo = () =>
  project((document) => {
    for (const list of ['units', 'variants', 'encounters', 'arenas', 'tiers', 'skills', 'styles', 'traits'])
      for (const one of document[list] ?? []) one.notes = LINES;
    for (const band of document.brief.bands) {
      band.why = LINES;
      for (const key of ['low', 'high']) if (band[key] > 0) band[key] = awkward(band[key]);
    }
    for (const unit of document.units) {
      unit.health.max = awkward(unit.health.max);
      unit.movement.run = unit.movement.run && awkward(unit.movement.run);
      unit.senses.sight = awkward(unit.senses.sight);
      for (const { beat, effects } of unit.attacks) {
        if (beat.cooldown) beat.cooldown = awkward(beat.cooldown);
        if (effects.damage) effects.damage.amount = awkward(effects.damage.amount);
      }
    }
    for (const { waves } of document.encounters) for (const wave of waves) if (wave.delay) wave.delay = awkward(wave.delay);
    for (const { points } of document.arenas) for (const point of points) point.x = awkward(point.x);
  });

const LENS = '?tier=bloom&skill=regular';

test('going through every field of every view writes nothing', async () => {
  const id = await awkwardDemo();
  const before = await stored(id);
  const views = [
    `enemies/thistlejack/attacks/quill${LENS}`,
    `enemies/thistlejack${LENS}&edit=tier`,
    `enemies/head-gardener${LENS}`,
    `enemies/clipper-elder${LENS}`,
    `party/warden${LENS}`,
    `arenas/propagation-hall${LENS}`,
    `encounters/evening-shift${LENS}`,
    `difficulty/tiers${LENS}`,
    `difficulty/styles${LENS}`,
    `difficulty/traits${LENS}`,
    `brief${LENS}`,
  ];
  let fields = 0;
  for (const view of views) {
    const page = await open(`${id}/${view}`);
    await page.evaluate(() => document.fonts.ready);
    if (view.startsWith('enemies') || view.startsWith('party')) await button(page, 'main', 'all fields');
    const went = await page.evaluate(async () => {
      const seen = new Set<Element>();
      for (;;) {
        const next = [...document.querySelectorAll<HTMLInputElement>('input, textarea')].find(
          (one) => !seen.has(one) && !['checkbox', 'radio', 'file', 'range'].includes(one.type) && one.offsetParent,
        );
        if (!next) return seen.size;
        seen.add(next);
        for (const key of ['at once', 'Tab', 'Enter', 'Escape']) {
          next.focus();
          // What the field makes of it is drawn.
          if (key !== 'at once') await new Promise((done) => setTimeout(done));
          if (key !== 'at once') next.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
          next.blur();
        }
      }
    });
    fields += went;
    expect([view, went > 0]).toEqual([view, true]);
    await savedState(page, 'saved');
    expect([view, await stored(id)]).toEqual([view, before]);
    await page.close();
  }
  expect(fields).toBeGreaterThan(300);
});

test('pressing on what can be dragged, with a hand that trembles, writes nothing', async () => {
  const id = await awkwardDemo();
  const before = await stored(id);
  let handles = 0;
  for (const view of [
    `enemies/thistlejack/attacks/quill${LENS}`,
    `enemies/head-gardener${LENS}`,
    `arenas/propagation-hall${LENS}`,
    `encounters/evening-shift${LENS}`,
    `pacing/evening-shift${LENS}`,
    `brief${LENS}&band=kill`,
  ]) {
    const page = await open(`${id}/${view}`);
    await page.evaluate(() => document.fonts.ready);
    // In an encounter's plan a press on a point is the choice of it.
    const shapes = view.startsWith('encounters') ? '' : ', main svg [tabindex="0"]';
    for (const handle of await page.$$(`main [role=slider], main .edge${shapes}`)) {
      await handle.evaluate((one) => one.scrollIntoView({ block: 'nearest' })).catch(() => undefined);
      const box = await handle.boundingBox();
      if (!box) continue;
      handles++;
      const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
      await page.mouse.move(x, y);
      await page.mouse.down();
      await page.mouse.move(x + 1, y + 1);
      await page.mouse.move(x, y - 1);
      await page.mouse.up();
    }
    await savedState(page, 'saved');
    expect([view, await stored(id)]).toEqual([view, before]);
    await page.close();
  }
  expect(handles).toBeGreaterThan(40);
});
