import { expect, test } from '@jest/globals';
import { middleOf, planScale, polygon, polygonPoints } from './plan';

const arena = { width: 40, depth: 20 };

test('the whole arena lies within the box with its margin, north upward, the middle in the middle', () => {
  const plan = planScale(arena, 416, 300);
  expect(plan.scale).toBe(10);
  expect([plan.x(0), plan.y(0), plan.x(-20), plan.x(20)]).toEqual([208, 150, 8, 408]);
  expect(plan.y(10)).toBeLessThan(plan.y(-10));
});

test('a place leads back to its metres, zoomed and shifted too; a box without room still has a scale', () => {
  const plan = planScale(arena, 416, 300, { zoom: 2.5, panX: 30, panY: -12 });
  for (const [x, y] of [
    [0, 0],
    [3.25, -7],
    [-20, 10],
  ]) {
    const back = plan.at(plan.x(x), plan.y(y));
    expect(back.x).toBeCloseTo(x, 9);
    expect(back.y).toBeCloseTo(y, 9);
  }
  expect(planScale(arena, 4, 4).scale).toBe(0.1);
});

test('a shape is closed, in the order of its corners; its middle is theirs', () => {
  const corners = [
    { x: 0, y: 0 },
    { x: 2, y: 0 },
    { x: 2, y: 1 },
  ];
  const plan = planScale(arena, 416, 300);
  expect(polygon(corners, plan)).toBe('M208.0 150.0 L228.0 150.0 L228.0 140.0Z');
  expect(polygonPoints(corners, plan)[2]).toEqual([228, 140]);
  expect(middleOf(corners)).toEqual({ x: 4 / 3, y: 1 / 3 });
  expect(middleOf([])).toEqual({ x: 0, y: 0 });
});
