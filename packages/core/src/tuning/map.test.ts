import { expect, test } from '@jest/globals';
import { demoProject } from '../testing/demo';
import type { Scenario } from '../analysis/scenario';
import { dialFor } from './dial';
import { lookAt } from './goal';
import { mapCell, mapOf, mapValues } from './map';

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
