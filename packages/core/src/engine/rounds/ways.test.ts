import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { HALL, stepsFrom } from '../../testing/hall';
import { Board, type Mover } from './board';
import { Cells, type Tiling } from './cells';
import { Ways } from './ways';

const MOVER: Mover = { unit: 0, side: 0, size: 1, ground: 0 };

/** A board out of lines from north to south: # a wall, . free, f a foe, c a friend, 2 to 9 what it costs. */
function drawn(tiling: Tiling, lines: readonly string[]): Board {
  const rows = lines.length;
  const cells = new Cells(tiling, lines[0].length, rows);
  const board = new Board(cells);
  const each = (does: (sign: string, cell: number) => void) =>
    lines.forEach((line, i) => [...line].forEach((sign, column) => does(sign, cells.at(column, rows - 1 - i))));
  each((sign, cell) => {
    if (sign === '#') board.blocked[0][cell] = 1;
    if (/[2-9]/.test(sign)) board.cost[cell] = Number(sign);
  });
  let unit = 1;
  each((sign, cell) => {
    if (sign === 'f' || sign === 'c') board.put({ unit: unit++, side: sign === 'f' ? 1 : 0, size: 1, ground: 0 }, cell);
  });
  return board;
}

test('five cells of allowance and reach 1 strike exactly those within 6 by way, from every cell of a walled hall', () => {
  const board = drawn('squares', HALL);
  const { cells } = board;
  const ways = new Ways(board);
  const free = [...Array(cells.count).keys()].filter((cell) => board.blocked[0][cell] === 0);
  let within = 0;
  for (const from of free) {
    const steps = stepsFrom(from);
    for (const foe of free) {
      if (foe === from) continue;
      board.put({ unit: 9, side: 1, size: 1, ground: 0 }, foe);
      ways.from(MOVER, from, 5);
      const strikes = ways.reached.some((stand) => board.isFree(MOVER, stand) && cells.gap(stand, 1, foe, 1) <= 1);
      board.take({ unit: 9, side: 1, size: 1, ground: 0 }, foe);
      expect(strikes).toBe(steps[foe] <= 6);
      if (strikes) within++;
    }
  }
  expect(within).toBeGreaterThan(500);
});

describe('by hand', () => {
  test('friends are passed through and not stood on, foes are gone around, walls too; ground has its price', () => {
    const board = drawn('squares', ['.....', '.c.f.', '.3.#.']);
    const { cells } = board;
    const ways = new Ways(board);
    ways.from(MOVER, cells.at(0, 1), 9);
    const cost = (column: number, row: number) => ways.costs[cells.at(column, row)];
    expect(cost(1, 1)).toBe(1);
    expect(board.isFree(MOVER, cells.at(1, 1))).toBe(false);
    expect(cost(2, 1)).toBe(2);
    expect(cost(3, 1)).toBe(Infinity);
    expect(cost(3, 0)).toBe(Infinity);
    expect(cost(1, 0)).toBe(4); // down and across, or across and down: the dear cell is come onto either way
    expect(cost(2, 0)).toBe(3);
    expect(cost(4, 1)).toBe(6);
    ways.from(MOVER, cells.at(0, 1), 3);
    expect(cost(2, 0)).toBe(3);
    expect(cost(4, 1)).toBe(Infinity);
  });

  test('a diagonal step cuts no corner', () => {
    const board = drawn('diagonals', ['...', '.#.', '...']);
    const ways = new Ways(board);
    ways.from(MOVER, board.cells.at(0, 1), 9);
    expect(ways.costs[board.cells.at(1, 2)]).toBe(2);
    const open = new Ways(drawn('diagonals', ['...', '...', '...']));
    open.from(MOVER, board.cells.at(0, 1), 9);
    expect(open.costs[board.cells.at(1, 2)]).toBe(1);
  });

  test('a body of two by two needs a passage of two', () => {
    const narrow = drawn('squares', ['..#..', '.....', '..#..', '..#..']);
    const ways = new Ways(narrow);
    const large = { ...MOVER, size: 2 };
    ways.from(large, narrow.cells.at(0, 1), 20);
    expect(ways.costs[narrow.cells.at(3, 1)]).toBe(Infinity);
    const wide = drawn('squares', ['..#..', '.....', '.....', '..#..']);
    const through = new Ways(wide);
    through.from(large, wide.cells.at(0, 1), 20);
    expect(through.costs[wide.cells.at(3, 1)]).toBe(3);
  });

  test('of ways as short the one that turns least is walked; of turns as small the one to the left', () => {
    const board = drawn('squares', ['.....', '.....', '.....']);
    const { cells } = board;
    const ways = new Ways(board);
    const walk = (east: number, north: number, to: [number, number]) => {
      ways.to(MOVER, [cells.at(...to)]);
      return ways.walk(MOVER, cells.at(2, 1), { east, north }).map((cell) => [cells.column(cell), cells.row(cell)]);
    };
    expect(walk(2, 0, [4, 2])).toEqual([
      [3, 1],
      [4, 1],
      [4, 2],
    ]);
    expect(walk(0, 2, [4, 2])).toEqual([
      [2, 2],
      [3, 2],
      [4, 2],
    ]);
    // Facing north-east both are as small a turn.
    expect(walk(2, 2, [3, 2])).toEqual([
      [2, 2],
      [3, 2],
    ]);
    expect(walk(2, 0, [2, 1])).toEqual([]);
  });
});

