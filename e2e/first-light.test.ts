import { describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { pressAt } from './support/press';
import { suite } from './support/suite';
import {
  ROOT,
  cliDuel,
  drag,
  fetchProject,
  field,
  label,
  median,
  newDigest,
  openFile,
  openPage,
  savedState,
  startInstance,
} from './support/world';

const at = suite('light', { own: true });
const { address } = at;

const clipper = () => `${address()}/projects/verdance/enemies/clipper/attacks/bite?skill=regular&copies=3&distance=4`;
/** The same duel on the command line: three Clippers at four metres, near enough that all of them bite. */
const three = ['--skill', 'regular', '--copies', '3', '--distance', '4'];
async function open(address = clipper()): Promise<Page> {
  const page = await openPage(at.browser, at.errors);
  await page.goto(address);
  return page;
}
const cooldown = (project: any) => project.units.find((u: any) => u.id === 'clipper').attacks[0].beat.cooldown as number;
const press = async (page: Page, ...keys: string[]) => {
  const [last, ...held] = [...keys].reverse();
  for (const key of held) await page.keyboard.down(key as 'Control');
  await page.keyboard.press(last as 'z');
  for (const key of held) await page.keyboard.up(key as 'Control');
};

describe('one fight, end to end', () => {
  test('drag the cooldown: the readout follows as the command line and the server compute it; undo, redo, reload, restart', async () => {
    const page = await open();
    const first = await newDigest(page, null);
    const before = (await fetchProject(address())).document;
    expect(first).toBe(cliDuel(before, 'clipper', three).digest);

    // A longer pause between bites hurts less.
    const pressureBefore = cliDuel(before, 'clipper', three).kinds.find(({ id }) => id === 'clipper')!.damagePerAlertedSecond;
    await drag(page, await label(page, 'Bite cooldown'), 220);
    const second = await newDigest(page, first);
    await savedState(page, 'saved');
    const after = (await fetchProject(address())).document;
    expect(cooldown(after)).toBeGreaterThan(cooldown(before) + 0.2);
    const computed = cliDuel(after, 'clipper', three);
    expect(second).toBe(computed.digest);
    expect(computed.kinds.find(({ id }) => id === 'clipper')!.damagePerAlertedSecond).toBeLessThan(pressureBefore);
    expect(await median(page, 'Peak pressure')).toBeCloseTo(computed.encounter.peakPressureShare.median * 100, 9);
    const simulated = await fetch(`${address()}/api/projects/verdance/simulations`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ duel: { enemy: 'clipper', against: 'warden', copies: 3, distance: 4 }, skill: 'regular', runs: 200, seed: 1 }),
    });
    expect(((await simulated.json()) as { digest: string }).digest).toBe(second);

    // One drag is one change, with a name.
    expect(await page.$eval('[aria-label^="Undo:"]', (b) => b.getAttribute('aria-label'))).toMatch(
      /^Undo: Clipper Bite cooldown 1\.6 → \d/,
    );
    await press(page, 'Control', 'z');
    expect(await newDigest(page, second)).toBe(first);
    await press(page, 'Control', 'Shift', 'Z');
    expect(await newDigest(page, first)).toBe(second);
    await savedState(page, 'saved');

    await page.reload();
    expect(await newDigest(page, null)).toBe(second);

    const { home, port } = at.instance;
    expect(await at.instance.stop({ keep: true })).toBe(0);
    at.instance = await startInstance({ home, port });
    await page.reload();
    expect(await newDigest(page, null)).toBe(second);
    expect((await fetchProject(address())).document).toEqual(after);
  });

  test('the server goes away in the middle of the work and comes back: nothing is lost', async () => {
    const page = await open(`${address()}/projects/verdance/enemies/mulcher?skill=regular`);
    await newDigest(page, null);
    const { home, port } = at.instance;
    await at.instance.stop({ keep: true });
    const wanted = await field(page, 'main', 'Health');
    await wanted.focus();
    await wanted.type('131');
    await page.keyboard.press('Enter');
    await savedState(page, 'away');
    expect(await page.$eval('[data-saving]', (e) => e.textContent)).toContain('Server away: kept here, trying again');
    at.instance = await startInstance({ home, port });
    await savedState(page, 'saved');
    const { document } = await fetchProject(address());
    expect(document.units.find((u: { id: string }) => u.id === 'mulcher').health.max).toBe(131);
  });

  test('work that could not be saved is still there after the tab was closed', async () => {
    const context = await at.browser.createBrowserContext();
    const page = await context.newPage();
    await page.goto(`${address()}/projects/verdance/enemies/thistlejack`);
    await newDigest(page, null);
    await page.setRequestInterception(true);
    page.on('request', (request) => void (request.method() === 'PATCH' ? request.abort() : request.continue()));
    const wanted = await field(page, 'main', 'Walk');
    await wanted.focus();
    await wanted.type('2.7');
    await page.keyboard.press('Enter');
    await savedState(page, 'away');
    await page.close();
    const again = await context.newPage();
    await again.goto(`${address()}/projects/verdance/enemies/thistlejack`);
    await newDigest(again, null);
    await savedState(again, 'saved');
    const { document } = await fetchProject(address());
    expect(document.units.find((u: { id: string }) => u.id === 'thistlejack').movement.walk).toBe(2.7);
    await context.close();
  });

  test('an acknowledged write survives kill -9 of everything', async () => {
    const { home, port } = at.instance;
    const { document, etag } = await fetchProject(address());
    const value = document.units[1].health.max === 23 ? 24 : 23;
    const answer = await fetch(`${address()}/api/projects/verdance?label=by%20hand`, {
      method: 'PATCH',
      headers: { 'Content-Type': 'application/json-patch+json', 'If-Match': etag as string },
      body: JSON.stringify([{ op: 'replace', path: '/units/clipper/health/max', value }]),
    });
    expect(answer.status).toBe(200);
    const { killInstance } = (await import('../scripts/instance.mjs' as string)) as { killInstance: (i: object) => Promise<void> };
    await killInstance(at.instance);
    at.instance = await startInstance({ home, port });
    expect((await fetchProject(address())).document.units[1].health.max).toBe(value);
  });
});

