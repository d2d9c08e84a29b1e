import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { runBatch } from '../../analysis/batch';
import { curveOf, Curves } from '../../measures/curves';
import { rowOf } from '../../measures/row';
import type { Compiled } from '../tables';
import { type FightSketch, compiled, dummy, eventsOf, fought, project, unit } from '../../testing/builders';
import { casesOf } from '../../testing/cases';
import { compile } from '../compile';
import { type Run, run } from '../run';

type Loose = Record<string, unknown>;

const striker = (id: string, max: number, damage: number, more: Loose = {}) =>
  unit({
    id,
    health: { max },
    attacks: [
      {
        id: 'hit',
        range: { min: 0, max: 3 },
        beat: { windup: 0.2, cooldown: 1 },
        effects: { damage: { amount: damage, spread: damage * 0.9 } },
      },
    ],
    states: [{ id: 'go', name: 'go', does: 'approach' }],
    ...more,
  });
const count = (least: number, most = least) => ({ count: { min: least, max: most } });
const ours = { side: 'ours' };

/** No party: who stands on its side comes in groups. */
function stage(first: Loose, second: Loose, groups: [Loose, Loose], more: Partial<FightSketch> = {}): FightSketch {
  return {
    party: [],
    enemies: [
      { unit: first, x: -5, facing: 0, scatter: 3, group: groups[0] },
      { unit: second, x: 5, scatter: 3, group: groups[1] },
    ],
    limit: 60,
    ...more,
  };
}

const MIRRORED: Record<string, string> = { partyDown: 'cleared', cleared: 'partyDown', timeOut: 'timeOut' };

/** Every row of a log but that which says how it ended. */
function told({ log }: Run): unknown[][] {
  return Array.from({ length: log.length - 1 }, (_, i) => [
    log.kind[i],
    log.time[i],
    log.actor[i],
    log.other[i],
    log.what[i],
    log.a[i],
    log.b[i],
    log.c[i],
    log.d[i],
  ]);
}

describe('five against one, and one against five', () => {
  const small = striker('mite', 12, 2);
  const large = striker('warden', 48, 6);

  test('with sides swapped the same fight, of the same length, to the mirrored outcome', () => {
    const against = compiled(stage(small, large, [count(5), { ...count(1), ...ours }]));
    const swapped = compiled(stage(small, large, [{ ...count(5), ...ours }, count(1)]));
    const outcomes = new Set<string>();
    for (let seed = 1; seed <= 40; seed++) {
      const [one, other] = [run(against, seed), run(swapped, seed)];
      outcomes.add(one.outcome);
      expect([seed, other.length, other.outcome]).toEqual([seed, one.length, MIRRORED[one.outcome]]);
      expect(Array.from(other.sides.slice(0, 6), (side) => 1 - side)).toEqual(Array.from(one.sides.slice(0, 6)));
      expect(told(other)).toEqual(told(one));
    }
    expect(outcomes.size).toBe(2);
  });

  test('whatever the two are, how many, and when they come', () => {
    const kind = (id: string) =>
      fc
        .record({
          max: fc.integer({ min: 1, max: 80 }),
          damage: fc.integer({ min: 0, max: 12 }),
          spread: fc.constantFrom(0, 0.5),
          windup: fc.constantFrom(0, 0.3),
          run: fc.constantFrom(0, 2, 6),
          delivery: fc.constantFrom('melee', 'projectile', 'hitscan'),
          temper: fc.constantFrom('hostile', 'retaliates'),
          revivals: fc.constantFrom(0, 1),
        })
        .map(({ max, damage, spread, windup, run: speed, delivery, temper }) =>
          unit({
            id,
            health: { max },
            temper: { manner: temper },
            movement: { run: speed, walk: speed },
            attacks: [
              {
                id: 'hit',
                delivery,
                range: { min: 0, max: delivery === 'melee' ? 3 : 9 },
                beat: { windup, cooldown: 1 },
                effects: { damage: { amount: damage, spread }, knockback: { distance: 0.5 } },
                ...(delivery === 'projectile' && { projectile: { speed: 9 } }),
              },
            ],
            states: [{ id: 'go', name: 'go', does: 'approach' }],
          }),
        );
    const group = fc.record({
      count: fc.record({ min: fc.constant(1), max: fc.integer({ min: 1, max: 5 }) }),
      spacing: fc.constantFrom(0, 0.7),
      alerted: fc.boolean(),
      leastDistance: fc.constantFrom(0, 4),
      rule: fc.constantFrom('inTurn', 'nearest', 'farthest', 'random'),
      at: fc.constantFrom(['p0'], ['p1'], ['p0', 'p1']),
    });
    fc.assert(
      fc.property(kind('mite'), kind('warden'), group, group, fc.integer({ min: 0, max: 99 }), (a, b, first, second, seed) => {
        const more = { wave: { repeat: { times: 2, when: 'every', every: 3 } }, limit: 20 };
        const one = run(compiled(stage(a, b, [first, { ...second, ...ours }], more)), seed);
        const other = run(compiled(stage(a, b, [{ ...first, ...ours }, second], more)), seed);
        const together = one.outcome === 'partyDown' && other.outcome === 'partyDown';
        expect(other.length).toBe(one.length);
        if (!together) expect(other.outcome).toBe(MIRRORED[one.outcome]);
        expect(told(other)).toEqual(told(one));
      }),
      { numRuns: casesOf(60) },
    );
  });
});

