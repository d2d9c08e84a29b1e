import { describe, expect, test } from '@jest/globals';
import type { Brief, IntendedCurve } from '@insidia/core';
import { ownAt, withoutCurve, withPoints, withTolerance } from './intentions';

const points = [{ at: 0, value: 0.01 }];
const other = [{ at: 5, value: 0.02 }];
const everywhere: IntendedCurve = { id: 'curve-shift', encounter: 'shift', tolerance: 0.01, points };
const atBloom: IntendedCurve = { ...everywhere, id: 'curve-shift-bloom', tier: 'bloom' };
const brief = (...curves: IntendedCurve[]) => ({ bands: [], curves }) as unknown as Brief;

describe('intended curves', () => {
  test('the first points of an encounter make a curve for every tier', () => {
    const [made, ...more] = withPoints(undefined, 'shift', 'bloom', points);
    expect(more).toEqual([]);
    expect(made).toEqual(everywhere);
    expect(made.tier).toBeUndefined();
  });

  test('points change the curve that counts at a tier: its own, else that of every tier', () => {
    expect(withPoints(brief(everywhere, atBloom), 'shift', 'bloom', other)).toEqual([everywhere, { ...atBloom, points: other }]);
    expect(withPoints(brief(everywhere, atBloom), 'shift', 'blight', other)).toEqual([{ ...everywhere, points: other }, atBloom]);
    expect(withPoints(brief(everywhere), 'shift', undefined, other)).toEqual([{ ...everywhere, points: other }]);
  });

  test('without points the curve that counts goes, and only that; where there is none nothing comes of it', () => {
    expect(withPoints(brief(everywhere, atBloom), 'shift', 'bloom', [])).toEqual([everywhere]);
    expect(withPoints(brief(everywhere), 'shift', 'bloom', [])).toEqual([]);
    expect(withPoints(brief(everywhere), 'cellar', 'bloom', [])).toEqual([everywhere]);
  });

  test('a second encounter has a curve with an id of its own', () => {
    const taken: IntendedCurve = { ...everywhere, id: 'curve-cellar' };
    const ids = withPoints(brief(taken), 'cellar', undefined, points).map(({ id }) => id);
    expect(new Set(ids).size).toBe(2);
  });

  test('a tier gets a curve of its own, which no longer changes with the other', () => {
    const [kept, own] = ownAt([everywhere], everywhere, 'bloom');
    expect(kept).toBe(everywhere);
    expect(own).toEqual(atBloom);
    expect(own.points).not.toBe(everywhere.points);
  });

  test('tolerance and end are of one curve alone', () => {
    expect(withTolerance([everywhere, atBloom], atBloom.id, 0.05)).toEqual([everywhere, { ...atBloom, tolerance: 0.05 }]);
    expect(withoutCurve([everywhere, atBloom], everywhere.id)).toEqual([atBloom]);
  });
});
