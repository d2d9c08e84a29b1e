import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { draw } from '../engine/time/chance';
import { pairedMean } from '../analysis/ranking';
import { pairedChange } from '../analysis/compare';
import { look } from './look';
import type { Statistic } from './measure';
import { estimate, judge, together } from './verdict';
import { evenly } from '../testing/evenly';

/** A uniform draw in (0, 1), the same for the same numbers. */
const uniform = (batch: number, run: number, purpose = 0) => Math.max(1e-12, draw(batch, run, purpose, 0));
const normal = (batch: number, run: number) =>
  Math.sqrt(-2 * Math.log(uniform(batch, run, 1))) * Math.cos(2 * Math.PI * uniform(batch, run, 2));
const values = (n: number, of: (run: number) => number) => Array.from({ length: n }, (_, run) => of(run));
const ONE_TO_TEN = values(10, (i) => i + 1);

describe('an estimate', () => {
  test('median by ranks: of 1 … 10 it is 5, and P(B ≤ 1) = 11/1024 lets the interval be the 2nd to the 9th', () => {
    expect(estimate(ONE_TO_TEN, 'median')).toEqual({ value: 5, low: 2, high: 9, n: 10 });
  });
  test('mean by t: of 1 … 6 it is 3.5 ± 2.571 × 0.7638', () => {
    const found = estimate(
      values(6, (i) => i + 1),
      'mean',
    );
    expect(found.value).toBe(3.5);
    expect(found.high - 3.5).toBeCloseTo(2.571 * 0.7638, 2);
  });
  test('share by Wilson: 8 of 10 is 0.490 to 0.943', () => {
    const found = estimate(
      values(10, (i) => (i < 8 ? 1 : 0)),
      'share',
    );
    expect([found.value, found.low, found.high].map((x) => Number(x.toFixed(3)))).toEqual([0.8, 0.49, 0.943]);
  });
  test('a survivor leaves a median and no mean; runs without a value are counted out', () => {
    const some = [3, 5, NaN, 8, Infinity];
    expect(estimate(some, 'median')).toMatchObject({ value: 5, n: 4 });
    expect(estimate(some, 'p90')).toMatchObject({ value: Infinity });
    expect(estimate(some, 'mean')).toMatchObject({ value: NaN, low: -Infinity, high: Infinity });
    expect(estimate([NaN], 'median')).toEqual({ value: NaN, low: -Infinity, high: Infinity, n: 0 });
  });
});

describe('a judgement', () => {
  test('all ten above an edge: p is twice P(B ≤ 0) = 2/1024, on whichever side the band lies', () => {
    expect(judge(ONE_TO_TEN, 'median', { low: 0.5 })).toMatchObject({ verdict: 'met', p: 2 / 1024, more: 0 });
    expect(judge(ONE_TO_TEN, 'median', { high: 0.5 })).toMatchObject({ verdict: 'missedHigh', p: 2 / 1024 });
    const below = judge(ONE_TO_TEN, 'median', { low: 10.5 });
    expect(below.verdict).toBe('missedLow');
    expect(below.p).toBeCloseTo(2 / 1024, 12);
  });
  test('too close to call: the interval 2 to 9 reaches over 4; the runs that would decide are said', () => {
    const { verdict, p, more } = judge(ONE_TO_TEN, 'median', { low: 4, high: 20 });
    expect(verdict).toBe('undecided');
    expect(p).toBeGreaterThan(0.05);
    // (5 − 2) ÷ (5 − 4) = 3 times too wide: nine times the runs, less those that are there, in fifties.
    expect(more).toBe(100);
    expect(judge(ONE_TO_TEN, 'median', { low: 5 }).more).toBeUndefined();
    // Nothing to go by: no runs, none with a value, one alone whose interval has no end.
    for (const values of [[], [NaN], [4]])
      expect(judge(values, 'median', { low: 5 })).toMatchObject({ verdict: 'undecided', more: undefined });
  });
  test('nothing measured, or a mean of survivors, is undecided', () => {
    expect(judge([NaN, NaN], 'median', { low: 1 })).toMatchObject({ verdict: 'undecided', p: 1 });
    expect(judge([1, Infinity], 'mean', { low: 1 })).toMatchObject({ verdict: 'undecided', p: 1 });
  });
  test('what always happened is sure of an edge of 1 only on one side', () => {
    expect(
      judge(
        values(100, () => 1),
        'share',
        { low: 0.9 },
      ).verdict,
    ).toBe('met');
    expect(
      judge(
        values(100, () => 1),
        'share',
        { high: 0.5 },
      ).verdict,
    ).toBe('missedHigh');
  });
  test('a share by hand: 60 of 100 against at least 0.7 lie 2.18 standard errors below it', () => {
    const sixty = Array.from({ length: 100 }, (_, i) => Number(i < 60));
    // (0.6 − 0.7) ÷ √(0.7 × 0.3 ÷ 100) = −2.182; twice Φ(−2.182) = 0.0291
    expect(judge(sixty, 'share', { low: 0.7 }).p).toBeCloseTo(0.0291, 4);
    expect(judge(sixty, 'share', { high: 0.5 }).p).toBeCloseTo(0.0455, 4);
  });
  test('whatever the numbers: p is at most 0.05 just where the interval decides', () => {
    const edge = evenly(-1.5, 1.5);
    fc.assert(
      fc.property(fc.integer({ min: 12, max: 300 }), fc.integer({ min: 1, max: 1e6 }), edge, edge, (n, seed, a, b) => {
        const band = { low: Math.min(a, b), high: Math.max(a, b) };
        const own = values(n, (run) => normal(seed, run));
        for (const statistic of ['median', 'p10', 'p90'] as Statistic[]) {
          const { verdict, p } = judge(own, statistic, band);
          expect([statistic, verdict !== 'undecided']).toEqual([statistic, p <= 0.05]);
        }
        const { verdict, p } = judge(own, 'mean', band);
        if (Math.abs(p - 0.05) > 0.002) expect(verdict !== 'undecided').toBe(p <= 0.05);
      }),
      { numRuns: 60 },
    );
  });
  test('a band’s edges belong to it: values that all lie on one are as sure as values beyond it, alone and read together', () => {
    const zeros = new Array<number>(300).fill(0);
    const none = judge(zeros, 'median', { high: 0 });
    expect(none.verdict).toBe('met');
    expect(none.p).toBeLessThan(1e-60);
    expect(judge(zeros, 'mean', { high: 0 })).toMatchObject({ verdict: 'met', p: 0 });
    expect(judge(new Array<number>(300).fill(1), 'share', { low: 0.9, high: 1 }).p).toBeLessThan(1e-6);
    // Who must be below it is not: what lies on the edge does not speak for a miss.
    expect(judge(zeros, 'p90', { low: 0 })).toMatchObject({ verdict: 'met' });
    const doubtful = judge(ONE_TO_TEN, 'median', { high: 8.5 });
    expect(together([none, doubtful])).toEqual(['met', 'undecided']);
    // Half at the edge, half beyond it: nothing is sure.
    expect(judge([...zeros, ...zeros.map(() => 1)], 'median', { high: 0 }).p).toBeGreaterThan(0.05);
  });

  test('read together, one doubtful finding among many clear ones does not count', () => {
    const clear = judge(
      values(400, (i) => i),
      'median',
      { low: -10 },
    );
    const doubtful = judge(
      values(400, (i) => i),
      'median',
      { low: 178.5 },
    );
    expect(doubtful.verdict).toBe('met');
    expect(doubtful.p).toBeGreaterThan(0.01);
    expect(together([doubtful])).toEqual(['met']);
    expect(together([doubtful, clear, clear])).toEqual(['met', 'met', 'met']);
    const undecided = judge(
      values(400, (i) => i),
      'median',
      { low: 198.5 },
    );
    expect(together([doubtful, undecided, undecided, undecided])).toEqual(['undecided', 'undecided', 'undecided', 'undecided']);
  });
});

