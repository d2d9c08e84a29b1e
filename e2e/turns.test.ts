import { expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { allFields, button, choose, fill, group, input, press } from './support/bench';
import { seriousFindings } from './support/accessibility';
import { suite } from './support/suite';
import { fought, savedState } from './support/world';

const at = suite('turns');
const { address, project, open, stored } = at;

/** The demo in turns once more. @returns its id */
async function archive(): Promise<string> {
  const made = await fetch(`${address()}/api/demo?of=archive`, { method: 'POST' });
  return ((await made.json()) as { id: string }).id;
}

const unitOf = (document: any, id: string) => document.units.find((one: any) => one.id === id);
const text = (page: Page, part: string) => page.$eval(part, (one) => (one as HTMLElement).innerText);

test('a fight in seconds is made to take turns with one button, fought, changed, told in rounds, played turn by turn, and turned back', async () => {
  const id = await project((document) => {
    document.encounters = document.encounters.filter((one: any) => one.id === 'first-bell');
    delete document.brief;
  });
  const page = await open(`${id}/encounters/first-bell?tier=bloom&skill=regular`);
  await fought(page);
  const whole = group('The whole encounter');
  await press(page, whole, 'takes turns instead …');
  await button(page, '.sheet[aria-label="In turns"]', 'Derive from seconds');
  expect(await text(page, '.sheet[aria-label="In turns"]')).toContain(
    'Written: how the turns of First Bell go, and what Warden, Clipper are in turns.',
  );
  await fill(page, '.sheet[aria-label="In turns"]', 'A round', 2);
  await press(page, '.sheet[aria-label="In turns"]', 'Derive from seconds');
  await page.waitForFunction(() => document.querySelector('[aria-label=Readout]')?.textContent?.includes('rounds'));
  await savedState(page, 'saved');
  const turned = await stored(id);
  expect(turned.encounters[0]).toMatchObject({ clock: 'rounds', rounds: { limit: expect.any(Number), ground: 'squares' } });
  expect([unitOf(turned, 'clipper').rounds.moves > 0, unitOf(turned, 'warden').rounds.moves > 0]).toEqual([true, true]);
  expect(unitOf(turned, 'mulcher').rounds).toBeUndefined();
  expect(await seriousFindings(page)).toEqual([]);

  // How the turns go, on the form: the time limit is gone, the rounds have one.
  const turns = group('Turns');
  await fill(page, turns, 'Round limit', 12);
  await choose(page, turns, 'Begins', 'the enemies');
  await page.waitForFunction(() => document.querySelector('[aria-label=Readout][aria-busy=false] [data-testid=digest]'));
  await savedState(page, 'saved');
  expect((await stored(id)).encounters[0].rounds).toMatchObject({ limit: 12, first: 'theirs' });
  const readout = await text(page, '[aria-label=Readout]');
  expect(readout).toMatch(/Length\s+\d+(\.\d+)? rounds/);
  expect(readout).toContain('%/round');
  expect(readout).not.toContain('Engaged at once');

  // What an edit adds to a unit of that fight says there what it is in turns.
  await page.goto(page.url().replace(/encounters\/first-bell/, 'enemies/clipper'));
  await fought(page);
  await press(page, 'main', 'all fields');
  const own = group('In turns');
  await page.waitForSelector(own);
  await fill(page, own, 'Moves', 3);
  await press(page, own, '+ senses in turns');
  await fill(page, group('Senses in turns'), 'Sight', 9);
  await savedState(page, 'saved');
  expect(unitOf(await stored(id), 'clipper').rounds).toMatchObject({ moves: 3, senses: { sight: 9 } });

  // The replay goes turn by turn.
  await page.goto(page.url().replace(/enemies\/clipper[^?]*/, 'replay/first-bell'));
  await page.waitForFunction(() => document.querySelector('[aria-label="A step on"]'));
  await page.waitForFunction(() => document.body.textContent?.includes('has had its turn'));
  const before = await page.$eval('[role=slider][aria-valuetext^="round"]', (one) => Number(one.getAttribute('aria-valuenow')));
  await press(page, 'main', 'A step on');
  await page.waitForFunction(
    (was) => Number(document.querySelector('[role=slider][aria-valuetext^="round"]')?.getAttribute('aria-valuenow')) === was + 1,
    {},
    before,
  );

  // Back to seconds: the fight is the one it was, and what is in turns is kept.
  await page.goto(page.url().replace(/replay\/first-bell/, 'encounters/first-bell'));
  await fought(page);
  await press(page, whole, 'back to seconds');
  await page.waitForFunction(() => document.querySelector('[aria-label=Readout]')?.textContent?.includes('Engaged at once'));
  await savedState(page, 'saved');
  const back = (await stored(id)).encounters[0];
  expect([back.clock, back.rounds.limit]).toEqual(['continuous', 12]);
});

/** The readout of an encounter says something of forty fights or more, or does not: on a busy machine it is told to go on. */
const readoutSays = (page: Page, words: string, says = true) =>
  page.waitForFunction(
    (wanted, meant) => {
      const readout = document.querySelector('[aria-label=Readout]');
      const told = readout?.textContent ?? '';
      if (Number(/(\d+) runs/.exec(told)?.[1] ?? 0) >= 40 && told.includes(wanted) === meant) return true;
      for (const one of readout?.querySelectorAll('button') ?? []) if (one.textContent === 'go on') one.click();
      return false;
    },
    {},
    words,
    says,
  );

test('the replay of a fight in turns: who comes next, where it can go and what to expect there, by keys as by pointer', async () => {
  const id = await archive();
  const page = await open(`${id}/replay/store-room?tier=dormant&seed=7&at=24`);
  const order = 'section[aria-label="Order of turns"]';
  await page.waitForSelector(order);
  const cells = '[role=status][aria-label=Cells]';
  await page.waitForFunction(
    (part) => /^Next .+ can come to \d+ cells? and strike in \d+/.test(document.querySelector(part)?.textContent ?? ''),
    {},
    cells,
  );
  expect(await seriousFindings(page)).toEqual([]);

  // Another one of the list is looked at.
  const names = await page.$$eval(`${order} li button`, (all) => all.map((one) => one.textContent ?? ''));
  expect(names.some((name) => name.includes('Seed store'))).toBe(false);
  await press(page, order, names.find((name) => name.includes('Tender'))!.trim());
  await page.waitForFunction((part) => document.querySelector(part)?.textContent?.startsWith('Next Tender '), {}, cells);
  expect(await page.$eval(`${order} [aria-current=true]`, (one) => one.textContent)).toContain('Tender');

  // By keys from cell to cell: from where it stands, to the west, to the end of the row; the clock stays.
  const round = await text(page, '[data-testid=clock]');
  await page.focus('[data-testid=stage]');
  await page.keyboard.press('ArrowLeft');
  const saysCell = (pattern: string) =>
    page.waitForFunction((part, wanted) => new RegExp(wanted).test(document.querySelector(part)?.textContent ?? ''), {}, cells, pattern);
  await saysCell('^Column \\d+, row \\d+: Tender stands there');
  await page.keyboard.press('Home');
  await saysCell('^Column 1, row \\d+');
  await page.keyboard.press('ArrowRight');
  await saysCell('^Column 2, row \\d+');
  await page.keyboard.press('Escape');
  await saysCell('^Next Tender ');
  expect(await text(page, '[data-testid=clock]')).toBe(round);
  // What the cells show.
  const picture = () => page.$eval('[data-testid=stage]', (one) => (one as HTMLCanvasElement).toDataURL());
  const reach = await picture();
  await press(page, '[role=radiogroup][aria-label="Cells show"]', 'harm');
  await page.waitForFunction((was) => (document.querySelector('[data-testid=stage]') as HTMLCanvasElement).toDataURL() !== was, {}, reach);

  // Without ground there is an order alone.
  await page.goto(`${address()}/projects/${id}/replay/index?tier=dormant&seed=1&at=5`);
  await page.waitForSelector(order);
  expect(await page.$(cells)).toBeNull();
  expect(await page.$('section[aria-label=Approach]')).toBeNull();
});

test('the faults of the archive are found on the screens, and mended', async () => {
  const id = await archive();
  // A rule that never fires is told on the enemy, and put above the draw with one press.
  const page = await open(`${id}/enemies/binder?tier=dormant`);
  await fought(page);
  expect(await page.$eval('[aria-label="The duel goes"] [aria-checked=true]', (one) => one.textContent)).toBe('turns');
  await press(page, 'main', '1 warning');
  await page.waitForFunction(() => document.body.textContent?.includes('nothing of priority 2 is ever begun in turns'));
  await press(page, 'body', 'Put it above');
  await savedState(page, 'saved');
  await page.waitForFunction(() => ![...document.querySelectorAll('main button')].some((one) => one.textContent === '1 warning'));
  expect(unitOf(await stored(id), 'binder').choice.priorities[0].entries[0].attack).toBe('bind');

  // Nobody is ever in reach of the Lamp Snail: its fight says so; a longer beam over lower shelves is the mend.
  const found = 'no Lamp Snail ever struck at the party: in none of its turns was anybody in reach';
  await page.goto(`${address()}/projects/${id}/encounters/store-room?tier=dormant`);
  await fought(page);
  await readoutSays(page, found);
  expect(unitOf(await stored(id), 'lamp-snail').attacks[0].rounds.to).toBe(3);
  await page.goto(`${address()}/projects/${id}/enemies/lamp-snail/attacks/beam?tier=dormant`);
  await fought(page);
  await allFields(page, 'section[aria-label=Beat]');
  await fill(page, group('Beam in turns'), 'Range to', 12);
  await savedState(page, 'saved');
  const saved = await fetch(`${address()}/api/projects/${id}?label=${encodeURIComponent('Shelves lowered')}`, {
    method: 'PATCH',
    headers: {
      'Content-Type': 'application/json-patch+json',
      'If-Match': (await fetch(`${address()}/api/projects/${id}`)).headers.get('ETag')!,
    },
    body: JSON.stringify(['f', 'g'].map((wall) => ({ op: 'replace', path: `/arenas/stacks/walls/${wall}/height`, value: 0.8 }))),
  });
  expect(saved.status).toBe(200);
  await page.goto(`${address()}/projects/${id}/encounters/store-room?tier=dormant`);
  await fought(page);
  await readoutSays(page, found, false);

  // Those that the vine calls come faster than they fall; let it rest, and the core is kept.
  await page.goto(`${address()}/projects/${id}/encounters/cold-core?tier=dormant`);
  await fought(page);
  await readoutSays(page, 'faster than they fall');
  expect(await page.$eval('[data-measure="Win share"] [data-median]', (one) => Number((one as HTMLElement).dataset.median))).toBeLessThan(
    0.1,
  );
  await page.goto(`${address()}/projects/${id}/enemies/caller-vine/attacks/call?tier=dormant`);
  await fought(page);
  await allFields(page, 'section[aria-label=Beat]');
  await fill(page, group('Call in turns'), 'Cooldown', 5);
  await savedState(page, 'saved');
  await page.goto(`${address()}/projects/${id}/encounters/cold-core?tier=dormant`);
  await fought(page);
  await readoutSays(page, 'faster than they fall', false);
  expect(
    await page.$eval('[data-measure="Win share"] [data-median]', (one) => Number((one as HTMLElement).dataset.median)),
  ).toBeGreaterThan(0.6);
});

test('an enemy’s duel takes turns: its bench, its readout, its replay; and goes by seconds where that is asked for', async () => {
  const id = await archive();
  const page = await open(`${id}/enemies/lamp-snail?tier=dormant`);
  await fought(page);
  const readout = () => text(page, '[aria-label=Readout]');
  expect(await readout()).toMatch(/Rounds-to-kill\s+\d+\.\d rounds/);
  expect(await readout()).not.toContain('Paper and simulated');
  // Six cells apart on a board of its own, and no field of the bench speaks of seconds.
  expect(await (await input(page, '[aria-label=Readout]', 'From')).evaluate((one) => one.getAttribute('aria-valuetext'))).toBe('6 cells');
  expect(await text(page, 'main section[aria-label=Reach]')).toContain('cells from one body to the other');
  await page.waitForSelector('[aria-label="Beat strip of Beam in turns"]');
  expect(await page.$('[aria-label="Beat strip of Beam in seconds"]')).toBeNull();
  expect(await seriousFindings(page)).toEqual([]);

  // An edge of the strip by the keyboard: one turn more of cooldown.
  const { cooldown } = unitOf(await stored(id), 'lamp-snail').attacks[0].rounds;
  await page.$eval('[aria-label="Beam cooldown"]', (one) => (one as SVGGElement).focus());
  await page.keyboard.press('ArrowRight');
  await savedState(page, 'saved');
  expect(unitOf(await stored(id), 'lamp-snail').attacks[0].rounds.cooldown).toBe(cooldown + 1);
  await fought(page);

  // The run behind the chart is turn by turn.
  await press(page, '[aria-label=Readout]', 'open');
  await page.waitForFunction(() => document.body.textContent?.includes('has had its turn'));
  await page.goBack();
  await fought(page);

  await press(page, '[aria-label="The duel goes"]', 'seconds');
  await page.waitForFunction(() =>
    document.querySelector('[aria-label=Readout][aria-busy=false]')?.textContent?.includes('Paper and simulated'),
  );
  expect(await readout()).toMatch(/Time-to-kill\s+\d+\.\d s/);
  await page.waitForSelector('[aria-label="Beat strip of Beam in seconds"]');
  expect(new URL(page.url()).searchParams.get('clock')).toBe('continuous');
});
