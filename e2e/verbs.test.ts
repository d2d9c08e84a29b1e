/** Verbs of a fight, each built once on the screen, its effect told by figures. */
import { describe, expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { parseProject } from '../packages/core/src';
import { Runner, compile } from '../packages/core/src/running';
import { choose, fill, fillAll, group, press } from './support/bench';
import { suite } from './support/suite';

const { project, open, stored } = suite('verbs');
const STATES = '[aria-label=States][role=region]';

/** The condition of a way is taken away: it holds always where ways are drawn among, else it is taken otherwise. */
async function unconditional(page: Page, state: string, way: number, to: string): Promise<void> {
  const opener = await page.waitForSelector(`${STATES} ${group(`Way ${way}`)} button[aria-label^="${state} leaves for ${to} when"]`);
  await opener!.click();
  const sheet = `.sheet[aria-label="${state} leaves for ${to} when"]`;
  await page.waitForSelector(sheet);
  await press(page, sheet, 'Take away');
  await press(page, sheet, 'Done');
  await page.waitForFunction((selector) => !document.querySelector(selector), {}, sheet);
}

/** How often a life takes a way, once the readout is of the present edit. */
const taken = (page: Page, way: number) => page.$eval(`${STATES} ${group(`Way ${way}`)} b`, (one) => Number(one.textContent));

/** What was built on the screen, run as it is kept. */
async function ran(id: string, encounter: string, seed: number, watch: Parameters<Runner['run']>[1]): Promise<void> {
  new Runner(compile(parseProject(await stored(id)), { encounter })).run(seed, watch);
}

describe('ways out of a state', () => {
  test('decides each half second, three times in four one way and once the other; nothing else leads anywhere', async () => {
    const id = await project((document) => {
      const jack = document.units.find((unit: any) => unit.id === 'thistlejack');
      jack.startsIn = 'hesitate';
      for (const state of jack.states) state.leaves = [];
    });
    const page = await open(`${id}/enemies/thistlejack?state=hesitate`);
    await press(page, STATES, 'Hesitate decides at intervals');
    await page.waitForSelector(`${STATES} ${group('Decides')}`);
    for (const [way, to, weight] of [
      [1, 'Close in', 3],
      [2, 'Back off', 1],
    ] as const) {
      await press(page, STATES, 'Add a way out of Hesitate');
      const part = `${STATES} ${group(`Way ${way}`)}`;
      await page.waitForSelector(part);
      await choose(page, part, `Way ${way} leads to`, to);
      await fill(page, part, `Way ${way} weight`, weight);
      await unconditional(page, 'Hesitate', way, to);
    }
    await page.waitForFunction(
      (ways) => {
        const figures = ways.map((way) => Number(document.querySelector(`[role=group][aria-label="${way}"] b`)?.textContent ?? NaN));
        return figures[0] + figures[1] > 0.85;
      },
      {},
      ['Way 1', 'Way 2'],
    );
    await page.waitForSelector('[data-saving=saved]');
    // Two hundred lives, each of which leaves once: 0.75 and 0.25, three standard errors are 0.09, and figures have one decimal.
    expect(await taken(page, 1)).toBeGreaterThanOrEqual(0.6);
    expect(await taken(page, 1)).toBeLessThanOrEqual(0.9);
    expect(await taken(page, 2)).toBeGreaterThanOrEqual(0.1);
    expect(await taken(page, 2)).toBeLessThanOrEqual(0.4);
    const kept = (await stored(id)).units.find((unit: any) => unit.id === 'thistlejack').states.find((one: any) => one.id === 'hesitate');
    expect(kept.decides).toEqual({ min: 0.5, max: 0.5 });
    expect(kept.leaves).toEqual([
      { to: 'close-in', after: 0, weight: 3 },
      { to: 'back-off', after: 0, weight: 1 },
    ]);
  });
});

describe('wandering and following', () => {
  test('keeps each direction for a second, stands for a third of them; another keeps three to five metres from it', async () => {
    const id = await project((document) => {
      const [encounter] = document.encounters;
      const [wave] = encounter.waves;
      const [group] = wave.groups;
      Object.assign(encounter, { waves: [wave], events: [], limit: 200 });
      Object.assign(wave, { start: 'atOnce', delay: 0 });
      delete wave.repeat;
      const one = { ...group, at: group.at.slice(0, 1), count: { min: 1, max: 1 }, alerted: false };
      delete one.elite;
      wave.groups = [
        { ...one, id: 'first', enemy: 'thistlejack', pool: [] },
        { ...one, id: 'second', enemy: 'clipper', pool: [] },
      ];
      for (const name of ['thistlejack', 'clipper']) {
        const unit = document.units.find((each: any) => each.id === name);
        Object.assign(unit.temper, { manner: 'passive' });
        unit.movement.acceleration = 0;
        unit.states = [{ ...unit.states[0], id: 'only', name: 'Only', leaves: [], does: 'hold', onTheWay: 'ignore' }];
        unit.startsIn = 'only';
        delete unit.leash;
        delete unit.states[0].stopAt;
        unit.health = { ...unit.health, max: 1e6, gates: [] };
      }
      for (const member of document.units.filter((each: any) => each.side === 'party')) member.temper.manner = 'passive';
    });
    const page = await open(`${id}/enemies/thistlejack`);
    await choose(page, STATES, 'Does', 'wander');
    await press(page, STATES, 'from place to place; keep directions for a time …');
    await page.waitForSelector(`${STATES} ${group('Directions')}`);
    await fillAll(page, `${STATES} ${group('Directions')}`, { 'Keeps it from': 1, 'Keeps it to': 1, Stands: 0.33 });
    await page.waitForSelector('[data-saving=saved]');
    await page.goto(`${page.url().split('/enemies/')[0]}/enemies/clipper`);
    await page.waitForSelector(STATES);
    await choose(page, STATES, 'Does', 'follow a friend');
    await fillAll(page, STATES, { 'Keeps from': 3, 'Keeps to': 5 });
    await press(page, STATES, 'the nearest of them; pick by criteria …');
    await page.waitForSelector(`${STATES} ${group('Whom it follows')}`);
    await choose(page, STATES, 'Criterion 1', 'role');
    await choose(page, STATES, 'Whom', 'skirmisher');
    await page.waitForSelector('[data-saving=saved]');

    const document = await stored(id);
    const stateOf = (name: string) => document.units.find((each: any) => each.id === name).states[0];
    expect(stateOf('thistlejack')).toMatchObject({ does: 'wander', roams: { min: 1, max: 1, stands: 0.33 } });
    expect(stateOf('clipper')).toMatchObject({ does: 'follow', near: 3, far: 5, picks: { criteria: [{ by: 'role', of: 'skirmisher' }] } });
    let stood = 0;
    let steps = 0;
    const gaps: number[] = [];
    await ran(id, document.encounters[0].id, 1, (fight, time) => {
      const [jack, clipper] = ['thistlejack', 'clipper'].map((name) => fight.alive.find((unit) => fight.kinds[unit].id === name)!);
      if (jack === undefined || clipper === undefined) return;
      steps++;
      if (fight.vx[jack] === 0 && fight.vy[jack] === 0) stood++;
      if (time > 20e6) gaps.push(fight.gap(jack, clipper));
    });
    // About 200 directions: three standard errors of a third are a tenth.
    expect(stood / steps).toBeGreaterThan(0.23);
    expect(stood / steps).toBeLessThan(0.44);
    expect(Math.min(...gaps)).toBeGreaterThan(2.5);
    expect(Math.max(...gaps)).toBeLessThan(5.6);
  });
});
