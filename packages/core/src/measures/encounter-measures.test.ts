import { joined, noFairness, suddenDowns } from './fairness';
import { describe, expect, test } from '@jest/globals';
import { compiled, dummy, unit } from '../testing/builders';
import { compile } from '../engine/compile';
import { run } from '../engine/run';
import { EVENT, VERDICT } from '../record/log';
import { demoProject } from '../testing/demo';
import { rowOf } from './row';
import { attackUse } from './attack-use';
import { Batch } from '../analysis/batch';
import { ENCOUNTER_MEASURES, GOAL_MEASURES } from './list';
import { Curves } from './curves';
import { holm, nextLook, rangeAcross, verdictOf } from './enough';
import { look } from './look';
import { engaged } from './engaged';
import { batchIdentity } from '../analysis/identity';
import { type Loss, burst, lulls, pressureAt, pressureOf, timeOverLevel } from './pressure';
import { stateShare } from './state-share';
import { timeSpent } from './time-use';
import { lives } from './time-to-kill';
import { waveSpans } from './wave-span';

const losses = (...list: [number, number][]): Loss[] => list.map(([time, amount]) => ({ time, amount, by: 0, attack: 0, wave: 0 }));
/** Bites 10 each 2 s from 0.5 on. */
const biter = unit({
  id: 'clipper',
  health: { max: 20 },
  attacks: [
    { id: 'bite', range: { min: 0, max: 9 }, beat: { windup: 0.5, recovery: 0.5, cooldown: 2 }, effects: { damage: { amount: 10 } } },
  ],
});

describe('pressure over time', () => {
  test('p(t) at instants: what the last three seconds took, a third of it a second', () => {
    expect(Array.from(pressureAt(losses([1, 6], [2, 6], [4, 6]), [0.9, 1, 2, 3.99, 4, 5, 7]))).toEqual([0, 2, 4, 4, 4, 2, 0]);
  });

  test('lulls are dated from the last damage that counted; the worked example', () => {
    expect(lulls(losses([5, 9], [20, 9]), 30, 0)).toEqual({
      lulls: [
        { from: 0, to: 5 },
        { from: 5, to: 20 },
        { from: 20, to: 30 },
      ],
      longestWithout: 0,
    });
    // Losses each second from 5 to 20: no rest between 5 and 20.
    const steady = losses(...Array.from({ length: 16 }, (_, i): [number, number] => [5 + i, 3]));
    expect(lulls(steady, 30, 0)).toEqual({
      lulls: [
        { from: 0, to: 5 },
        { from: 20, to: 30 },
      ],
      longestWithout: 15,
    });
    // A pause of five seconds leaves two below the level: too short to rest.
    expect(lulls(losses([1, 3], [6, 3]), 8, 0).lulls).toEqual([]);
    expect(lulls([], 10, 0)).toEqual({ lulls: [{ from: 0, to: 10 }], longestWithout: 0 });
  });

  test('time over a level, of fighting time', () => {
    // p = 3 in [0, 3), 6 in [2, 3), 3 in [3, 5): above 4 for one of two seconds of fighting.
    expect(timeOverLevel(losses([0, 9], [1, 9], [2, 1]), 4)).toBeCloseTo(0.5, 12);
    expect(timeOverLevel(losses([1, 9]), 4)).toBeNaN();
  });

  test('burst: the most within any second', () => {
    expect(
      burst(
        [
          { time: 0, amount: 5 },
          { time: 0.5, amount: 5 },
          { time: 1, amount: 20 },
        ],
        100,
      ),
    ).toBe(0.25); // (0, 1]
  });

  test('dose and peak of a wave are those of its units alone', () => {
    expect(pressureOf(losses([1, 30], [2, 30]), 100)).toMatchObject({ peak: 20, peakShare: 0.2, peakAt: 2, dose: 0.6 });
  });
});