/** Boards with walls, friends, foes and dear ground. */
const boards = fc
  .record({ columns: fc.integer({ min: 2, max: 9 }), rows: fc.integer({ min: 2, max: 9 }) })
  .chain(({ columns, rows }) =>
    fc
      .array(fc.constantFrom('.', '.', '.', '.', '#', 'f', 'c', '3'), { minLength: columns * rows, maxLength: columns * rows })
      .map((signs) => Array.from({ length: rows }, (_, row) => signs.slice(row * columns, (row + 1) * columns).join(''))),
  );

/** Wide ones, much of them dear: where a cell is often found again for less. */
const dear = fc
  .array(fc.constantFrom('.', '.', '2', '2', '3', '5', '#'), { minLength: 196, maxLength: 196 })
  .map((signs) => Array.from({ length: 14 }, (_, row) => signs.slice(row * 14, (row + 1) * 14).join('')));

/** A quarter turn counter-clockwise. */
const turned = (lines: readonly string[]) =>
  Array.from({ length: lines[0].length }, (_, i) => lines.map((line) => line[lines[0].length - 1 - i]).join(''));

test.each(['squares', 'diagonals'] as const)('a board that is turned is gone over alike: %s', (tiling) => {
  fc.assert(
    fc.property(boards, fc.nat(), fc.nat(), fc.nat(), (lines, from, to, way) => {
      const [board, other] = [drawn(tiling, lines), drawn(tiling, turned(lines))];
      const { cells } = board;
      // (column, row) comes to (rows − 1 − row, column).
      const moved = (cell: number) => other.cells.at(cells.rows - 1 - cells.row(cell), cells.column(cell));
      const [start, goal] = [from % cells.count, to % cells.count];
      const [ways, others] = [new Ways(board), new Ways(other)];
      ways.from(MOVER, start, 7);
      others.from(MOVER, moved(start), 7);
      for (let cell = 0; cell < cells.count; cell++) expect(others.costs[moved(cell)]).toBe(ways.costs[cell]);
      const { east, north } = cells.directions[way % cells.directions.length];
      ways.to(MOVER, [goal]);
      others.to(MOVER, [moved(goal)]);
      const walk = ways.walk(MOVER, start, { east, north });
      expect(others.walk(MOVER, moved(start), { east: -north, north: east })).toEqual(walk.map(moved));
      // What it says it costs is what the steps of the way cost.
      const price = walk.reduce((sum, cell) => sum + board.terrain(MOVER).entry[cell], 0);
      if (ways.costs[start] < Infinity) expect(price).toBeCloseTo(ways.costs[start], 9);
    }),
    { numRuns: 200 },
  );
});

test('the way there costs what the way from there does, with the ends changed about', () => {
  fc.assert(
    fc.property(fc.constantFrom<Tiling>('squares', 'diagonals', 'hexagons'), boards, fc.nat(), fc.nat(), (tiling, lines, from, to) => {
      const board = drawn(tiling, lines);
      const [start, goal] = [from % board.cells.count, to % board.cells.count];
      const terrain = board.terrain(MOVER);
      if (terrain.entry[goal] === Infinity || [start, goal].some((cell) => board.hasFoe(terrain, MOVER, cell))) return;
      const [there, back] = [new Ways(board), new Ways(board)];
      there.from(MOVER, start, Infinity);
      back.to(MOVER, [goal]);
      expect(back.costs[start]).toBe(there.costs[goal]);
    }),
    { numRuns: 200 },
  );
});

test('ways that are left for later change nothing of what is found', () => {
  fc.assert(
    fc.property(
      fc.constantFrom<Tiling>('squares', 'diagonals', 'hexagons'),
      fc.oneof(boards, dear),
      fc.nat(),
      fc.array(fc.nat(), { minLength: 1, maxLength: 4 }),
      fc.nat(5),
      (tiling, lines, from, to, allowance) => {
        const board = drawn(tiling, lines);
        const start = from % board.cells.count;
        const goals = to.map((cell) => cell % board.cells.count);
        const there = new Ways(board);
        there.from(MOVER, start, allowance);
        const until = (cell: number) => there.costs[cell] < Infinity;
        const [plain, led] = [new Ways(board), new Ways(board)];
        plain.to(MOVER, goals);
        led.to(MOVER, goals, { until, near: { cell: start, within: allowance } });
        const least = Math.min(...there.reached.map((cell) => plain.costs[cell]));
        const found = (ways: Ways) => there.reached.filter((cell) => ways.costs[cell] === least && least < Infinity).sort((a, b) => a - b);
        expect(found(led)).toEqual(found(plain));
        for (const cell of there.reached) expect(led.costs[cell]).toBeGreaterThanOrEqual(plain.costs[cell]);
      },
    ),
    { numRuns: 500 },
  );
});