describe('over 2,000 batches', () => {
  const BATCHES = 2000;
  const coverage = (covers: (batch: number) => boolean) =>
    values(BATCHES, (batch) => (covers(batch + 1) ? 1 : 0)).reduce((a, b) => a + b, 0) / BATCHES;
  /** Three standard deviations of a share of 0.95 over so many batches. */
  const SLACK = 3 * Math.sqrt((0.95 * 0.05) / BATCHES);

  test.each([
    ['median', Math.LN2],
    ['p10', -Math.log(0.9)],
    ['p90', -Math.log(0.1)],
    ['mean', 1],
  ] as [Statistic, number][])('the 95 %% interval of a %s covers the truth that often', (statistic, truth) => {
    const share = coverage((batch) => {
      const { low, high } = estimate(
        values(120, (run) => (statistic === 'mean' ? 1 + normal(batch, run) : -Math.log(uniform(batch, run)))),
        statistic,
      );
      return low <= truth && truth <= high;
    });
    expect(share).toBeGreaterThan(0.95 - SLACK);
    // Ranks are whole, so a quantile's interval covers a little more often than asked; a mean's does not.
    expect(share).toBeLessThan(statistic === 'mean' ? 0.95 + SLACK : 0.985);
  });

  test('the interval of a share, over the shares that come about', () => {
    for (const truth of [0.1, 0.5, 0.83]) {
      const share = coverage((batch) => {
        const { low, high } = estimate(
          values(150, (run) => (uniform(batch, run) < truth ? 1 : 0)),
          'share',
        );
        return low <= truth && truth <= high;
      });
      expect(Math.abs(share - 0.95)).toBeLessThan(0.02);
    }
  });

  test('stopping early: a measure that lies on the edge is decided in at most 5 % of batches', () => {
    const decided = coverage((batch) => {
      for (let runs = 100; runs <= 1600; runs *= 2) {
        const { verdict } = look(
          values(runs, (run) => normal(batch, run)),
          { band: { low: 0 }, cap: 1600 },
        );
        if (verdict !== 'undecided') return true;
      }
      return false;
    });
    expect(decided).toBeLessThan(0.05);
    expect(decided).toBeGreaterThan(0.002);
  });

  test('paired comparison: a planted change of 2 % is found, an absent one in at most about 5 %', () => {
    const found = (factor: number) => {
      const batches = 200;
      let seen = 0;
      for (let batch = 1; batch <= batches; batch++) {
        // The same seeds meet nearly the same luck: what a change adds of its own is small.
        const before = values(400, (run) => 10 + 2 * normal(batch, run));
        const after = before.map((value, run) => value * factor + 0.3 * normal(batch + 5000, run));
        if (pairedChange(before, after)!.visible) seen++;
        const compared = pairedMean(before, after)!;
        if (factor > 1) expect(compared.low).toBeGreaterThan(0);
      }
      return seen / batches;
    };
    expect(found(1.02)).toBeGreaterThan(0.9);
    expect(found(1)).toBeLessThan(0.09);
  });
});