describe('numbers', () => {
  test('expressions, arrows, Escape, limits, and editing through a tier', async () => {
    const page = await open(`${address()}/projects/verdance/enemies/thistlejack?tier=bramble`);
    let digest = await newDigest(page, null);
    const base = () => fetchProject(address()).then(({ document }) => document);
    const thistlejack = (document: any) => document.units.find((u: any) => u.id === 'thistlejack');

    const health = await field(page, 'main', 'Health');
    expect(await health.evaluate((e) => e.value)).toBe('35'); // 28 × 1.25
    await health.focus();
    await health.type('(20+4)*1.5');
    await page.keyboard.press('Enter');
    digest = await newDigest(page, digest);
    await savedState(page, 'saved');
    expect(thistlejack(await base()).health.max).toBe(36);

    await health.focus();
    await health.type('9999');
    await page.keyboard.press('Escape');
    expect(await health.evaluate((e) => e.value)).toBe('45');

    await health.focus();
    await health.type('-3');
    await page.keyboard.press('Enter');
    expect(await page.$eval('main [role=alert]', (e) => e.textContent)).toBe('at least 0.001');

    const run = await field(page, 'main', 'Run');
    await run.focus();
    await page.keyboard.press('ArrowUp');
    await press(page, 'Shift', 'ArrowUp');
    await page.keyboard.press('Enter');
    digest = await newDigest(page, digest);
    await savedState(page, 'saved');
    expect(thistlejack(await base()).movement.run).toBeCloseTo(6.3, 9);

    await pressAt(page, '[aria-label="What typing changes"] [aria-checked=false]');
    await page.waitForSelector('[aria-label="What typing changes"] [aria-checked=true]::-p-text(Bramble)');
    await run.focus();
    await run.type('4.9');
    await page.keyboard.press('Enter');
    await newDigest(page, digest);
    await savedState(page, 'saved');
    const document = await base();
    expect(thistlejack(document).movement.run).toBeCloseTo(6.3, 9);
    expect(document.tiers[2].tweaks.at(-1)).toEqual({ scope: 'unit', of: 'thistlejack', path: '/movement/run', op: '=', value: 4.9 });
    expect(await page.$eval('[aria-label="What typing changes"] [aria-checked=true]', (e) => e.textContent)).toContain('Bramble');
  });

  test('every edge of the strips can be moved by the keyboard', async () => {
    const page = await open(`${address()}/projects/verdance/enemies/mulcher`);
    await newDigest(page, null);
    const edges = await page.$$eval('main [role=slider]', (all) => all.map((e) => e.getAttribute('aria-label')));
    expect(edges).toEqual([
      'Slam range from',
      'Slam range to',
      'Trudge stops at',
      'sight',
      'lose',
      'Slam wind-up',
      'Slam active',
      'Slam recovery',
      'Slam cooldown',
    ]);
    for (const edge of edges) {
      const handle = await page.$(`[role=slider][aria-label="${edge}"]`);
      const value = Number(await handle!.evaluate((e) => e.getAttribute('aria-valuenow')));
      await handle!.evaluate((e) => (e as unknown as SVGElement).focus());
      await page.keyboard.press('ArrowRight');
      await page.waitForFunction(
        (name, old) => Number(document.querySelector(`[role=slider][aria-label="${name}"]`)?.getAttribute('aria-valuenow')) > old,
        { polling: 50 },
        edge,
        value,
      );
    }
  });
});

