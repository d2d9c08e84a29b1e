import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isEmpty, setOf } from './cell-sets';
import { type Bearing, Cells, type Tiling } from './cells';

const TILINGS: Tiling[] = ['squares', 'diagonals', 'hexagons'];

/** Steps to each cell by walking from neighbour to neighbour. */
function walked(cells: Cells, from: number): number[] {
  const steps = new Array<number>(cells.count).fill(Infinity);
  steps[from] = 0;
  for (const queue = [from]; queue.length;) {
    const cell = queue.shift()!;
    for (let d = 0; d < cells.directions.length; d++) {
      const beside = cells.neighbour(cell, d);
      if (beside < 0 || steps[beside] < Infinity) continue;
      steps[beside] = steps[cell] + 1;
      queue.push(beside);
    }
  }
  return steps;
}

test('by hand: how far apart two cells are', () => {
  const from = (tiling: Tiling, column: number, row: number) => {
    const cells = new Cells(tiling, 9, 9);
    return cells.distance(cells.at(4, 4), cells.at(column, row));
  };
  expect(TILINGS.map((tiling) => from(tiling, 6, 5))).toEqual([3, 2, 3]);
  expect(TILINGS.map((tiling) => from(tiling, 4, 8))).toEqual([4, 4, 4]);
  expect(TILINGS.map((tiling) => from(tiling, 0, 0))).toEqual([8, 4, 6]);
  expect(TILINGS.map((tiling) => from(tiling, 4, 4))).toEqual([0, 0, 0]);
});

test('by hand: a large body covers squares to north and east, or hexagons all around; between bodies the nearest cells count', () => {
  const squares = new Cells('squares', 8, 8);
  expect(squares.footprint(squares.at(1, 2), 2)).toEqual([squares.at(1, 2), squares.at(2, 2), squares.at(1, 3), squares.at(2, 3)]);
  expect(squares.footprint(squares.at(7, 2), 2)).toBeNull();
  expect(squares.gap(squares.at(0, 0), 2, squares.at(4, 2), 3)).toBe(4); // three columns and one row
  const diagonals = new Cells('diagonals', 8, 8);
  expect(diagonals.gap(diagonals.at(0, 0), 2, diagonals.at(4, 2), 3)).toBe(3);
  const hexagons = new Cells('hexagons', 9, 9);
  const middle = hexagons.at(4, 4);
  expect([...hexagons.footprint(middle, 2)!].sort()).toEqual(
    [middle, ...hexagons.directions.map((_, d) => hexagons.neighbour(middle, d))].sort(),
  );
  expect(hexagons.footprint(middle, 3)).toHaveLength(19);
  expect(hexagons.footprint(hexagons.at(1, 4), 3)).toBeNull();
});

describe.each(TILINGS)('%s', (tiling) => {
  const boards = fc.record({ columns: fc.integer({ min: 1, max: 12 }), rows: fc.integer({ min: 1, max: 12 }), draw: fc.nat() });

  test('what lies beside a cell lies beside it from there, the other way', () => {
    const cells = new Cells(tiling, 7, 6);
    const ways = cells.directions.length;
    for (let cell = 0; cell < cells.count; cell++) {
      for (let d = 0; d < ways; d++) {
        const beside = cells.neighbour(cell, d);
        if (beside < 0) continue;
        expect(cells.neighbour(beside, (d + ways / 2) % ways)).toBe(cell);
        expect(cells.bearing(cell, 1, beside, 1)).toEqual(cells.directions[d]);
      }
    }
  });

  test('the distance is the number of steps that walk it, on every board; of bodies, between their nearest cells', () => {
    fc.assert(
      fc.property(boards, fc.integer({ min: 1, max: 3 }), fc.integer({ min: 1, max: 3 }), ({ columns, rows, draw }, sizeA, sizeB) => {
        const cells = new Cells(tiling, columns, rows);
        const from = draw % cells.count;
        const steps = walked(cells, from);
        for (let cell = 0; cell < cells.count; cell++) {
          expect(cells.distance(from, cell)).toBe(steps[cell]);
          const a = cells.footprint(from, sizeA);
          const b = cells.footprint(cell, sizeB);
          if (!a || !b) continue;
          const nearest = Math.min(...a.flatMap((one) => b.map((other) => cells.distance(one, other))));
          expect(cells.gap(from, sizeA, cell, sizeB)).toBe(nearest);
        }
      }),
      { numRuns: 60 },
    );
  });

  test('turns are ordered as angles are: least first, counter-clockwise before clockwise, then the nearer; exactly', () => {
    const cells = new Cells(tiling, 40, 40);
    const rise = tiling === 'hexagons' ? Math.sqrt(3) : 1;
    const angle = ({ east, north }: Bearing) => Math.atan2(north * rise, east);
    const turned = (facing: Bearing, to: Bearing) => {
      const by = angle(to) - angle(facing);
      return by > Math.PI + 1e-9 ? by - 2 * Math.PI : by < -Math.PI + 1e-9 ? by + 2 * Math.PI : by;
    };
    const any = fc.integer({ min: 0, max: cells.count - 1 });
    fc.assert(
      fc.property(any, any, any, fc.nat(), (at, one, other, way) => {
        const facing = cells.directions[way % cells.directions.length];
        const a = cells.bearing(at, 1, one, 1);
        const b = cells.bearing(at, 1, other, 1);
        const order = Math.sign(cells.compareTurns(facing, a, b));
        expect(Math.sign(cells.compareTurns(facing, b, a))).toBe(0 - order + 0);
        if (one === at || other === at || one === other) return;
        const [byA, byB] = [turned(facing, a), turned(facing, b)];
        const far = Math.abs(Math.abs(byA) - Math.abs(byB));
        if (far > 1e-9) expect(order).toBe(Math.sign(Math.abs(byA) - Math.abs(byB)));
        else if (Math.abs(byA - byB) > 1e-9) expect(order).toBe(byA > byB ? -1 : 1);
        else expect(order).toBe(Math.sign(cells.distance(at, one) - cells.distance(at, other)) || order);
      }),
    );
  });
});

test('a band holds the bodies that are between two distances of another, whatever was asked before', () => {
  const wide = fc.constantFrom(1, 2, 3);
  fc.assert(
    fc.property(
      fc.constantFrom(...TILINGS),
      fc.nat(),
      wide,
      wide,
      fc.nat(6),
      fc.integer({ min: -1, max: 12 }),
      (tiling, place, a, b, near, far) => {
        const cells = new Cells(tiling, 9, 7);
        const at = (place % (cells.count + 1)) - 1;
        const held = Array.from({ length: cells.count }, (_, cell) => cell).filter((cell) => {
          const gap = cells.gap(cell, b, at, a);
          return gap >= near && gap <= far;
        });
        const band = cells.band(at, a, b, near, far);
        expect(band).toEqual(setOf(cells.count, held));
        // Another is asked for in between.
        cells.band(at, a, b, near, far + 1);
        expect(cells.band(at, a, b, near, far)).toEqual(setOf(cells.count, held));
      },
    ),
    { numRuns: 500 },
  );
  // From nowhere everything is farther than any board is wide.
  const cells = new Cells('squares', 64, 64);
  expect(cells.band(-1, 1, 1, 0, 200)).toEqual(setOf(4096, []));
  expect(cells.band(0, 1, 1, 200, Infinity)).toEqual(setOf(4096, []));
  expect(isEmpty(cells.band(0, 1, 1, 126, Infinity))).toBe(false);
});
