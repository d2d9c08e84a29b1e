import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { draw } from '../engine/time/chance';
import { type Ran, effectOf, interactionOf } from './effect';

const ran = (values: number[], mark = 'a'): Ran => ({ values, digests: values.map((_, i) => `${mark}${i}`) });
/** Even draws from 0 to 1, by counter. */
const even = (key: number, n: number) => Array.from({ length: n }, (_, i) => draw(key, 7, 0, i));
/** Normal draws by Box and Muller. */
const normal = (key: number, n: number) =>
  Array.from({ length: n }, (_, i) => Math.sqrt(-2 * Math.log(1 - draw(key, 1, 0, i))) * Math.cos(2 * Math.PI * draw(key, 2, 0, i)));

describe('an effect', () => {
  test('of fights that went as before is exactly none', () => {
    const same = ran([1, 2, Infinity, NaN]);
    expect(effectOf(same, same, 'median')).toMatchObject({ says: 'never', low: 0, high: 0, touched: 0, runs: 4 });
    // Also where the measure has nothing to say: nothing moved it.
    expect(effectOf(ran([NaN, NaN]), ran([NaN, NaN]), 'mean').says).toBe('never');
  });

  test('of shares counts the seeds that turned: worked by hand', () => {
    const before = ran([...Array(8).fill(1), ...Array(12).fill(0)], 'a');
    const after = ran([...Array(6).fill(1), 0, 0, ...Array(5).fill(1), ...Array(7).fill(0)], 'b');
    const { difference, low, high, says, touched } = effectOf(before, after, 'share');
    expect(difference).toBeCloseTo(3 / 20, 12);
    // (5 + 1) and (2 + 1) of 22: 3/22 ± 1.96 √((9/22 − (3/22)²) / 22)
    const half = 1.959964 * Math.sqrt((9 / 22 - (3 / 22) ** 2) / 22);
    expect(low).toBeCloseTo(3 / 22 - half, 6);
    expect(high).toBeCloseTo(3 / 22 + half, 6);
    expect([says, touched]).toEqual(['none', 20]);
  });

  test('is told of two runs, not of one', () => {
    const of = (runs: number) => effectOf(ran([1, 2].slice(0, runs), 'a'), ran([2, 4].slice(0, runs), 'b'), 'mean');
    expect([of(2).difference, of(2).says, Number.isFinite(of(2).low)]).toEqual([1.5, 'none', true]);
    expect([of(1).says, of(1).low]).toEqual(['mute', NaN]);
  });

  test('of means is by the pairs’ differences, of quantiles by their values', () => {
    const before = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10];
    const after = before.map((value, i) => value + 1 + (i % 2) * 0.1);
    expect(effectOf(ran(before), ran(after, 'b'), 'mean')).toMatchObject({ says: 'up' });
    expect(effectOf(ran(before), ran(after, 'b'), 'mean').difference).toBeCloseTo(1.05, 12);
    expect(effectOf(ran(before), ran(after, 'b'), 'p90').difference).toBeCloseTo(1, 12);
  });

  test('can’t speak of a median that never comes, and of what no run has', () => {
    expect(effectOf(ran([1, Infinity, Infinity]), ran([1, 2, Infinity], 'b'), 'median').says).toBe('mute');
    expect(effectOf(ran([NaN, NaN]), ran([1, 2], 'b'), 'median').says).toBe('mute');
  });

  test('the other way about is the same with its sign turned, whatever the values', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 20 }), fc.integer({ min: 0, max: 20 })), { minLength: 2, maxLength: 60 }),
        fc.constantFrom('share' as const, 'mean' as const),
        (pairs, statistic) => {
          const [a, b] = [
            ran(pairs.map(([x]) => x)),
            ran(
              pairs.map(([, y]) => y),
              'b',
            ),
          ];
          const [there, back] = [effectOf(a, b, statistic), effectOf(b, a, statistic)];
          expect(there.difference).toBeCloseTo(-back.difference, 9);
          expect(there.low).toBeCloseTo(-back.high, 9);
          expect(there.high).toBeCloseTo(-back.low, 9);
        },
      ),
    );
  });
});