describe('two tabs', () => {
  test('changes to different places are merged; a clash is shown and nothing is overwritten', async () => {
    const one = await open(`${address()}/projects/verdance/enemies/clipper`);
    const two = await open(`${address()}/projects/verdance/enemies/clipper`);
    await newDigest(one, null);
    await newDigest(two, null);
    const type = async (page: Page, name: string, value: string) => {
      const wanted = await field(page, 'main', name);
      await wanted.focus();
      await wanted.type(value);
      await page.keyboard.press('Enter');
    };
    await type(one, 'Walk', '2.9');
    await savedState(one, 'saved');
    await type(two, 'Radius', '0.44');
    await savedState(two, 'saved');
    const unit = async () => (await fetchProject(address())).document.units.find((u: { id: string }) => u.id === 'clipper');
    expect(await unit()).toMatchObject({ movement: { walk: 2.9 }, body: { radius: 0.44 } });

    await type(one, 'Height', '0.8');
    await type(two, 'Height', '0.9');
    const late = await Promise.race([one, two].map((page) => page.waitForSelector('[role=alertdialog]').then(() => page)));
    expect(await late.$eval('[role=alertdialog]', (e) => e.textContent)).toContain('/units/clipper/body/height');
    const first = (await unit()).body.height as number;
    await pressAt(late, '[role=alertdialog] button:first-of-type');
    await savedState(late, 'saved');
    expect((await unit()).body.height).toBe(first === 0.8 ? 0.9 : 0.8);
  });
});

describe('duels worked out by hand (docs/worked-duels.md)', () => {
  test.each([
    ['worked-duel-1', 'clipper', 3.2, 32],
    ['worked-duel-2', 'mulcher', 4.5, 100 * (40 / 3 / 45)],
  ])('%s: readout and command line agree with the working', async (name, enemy, timeToDown, peak) => {
    const file = join(ROOT, `docs/duels/${name}.insidia.json`);
    const document = JSON.parse(readFileSync(file, 'utf8')) as object;
    const page = await open(address());
    await openFile(page, file);
    await page.waitForFunction((id) => location.pathname.startsWith(`/projects/${id}`), {}, name);
    await page.goto(`${address()}/projects/${name}/enemies/${enemy}?distance=0.5`);
    const digest = await newDigest(page, null);
    expect(await median(page, 'Time-to-down')).toBe(timeToDown);
    expect(await median(page, 'Peak pressure')).toBeCloseTo(peak, 9);
    const computed = cliDuel(document, enemy, ['--distance', '0.5']);
    expect(computed.digest).toBe(digest);
    expect(computed.members[0].timeToDown.median).toBe(timeToDown);
  });
});
