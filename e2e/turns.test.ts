import { expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { button, choose, fill, group, press } from './support/bench';
import { seriousFindings } from './support/accessibility';
import { suite } from './support/suite';
import { fought, savedState } from './support/world';

const at = suite('turns');
const { project, open, stored } = at;

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
