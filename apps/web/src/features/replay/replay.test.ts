import { describe, expect, test } from '@jest/globals';
import { compileScenario, parseProject, type Replay, replay, type Scenario } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { arenaOf, besideOf, besideWords, comparisons, duelOf, wholeOf } from './address';
import { decides, type Event, isPartyHit, mostTelling, nextEvent, stepped } from './moments';

const demo = parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../../demo/verdance.insidia.json'), 'utf8')));
const evening: Scenario = { kind: 'encounter', id: 'evening-shift', tier: demo.tiers[0].id };
const duel = (text: string) => duelOf(new URLSearchParams(text), demo, {});

describe('the address of a replay', () => {
  test('names a whole number or none', () => {
    expect(['0', '7', '2147483647'].map(wholeOf)).toEqual([0, 7, 2147483647]);
    expect([null, '', ' ', '-1', '1.5', 'x', '2147483648', 'Infinity'].map(wholeOf)).toEqual(Array(8).fill(undefined));
  });

  test('names a duel by who stands against whom, at twelve metres where it says nothing', () => {
    expect(duel('members=warden')).toBeUndefined();
    expect(duel('enemy=clipper')).toBeUndefined();
    expect(duel('enemy=clipper&members=')).toBeUndefined();
    const plain = duel('enemy=clipper&members=warden')!;
    expect(plain).toEqual({ kind: 'duel', id: 'clipper' });
    const full = duel('enemy=clipper&members=warden,warden&copies=3&distance=4.5')!;
    expect(full.duel).toMatchObject({ against: ['warden', 'warden'], copies: 3, distance: 4.5 });
    expect(duel('enemy=clipper&members=warden&distance=0')!.duel).toEqual({ distance: 0 });
    expect(duel('enemy=clipper&members=warden&with=mulcher:2&from=behind&wall=0.8')!.duel).toEqual({
      company: [{ unit: 'mulcher', count: 2 }],
      from: 'behind',
      wall: 0.8,
    });
    // what means nothing is as if it were not there
    expect(duel('enemy=clipper&members=warden&copies=x&distance=far&arena=nowhere&with=moth&from=above&wall=x')!).toEqual(plain);
  });

  test('names what stands beside it: a seed, a tier, the document before; nothing for anything else', () => {
    expect(besideOf('seed:3')).toEqual({ kind: 'seed', seed: 3 });
    expect(besideOf('tier:bloom')).toEqual({ kind: 'tier', tier: 'bloom' });
    expect(besideOf('before')).toEqual({ kind: 'before' });
    for (const text of [null, '', 'seed:', 'seed:x', 'after']) expect(besideOf(text)).toBeUndefined();
    const [tier] = demo.tiers;
    expect(besideWords({ kind: 'tier', tier: tier.id }, demo)).toBe(`at ${tier.name}`);
    expect(besideWords({ kind: 'tier', tier: 'gone' }, demo)).toBe('at gone');
  });

  test('offers the next seed, the one compared with, the other tiers, and the document before where there is one', () => {
    const ids = (vs: string | null, before: boolean) => comparisons(demo, evening, 4, vs, before).map(({ id }) => id);
    expect(ids(null, false).slice(0, 2)).toEqual(['none', 'seed:5']);
    expect(ids('seed:9', false)).toContain('seed:9');
    expect(ids('seed:5', false).filter((id) => id === 'seed:5')).toHaveLength(1);
    expect(ids(null, true)).toContain('before');
    expect(ids(null, false)).not.toContain(`tier:${demo.tiers[0].id}`);
    expect(ids(null, false)).toContain(`tier:${demo.tiers[1].id}`);
    for (const option of comparisons(demo, evening, 4, null, true)) expect(option.name).not.toBe('');
  });

  test('takes place in its arena, or on open ground that holds everybody', () => {
    const id = demo.encounters.find((one) => one.id === 'evening-shift')!.arena;
    expect(arenaOf(demo, evening, undefined)?.id).toBe(id);
    expect(arenaOf(demo, undefined, undefined)).toBeUndefined();
    const open = duel('enemy=clipper&members=warden&distance=30')!;
    expect(arenaOf(demo, open, undefined)).toBeUndefined();
    const run = replay(compileScenario(demo, open), 1);
    const arena = arenaOf(demo, open, run)!;
    expect(arena.width).toBeGreaterThanOrEqual(30);
    expect(arena.width).toBe(arena.depth);
    expect(arena.walls).toEqual([]);
  });

  test('a wall between those of a duel stands on its ground', () => {
    const over = duel('enemy=clipper&members=warden&wall=0.8')!;
    const { walls } = arenaOf(demo, over, replay(compileScenario(demo, over), 1))!;
    expect(walls.map(({ name, height }) => [name, height])).toEqual([['wall between', 0.8]]);
  });
});