describe('a fight worked by hand', () => {
  const tables = compiled({ party: [dummy('warden', 1000)], enemies: [{ unit: biter, count: 2, x: 3, scatter: 1 }], limit: 10 });
  const stream = { compiled: tables, run: run(tables, 1) };

  test('engaged: both for half of every cycle', () => {
    expect(engaged(stream)).toEqual({ mean: expect.closeTo(1, 6), peak: 2 });
  });

  test('attack use: ten starts of one second each, ten hits', () => {
    const [use] = attackUse(stream)[1];
    expect(use).toMatchObject({ starts: 10 + 2, hits: 10, damage: 100, time: 12 }); // those begun at 10 s count as begun
  });

  test('a survivor’s state is its whole life, and what it does adds up to it', () => {
    expect(stateShare(stream)[1].time).toEqual([expect.closeTo(20, 9)]);
    expect(timeSpent(stream).members[0].reduce((a, b) => a + b, 0)).toBeCloseTo(10, 9);
  });

  test('a wave’s span, overlap and rest', () => {
    const gun = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e4 },
      attacks: [
        { id: 'bolt', delivery: 'hitscan', range: { min: 0, max: 90 }, beat: { cooldown: 2 }, effects: { damage: { amount: 20 } } },
      ],
    });
    const sleeper = unit({ id: 'seedling', health: { max: 20 }, attacks: [] });
    const sketch = {
      party: [gun],
      enemies: [
        { unit: sleeper, count: 3, x: 9, scatter: 3 },
        { unit: unit({ id: 'late', health: { max: 20 }, attacks: [] }), count: 0, x: 60 },
      ],
      waves: [
        {
          id: 'w2',
          name: 'w2',
          start: 'clock',
          at: 3,
          groups: [{ id: 'g', enemy: 'late', count: { min: 1, max: 1 }, at: ['p1'], alerted: true }],
        },
      ],
      limit: 20,
    };
    const two = compiled(sketch);
    const spans = waveSpans({ compiled: two, run: run(two, 1) }, [], []);
    // Killed at 0, 2 and 4; the second comes at 3: it overlaps by 1 s; nobody is ever hurt, so all of it is rest.
    expect(spans[0]).toMatchObject({ first: 0, last: 4, span: 4, overlap: 1, rest: 3, spawned: 3, defeated: 3 });
    expect(spans[1]).toMatchObject({ started: 3, span: 3, overlap: 0, rest: NaN });
  });

  test('a revived unit lives twice', () => {
    const priest = unit({
      id: 'priest',
      health: { max: 1e4 },
      attacks: [
        {
          id: 'raise',
          delivery: 'support',
          targets: 'fallen',
          range: { min: 0, max: 40 },
          beat: { windup: 1, cooldown: 60 },
          effects: { revive: { amount: 10 } },
        },
      ],
    });
    const victim = unit({ id: 'victim', health: { max: 10 }, attacks: [], onDeath: { revivableFor: 9, revivals: 1 } });
    const gun = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e4 },
      targeting: { only: { units: ['victim'] }, reconsider: 0 },
      attacks: [{ id: 'bolt', delivery: 'hitscan', range: { min: 0, max: 90 }, beat: { cooldown: 3 }, effects: { damage: { amount: 5 } } }],
    });
    const twice = compiled({
      party: [gun],
      enemies: [
        { unit: priest, x: 20 },
        { unit: victim, x: 9 },
      ],
      limit: 14,
    });
    const found = lives({ compiled: twice, run: run(twice, 1) }).filter(({ unit: one }) => one === 2);
    expect(found.map(({ timeToKill }) => timeToKill)).toEqual([3, 3]);
    expect(found[0].lifetime).toBe(3);
  });

  test('a sudden down: from above 80 % within one second', () => {
    const heavy = (amount: number, cooldown: number) =>
      unit({
        id: 'mulcher',
        attacks: [{ id: 'blow', delivery: 'hitscan', range: { min: 0, max: 9 }, beat: { cooldown }, effects: { damage: { amount } } }],
      });
    const downs = (amount: number, cooldown: number) => {
      const one = compiled({ party: [dummy('warden', 100)], enemies: [{ unit: heavy(amount, cooldown) }], limit: 9 });
      return suddenDowns({ compiled: one, run: run(one, 1) });
    };
    expect([downs(100, 1), downs(50, 0.9), downs(50, 1.1), downs(30, 1)]).toEqual([1, 1, 0, 0]);
  });
});

