import { describe, expect, test } from '@jest/globals';
import { EVENT, EventLog } from '../record/log';
import type { Run } from '../engine/run';
import { compiled, dummy, fought, unit } from '../testing/builders';
import { runBatch } from '../analysis/batch';
import { pairedChange } from '../analysis/compare';
import { firstStrikes } from './first-strike';
import { ratioOfSums, studentT, wilson } from './intervals';
import { pressure } from './pressure';
import { quantileInterval, quantileOf } from './quantile';
import type { Stream } from './stream';
import { summarise } from './summary';
import { lives } from './time-to-kill';
import { TIME_USES } from '../record/doing';
import { timeSpent } from './time-use';

/** A stream of hits on party member 0 by enemy 1: [s, health lost]. */
function hitsOnParty(hits: [number, number][]): Stream {
  const log = new EventLog();
  for (const [time, lost] of hits) log.add(time * 1e6, EVENT.hit, 1, 0, 0, lost, 0, lost);
  const tables = compiled({ party: [dummy('warden', 100)], enemies: [{ unit: unit({ id: 'clipper' }) }] });
  return {
    compiled: tables,
    run: {
      seed: 1,
      log,
      length: 1e7,
      outcome: 'timeOut',
      digest: '',
      kinds: Int32Array.of(0, 1),
      sides: Uint8Array.of(0, 1),
      seats: Int32Array.of(0, -1),
      waves: Int32Array.of(-1, 0),
      units: 2,
      partyLeft: 1,
    } satisfies Run,
  };
}

describe('pressure', () => {
  test('is health lost in (t − 3, t] ÷ 3: 6 at 1, 2 and 4 s peaks at 4 hp/s', () => {
    const { peak, peakShare, peakAt, dose } = pressure(
      hitsOnParty([
        [1, 6],
        [2, 6],
        [4, 6],
      ]),
    );
    expect([peak, peakShare, peakAt, dose]).toEqual([4, 0.04, 2, 0.18]);
  });

  test('a hit exactly one window ago no longer counts', () => {
    expect(
      pressure(
        hitsOnParty([
          [1, 6],
          [4, 6],
        ]),
      ).peak,
    ).toBe(2);
    expect(
      pressure(
        hitsOnParty([
          [1, 6],
          [3.999999, 6],
        ]),
      ).peak,
    ).toBe(4);
  });

  test('nothing lost is no pressure, and there is no peak to date', () => {
    expect(pressure(hitsOnParty([]))).toEqual({ peak: 0, peakShare: 0, peakAt: NaN, dose: 0 });
  });
});

describe('lives and strikes of a fight worked by hand', () => {
  // Nine blows of 12 at 0.1, 0.5 … 3.3 s on 100 health (docs/worked-duels.md).
  const striker = unit({
    id: 'clipper',
    attacks: [{ id: 'bite', beat: { windup: 0.1, active: 0.1, recovery: 0.1, cooldown: 0.4 }, effects: { damage: { amount: 12 } } }],
  });
  const tables = compiled({ party: [dummy('warden', 100)], enemies: [{ unit: striker }] });
  const stream = { compiled: tables, run: fought({ party: [dummy('warden', 100)], enemies: [{ unit: striker }] }) };

  test('time-to-down runs from the first damage; who was never hurt is apart; a survivor lives on', () => {
    expect(lives(stream)).toEqual([
      { unit: 0, type: 0, timeToKill: 3.2, lifetime: 3.3 },
      { unit: 1, type: 1, timeToKill: NaN, lifetime: Infinity },
    ]);
  });

  test('the first strike comes a wind-up after noticing', () => {
    expect(firstStrikes(stream)[1]).toBe(0.1);
  });

  test('alerted time is wind-up, active, recovery and cooldown, a quarter each', () => {
    const use = timeSpent(stream).uses[1];
    const share = Object.fromEntries(TIME_USES.map((name, i) => [name, Math.round(use[i] * 1000) / 1000]));
    // Eight whole cycles of 0.4 s and the last wind-up.
    expect(share).toMatchObject({ windup: 0.9, active: 0.8, recovery: 0.8, cooldown: 0.8, range: 0 });
    expect(use.reduce((a, b) => a + b, 0)).toBeCloseTo(3.3, 9);
  });

  test('a batch of it is certain, and says so', () => {
    const summary = runBatch(tables, 1, 30);
    expect(summary.members[0].timeToDown).toMatchObject({ n: 30, median: 3.2, p10: 3.2, p90: 3.2, mean: expect.closeTo(3.2, 9) });
    expect(summary.encounter.peakPressure?.median).toBe(32); // eight blows within 3 s
    expect(summary.encounter.dose?.median).toBe(1);
    expect(summary.outcomes.partyDown).toBe(30);
    expect(summary.kinds[1].attacks[0]).toMatchObject({ starts: 270, hits: 270, damage: 3000, overkill: 240 });
  });

  test('a batch is the same however it is cut into portions', () => {
    expect(runBatch(tables, 1, 30).digest).toBe(runBatch(structuredClone(tables), 1, 30).digest);
    expect(() => runBatch(tables, 1, 0)).toThrow('runs must be a whole number from 1 to 100000: it is 0');
    expect(() => runBatch(tables, -1, 3)).toThrow('seed must be');
  });
});

