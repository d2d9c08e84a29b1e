import { describe, expect, test } from '@jest/globals';
import { type Arena, parseProject } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { alignment, cornersOf, isConvex, itemOf, middle, moved, place, scaled, turned } from './shapes';

const hall = (): Arena =>
  parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../../demo/verdance.insidia.json'), 'utf8'))).arenas.find(
    ({ id }) => id === 'propagation-hall',
  )!;
const box = (x: number, y: number, w = 2, d = 2) => [
  { x, y },
  { x: x + w, y },
  { x: x + w, y: y + d },
  { x, y: y + d },
];

describe('things of an arena', () => {
  test('move, turn and grow about their middle', () => {
    expect(moved(box(0, 0), 3, -1)[0]).toEqual({ x: 3, y: -1 });
    const quarter = turned(box(0, 0, 4, 2), 90);
    expect(middle(quarter)).toEqual({ x: 2, y: 1 });
    expect(Math.max(...quarter.map(({ y }) => y)) - Math.min(...quarter.map(({ y }) => y))).toBeCloseTo(4, 9);
    expect(middle(scaled(box(0, 0), 3, 1))).toEqual({ x: 1, y: 1 });
    expect(scaled(box(0, 0), 3, 1)[0]).toEqual({ x: -2, y: 0 });
  });

  test('are convex or not, whichever way round their corners go', () => {
    expect(isConvex(box(0, 0))).toBe(true);
    expect(isConvex([...box(0, 0)].reverse())).toBe(true);
    expect(
      isConvex([
        { x: 0, y: 0 },
        { x: 2, y: 0 },
        { x: 0.5, y: 0.5 },
        { x: 0, y: 2 },
      ]),
    ).toBe(false);
    expect(
      isConvex([
        { x: 0, y: 0 },
        { x: 1, y: 0 },
        { x: 2, y: 0 },
        { x: 2, y: 2 },
      ]),
    ).toBe(false); // one in line
    expect(isConvex(box(0, 0).slice(0, 2))).toBe(false);
  });

  test('line up by the bounds of all of them', () => {
    const both = [box(0, 0), box(5, 3, 4, 1)];
    expect(alignment(both, 'left')).toEqual([
      { dx: 0, dy: 0 },
      { dx: -5, dy: 0 },
    ]);
    expect(alignment(both, 'right')).toEqual([
      { dx: 7, dy: 0 },
      { dx: 0, dy: 0 },
    ]);
    expect(alignment(both, 'top')).toEqual([
      { dx: 0, dy: 2 },
      { dx: 0, dy: 0 },
    ]);
    expect(alignment(both, 'middle')).toEqual([
      { dx: 3.5, dy: 0 },
      { dx: -2.5, dy: 0 },
    ]);
  });

  test('are put back where they are, places and the party’s start too', () => {
    const arena = hall();
    const wall = { kind: 'walls' as const, id: arena.walls[0].id };
    place(arena, wall, moved(cornersOf(arena, wall), 1, 0));
    expect(arena.walls[0].corners[0].x).toBe(hall().walls[0].corners[0].x + 1);
    const door = { kind: 'spawnPoints' as const, id: 's1' };
    place(arena, door, [{ x: 1.00049, y: 2 }]);
    expect(itemOf(arena, door)).toMatchObject({ x: 1, y: 2 });
    place(arena, { kind: 'partyStart', id: '' }, [{ x: 3, y: 4 }]);
    expect(arena.partyStart).toMatchObject({ x: 3, y: 4 });
    expect(itemOf(arena, { kind: 'walls', id: 'gone' })).toBeUndefined();
  });
});