describe('moments of a run', () => {
  const run = replay(compileScenario(demo, duel('enemy=clipper&members=warden&copies=3')!), 2);
  const any = () => true;

  test('the next and the last event leave out what is now', () => {
    const events = [0, 1, 1, 2].map((time, unit) => ({ time, unit, event: 'hit' }) as unknown as Event);
    expect(nextEvent(events, 0, 1, any)).toBe(events[1]);
    expect(nextEvent(events, 1, 1, any)).toBe(events[3]);
    expect(nextEvent(events, 1, -1, any)).toBe(events[0]);
    expect(nextEvent(events, 1.5, -1, any)).toBe(events[2]);
    expect(nextEvent(events, 2, 1, any)).toBeUndefined();
    expect(nextEvent(events, 0, -1, any)).toBeUndefined();
  });

  test('every event of a run is come by going from one to the next, both ways', () => {
    const times = [...new Set(run.events.map(({ time }) => time))].filter((time) => time > 0);
    let at = 0;
    let found = 0;
    for (let event = nextEvent(run.events, at, 1, any); event; event = nextEvent(run.events, at, 1, any)) {
      expect(event.time).toBeGreaterThan(at);
      at = event.time;
      found++;
    }
    expect(found).toBe(times.length);
    for (let event = nextEvent(run.events, at, -1, any); event; event = nextEvent(run.events, at, -1, any)) at = event.time;
    expect(at).toBe(run.events[0].time);
  });

  test('a step leads to a step, from between two to the nearest on that side', () => {
    expect(stepped(0.1, 0.05, 1)).toBeCloseTo(0.15, 12);
    expect(stepped(0.12, 0.05, 1)).toBeCloseTo(0.15, 12);
    expect(stepped(0.12, 0.05, -1)).toBeCloseTo(0.1, 12);
    expect(stepped(0.1, 0.05, -1)).toBeCloseTo(0.05, 12);
    expect(stepped(0.1, 0.05, 20)).toBeCloseTo(1.1, 12);
    // 0.15 / 0.05 is a little less than three
    expect(stepped(0.15, 0.05, 1)).toBeCloseTo(0.2, 12);
  });

  test('hits on the party and decisions of one unit are told apart', () => {
    const hits = run.events.filter(isPartyHit(run));
    for (const hit of hits) expect(run.units[hit.other!].side).toBe('party');
    expect(run.events.some((event) => event.event === 'hit' && !isPartyHit(run)(event))).toBe(true);
    const own = run.events.filter(decides(1));
    expect(own.length).toBeGreaterThan(0);
    expect(own.every(({ unit }) => unit === 1)).toBe(true);
    expect(run.events.filter(decides(undefined))).toEqual([]);
  });

  test('the most telling unit took most from the party; in a run without a hit, decided most often', () => {
    const units = ['party', 'enemy', 'enemy', 'enemy'].map((side) => ({ side })) as Replay['units'];
    const event = (name: string, unit: number, other?: number, damage?: number) =>
      ({ time: 0, event: name, unit, other, values: damage === undefined ? undefined : { damage } }) as unknown as Event;
    const start = [event('start', 3), event('start', 3), event('start', 1)];
    expect(mostTelling({ units, events: start })).toBe(3);
    expect(mostTelling({ units, events: [...start, event('hit', 1, 0, 2), event('tick', 2, 0, 1), event('tick', 2, 0, 2)] })).toBe(2);
    // what the party does to them, and they to one another, is not asked
    expect(mostTelling({ units, events: [...start, event('hit', 0, 2, 9), event('hit', 2, 1, 9)] })).toBe(3);
    expect(mostTelling({ units, events: [] })).toBeUndefined();
    const told = mostTelling(run)!;
    const of = (unit: number) =>
      run.events.filter((one) => one.unit === unit && isPartyHit(run)(one)).reduce((sum, { values }) => sum + (values?.damage ?? 0), 0);
    expect(run.units.every((_, unit) => of(unit) <= of(told))).toBe(true);
  });
});
