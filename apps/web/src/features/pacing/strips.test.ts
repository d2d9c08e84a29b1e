import { describe, expect, test } from '@jest/globals';
import { type Curve, type Encounter, type Project, parseProject } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { pointsFrom, replayQuery, rulers, stripsOf } from './strips';

const demo = (): Project => parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../../demo/verdance.insidia.json'), 'utf8')));
const shift = (): Encounter => demo().encounters.find(({ id }) => id === 'evening-shift')!;
const times = Array.from({ length: 240 }, (_, bin) => bin + 1);
const level = (value: number, last = 240) => times.map((_, bin) => (bin < last ? value : undefined));
const curve = (value: number, last: number, most = value * 2): Curve => ({
  times,
  going: times.map(() => 10),
  p10: level(0, last),
  p25: level(value / 2, last),
  median: level(value, last),
  p75: level(value, last),
  p90: level(most, last),
});

describe('strips', () => {
  test('by tier the lens gives the skill, by skill it gives the tier; tiers have their number', () => {
    const project = demo();
    const tiers = stripsOf(project, 'evening-shift', 'tiers', { tier: 'bloom', skill: 'novice' });
    expect(tiers.map(({ number, cell }) => [number, cell.tier, cell.skill])).toEqual(
      project.tiers.map(({ id }, i) => [i + 1, id, 'novice']),
    );
    const skills = stripsOf(project, 'evening-shift', 'skills', { tier: 'bloom', skill: 'novice' });
    expect(skills.map(({ number, cell }) => [number, cell.tier, cell.skill])).toEqual(
      project.skills.map(({ id }) => [undefined, 'bloom', id]),
    );
    expect(new Set([...tiers, ...skills].map(({ key }) => key)).size).toBe(project.tiers.length + project.skills.length - 1);
  });

  test('a project without tiers has one strip, as it is written', () => {
    const [only, ...rest] = stripsOf({ ...demo(), tiers: [] }, 'evening-shift', 'tiers', {});
    expect(rest).toEqual([]);
    expect(only).toMatchObject({ name: 'as written', cell: { kind: 'encounter', id: 'evening-shift' } });
    expect(replayQuery(only, 61.234)).toBe('seed=1&at=61.23');
  });

  test('an instant is opened at the tier and skill of its strip', () => {
    const [strip] = stripsOf(demo(), 'evening-shift', 'tiers', { skill: 'expert' });
    expect(new URLSearchParams(replayQuery(strip, 5)).get('tier')).toBe(demo().tiers[0].id);
    expect(new URLSearchParams(replayQuery(strip, 5)).get('skill')).toBe('expert');
  });
});

describe('rulers', () => {
  test('as long as the longest strip, as high as nine in ten runs reach, rounded up', () => {
    const curves = new Map([
      ['a', { runs: 10, curve: curve(0.02, 90) }],
      ['b', { runs: 10, curve: curve(0.05, 60) }],
      ['c', { runs: 0 }],
    ]);
    expect(rulers(shift(), curves, 'pressure', undefined)).toEqual({ until: 90, top: 0.1 });
  });

  test('an intended curve of this encounter makes room for itself; that of another does not, nor does it on another measure', () => {
    const points = [
      { at: 0, value: 0.1 },
      { at: 150, value: 0.27 },
    ];
    const own = { id: 'a', encounter: 'evening-shift', tolerance: 0.02, points };
    const curves = new Map([['a', { runs: 10, curve: curve(0.02, 90) }]]);
    expect(rulers(shift(), curves, 'pressure', { bands: [], curves: [own] })).toEqual({ until: 150, top: 0.3 });
    expect(rulers(shift(), curves, 'pressure', { bands: [], curves: [{ ...own, encounter: 'cellar-beat' }] })).toEqual({
      until: 90,
      top: 0.04,
    });
    expect(rulers(shift(), curves, 'engaged', { bands: [], curves: [own] }).until).toBe(90);
  });

  test('nothing run yet: the encounter’s own limit; health always reaches to all of it', () => {
    expect(rulers(shift(), null, 'pressure', undefined)).toEqual({ until: shift().limit, top: 0.05 });
    expect(rulers(shift(), null, 'health', undefined).top).toBe(1);
    expect(rulers(shift(), new Map([['a', { runs: 5, curve: curve(0.4, 50, 0.6) }]]), 'health', undefined).top).toBe(1);
  });
});

describe('points to begin an intended curve with', () => {
  test('seven on the median, the first and the last among them, as far as it goes', () => {
    const points = pointsFrom(curve(0.03, 120));
    expect(points).toHaveLength(7);
    expect([points[0].at, points[6].at]).toEqual([1, 120]);
    expect(points.every(({ value }) => value === 0.03)).toBe(true);
    expect(points.map(({ at }) => at)).toEqual([...points.map(({ at }) => at)].sort((a, b) => a - b));
  });
  test('a median of two bins has two points, one of none has none', () => {
    expect(pointsFrom(curve(0.03, 2)).map(({ at }) => at)).toEqual([1, 2]);
    expect(pointsFrom(curve(0.03, 0))).toEqual([]);
  });
});
