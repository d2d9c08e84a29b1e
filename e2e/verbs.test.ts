/** Verbs of a fight, each built once on the screen, its effect told by figures. */
import { describe, expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { parseProject } from '../packages/core/src';
import { Runner, compile } from '../packages/core/src/running';
import { choose, fill, fillAll, group, press } from './support/bench';
import { pressAt } from './support/press';
import { suite } from './support/suite';

const { project, open, stored } = suite('verbs');
const STATES = '[aria-label=States][role=region]';
const BEAT = 'section[aria-label=Beat]';

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
      one.traits = [];
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

describe('counters, score, waves that stop', () => {
  test('three comings ring thrice: the third stops the wave, gives 25 and ends the fight as won', async () => {
    const id = await project((document) => {
      const encounter = document.encounters.find((each: any) => each.id === 'first-bell');
      const [wave] = encounter.waves;
      const clipper = document.units.find((each: any) => each.id === 'clipper');
      // It does no harm, dies of anything and comes again and again.
      Object.assign(clipper.health, { max: 1 });
      clipper.onDeath.worth = 4;
      clipper.temper.manner = 'passive';
      Object.assign(clipper, {
        states: [
          { ...clipper.states[0], id: 'come', name: 'Come', does: 'hold', leaves: [], decides: { min: 0.05, max: 0.05 } },
          { ...clipper.states[0], id: 'ring', name: 'Ring', does: 'hold', leaves: [] },
        ],
        startsIn: 'come',
      });
      clipper.states[0].leaves = [{ to: 'ring' }];
      Object.assign(clipper.senses, { sight: 1 });
      wave.repeat = { times: 10, when: 'every', every: 5 };
      const [group] = wave.groups;
      Object.assign(group, { count: { min: 1, max: 1 } });
      encounter.limit = 60;
      for (const member of document.units.filter((each: any) => each.side === 'party')) member.temper.manner = 'passive';
    });
    const page = await open(`${id}/encounters/first-bell`);
    const whole = group('The whole encounter');
    await press(page, whole, 'add a counter');
    await page.waitForSelector(`${group('Counters')} ${group('Counter')}`);
    await fill(page, group('Counters'), 'Name of the counter', 'Bells');
    await press(page, whole, 'add an event');
    await page.waitForSelector(group('Event'));
    await pressAt(page, `${group('Event')} button[aria-label^="Event happens when"]`);
    const sheet = '.sheet[aria-label="Event happens when"]';
    await page.waitForSelector(sheet);
    await choose(page, sheet, 'What', 'the counter');
    await choose(page, sheet, 'Is', 'above');
    await fill(page, sheet, 'Value', 2);
    await press(page, sheet, 'Done');
    await choose(page, group('Event'), 'Event does 1', 'give score');
    await fill(page, group('Event'), 'Score', 25);
    await press(page, group('Event'), 'and …');
    await choose(page, group('Event'), 'Event does 2', 'stop a wave');
    await press(page, group('Event'), 'and …');
    await choose(page, group('Event'), 'Event does 3', 'end the fight');
    await choose(page, group('Event'), 'Counts as', 'won');
    await page.waitForSelector('[data-saving=saved]');
    await page.goto(`${page.url().split('/encounters/')[0]}/enemies/clipper?state=ring`);
    await page.waitForSelector(STATES);
    await press(page, STATES, 'all fields');
    await press(page, STATES, 'on entering …');
    await press(page, group('On entering'), 'counts …');
    await page.waitForSelector('[data-saving=saved]');
    expect((await stored(id)).units.find((each: any) => each.id === 'clipper').states[1].onEnter.counts).toEqual([
      { counter: 'counter', how: 'add', by: 1 },
    ]);

    // Comings at 0, 5 and 10 s; each rings a step after it came, and the third is heard a step later.
    await page.goto(`${page.url().split('/enemies/')[0]}/encounters/first-bell`);
    await page.waitForFunction(
      () => document.querySelector('[data-measure="Win share"] [data-median]')?.getAttribute('data-median') === '1',
    );
    await page.waitForFunction(() => document.querySelector('[data-measure="Score"] [data-mean]')?.getAttribute('data-mean') === '25');
    const length = await page.$eval('section[aria-label="Length"] [data-median]', (one) => Number(one.getAttribute('data-median')));
    expect(length).toBeCloseTo(10.1, 6);
  });
});

describe('a movement of an attack', () => {
  test('a charge is built on the screen: it strikes whom it meets, from farther away and sooner than the bite that it was', async () => {
    const id = await project((document) => {
      const clipper = document.units.find((each: any) => each.id === 'clipper');
      const [bite] = clipper.attacks;
      Object.assign(bite, { range: { min: 0, max: 6 }, hits: { perTarget: 'once', friendlyFire: false } });
      Object.assign(bite.beat, { windup: 2, active: 0, recovery: 0.2, moving: 'no' });
      delete bite.beat.every;
      Object.assign(clipper, {
        attacks: [bite],
        states: [{ ...clipper.states[0], id: 'only', name: 'Only', does: 'hold', leaves: [] }],
        startsIn: 'only',
      });
      clipper.choice.priorities = [{ entries: [{ attack: bite.id, weight: 1 }] }];
      clipper.onDeath = { ...clipper.onDeath, attack: undefined };
      document.encounters.forEach((encounter: any) => (encounter.events = []));
    });
    const page = await open(`${id}/enemies/clipper/attacks/bite`);
    await press(page, BEAT, 'all fields');
    await press(page, BEAT, 'Add movement in it');
    const part = group('Movement in it');
    await page.waitForSelector(part);
    await fillAll(page, part, { Distance: 6, Speed: 12, After: 0.1 });
    await choose(page, part, 'Hurts', 'whom it meets');
    await page.waitForSelector('[data-saving=saved]');
    const kept = (await stored(id)).units.find((each: any) => each.id === 'clipper').attacks[0].dash;
    expect(kept).toMatchObject({ way: 'target', distance: 6, speed: 12, during: 'windup', after: 0.1, hurts: 'way' });
    // The sentence and the strips say so.
    expect(await page.$eval('main', (one) => one.textContent)).toContain(
      'meanwhile after 0.1 s goes up to 6 m towards its target at 12 m/s and strikes whom it meets',
    );
    await page.waitForFunction(() =>
      [...document.querySelectorAll('title')].some((one) => /its movement takes it to 0 m/.test(one.textContent ?? '')),
    );
    // On paper its first hit falls at the middle of its range: 0.1 s and 3 m at 12 m/s. In the fight the first hits come far sooner than the two seconds of its wind-up.
    let first = Infinity;
    await ran(id, 'first-bell', 1, (fight) => {
      const hits = fight.log.kind.slice(0, fight.log.length).indexOf(6);
      if (hits >= 0 && first === Infinity) first = fight.now;
    });
    expect(first).toBeLessThan(2e6);
  });
});

describe('a thing to destroy', () => {
  test('the party is sent to break it, built on the screen: the fight is won when it falls, with every enemy alive', async () => {
    const id = await project((document) => {
      const encounter = document.encounters.find((each: any) => each.id === 'glasshouse-defence');
      const arena = document.arenas.find((each: any) => each.id === encounter.arena);
      // One of the party, who stands beside it; enemies that do nothing, far away.
      Object.assign(encounter, {
        party: encounter.party.slice(0, 1),
        allies: [],
        events: [],
        bySize: [],
        limit: 60,
        ends: { cleared: false, survive: false, defend: [] },
      });
      encounter.waves = [{ ...encounter.waves[0], start: 'atOnce', delay: 0 }];
      delete encounter.waves[0].repeat;
      const thing = arena.points.find((each: any) => each.health !== undefined);
      Object.assign(thing, { x: arena.partyStart.x + 3, y: arena.partyStart.y, health: 100 });
      for (const unit of document.units) if (unit.side === 'enemy') unit.temper.manner = 'passive';
      const member = document.units.find((each: any) => each.id === encounter.party[0].unit);
      Object.assign(member, { states: [{ ...member.states[0], id: 'break', name: 'Break', does: 'hold', leaves: [] }], startsIn: 'break' });
      delete member.player;
    });
    const written = await stored(id);
    const encounter = written.encounters.find((each: any) => each.id === 'glasshouse-defence');
    const arena = written.arenas.find((each: any) => each.id === encounter.arena);
    const thing = arena.points.find((each: any) => each.health !== undefined);
    const page = await open(`${id}/encounters/glasshouse-defence`);
    const whole = group('The whole encounter');
    const label = await page.waitForFunction(
      () => [...document.querySelectorAll('span')].find((one) => one.textContent === 'Won with')?.id,
    );
    await press(page, `[aria-labelledby="${await label.jsonValue()}"]`, thing.name);
    await page.waitForSelector('[data-saving=saved]');
    expect(await page.$(whole)).not.toBeNull();
    await page.goto(`${page.url().split('/encounters/')[0]}/party/${encounter.party[0].unit}?state=break`);
    await page.waitForSelector(STATES);
    await choose(page, STATES, 'Does', 'go to a point');
    await choose(page, STATES, 'Towards', `${thing.name} (${arena.name})`);
    await choose(page, STATES, 'Strikes it', 'it alone');
    await page.waitForSelector('[data-saving=saved]');
    const kept = (await stored(id)).units.find((each: any) => each.id === encounter.party[0].unit).states[0];
    expect(kept).toMatchObject({ does: 'goTo', to: thing.id, strikes: 'it' });
    await page.goto(`${page.url().split('/party/')[0]}/encounters/glasshouse-defence`);
    await page.waitForFunction(
      () => document.querySelector('[data-measure="Win share"] [data-median]')?.getAttribute('data-median') === '1',
    );
    let enemies = 0;
    await ran(id, 'glasshouse-defence', 1, (fight) => (enemies = fight.living[1].length));
    expect(enemies).toBeGreaterThan(0);
  });
});

describe('traits', () => {
  test('one is made, given to a unit, a wave, a share of a group, a tier and by an event; what it touches is told, and all have it', async () => {
    const id = await project((made) => {
      const encounter = made.encounters.find((each: any) => each.id === 'first-bell');
      const [wave] = encounter.waves;
      Object.assign(wave.groups[0], { count: { min: 4, max: 4 }, spacing: 1 });
      const clipper = made.units.find((each: any) => each.id === 'clipper');
      clipper.health.max = 100;
      for (const unit of made.units) unit.temper.manner = 'passive';
      made.tiers.forEach((tier: any) => (tier.tweaks = []));
      encounter.limit = 10;
    });
    const page = await open(`${id}/difficulty/traits`);
    await press(page, 'aside[aria-label=Traits]', 'New trait');
    await fill(page, '.sheet', 'Name', 'Stout');
    await page.waitForSelector(group('Stout'));
    await page.waitForSelector(group('Stout'));
    await fill(page, group('Whoever has it'), 'Whoever has it 1: how much', 2);
    await press(page, 'aside[aria-label=Traits]', 'New trait');
    await fill(page, '.sheet', 'Name', 'Grown');
    await page.waitForSelector(group('Grown'));
    await page.waitForSelector(group('Grown'));
    await choose(page, group('Whoever has it'), 'Whoever has it 1: how', '+');
    await fill(page, group('Whoever has it'), 'Whoever has it 1: how much', 7);
    await press(page, 'aside[aria-label="Who has it"]', 'Lantern Stalk');
    // What it touches, and what not: the shield of the same one stays as it is.
    await page.waitForFunction(() =>
      [...document.querySelectorAll('table[aria-label="What it comes to"] tbody tr')].some((row) => {
        const [unit, touches, alone] = [...row.querySelectorAll('td')].map((cell) => cell.textContent);
        return unit === 'Lantern Stalk' && touches === 'Health 48 → 55 hp' && alone?.includes('Shield 24 hp');
      }),
    );
    await page.waitForSelector('[data-saving=saved]');
    const root = page.url().split('/difficulty/')[0];

    await page.goto(`${root}/difficulty/tiers`);
    await pressAt(page, 'aside[aria-label=Tiers] span[title=Bramble]');
    await press(page, group('Comes with'), 'give a trait');
    await choose(page, group('Comes with'), 'Comes with 1: trait', 'Stout');
    await choose(page, group('Comes with'), 'Comes with 1: who', 'Clipper');
    await page.waitForSelector('[data-saving=saved]');

    await page.goto(`${root}/encounters/first-bell`);
    await press(page, group('The whole encounter'), 'add an event');
    await choose(page, group('Event'), 'Event does 1', 'give a trait');
    await choose(page, group('Event'), 'Event trait 1', 'Stout');
    await choose(page, group('Event'), 'Event trait 1: who', 'Warden');
    await pressAt(page, '[aria-label=Waves] foreignObject button');
    await page.waitForSelector(group('Group'));
    await press(page, `${group('Group')} ${group('Traits')}`, 'with a trait …');
    await choose(page, `${group('Group')} ${group('Traits')}`, 'Trait 1', 'Grown');
    await fill(page, `${group('Group')} ${group('Traits')}`, 'Trait 1: share', 0.5);
    const wave = (await stored(id)).encounters[0].waves[0].name;
    await press(page, group(wave), 'more …');
    await press(page, `.sheet[aria-label="${wave}: more"]`, 'Stout');
    await page.keyboard.press('Escape');
    await page.waitForSelector('[data-saving=saved]');

    const kept = await stored(id);
    expect(kept.traits.slice(1)).toEqual([
      { id: 'stout', name: 'Stout', tweaks: [{ path: '/health/max', op: '×', value: 2 }] },
      { id: 'grown', name: 'Grown', tweaks: [{ path: '/health/max', op: '+', value: 7 }] },
    ]);
    expect(kept.units.find((each: any) => each.id === 'lantern-stalk').traits).toEqual(['grown']);
    expect(kept.tiers[2].traits).toEqual([{ trait: 'stout', scope: 'unit', of: 'clipper' }]);
    expect(kept.encounters[0].waves[0].traits).toEqual(['stout']);
    expect(kept.encounters[0].waves[0].groups[0].traits).toEqual([{ trait: 'grown', share: 0.5 }]);
    expect(kept.encounters[0].events.at(-1).then[0]).toMatchObject({ does: 'trait', of: 'stout', to: 'unit', whom: 'warden' });

    // × 2 of the wave, half of them 7 more after it; at Bramble × 2 of the tier before both; the Warden × 2 from the event on.
    const full = async (tier?: string) => {
      const found = new Set<number>();
      for (let seed = 1; seed <= 6; seed++)
        new Runner(compile(parseProject(kept), { encounter: 'first-bell', tier })).run(seed, (fight) => {
          for (const unit of fight.alive) if (fight.kinds[unit].id === 'clipper') found.add(fight.kinds[unit].maxHealth);
        });
      return [...found].sort((a, b) => a - b);
    };
    expect(await full()).toEqual([200, 207]);
    expect(await full('bramble')).toEqual([400, 407]);
    const warden: number[] = [];
    await ran(id, 'first-bell', 1, (fight) => warden.push(fight.kinds[fight.living[0][0]].maxHealth));
    expect(warden.at(-1)).toBe(320);
  });
});

describe('either side', () => {
  test('five small ones against a large one, built without a party: its readout is theirs, and they keep their place', async () => {
    const id = await project((made) => {
      const encounter = made.encounters.find((each: any) => each.id === 'first-bell');
      const [wave] = encounter.waves;
      Object.assign(wave.groups[0], { enemy: 'mulcher', count: { min: 1, max: 1 } });
      encounter.limit = 60;
    });
    const page = await open(`${id}/encounters/first-bell`);
    await pressAt(page, '[aria-label=Waves] foreignObject button');
    await page.waitForSelector(group('Group'));
    const wave = (await stored(id)).encounters[0].waves[0].name;
    await press(page, group(wave), 'add a group');
    await choose(page, group('Group'), 'Brings', 'Clipper');
    await choose(page, group('Group'), 'Side', 'ours');
    await fill(page, group('Group'), 'How many', 5);
    await page.waitForSelector('[data-saving=saved]');
    await page.reload();
    const whole = group('The whole encounter');
    await page.waitForSelector(whole);
    await press(page, `${whole} ${group('Party')}`, 'Remove member 1');
    await page.waitForSelector('[data-saving=saved]');
    const kept = await stored(id);
    expect(kept.encounters[0].party).toEqual([]);
    expect(kept.encounters[0].waves[0].groups[1]).toMatchObject({ enemy: 'clipper', side: 'ours', count: { min: 5, max: 5 } });
    await page.waitForFunction(() =>
      document.querySelector('aside[aria-label=Readout][aria-busy=false] [data-measure="Win share"] [data-median]'),
    );
    // The same seeds by themselves: five Clippers are the party, in the outcome and in every share of it.
    const runs = await page.$eval('aside[aria-label=Readout] .section-head .note', (one) =>
      Number(/(\d+) runs/.exec(one.textContent!)![1]),
    );
    const tables = compile(parseProject(kept), { encounter: 'first-bell' });
    expect(tables.seats).toHaveLength(5);
    const outcomes = Array.from({ length: runs }, (_, seed) => new Runner(tables).run(seed + 1).outcome);
    const won = outcomes.filter((outcome) => outcome === 'cleared').length / runs;
    expect(await page.$eval('[data-measure="Win share"] [data-median]', (one) => Number(one.getAttribute('data-median')))).toBeCloseTo(
      won,
      6,
    );
    // The last who stand for the party stay there.
    await pressAt(page, '[aria-label=Waves] foreignObject button');
    await page.waitForSelector('[role=tablist][aria-label=Groups]');
    await press(page, '[role=tablist][aria-label=Groups]', '5 Clipper, ours');
    await page.waitForFunction(
      (selector) => (document.querySelector(`${selector} button[aria-label^="The group stays"]`) as HTMLButtonElement | null)?.disabled,
      {},
      group('Group'),
    );
  });
});