describe('groups in the place of a party', () => {
  const idle = { attacks: [], temper: { manner: 'passive' } };
  /** Three of 10 of whom each is struck once a second for 4 from 1 s on; nobody strikes back. */
  const struck = () => {
    const mite = unit({ id: 'mite', health: { max: 10 }, ...idle });
    const gun = unit({
      id: 'gun',
      health: { max: 50 },
      attacks: [
        {
          id: 'shot',
          delivery: 'hitscan',
          range: { min: 0, max: 50 },
          beat: { initialDelay: { min: 1, max: 1 }, cooldown: 1 },
          effects: { damage: { amount: 4 } },
        },
      ],
    });
    return stage(mite, gun, [
      { ...count(3), ...ours },
      { ...count(1), alerted: true },
    ]);
  };

  test('their health is the party’s: a dose, a time to down, a seat each', () => {
    const tables = compiled(struck());
    const one = run(tables, 1);
    const row = rowOf({ compiled: tables, run: one });
    // Nine shots of 4, 4 and 2: three to each. All lost once: a dose of 1; each 2 s from its first hit to its last.
    expect([one.outcome, row.dose, row.timesToDown]).toEqual(['partyDown', 1, [2, 2, 2]]);
    expect(row.scores).toEqual([0, 0, 0]);
    expect(tables.seats).toHaveLength(3);
    const { members, encounter } = runBatch(tables, 1, 4);
    expect(members.map(({ unit: id }) => id)).toEqual(['mite', 'mite', 'mite']);
    expect(encounter.dose!.mean).toBe(1);
  });

  test('of a range those who did not come have no measure, and weigh nothing', () => {
    const sketch = struck();
    sketch.enemies[0].group = { ...count(1, 3), ...ours };
    const tables = compiled(sketch);
    const came = new Set<number>();
    for (let seed = 1; seed <= 30; seed++) {
      const one = run(tables, seed);
      const row = rowOf({ compiled: tables, run: one });
      const there = row.timesToDown.filter((time) => time === time).length;
      came.add(there);
      expect([row.dose, row.timesToDown.length, row.bursts.filter((value) => value === value).length]).toEqual([1, 3, there]);
    }
    expect([...came].sort()).toEqual([1, 2, 3]);
  });

  test('the party is down when all of them have come and lie: a second wave of theirs is waited for', () => {
    const second = (more: Loose = {}) => ({
      waves: [
        {
          id: 'w2',
          name: 'w2',
          start: 'defeated',
          delay: 3,
          groups: [{ id: 'more', enemy: 'mite', at: ['p0'], ...ours }],
          ...more,
        },
      ],
    });
    const waited = fought({ ...struck(), ...second({ after: 'w1', start: 'clock', at: 30 }) });
    expect(eventsOf(waited.log, 'wave').map(({ time }) => time)).toEqual([0, 33]);
    expect(waited.outcome).toBe('partyDown');
    expect(waited.length / 1e6).toBeGreaterThan(33);
    // One that may be left out is not.
    const left = fought({ ...struck(), ...second({ start: 'called' }) });
    expect([left.outcome, eventsOf(left.log, 'wave')]).toEqual(['partyDown', [expect.anything()]]);
  });

  test('before they come nothing is lost, and the fight is not over', () => {
    const sketch = struck();
    sketch.wave = { delay: 5 };
    const tables = compiled(sketch);
    const curves = new Curves(tables, 20);
    curves.add(run(tables, 1, curves.watch));
    const health = curveOf(curves.times, curves.rows.health, curves.lengths).median;
    expect(health[Math.floor(240 * (4 / 20))]).toBe(1);
    expect(health[Math.floor(240 * (6.5 / 20))]).toBeCloseTo(26 / 30, 6);
  });

  test('what speaks of the party speaks of them: tweaks, conditions', () => {
    const half = { id: 'hard', name: 'Hard', tweaks: [{ scope: 'party', path: '/health/max', op: '×', value: 0.5 }] };
    const most = (tables: Compiled, id: string) => tables.kinds.find((kind) => kind.id === id)!.maxHealth;
    const document = project({ ...struck(), tiers: [half] });
    const tables = compile(document, { encounter: 'fight', tier: 'hard' });
    expect([most(tables, 'mite'), most(tables, 'gun')]).toEqual([5, 50]);
    const events = [{ id: 'e', name: 'e', when: { subject: 'partyAlive', is: 'below', value: 3 }, then: [{ does: 'end', as: 'ended' }] }];
    const double = { id: 'double', name: 'Double', tweaks: [{ path: '/health/max', op: '×', value: 2 }] };
    const then = (act: Loose) => [{ id: 'e', name: 'e', when: { subject: 'clock', is: 'above', value: 0.2 }, then: [act] }];
    const ends = (act: Loose) => {
      const found: number[] = [];
      run(compiled({ ...struck(), traits: [double], encounter: { events: then(act) }, limit: 0.5 }), 1, (fight) => {
        for (let one = 0; one < fight.count; one++) found[one] = fight.kinds[one].maxHealth;
      });
      return found;
    };
    expect(ends({ does: 'trait', of: 'double', to: 'party' })).toEqual([20, 20, 20, 50]);
    expect(ends({ does: 'trait', of: 'double', to: 'enemies' })).toEqual([10, 10, 10, 100]);
    expect(ends({ does: 'tweak', tweaks: [{ scope: 'party', path: '/health/max', op: '+', value: 1 }] })).toEqual([11, 11, 11, 50]);
    const { log } = fought({ ...struck(), encounter: { events } });
    expect(eventsOf(log, 'death')).toHaveLength(1);
  });

  test('beside a party they are its friends and no members: with the party the fight is lost', () => {
    const sketch = struck();
    sketch.party = [dummy('tender', 1)];
    sketch.enemies[1].unit = { ...sketch.enemies[1].unit, targeting: { criteria: [{ by: 'unit', of: 'tender' }, { by: 'nearest' }] } };
    const tables = compiled(sketch);
    const one = run(tables, 1);
    expect([one.outcome, tables.seats.length, Array.from(one.sides.slice(0, 5))]).toEqual(['partyDown', 1, [0, 0, 0, 0, 1]]);
    expect(eventsOf(one.log, 'death').map(({ actor }) => actor)).toEqual([0]);
  });

  test('caps on the living are of the enemies', () => {
    const tables = compiled({ ...struck(), encounter: { alive: { most: 1, full: 'skip' } } });
    expect(run(tables, 1).units).toBe(4);
  });
});

test('a reinforcement of ours that has not come holds up no victory', () => {
  const { outcome, length } = fought(
    stage(striker('mite', 10, 0), striker('warden', 90, 50), [count(1), { ...count(1), ...ours }], {
      waves: [{ id: 'w2', name: 'w2', start: 'clock', at: 50, groups: [{ id: 'late', enemy: 'warden', at: ['p1'], ...ours }] }],
    }),
  );
  expect(outcome).toBe('cleared');
  expect(length / 1e6).toBeLessThan(20);
});