test('clashing threats: announced attacks that met every answer on cooldown, of all that were announced', () => {
  const of = (announced: number, clashes: number) => ({ ...noFairness(), announced, clashes });
  expect(ENCOUNTER_MEASURES.clashes.of({ fairness: joined([of(4, 1), of(5, 0), of(11, 3)]) } as never)).toBe(0.2);
  expect(ENCOUNTER_MEASURES.clashes.of({ fairness: joined([]) } as never)).toBeNaN();
});

test('what could not be answered is counted over the attacks of all types: as in the record itself', () => {
  const tables = compile(demoProject(), { encounter: 'evening-shift', tier: 'bloom', skill: 'regular' });
  const once = run(tables, 2);
  const { log } = once;
  const of = { announced: 0, clashes: 0, damage: 0, lost: 0, types: new Set<number>() };
  for (let i = 0; i < log.length; i++) {
    if (log.kind[i] === EVENT.answer && once.seats[log.actor[i]] >= 0) {
      of.announced++;
      of.types.add(once.kinds[log.other[i]]);
      if (log.b[i] === VERDICT.cooldown) of.clashes++;
    } else if (log.kind[i] === EVENT.exposed && once.seats[log.other[i]] >= 0) {
      of.damage += log.d[i];
      if (log.c[i] < 0) of.lost += log.d[i];
    }
  }
  expect(of.types.size).toBeGreaterThan(2);
  expect(of.clashes).toBeGreaterThan(0);
  const row = rowOf({ compiled: tables, run: once });
  expect(row.clashes).toBeCloseTo(of.clashes / of.announced, 12);
  expect(row.unanswerable).toBeCloseTo(of.lost / of.damage, 12);
});

test('measures that are shares are told in percent, and no others', () => {
  const told = Object.entries(GOAL_MEASURES).flatMap(([name, { percent }]) => (percent ? [name] : []));
  expect(told.sort()).toEqual([
    'clashes',
    'idleTurns',
    'partyLeft',
    'peakPressureShare',
    'reach',
    'timeOverLevel',
    'unanswerable',
    'wavePeak',
    'won',
  ]);
});

test('what is left of a party is a share of its full health, however little that is', () => {
  const peck = unit({
    id: 'peck',
    health: { max: 50 },
    attacks: [
      { id: 'peck', range: { min: 0, max: 9 }, beat: { windup: 0.5, recovery: 0.5, cooldown: 60 }, effects: { damage: { amount: 0.1 } } },
    ],
  });
  const { partyLeft } = run(compiled({ party: [dummy('warden', 0.4)], enemies: [{ unit: peck, x: 3 }], limit: 3 }), 1);
  expect(partyLeft).toBeCloseTo(0.75, 9);
});

