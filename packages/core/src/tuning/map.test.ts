import { expect, test } from '@jest/globals';
import { demoProject } from '../testing/demo';
import type { Scenario } from '../analysis/scenario';
import { dialFor } from './dial';
import { lookAt } from './goal';
import { mapBetween, mapCell, mapOf, mapValues } from './map';

const project = demoProject();
const cell: Scenario = { kind: 'duel', id: 'clipper' };
const health = { dial: { ...dialFor(project, '/units/clipper/health/max')!, low: 18, high: 26 }, now: 22 };
const run = { dial: { ...dialFor(project, '/units/clipper/movement/run')!, low: 6, high: 8 }, now: 7 };
const axes = [health, run] as const;

test('a map has every pair of values; what stands as written is not turned', () => {
  expect(mapValues(health)).toEqual([18, 20, 22, 24, 26]);
  expect(mapCell(cell, axes, 22, 7)).toEqual(cell);
  expect(mapCell(cell, axes, 24, 7).turned).toHaveLength(1);
  expect(mapCell(cell, axes, 24, 8).turned!.map(({ value }) => value)).toEqual([24, 8]);
});

test('all that is wanted holds where every goal is met; one missed is enough against it; not run says nothing', () => {
  const band = { low: 40, high: 44 };
  const objectives = [{ ...lookAt(cell, 'timeToKill'), band }, lookAt(cell, 'won')];
  // What it comes to is the sum of both numbers and a little luck.
  const points = mapOf(cell, axes, objectives, (one, { measure }) => {
    const [a, b] = [
      one.turned?.find(({ path }) => path.endsWith('max'))?.value ?? 22,
      one.turned?.find(({ path }) => path.endsWith('run'))?.value ?? 7,
    ];
    if (a === 26 && b === 8) return undefined;
    const value = measure === 'won' ? 1 : Number(a) * 1.5 + Number(b);
    return { digests: Array.from({ length: 60 }, (_, i) => i), values: Array.from({ length: 60 }, (_, i) => value + (i % 3) * 0.01) };
  });
  expect(points).toHaveLength(25);
  const at = (x: number, y: number) => points.find((point) => point.x === x && point.y === y)!;
  expect(at(22, 7).all).toBe('met'); // 33 + 7
  expect(at(18, 6).all).toBe('missed');
  expect(at(26, 8).all).toBeUndefined();
  expect(at(22, 7).at.map((point) => point?.verdict)).toEqual(['met', undefined]);
});

test('more rows and columns half-way where what is wanted begins or ends, at the steps of the numbers, up to nine', () => {
  const band = { low: 40, high: 44 };
  const objectives = [{ ...lookAt(cell, 'timeToKill'), band }];
  const ran = (one: typeof cell & { turned?: readonly { path: string; value: unknown }[] }) => {
    const turned = (end: string, otherwise: number) => Number(one.turned?.find(({ path }) => path.endsWith(end))?.value ?? otherwise);
    const value = turned('max', 22) * 1.5 + turned('run', 7);
    return { digests: Array.from({ length: 60 }, (_, i) => i), values: Array.from({ length: 60 }, (_, i) => value + (i % 3) * 0.01) };
  };
  const [x, y] = mapBetween(axes, mapOf(cell, axes, objectives, ran));
  // At a pace of 7 m/s 20 hp are missed and 22 met, at 6 m/s 22 missed and 24 met, at 8 m/s 24 met and 26 missed.
  expect(x).toEqual([21, 23, 25]);
  expect(y.every((value) => value > 6 && value < 8)).toBe(true);
  const wide = axes.map((axis, i) => ({ ...axis, more: [x, y][i] })) as unknown as typeof axes;
  expect(mapValues(wide[0])).toEqual([18, 20, 21, 22, 23, 24, 25, 26]);
  expect(mapOf(cell, wide, objectives, ran)).toHaveLength(mapValues(wide[0]).length * mapValues(wide[1]).length);
  // Whole hit points: between 20 and 21 there is nothing.
  const [again] = mapBetween(wide, mapOf(cell, wide, objectives, ran));
  expect(again.every((value) => !mapValues(wide[0]).includes(value))).toBe(true);
  expect(mapValues(wide[0]).length + again.length).toBeLessThanOrEqual(9);
  expect(mapBetween(axes, [])).toEqual([[], []]);
});
