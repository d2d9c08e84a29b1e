import { describe, expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { allFields, choose, choosesAll, condition, fill, fillAll, group, press, tick } from './support/bench';
import { pressAt } from './support/press';
import { suite } from './support/suite';
import { demo, fetchProject, newDigest, openPage, savedState, shortFights } from './support/world';

const at = suite('bench');
const { address } = at;

const unitOf = (document: any, id: string) => document.units.find((unit: any) => unit.id === id);
const stored = async (project: string, id: string) => unitOf((await fetchProject(address(), project)).document, id);

/** A project with a party and a Mulcher only: everything else is to be made. */
async function bare(id: string): Promise<void> {
  const document = demo();
  shortFights(document);
  const kept = {
    ...document,
    id,
    name: id,
    variants: [],
    encounters: [],
    tiers: [],
    skills: [],
    styles: [],
    brief: { bands: [], curves: [] },
    tuning: undefined,
  };
  kept.units = document.units.filter((unit: any) => ['warden', 'tender', 'mulcher'].includes(unit.id));
  const response = await fetch(`${address()}/api/projects`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(kept),
  });
  expect(response.status).toBe(201);
}

async function bench(path: string): Promise<Page> {
  const page = await openPage(at.browser, at.errors);
  await page.goto(`${address()}/projects/${path}`);
  await page.waitForSelector('main h1');
  return page;
}

/** An empty enemy of a name, on the bench with its body folded out. */
async function newEnemy(project: string, name: string): Promise<Page> {
  const page = await bench(`${project}/enemies/mulcher`);
  await press(page, 'aside', 'New enemy');
  await press(page, '.sheet', 'empty');
  await fill(page, '.sheet', 'Name', name);
  await page.waitForFunction((wanted) => document.querySelector('main h1')?.textContent === wanted, {}, name);
  await allFields(page, 'main > div');
  return page;
}

async function newAttack(page: Page, name: string, delivery: string): Promise<void> {
  await press(page, 'section[aria-label=Beat]', 'New attack');
  await press(page, '.sheet[aria-label="New attack"]', `plain: ${delivery}`);
  await fill(page, '.sheet[aria-label="New attack"]', 'Name', name);
  await page.waitForFunction((wanted) => document.querySelector('[role=tab][aria-selected=true]')?.textContent === wanted, {}, name);
  await allFields(page, 'section[aria-label=Beat]');
}

async function newState(page: Page, name: string, does: string): Promise<void> {
  await press(page, '[aria-label=States][role=region]', 'New state');
  await press(page, '.sheet[aria-label="New state"]', `plain: ${does}`);
  await fill(page, '.sheet[aria-label="New state"]', 'Name', name);
  await page.waitForFunction(
    (wanted) => document.querySelector('[role=option][aria-selected=true]')?.textContent?.includes(wanted),
    {},
    name,
  );
}

const BEAT = 'section[aria-label=Beat]';
const STATES = '[aria-label=States][role=region]';
const CHOICE = '[aria-label=Choice][role=region]';
const shownAs = (page: Page, role: string, sign: string, colour: string, notes: string) =>
  (async () => {
    await fill(page, group('Shown as'), 'Role', role);
    await choose(page, group('Shown as'), 'Sign', sign);
    await choose(page, group('Shown as'), 'Colour', colour);
    await fill(page, group('Shown as'), 'Notes', notes);
  })();

async function answeredBy(page: Page, ...names: string[]): Promise<void> {
  const all = ['stepping out', 'a dodge', 'a block', 'breaking the line', 'interrupting'];
  await choosesAll(page, `${BEAT} ${group('Answered by')}`, all); // all of them are on at first
  await choosesAll(page, `${BEAT} ${group('Answered by')}`, names);
}

async function addEffect(page: Page, name: string, values: Record<string, number>): Promise<void> {
  await press(page, BEAT, `Add ${name.toLowerCase()}`);
  await fillAll(page, `${BEAT} ${group(name)}`, values);
}

