/** Fights in turns that begin with nothing: each from a new project to what the fight does. */
import { describe, expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { type Acts, BEAT, begun } from './support/acts';
import { group } from './support/bench';
import { suite } from './support/suite';
import { savedState } from './support/world';

const own = suite('turns-begun');
const { address, stored } = own;

const FIELDS = 'main > div';
const WHOLE = group('The whole encounter');

/** An encounter in seconds takes turns from now on. */
async function inTurns(acts: Acts, page: Page): Promise<void> {
  await acts.click(WHOLE, 'takes turns instead …');
  await acts.click('.sheet[aria-label="In turns"]', 'Derive from seconds');
  await page.waitForFunction(() => document.querySelector('[aria-label=Readout]')?.textContent?.includes('rounds'));
  await acts.chord('Escape');
}

/** What fifty fights of the first encounter, as it is saved, come to. */
async function simulated(id: string): Promise<any> {
  const { encounters } = await stored(id);
  const answer = await fetch(`${address()}/api/projects/${id}/simulations`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ encounter: encounters[0].id, runs: 50, seed: 1 }),
  });
  return answer.json();
}

const unitOf = (project: any, name: string) => project.units.find((unit: any) => unit.name === name);

describe('in turns, from nothing', () => {
  test('a boss without ground raises while it can pay, guards itself once below half, else draws', async () => {
    const { acts, page, id } = await begun(own, 'Boss in turns');
    await acts.enemy('rushes and bites', 'Helper');
    await acts.enemy('slow, heavy, announced', 'Boss');
    await acts.type('main', 'Health', 60);
    await acts.click(FIELDS, 'all fields');
    await acts.click(FIELDS, 'Add energy');
    await acts.type(FIELDS, 'Energy', 260);
    await acts.type(FIELDS, 'Energy at first', 260);
    await acts.type(FIELDS, 'Energy regen', 0);
    await acts.attack('plain: summon', 'Raise');
    await acts.click(BEAT, 'all fields');
    await acts.type(BEAT, 'Energy cost', 90);
    await acts.click('main', 'Slam in priority 1: more');
    await acts.click('.sheet', 'To a new priority');
    await acts.attack('a wide sweep', 'Sweep');
    await acts.attack('plain: itself', 'Bulwark');
    await acts.click(BEAT, 'Add charges');
    await acts.type(BEAT, 'Charges', 1);
    await acts.type(BEAT, 'Recharge', 600);
    await acts.click(BEAT, 'Add shield');
    await acts.click('main', 'Bulwark in priority 2: more');
    await acts.condition('Bulwark in priority 2 is usable if');
    await acts.click('.sheet', 'Add a condition');
    await acts.compare('its share of health', { is: 'below', value: 0.5 });
    await acts.section('Party');
    await acts.type('main', 'Health', 2000);
    await acts.encounter('one alone', 'The boss', 'Boss');
    await inTurns(acts, page);
    await acts.choose(group('Turns'), 'Ground', 'none');
    await savedState(page, 'saved');
    const made = await stored(id);
    expect(made.encounters[0]).toMatchObject({ clock: 'rounds', rounds: { ground: 'none' } });
    const { clock, kinds } = await simulated(id);
    expect(clock).toBe('rounds');
    const starts = (attack: string) =>
      kinds.find(({ name }: any) => name === 'Boss').attacks.find(({ name }: any) => name === attack).starts;
    // 260 of energy, 90 a raising, none regained: two in every fight. One guard at most, for its charge does not come back in time.
    expect(starts('Raise')).toBe(100);
    expect(starts('Bulwark')).toBeGreaterThan(0);
    expect(starts('Bulwark')).toBeLessThanOrEqual(50);
    expect(Math.min(starts('Slam'), starts('Sweep'))).toBeGreaterThan(0);
    expect(unitOf(made, 'Boss').choice.priorities.map(({ entries }: any) => entries.map(({ attack }: any) => attack))).toEqual([
      ['raise'],
      ['slam', 'sweep', 'bulwark'],
    ]);
    // Its bench asks for nothing that would need ground; back in seconds it does.
    await acts.section('Enemies');
    await acts.heading('Boss');
    const readout = 'aside[aria-label=Readout]';
    const asks = () => page.$$eval(`${readout} label, ${readout} [role=combobox]`, (all) => all.map((one) => one.textContent!.trim()));
    await page.waitForFunction((part) => document.querySelector(part)?.textContent?.includes('without ground'), {}, readout);
    expect((await asks()).filter((one) => /^(On|From|open ground)/.test(one))).toEqual([]);
    await acts.click(readout, 'with others …');
    await page.waitForSelector('.sheet[aria-label="How they stand"] [role=group]');
    expect(await page.$eval('.sheet[aria-label="How they stand"]', (one) => one.textContent)).not.toMatch(/Comes|wall/);
    await page.keyboard.press('Escape');
    await acts.click('[aria-label="The duel goes"]', 'seconds');
    await page.waitForFunction((part) => !document.querySelector(part)?.textContent?.includes('without ground'), {}, readout);
    const grounded = (await asks()).filter((one) => /^(From|open ground)/.test(one));
    expect(grounded.map((one) => one.slice(0, 4)).sort()).toEqual(['From', 'open']);
  });

  test('a burner goes for the store, cell by cell', async () => {
    const { acts, page, id } = await begun(own, 'Burner in turns');
    await acts.section('Arenas');
    await acts.click('main', '+ thing');
    await acts.section('Enemies');
    await acts.enemy('rushes and bites', 'Burner');
    await acts.state('wrecks a thing', 'Burn');
    await acts.encounter('one wave', 'The store');
    await acts.click(WHOLE, 'Thing');
    await inTurns(acts, page);
    await savedState(page, 'saved');
    const made = await stored(id);
    expect(made.encounters[0]).toMatchObject({ clock: 'rounds', ends: { defend: [made.arenas[0].points[0].id] } });
    expect(unitOf(made, 'Burner').states[1]).toMatchObject({ does: 'goTo', to: made.arenas[0].points[0].id });
    const { clock, kinds } = await simulated(id);
    expect(clock).toBe('rounds');
    expect(kinds.find(({ name }: any) => name === 'Burner').attacks[0].starts).toBeGreaterThan(0);
    // Its own replay tells whom it strikes: the thing among them.
    await page.goto(page.url().replace(/encounters\/[^?]*/, 'replay/the-store?seed=1'));
    await page.waitForFunction(() => /Bite of Burner( \d)? (hits|misses) Thing/.test(document.body.textContent ?? ''));
  });
});
