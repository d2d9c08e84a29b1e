import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Curve } from '../measures/curves';
import { findingsOf, intendedAt, intendedFor, pacedWaves, shareInside } from './pacing';
import { evenly } from '../testing/evenly';

const points = (...list: [number, number][]) => list.map(([at, value]) => ({ at, value }));
/** A curve of one-second bins whose quantiles are all the same. */
const curve = (...median: (number | undefined)[]): Curve => ({
  times: median.map((_, i) => i + 1),
  going: median.map((value) => (value === undefined ? 0 : 10)),
  median,
  p10: median,
  p25: median,
  p75: median,
  p90: median,
});

describe('an intended curve', () => {
  test('goes through its points, is nothing outside them, and one point is one instant', () => {
    const own = points([0, 0], [10, 4], [20, 4]);
    for (const { at, value } of own) expect(intendedAt(own, at)).toBeCloseTo(value, 12);
    expect(intendedAt(own, -0.1)).toBeUndefined();
    expect(intendedAt(own, 20.1)).toBeUndefined();
    expect(intendedAt(points([3, 2]), 3)).toBe(2);
    expect(intendedAt([], 3)).toBeUndefined();
  });
  test('worked: between (0, 0) and (10, 4) with a level stretch after it, half-way lies at 2.5', () => {
    // Slopes 0.4 and 0: ½ · 0 + ½ · 4 + ⅛ · 10 · 0.4 − ⅛ · 10 · 0 = 2.5.
    expect(intendedAt(points([0, 0], [10, 4], [20, 4]), 5)).toBeCloseTo(2.5, 12);
  });
  test('whatever the points: it never leaves the two it lies between', () => {
    const list = fc.array(fc.tuple(evenly(0.5, 20), evenly(0, 1)), {
      minLength: 2,
      maxLength: 12,
    });
    fc.assert(
      fc.property(list, evenly(0, 1), (steps, share) => {
        let at = 0;
        const own = steps.map(([step, value]) => ({ at: (at += step), value }));
        for (let i = 1; i < own.length; i++) {
          const [a, b] = [own[i - 1], own[i]];
          const value = intendedAt(own, a.at + share * (b.at - a.at))!;
          expect(value).toBeGreaterThanOrEqual(Math.min(a.value, b.value) - 1e-9);
          expect(value).toBeLessThanOrEqual(Math.max(a.value, b.value) + 1e-9);
        }
      }),
    );
  });
  test('a tier’s own counts before the one for every tier', () => {
    const made = (id: string, tier?: string) => ({ id, encounter: 'one', ...(tier && { tier }), tolerance: 0.1, points: [] });
    const brief = { bands: [], curves: [made('all'), made('own', 'bloom')] };
    expect(intendedFor(brief, 'one', 'bloom')?.id).toBe('own');
    expect(intendedFor(brief, 'one', 'blight')?.id).toBe('all');
    expect(intendedFor(brief, 'other', 'bloom')).toBeUndefined();
  });
});

describe('pacing', () => {
  const level = { points: points([0, 0.02], [10, 0.02]), tolerance: 0.005 };
  test('the share of time inside the tolerance, as far as the median goes', () => {
    expect(shareInside(curve(0.02, 0.024, 0.03, 0.02, undefined), level)).toBe(0.75);
    expect(shareInside(curve(undefined), level)).toBeUndefined();
  });
  test('the peak against the intended, stretches outside it, and waves without a lull between them', () => {
    const waves = [
      { id: 'a', name: 'First', started: 0, rest: 0 },
      { id: 'b', name: 'Second', started: 4, rest: 5 },
      { id: 'c', name: 'Third' },
    ];
    const found = findingsOf(curve(0.02, 0.02, 0.02, 0.02, 0.03, 0.04, 0.03, 0.02, 0.01, 0.02), waves, level);
    expect(found.map(({ kind, at, window, wave }) => [kind, at, window.to, wave])).toEqual([
      ['peak', 6, 9, 'b'],
      ['above', 4, 7, 'b'],
      ['noLull', 4, 4, 'b'],
    ]);
    expect(found[0].sentence).toBe('the median of all runs peaks with 4 % a second at 0:06, in Second, 2 × the intended');
    expect(found[1].sentence).toBe('from 0:04 to 0:07 it is above what is intended, by up to 2 % a second');
    expect(found[2].sentence).toBe('there is no lull between First and Second');
  });
  test('a curve without pressure has no peak to tell of', () => {
    expect(findingsOf(curve(0, 0, 0), [])).toEqual([]);
  });
});

describe('pacing of a fight in turns', () => {
  const level = { points: points([0, 0.02], [10, 0.02]), tolerance: 0.005 };
  const told = (median: number[], waves: Parameters<typeof findingsOf>[1] = []) => findingsOf(curve(...median), waves, level, 'rounds');

  test('the peak is a round, with the one before and after it', () => {
    const [peak] = told([0.02, 0.02, 0.06, 0.02], [{ id: 'a', name: 'First', started: 1 }]);
    expect(peak).toMatchObject({ kind: 'peak', at: 3, window: { from: 2, to: 4 }, wave: 'a' });
    expect(peak.sentence).toBe('the median of all runs peaks with 6 % a round in round 3, in First, 3 × the intended');
  });

  test('one round outside the tolerance is told, where a second alone is not', () => {
    const median = [0.02, 0.06, 0.02, 0.02, 0, 0, 0.02];
    expect(told(median).map(({ kind, window }) => [kind, window.from, window.to])).toEqual([
      ['peak', 1, 3],
      ['above', 1, 2],
      ['below', 4, 6],
    ]);
    expect(told(median)[1].sentence).toBe('from round 2 to 2 it is above what is intended, by up to 4 % a round');
    expect(told(median)[2].sentence).toBe('from round 5 to 6 it is below what is intended, by up to 2 % a round');
    expect(findingsOf(curve(...median), [], level).map(({ kind }) => kind)).toEqual(['peak']);
  });

  test('one round of rest is a lull, where one second is none', () => {
    const waves = (rest: number) => [
      { id: 'a', name: 'First', started: 1, rest },
      { id: 'b', name: 'Second', started: 3, rest: 1 },
    ];
    const kinds = (rest: number, clock: 'rounds' | 'continuous') =>
      findingsOf(curve(0.02, 0.02, 0.02), waves(rest), level, clock).map(({ kind }) => kind);
    expect(kinds(1, 'rounds')).not.toContain('noLull');
    expect(kinds(0, 'rounds')).toContain('noLull');
    expect(kinds(1, 'continuous')).toContain('noLull');
  });
});

describe('waves as they came', () => {
  const waves = [{ id: 'first', name: 'First' }] as never;
  const told = (runs: number, started: number[], rest: number[]) =>
    pacedWaves({ waves }, runs, (name) => ({ 'wave first started': started, 'wave first rest': rest })[name]!);

  test('have the median of those runs in which they came, where these are half of all or more', () => {
    expect(told(4, [9, NaN, NaN, 5], [2, 1, 3, 10])).toEqual([{ id: 'first', name: 'First', started: 5, rest: 2 }]);
    expect(told(5, [9, NaN, NaN, 5, NaN], [NaN, NaN, NaN, NaN, 4])).toEqual([{ id: 'first', name: 'First' }]);
    expect(told(0, [], [])).toEqual([{ id: 'first', name: 'First' }]);
  });
});