describe('batches', () => {
  test('a curve has the quantiles of the runs that still go, and nothing below half of them', () => {
    const tables = compiled({ party: [dummy('warden', 55)], enemies: [{ unit: biter, x: 3 }], limit: 40 });
    const curves = new Curves(tables, 24);
    const batch = new Batch(tables, 1, 20, curves.watch, (one) => curves.add(one));
    batch.advance(20);
    const curve = curves.curve('pressure');
    expect(curve.times).toHaveLength(240);
    expect(curve.median[9]).toBeCloseTo(10 / 3 / 55, 6); // at 1 s: one bite in the window
    expect(curve.median[239]).toBeUndefined(); // the party is down at 10.5 s
    expect(curve.going[0]).toBe(20);
    // A bite of 10 each two seconds from 0.5 s on: 45 of 55 left at 1 s, 25 at 5 s; nobody rests while he bites.
    const health = curves.curve('health').median;
    expect(health[0]).toBe(1);
    expect(health[9]).toBeCloseTo(45 / 55, 6);
    expect(health[49]).toBeCloseTo(25 / 55, 6);
    expect(curves.curve('quiet').median[30]).toBe(0);
    expect(curves.curve('engaged').median.slice(0, 40)).toContain(1);
    expect(curves.curve('tempo').median[30]).toBe(0);
  });

  test('a party that loses less than the lull level is at rest all the while, whatever it has', () => {
    const pecker = unit({
      id: 'pecker',
      health: { max: 900 },
      attacks: [
        { id: 'peck', range: { min: 0, max: 9 }, beat: { windup: 0.5, recovery: 0.1, cooldown: 1 }, effects: { damage: { amount: 0.5 } } },
      ],
    });
    const tables = compiled({ party: [dummy('warden', 55)], enemies: [{ unit: pecker, x: 3 }], limit: 12 });
    const curves = new Curves(tables, 12);
    new Batch(tables, 1, 3, curves.watch, (one) => curves.add(one)).advance(3);
    // 0.5 a second is 0.9 % of 55; a lull is up to 2 % a second.
    expect(curves.curve('pressure').median[99]).toBeCloseTo(0.5 / 55, 6);
    expect(curves.curve('quiet').median[99]).toBe(1);
  });

  test('looks come after 100, 200, 400 … runs; a batch stops when it is narrow, clear of the edge, or at its cap', () => {
    expect([nextLook(0), nextLook(100), nextLook(250)]).toEqual([100, 200, 400]);
    const values = Array.from({ length: 100 }, (_, i) => 5 + i / 100);
    expect(look(values, { tolerance: 1, cap: 1000 })).toMatchObject({ enough: true, onTheEdge: false });
    expect(look(values, { tolerance: 0.1, cap: 1000 }).enough).toBe(false);
    expect(look(values, { band: { low: 2, high: 9 }, cap: 1000 })).toMatchObject({ verdict: 'met', enough: true });
    expect(look(values, { band: { low: 5.5 }, cap: 1000 })).toMatchObject({ verdict: 'undecided', enough: false });
    expect(look(values, { band: { low: 5.5 }, cap: 100 })).toMatchObject({ enough: true, onTheEdge: true });
  });

  test('verdicts by where the interval lies', () => {
    expect(verdictOf({ low: 1, high: 2 }, { low: 3 })).toBe('missedLow');
    expect(verdictOf({ low: 4, high: 5 }, { high: 3 })).toBe('missedHigh');
    expect(verdictOf({ low: 1, high: 2 }, { low: 1, high: 2 })).toBe('met');
    expect(verdictOf({ low: 1, high: 2 }, { low: 1.5 })).toBe('undecided');
  });

  test('Holm: the worked example, and none when the smallest fails', () => {
    expect(holm([0.01, 0.04, 0.03])).toEqual([true, false, false]);
    expect(holm([0.02, 0.04, 0.03])).toEqual([false, false, false]);
    expect(holm([0.01, 0.02, 0.04])).toEqual([true, true, true]);
  });

  test('a range across styles is from the least to the most of their medians', () => {
    expect(rangeAcross([3, undefined, 1, 2])).toEqual({ low: 1, high: 3 });
    expect(rangeAcross([undefined])).toBeUndefined();
  });

  test('a batch is known again by all that can change it, and by no name', () => {
    const identity = (more: object, seed = 1) =>
      batchIdentity(compiled({ party: [{ ...dummy('warden', 55), ...more }], enemies: [{ unit: biter, x: 3 }], limit: 40 }), seed, 100);
    expect(identity({ name: 'The Warden' })).toBe(identity({}));
    expect(identity({ health: { max: 56 } })).not.toBe(identity({}));
    expect(identity({}, 2)).not.toBe(identity({}));
  });
});
