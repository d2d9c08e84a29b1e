import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { type Arena, Arena as ArenaClass, blank, parseProject } from '@insidia/core';
import {
  addThing,
  doubleThings,
  holding,
  keyWay,
  removable,
  removeThings,
  snap,
  turnedWith,
  way,
  withCorner,
  WHOLE,
  zoomedBy,
} from './edits';
import { inView } from './ArenaLooker';
import { cornersOf, itemOf, KINDS, type Ref, START } from './shapes';

const yard = (): Arena => ({ ...blank(ArenaClass), id: 'yard', name: 'Yard' });
const square = [
  { x: 0, y: 0 },
  { x: 2, y: 0 },
  { x: 2, y: 2 },
  { x: 0, y: 2 },
];

describe('edits of an arena', () => {
  test('a new thing of every kind stands where it was put, on the grid, under a name of its own', () => {
    for (const kind of KINDS) {
      const arena = yard();
      const first = addThing(arena, kind, { x: 3.2, y: -1.1 });
      const second = addThing(arena, kind, { x: 3.2, y: -1.1 });
      expect(first.id).not.toBe(second.id);
      expect(itemOf(arena, first)!.name).not.toBe(itemOf(arena, second)!.name);
      const corners = cornersOf(arena, first);
      expect(corners.reduce((sum, { x }) => sum + x, 0) / corners.length).toBe(3);
      expect(corners.reduce((sum, { y }) => sum + y, 0) / corners.length).toBe(-1);
    }
  });

  test('an arena with one new thing of each kind is a valid one', () => {
    const arena = yard();
    for (const kind of KINDS) addThing(arena, kind, { x: 0, y: 0 });
    const demo = JSON.parse(readFileSync(join(__dirname, '../../../../../demo/verdance.insidia.json'), 'utf8')) as { arenas: Arena[] };
    const parsed = parseProject({ ...demo, arenas: [...demo.arenas, arena] });
    expect(parsed.arenas.find(({ id }) => id === 'yard')!.walls).toHaveLength(1);
  });

  test('what is chosen goes, but for where the party starts', () => {
    const arena = yard();
    const wall = addThing(arena, 'walls', { x: 0, y: 0 });
    const point = addThing(arena, 'points', { x: 5, y: 5 });
    expect(removable([wall, START, point])).toEqual([wall, point]);
    removeThings(arena, [wall, START]);
    expect(arena.walls).toEqual([]);
    expect(arena.points).toHaveLength(1);
    expect(itemOf(arena, START)).toBeDefined();
  });

  test('copies stand a metre beside, under names of their own, and are told', () => {
    const arena = yard();
    const wall = addThing(arena, 'walls', { x: 0, y: 0 });
    const point = addThing(arena, 'points', { x: 5, y: 5 });
    const copies = doubleThings(arena, [wall, START, point]);
    expect(copies.map(({ kind }) => kind)).toEqual(['walls', 'points']);
    expect(new Set(arena.walls.map(({ name }) => name)).size).toBe(2);
    expect(cornersOf(arena, copies[1])).toEqual([{ x: 6, y: 4 }]);
    expect(cornersOf(arena, wall)[0]).toEqual({ x: -2, y: -0.5 });
  });

  test('pressing one of several holds all; another alone; with Shift it joins or leaves', () => {
    const [a, b, c]: Ref[] = ['a', 'b', 'c'].map((id) => ({ kind: 'walls', id }));
    expect(holding([a, b], b, false)).toEqual([a, b]);
    expect(holding([a, b], c, false)).toEqual([c]);
    expect(holding([a, b], c, true)).toEqual([a, b, c]);
    expect(holding([a, b], b, true)).toEqual([a]);
  });

  test('the first of several snaps, by its middle; a fine hand does not', () => {
    expect(way(square, { x: 0.3, y: 0.2 }, false)).toEqual({ x: 0.5, y: 0 });
    expect(way(square, { x: 0.3, y: 0.2 }, true)).toEqual({ x: 0.30000000000000004, y: 0.19999999999999996 });
    expect(snap(1.26)).toBe(1.5);
    expect(snap(1.26, true)).toBe(1.26);
  });

  test('a corner goes where the shape stays convex, and nowhere else', () => {
    expect(withCorner(square, 2, { x: 3.1, y: 2.9 }, false)?.[2]).toEqual({ x: 3, y: 3 });
    expect(withCorner(square, 2, { x: 0.5, y: 0.5 }, false)).toBeUndefined();
    expect(withCorner(square, 2, { x: 1, y: 1 }, false)).toBeUndefined();
  });

  test('turning goes by fifteen degrees, or as the hand goes', () => {
    const at = (degrees: number) => ({ x: 1 + Math.cos((degrees * Math.PI) / 180), y: 1 + Math.sin((degrees * Math.PI) / 180) });
    const coarse = turnedWith(square, at(0), at(40), false);
    const turnOf = (corners: { x: number; y: number }[]) =>
      (Math.atan2(corners[1].y - corners[0].y, corners[1].x - corners[0].x) * 180) / Math.PI;
    expect(turnOf(coarse)).toBeCloseTo(45, 9);
    expect(turnOf(turnedWith(square, at(0), at(40), true))).toBeCloseTo(40, 9);
  });

  test('arrow keys move by half a metre, Shift by ten times, Alt by a tenth; others move nothing', () => {
    const plain = { shiftKey: false, altKey: false };
    expect(keyWay({ key: 'ArrowUp', ...plain })).toEqual({ x: 0, y: 0.5 });
    expect(keyWay({ key: 'ArrowLeft', ...plain, shiftKey: true })).toEqual({ x: -5, y: 0 });
    expect(keyWay({ key: 'ArrowRight', ...plain, altKey: true })!.x).toBeCloseTo(0.05, 12);
    expect(keyWay({ key: 'x', ...plain })).toBeUndefined();
  });

  test('a plan is never farther than a quarter nor nearer than eight times, and keeps its place', () => {
    expect(zoomedBy({ ...WHOLE, panX: 12 }, 1.25)).toEqual({ zoom: 1.25, panX: 12, panY: 0 });
    expect(zoomedBy(WHOLE, 1000).zoom).toBe(8);
    expect(zoomedBy(WHOLE, 0).zoom).toBe(0.25);
  });

  test('what is in view is one closed wedge a stretch', () => {
    const plan = { x: (x: number) => 10 * x, y: (y: number) => -10 * y };
    const path = inView(
      [
        {
          angle: 0,
          seen: [
            [0, 2],
            [3, 4],
          ],
        },
      ],
      { x: 1, y: 1 },
      plan,
    );
    expect(path.match(/M/g)).toHaveLength(2);
    expect(path.endsWith('Z')).toBe(true);
    expect(path).not.toMatch(/NaN/);
  });
});