const wayOut = async (
  page: Page,
  state: string,
  number: number,
  to: string,
  after: number,
  ...asked: Parameters<typeof condition>[2][]
) => {
  await press(page, STATES, `Add a way out of ${state}`);
  const way = `${STATES} ${group(`Way ${number}`)}`;
  await page.waitForSelector(way);
  await choose(page, way, `Way ${number} leads to`, to);
  if (after) await fill(page, way, `Way ${number} not before`, after);
  await pressAt(page, `${way} button[aria-label^="${state} leaves for ${to} when"]`);
  await condition(page, `${state} leaves for ${to} when`, ...asked);
};

describe('an enemy made from nothing', () => {
  test('the Clipper: a body, one bite with every kind of number, one state', async () => {
    await bare('make-clipper');
    const page = await newEnemy('make-clipper', 'Clipper');
    await shownAs(page, 'swarm', 'seeds', 'clay', 'Hedge shears on legs: fast, weak, one bite.');
    await fillAll(page, group('Body'), { Radius: 0.35, Eye: 0.55, Height: 0.7, Muzzle: 0.4 });
    await fill(page, group('Health'), 'Health', 22);
    await fillAll(page, group('Movement'), { Walk: 2.4, Run: 7, Acceleration: 20, Turn: 480 });
    await fillAll(page, group('Senses'), {
      Sight: 16,
      'Sight angle': 240,
      Lose: 22,
      Memory: 4,
      'Notices in': 0.35,
      '± spread': 0.1,
      'Looks every': 0.2,
    });
    await fillAll(page, group('Between attacks'), { 'Pause to': 0.4, 'Pause from': 0.1 });
    await fillAll(page, group('On death'), { 'Revivable for': 14, Revivals: 9 });
    await newAttack(page, 'Bite', 'melee');
    await fillAll(page, BEAT, {
      'Wind-up': 0.45,
      Active: 0.4,
      'Hits every': 0.1,
      Recovery: 0.3,
      'Cooldown, from its start': 1.6,
      'Range to': 0.9,
    });
    await fillAll(page, `${BEAT} ${group('When')}`, { Facing: 35, Arc: 110 });
    await choose(page, `${BEAT} ${group('Beat')}`, 'Moving', 'slowly');
    await addEffect(page, 'Damage', { Damage: 3, 'Damage ±': 1 });
    await choose(page, `${BEAT} ${group('Hits')}`, 'Each target', 'every hit');
    await fillAll(page, `${BEAT} ${group('Hits')}`, { Targets: 1, 'Accuracy far': 0.9 });
    await answeredBy(page, 'stepping out', 'a dodge', 'interrupting');
    await press(page, BEAT, 'Add attack slot');
    await newState(page, 'Rush', 'approach');
    await savedState(page, 'saved');
    expect(await stored('make-clipper', 'clipper')).toEqual(unitOf(demo(), 'clipper'));
    // What has just been made fights at once.
    expect(await newDigest(page, null)).toMatch(/^[0-9a-f]{16}$/);
  });

  test('the Thistlejack: shots, a choice by weights, four states and what leads from one to another', async () => {
    await bare('make-thistlejack');
    const page = await newEnemy('make-thistlejack', 'Thistlejack');
    await shownAs(page, 'skirmisher', 'fork', 'violet', 'Throws quills from a kept distance and backs off when crowded.');
    await fillAll(page, group('Body'), { Radius: 0.45, Eye: 1.3, Height: 1.5, Muzzle: 1.1 });
    await fill(page, group('Health'), 'Health', 28);
    await fill(page, group('Armour'), 'Resist another kind', 'solvent');
    await fill(page, group('Armour'), 'Resists solvent', -0.25);
    await fillAll(page, group('Movement'), { Walk: 2.4, Run: 5.2, Turn: 420 });
    await fillAll(page, group('Senses'), {
      'Sight angle': 200,
      Lose: 19,
      Memory: 4,
      'Notices in': 0.45,
      '± spread': 0.12,
      'Looks every': 0.2,
    });
    await fillAll(page, group('Targeting'), { Reconsiders: 0.8, Commitment: 0.15 });
    await fillAll(page, group('Between attacks'), { 'Pause to': 0.6, 'Pause from': 0.2 });
    await fill(page, group('On death'), 'Worth', 3);

    await newAttack(page, 'Quill', 'shot that flies');
    await fillAll(page, BEAT, { 'Wind-up': 0.5, Recovery: 0.3, 'Cooldown, from its start': 1.6, 'Range to': 11, 'Range from': 4 });
    await fill(page, `${BEAT} ${group('When')}`, 'Facing', 15);
    await choose(page, `${BEAT} ${group('Beat')}`, 'Moving', 'slowly');
    await fillAll(page, `${BEAT} ${group('Shot')}`, { 'Shot radius': 0.08, Lead: 0.6 });
    await addEffect(page, 'Damage', { Damage: 5, 'Damage ±': 1 });
    await fillAll(page, `${BEAT} ${group('Hits')}`, { Targets: 1, 'Accuracy near': 0.9, 'Accuracy far': 0.65 });
    await answeredBy(page, 'a dodge', 'stepping out', 'breaking the line');

    await newAttack(page, 'Quill fan', 'shot that flies');
    await choose(page, `${BEAT} ${group('Beat')}`, 'Cooldown from', 'its end');
    await choose(page, `${BEAT} ${group('Beat')}`, 'Aim', 'fixed');
    await fillAll(page, BEAT, {
      'Wind-up': 0.55,
      Active: 0.3,
      'Hits every': 0.1,
      Recovery: 0.35,
      'Cooldown, from its end': 2.4,
      'Range to': 6,
      'Range from': 2,
    });
    await fill(page, `${BEAT} ${group('When')}`, 'Facing', 15);
    await fillAll(page, `${BEAT} ${group('Shot')}`, { Speed: 22, 'Shot radius': 0.08, 'Spread angle': 6 });
    await addEffect(page, 'Damage', { Damage: 4, 'Damage ±': 1 });
    await choose(page, `${BEAT} ${group('Hits')}`, 'Each target', 'every hit');
    await fillAll(page, `${BEAT} ${group('Hits')}`, { Targets: 1, 'Accuracy near': 0.9, 'Accuracy far': 0.75 });
    await answeredBy(page, 'a dodge', 'breaking the line');

    await newAttack(page, 'Kick', 'melee');
    await fillAll(page, BEAT, { 'Wind-up': 0.3, Active: 0.1, Recovery: 0.4, 'Cooldown, from its start': 1.2, 'Range to': 1.4 });
    await fillAll(page, `${BEAT} ${group('When')}`, { Facing: 40, Arc: 80 });
    await addEffect(page, 'Damage', { Damage: 8, 'Damage ±': 2 });
    await fill(page, `${BEAT} ${group('Hits')}`, 'Targets', 1);

    // Kick first, then the fan, then the single quill.
    await press(page, CHOICE, 'Kick in priority 1: more');
    await press(page, '.sheet', 'Move Kick up');
    await page.keyboard.press('Escape');
    await press(page, CHOICE, 'Kick in priority 1: more');
    await press(page, '.sheet', 'Move Kick up');
    await page.keyboard.press('Escape');
    await press(page, CHOICE, 'Quill fan in priority 1: more');
    await press(page, '.sheet', 'Move Quill fan up');
    await page.keyboard.press('Escape');
    for (const [index, weight] of [20, 60, 40].entries()) {
      await page.evaluate((n) => {
        document.querySelectorAll('[data-entry]').forEach((each) => each.removeAttribute('data-entry'));
        const labels = [...document.querySelectorAll('[aria-label=Choice][role=region] label')].filter(
          (one) => one.textContent === 'Weight',
        );
        labels[n].closest('div')?.setAttribute('data-entry', '');
      }, index);
      await fill(page, '[data-entry]', 'Weight', weight);
    }

    await newState(page, 'Close in', 'approach');
    await fill(page, STATES, 'Stops at', 9);
    await newState(page, 'Keep band', 'circle in a band');
    await choose(page, STATES, 'Pace', 'walk');
    await fillAll(page, STATES, { 'Keeps to': 10, 'Keeps from': 7 });
    await newState(page, 'Back off', 'flee');
    await fill(page, STATES, 'Factor', 1.1);
    await newState(page, 'Hesitate', 'hold');
    await choose(page, STATES, 'Pace', 'walk');
    await wayOut(page, 'Hesitate', 1, 'Close in', 0.9, { what: 'the time in this state', is: 'above', value: 0.9 });
    const select = (name: string) =>
      page.evaluate((wanted) => {
        const rows = [...document.querySelectorAll<HTMLElement>('[aria-label=States] [role=option]')];
        rows.find((row) => row.textContent?.includes(wanted))?.click();
      }, name);
    await select('Close in');
    await wayOut(page, 'Close in', 1, 'Keep band', 0, { what: 'the distance to its target', is: 'below', value: 10 });
    await select('Keep band');
    await wayOut(page, 'Keep band', 1, 'Close in', 0, { what: 'the distance to its target', is: 'above', value: 11.5 });
    await wayOut(page, 'Keep band', 2, 'Back off', 0, { what: 'the distance to its target', is: 'below', value: 3.5 });
    await wayOut(
      page,
      'Keep band',
      3,
      'Hesitate',
      3,
      { what: 'a chance drawn on entering the state, or as it decides', chance: 0.25 },
      { what: 'the time since it last began an attack', is: 'above', value: 1.2 },
    );
    await select('Back off');
    await wayOut(page, 'Back off', 1, 'Keep band', 0.4, { what: 'the distance to its target', is: 'above', value: 6 });
    await savedState(page, 'saved');
    expect(await stored('make-thistlejack', 'thistlejack')).toEqual(unitOf(demo(), 'thistlejack'));
  });

  test('the Sapwright: help for friends paid with energy, three priorities, one with a condition', async () => {
    await bare('make-sapwright');
    const page = await newEnemy('make-sapwright', 'Sapwright');
    await shownAs(page, 'support', 'cross', 'teal', unitOf(demo(), 'sapwright').notes);
    await fillAll(page, group('Body'), { Radius: 0.5, Eye: 1.4, Height: 1.6, Muzzle: 1.1 });
    await fill(page, group('Health'), 'Health', 46);
    await press(page, 'main', 'Add energy');
    await fillAll(page, group('Energy'), { Energy: 120, 'Energy at first': 120, 'Energy regen': 7 });
    await fillAll(page, group('Movement'), { Walk: 2, Run: 4.2, Turn: 360 });
    await fillAll(page, group('Senses'), {
      Sight: 16,
      'Sight angle': 240,
      Lose: 24,
      Memory: 5,
      'Notices in': 0.4,
      '± spread': 0.1,
      'Looks every': 0.2,
    });
    await fillAll(page, group('Between attacks'), { 'Pause to': 0.5, 'Pause from': 0.2 });
    await fill(page, group('On death'), 'Worth', 5);

    await newAttack(page, 'Raise', 'support');
    await choose(page, `${BEAT} ${group('When')}`, 'For', 'fallen friends');
    await fillAll(page, BEAT, { 'Wind-up': 0.8, Recovery: 0.4, 'Cooldown, from its start': 3.8, 'Range to': 9 });
    await addEffect(page, 'Revive', { 'Heals share': 0.6 });
    await fill(page, `${BEAT} ${group('Costs')}`, 'Energy cost', 18);
    await fill(page, `${BEAT} ${group('Broken off')}`, 'Broken by', 8);

    await newAttack(page, 'Mend', 'support');
    await fillAll(page, BEAT, { 'Wind-up': 0.7, Recovery: 0.4, 'Cooldown, from its start': 2.4, 'Range to': 8 });
    await addEffect(page, 'Heal', { Heals: 12 });
    await fill(page, `${BEAT} ${group('Costs')}`, 'Energy cost', 12);

    await newAttack(page, 'Sap spit', 'shot that flies');
    await fillAll(page, BEAT, { 'Wind-up': 0.5, Recovery: 0.4, 'Cooldown, from its start': 2.6, 'Range to': 9, 'Range from': 1 });
    await fill(page, `${BEAT} ${group('When')}`, 'Facing', 20);
    await choose(page, `${BEAT} ${group('Beat')}`, 'Moving', 'slowly');
    await fillAll(page, `${BEAT} ${group('Shot')}`, { Speed: 14, 'Shot radius': 0.12, Lead: 0.4 });
    await addEffect(page, 'Damage', { Damage: 4, 'Damage ±': 1 });
    await addEffect(page, 'Slow', { 'Slowed by': 0.35, For: 2 });
    await fillAll(page, `${BEAT} ${group('Hits')}`, { 'Accuracy near': 0.9, 'Accuracy far': 0.6 });
    await tick(page, `${BEAT} ${group('Hits')}`, 'Hurts friends', false);
    await answeredBy(page, 'a dodge', 'stepping out', 'breaking the line');

    // Each attack to a priority of its own, from the top.
    await press(page, CHOICE, 'Sap spit in priority 1: more');
    await press(page, '.sheet', 'To a new priority');
    await press(page, CHOICE, 'Mend in priority 1: more');
    await press(page, '.sheet', 'To priority 2');
    const prioritised = async () =>
      (await stored('make-sapwright', 'sapwright')).choice.priorities.map((each: any) => each.entries.map((e: any) => e.attack));
    await savedState(page, 'saved');
    expect(await prioritised()).toEqual([['raise'], ['sap-spit', 'mend']]);
    await press(page, CHOICE, 'Sap spit in priority 2: more');
    await press(page, '.sheet', 'To a new priority');
    await pressAt(page, `${CHOICE} ${group('Priority 1')} button[aria-label^="Priority 1 is tried if"]`);
    await press(page, '.sheet', 'Add a condition');
    await condition(page, 'Priority 1 is tried if', { what: 'the number of fallen friends', is: 'above', value: 0, within: 9 });

    await newState(page, 'Tend', 'follow a friend');
    await choose(page, STATES, 'Follows', 'Mulcher');
    await fill(page, STATES, 'Keeps to', 3);
    await newState(page, 'Keep away', 'keep a band');
    await fillAll(page, STATES, { 'Keeps to': 10, 'Keeps from': 7 });
    await newState(page, 'Shrink back', 'flee');
    await wayOut(page, 'Shrink back', 1, 'Tend', 0.5, { what: 'the distance to the nearest foe', is: 'above', value: 7 });
    const select = (name: string) =>
      page.evaluate((wanted) => {
        const rows = [...document.querySelectorAll<HTMLElement>('[aria-label=States] [role=option]')];
        rows.find((row) => row.textContent?.includes(wanted))?.click();
      }, name);
    await select('Keep away');
    await wayOut(page, 'Keep away', 1, 'Shrink back', 0, { what: 'the distance to the nearest foe', is: 'below', value: 4 });
    await wayOut(page, 'Keep away', 2, 'Tend', 1, { what: 'the number of friends', is: 'above', value: 0, within: 9 });
    await select('Tend');
    await wayOut(page, 'Tend', 1, 'Shrink back', 0, { what: 'the distance to the nearest foe', is: 'below', value: 4.5 });
    await press(page, STATES, 'Add a way out of Tend');
    const way = `${STATES} ${group('Way 2')}`;
    await page.waitForSelector(way);
    await choose(page, way, 'Way 2 leads to', 'Keep away');
    await fill(page, way, 'Way 2 not before', 1);
    await pressAt(page, `${way} button[aria-label^="Tend leaves for Keep away when"]`);
    const sheet = '.sheet[aria-label="Tend leaves for Keep away when"]';
    await choose(page, sheet, 'What', 'the number of friends');
    await choose(page, sheet, 'Is', 'above');
    await fillAll(page, sheet, { Value: 0, Within: 9 });
    await press(page, sheet, 'not …');
    await press(page, sheet, 'Done');
    await savedState(page, 'saved');

    // Ids are made of names and stay: the demo's are shorter in three places.
    const made = JSON.stringify(await stored('make-sapwright', 'sapwright'))
      .replaceAll('"sap-spit"', '"sap"')
      .replaceAll('"keep-away"', '"keep"')
      .replaceAll('"shrink-back"', '"shrink"');
    expect(JSON.parse(made)).toEqual(unitOf(demo(), 'sapwright'));
  });
});