/** The long one is `npm run study`: a thousand repeats and more of each. */
describe('over many repeats', () => {
  const REPEATS = 300;
  const covered = (of: (repeat: number) => { truth: number; effect: ReturnType<typeof effectOf> }) =>
    Array.from({ length: REPEATS }, (_, repeat) => of(repeat)).filter(({ truth, effect }) => effect.low <= truth && truth <= effect.high)
      .length / REPEATS;

  test('intervals hold the truth about as often as they say', () => {
    const n = 80;
    const shares = covered((repeat) => {
      const [u, v] = [even(3 * repeat, n), even(3 * repeat + 1, n)];
      // Pairs that go together: half of the luck is shared.
      const after = u.map((x, i) => (i % 2 ? x : v[i]));
      return {
        truth: 0.1,
        effect: effectOf(
          ran(u.map((x) => (x < 0.5 ? 1 : 0))),
          ran(
            after.map((x) => (x < 0.6 ? 1 : 0)),
            'b',
          ),
          'share',
        ),
      };
    });
    const shifted = (statistic: 'mean' | 'median', key: number) =>
      covered((repeat) => {
        const [u, v] = [normal(key * repeat, n), normal(key * repeat + 1, n)];
        const after = u.map((x, i) => 0.3 + 0.6 * x + 0.8 * v[i]);
        return { truth: 0.3, effect: effectOf(ran(u), ran(after, 'b'), statistic) };
      });
    // Of 300 repeats at 95 % the share lies between 91.5 and 98 % in all but two of a thousand.
    for (const share of [shares, shifted('mean', 5), shifted('median', 7)]) {
      expect(share).toBeGreaterThan(0.91);
      expect(share).toBeLessThan(0.99);
    }
  });
});

describe('what two changes do together beyond their sum', () => {
  const n = 300;
  const noise = normal(5, n);
  const four = (beyond: number) => {
    const of = (add: number, mark: string) =>
      ran(
        noise.map((value) => value + add),
        mark,
      );
    return [of(0, 'a'), of(1, 'b'), of(2, 'c'), of(3 + beyond, 'd')] as const;
  };

  test('is none where they add up, and as much as was put in where they don’t', () => {
    for (const statistic of ['mean', 'median', 'p90'] as const) {
      const none = interactionOf(...four(0), statistic);
      expect([statistic, Math.abs(none.difference) < 1e-9, none.runs]).toEqual([statistic, true, n]);
      const some = interactionOf(...four(-0.5), statistic);
      expect([statistic, some.says]).toEqual([statistic, 'down']);
      expect(some.difference).toBeCloseTo(-0.5, 9);
      expect(some.before).toBeCloseTo(some.after + 0.5, 9);
    }
  });

  test('of shares is by seeds: two that each save a fifth save no more together', () => {
    const u = even(3, 1000);
    const share = (edge: number, mark: string) =>
      ran(
        u.map((value) => (value < edge ? 1 : 0)),
        mark,
      );
    const { says, difference, low, high } = interactionOf(share(0.3, 'a'), share(0.5, 'b'), share(0.5, 'c'), share(0.5, 'd'), 'share');
    expect(says).toBe('down');
    expect(difference).toBeCloseTo(-u.filter((value) => value >= 0.3 && value < 0.5).length / 1000, 9);
    expect(low < difference && difference < high).toBe(true);
  });

  test('is exactly none where one of them changes no fight; can’t be told where a median never comes', () => {
    const [a, b] = [ran([1, 2, 3], 'a'), ran([2, 3, 4], 'b')];
    expect(interactionOf(a, a, b, b, 'median')).toMatchObject({ says: 'never', low: 0, high: 0, touched: 0 });
    const never = ran([Infinity, Infinity, Infinity], 'c');
    expect(interactionOf(a, b, never, ran([1, 2, 3], 'd'), 'median').says).toBe('mute');
  });

  test('two runs can tell it, one cannot', () => {
    const of = (runs: number) =>
      interactionOf(...(['a', 'b', 'c', 'd'].map((mark, k) => ran([k, k * k + 1].slice(0, runs), mark)) as [Ran, Ran, Ran, Ran]), 'mean');
    // 3 + 0 − 1 − 2 = 0 and 10 + 1 − 2 − 5 = 4: their mean.
    expect([of(2).difference, of(2).says]).toEqual([2, 'none']);
    expect([Number.isFinite(of(2).low), of(1).says, of(1).low]).toEqual([true, 'mute', NaN]);
  });

  test('its interval holds what was put in at its rate: noise of its own in each version', () => {
    let held = 0;
    for (let round = 0; round < 200; round++) {
      const of = (add: number, k: number) =>
        ran(
          normal(1000 + 4 * round + k, 60).map((value) => value + add),
          `${k}`,
        );
      const { low, high } = interactionOf(of(0, 0), of(1, 1), of(2, 2), of(4, 3), 'mean');
      if (low <= 1 && 1 <= high) held++;
    }
    expect(held).toBeGreaterThanOrEqual(182);
    expect(held).toBeLessThanOrEqual(199);
  });
});