describe('statistics', () => {
  test('quantile q is the ⌈q n⌉-th value, survivors among them', () => {
    expect(quantileOf([3, 5, 8, Infinity], 0.5)).toBe(5);
    expect(quantileOf([3, 5, 8, Infinity], 0.9)).toBe(Infinity);
    expect(quantileOf([3], 0.1)).toBe(3);
    expect(quantileOf([1, 2, 3, 4, 5, 6, 7, 8, 9, 10], 0.1)).toBe(1);
  });

  test('the interval of a median by order statistics: of 20 runs, ranks 6 and 15', () => {
    // P(B < 6) = P(B ≥ 15) = 0.0207 for B binomial (20, ½): the classic table entry.
    const sorted = Array.from({ length: 20 }, (_, i) => i + 1);
    expect(quantileInterval(sorted, 0.5)).toEqual({ low: 6, high: 15 });
  });

  test('it is open where no rank is far enough out', () => {
    expect(quantileInterval([1, 2, 3], 0.5)).toEqual({ low: -Infinity, high: Infinity });
  });

  test('of six runs it is the first and the last: both of them miss the median once in 64', () => {
    expect(quantileInterval([1, 2, 3, 4, 5, 6], 0.5)).toEqual({ low: 1, high: 6 });
  });

  test('it covers the true median at least 95 times in 100', () => {
    let covered = 0;
    for (let batch = 0; batch < 2000; batch++) {
      const values = Array.from(
        { length: 41 },
        (_, i) => ((Math.imul(batch * 41 + i + 1, 0x9e3779b1) ^ (Math.imul(batch + 7, 0x85ebca6b) >>> 3)) >>> 0) / 2 ** 32,
      ).sort((a, b) => a - b);
      const { low, high } = quantileInterval(values, 0.5);
      if (low <= 0.5 && 0.5 <= high) covered++;
    }
    expect(covered).toBeGreaterThan(1880);
  });

  test('Wilson: 8 of 10 is 0.490 to 0.943; 0 of 20 reaches 0.161', () => {
    expect(wilson(8, 10).low).toBeCloseTo(0.4902, 4);
    expect(wilson(8, 10).high).toBeCloseTo(0.9433, 4);
    expect(wilson(0, 20)).toEqual({ low: 0, high: expect.closeTo(0.1611, 4) });
  });

  test('Student’s t against the tables', () => {
    expect(studentT(5)).toBeCloseTo(2.571, 2);
    expect(studentT(30)).toBeCloseTo(2.042, 3);
    expect(studentT(1e6)).toBeCloseTo(1.96, 3);
  });

  test('a ratio of sums is not the mean of ratios, and a constant ratio is certain', () => {
    expect(ratioOfSums([1, 9], [2, 12]).value).toBeCloseTo(10 / 14, 12);
    const { low, high } = ratioOfSums([1, 2, 3], [2, 4, 6]);
    expect([low, high]).toEqual([0.5, 0.5]);
  });

  test('a summary counts survivors and those without a value, and then has no mean', () => {
    const summary = summarise([2, 4, Infinity, NaN, 6]);
    expect(summary).toMatchObject({ n: 4, missing: 1, infinite: 1, median: 4, max: Infinity, min: 2 });
    expect(summary?.mean).toBeUndefined();
    expect(summary?.histogram.counts.reduce((a, b) => a + b)).toBe(3);
    expect(summarise([NaN])).toBeUndefined();
    expect(summarise([1, 2, 3])).toMatchObject({ mean: 2, standardDeviation: 1 });
  });

  test('paired comparison sees a planted 10 % and not an absent change', () => {
    const before = Array.from({ length: 200 }, (_, i) => 5 + ((i * 37) % 100) / 50);
    expect(pairedChange(before, before)).toMatchObject({ difference: 0, low: 0, high: 0, visible: false });
    expect(
      pairedChange(
        before,
        before.map((x) => x * 1.1),
      ),
    ).toMatchObject({ visible: true, difference: expect.closeTo(0.6, 1) });
    expect(
      pairedChange(
        before,
        before.map(() => Infinity),
      ),
    ).toBeUndefined();
  });
});

test('a way that the only life took once is taken once a life', () => {
  const clipper = unit({
    id: 'clipper',
    attacks: [],
    states: [
      { id: 'a', name: 'A', does: 'hold', leaves: [{ to: 'b', when: { subject: 'timeInState', is: 'above', value: 0.5 } }] },
      { id: 'b', name: 'B', does: 'hold' },
    ],
  });
  const { kinds } = runBatch(compiled({ party: [dummy('warden', 100)], enemies: [{ unit: clipper }], limit: 2 }), 1, 1);
  const { states } = kinds.find(({ id }) => id === 'clipper')!;
  expect(states.map(({ entriesPerLife, moves }) => [entriesPerLife, moves])).toEqual([
    [1, [{ to: 1, perLife: 1 }]],
    [1, []],
  ]);
  // Half a second and a step of the two it lives.
  expect(states[0].share).toBeCloseTo(0.275, 1);
  expect(states[0].share! + states[1].share!).toBeCloseTo(1, 9);
});
