/** Whoever goes through a form and types nothing has changed nothing, whatever stands there: numbers of many digits, words of several lines. */
import { expect, test } from '@jest/globals';
import { button } from './support/bench';
import { suite } from './support/suite';
import { savedState } from './support/world';

const { project, open, stored } = suite('passing');

const LINES = ' a line\nand another,\n\n\tthen a third ';
/** What has more digits than are shown, is written with an exponent, or is none at all. */
const awkward = (value: number) => value * (1 - 1e-9);

test('going through every field of every view writes nothing', async () => {
  const id = await project((document) => {
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
  const before = await stored(id);
  const lens = '?tier=bloom&skill=regular';
  const views = [
    `enemies/thistlejack/attacks/quill${lens}`,
    `enemies/thistlejack${lens}&edit=tier`,
    `enemies/head-gardener${lens}`,
    `enemies/clipper-elder${lens}`,
    `party/warden${lens}`,
    `arenas/propagation-hall${lens}`,
    `encounters/evening-shift${lens}`,
    `encounters/glasshouse-defence${lens}`,
    `difficulty/tiers${lens}`,
    `difficulty/skills${lens}`,
    `difficulty/styles${lens}`,
    `difficulty/traits${lens}`,
    `brief${lens}`,
    `table/enemies${lens}`,
    `history${lens}`,
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
