import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { HALL, stepsFrom } from '../../testing/hall';
import { Board, type Mover } from './board';
import { emptySet, findCell, listOf, setOf } from './cell-sets';
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
      const strikes = findCell(ways.stands, (stand) => cells.gap(stand, 1, foe, 1) <= 1) >= 0;
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
      ways.from(MOVER, cells.at(2, 1), 9);
      return ways.walk(MOVER, cells.at(...to), { east, north }).map((cell) => [cells.column(cell), cells.row(cell)]);
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

/** So wide that a row takes more than one word of a set, or ends within one. */
const wide = fc
  .record({ columns: fc.constantFrom(31, 32, 33, 47, 63, 64), rows: fc.integer({ min: 1, max: 4 }) })
  .chain(({ columns, rows }) =>
    fc
      .array(fc.constantFrom('.', '.', '.', '.', '#', 'f', 'c'), { minLength: columns * rows, maxLength: columns * rows })
      .map((signs) => Array.from({ length: rows }, (_, row) => signs.slice(row * columns, (row + 1) * columns).join(''))),
  );

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
      const walk = ways.walk(MOVER, goal, { east, north });
      expect(others.walk(MOVER, moved(goal), { east: -north, north: east })).toEqual(walk.map(moved));
      // What it says it costs is what the steps of the way cost.
      const price = walk.reduce((sum, cell) => sum + board.terrain(MOVER).entry[cell], 0);
      if (ways.costs[goal] < Infinity) expect(price).toBeCloseTo(ways.costs[goal], 9);
    }),
    { numRuns: 200 },
  );
});

const TILINGS = ['squares', 'diagonals', 'hexagons'] as const;

/** A mover of any size on a board of any tiling; where it begins it may stand. */
const asked = fc.record({
  tiling: fc.constantFrom<Tiling>(...TILINGS),
  lines: fc.oneof(boards, dear, wide),
  size: fc.integer({ min: 1, max: 3 }),
  from: fc.nat(),
  to: fc.array(fc.nat(), { minLength: 1, maxLength: 4 }),
  allowance: fc.nat(9),
  foesBlock: fc.boolean(),
});

/** Nobody is farther than this by any way over a board as small. */
const FAR = 1e6;

/** By the steps alone: costs are lowered until none can be (Bellman and Ford). */
function plainCosts(board: Board, mover: Mover, start: number, foesBlock: boolean): number[] {
  const { cells } = board;
  const terrain = board.terrain(mover);
  const costs = Array.from({ length: cells.count }, (_, cell) => (cell === start ? 0 : Infinity));
  for (let changes = true; changes;) {
    changes = false;
    for (let cell = 0; cell < cells.count; cell++)
      for (let d = 0; d < cells.directions.length; d++) {
        if ((terrain.steps[cell] & (1 << d)) === 0) continue;
        const next = cells.neighbour(cell, d);
        if (foesBlock && board.hasFoe(terrain, mover, next)) continue;
        if (costs[cell] + terrain.entry[next] >= costs[next]) continue;
        costs[next] = costs[cell] + terrain.entry[next];
        changes = true;
      }
  }
  return costs;
}

test('what it costs to come to each cell, and where one may stay, are what steps taken one by one say: all tilings, sizes, even and dear ground', () => {
  fc.assert(
    fc.property(asked, ({ tiling, lines, size, from, allowance }) => {
      const board = drawn(tiling, lines);
      const { cells } = board;
      const mover = { ...MOVER, size };
      const start = from % cells.count;
      const ways = new Ways(board);
      // Asked twice over one desk: nothing of the first is left in the second.
      ways.from(mover, (start + 1) % cells.count, 3);
      ways.from(mover, start, allowance);
      const plain = plainCosts(board, mover, start, true);
      const within = Array.from(cells.beside.keys())
        .slice(0, cells.count)
        .filter((cell) => plain[cell] <= allowance);
      expect(listOf(ways.reached)).toEqual(within);
      expect([...ways.costs]).toEqual(plain.map((cost) => (cost <= allowance ? cost : Infinity)));
      expect(listOf(ways.stands)).toEqual(within.filter((cell) => board.isFree(mover, cell)));
    }),
    { numRuns: 500 },
  );
});

test('of some cells those are found from which least of a way is left to others', () => {
  fc.assert(
    fc.property(asked, ({ tiling, lines, size, from, to, allowance, foesBlock }) => {
      const board = drawn(tiling, lines);
      const { cells } = board;
      const mover = { ...MOVER, size };
      const start = from % cells.count;
      const terrain = board.terrain(mover);
      const goals = to
        .map((cell) => cell % cells.count)
        .filter((cell) => terrain.entry[cell] < Infinity && !(foesBlock && board.hasFoe(terrain, mover, cell)));
      const [there, back] = [new Ways(board), new Ways(board)];
      there.from(mover, start, allowance);
      const near = { cell: start, within: allowance };
      const found = back.nearestTo(mover, setOf(cells.count, goals), there.stands, { foesBlock, near }, emptySet(cells.count));
      const left = listOf(there.stands).map((cell) => {
        const costs = plainCosts(board, mover, cell, foesBlock);
        return { cell, cost: Math.min(FAR, ...goals.map((goal) => costs[goal])) };
      });
      const least = Math.min(FAR, ...left.map(({ cost }) => cost));
      expect(listOf(found)).toEqual(least === FAR ? [] : left.filter(({ cost }) => cost === least).map(({ cell }) => cell));
    }),
    { numRuns: 300 },
  );
});

test('a way that is walked is made of steps that may be taken, past no foe, and costs no more than the cheapest', () => {
  fc.assert(
    fc.property(asked, fc.nat(), ({ tiling, lines, size, from, to: [to], allowance }, way) => {
      const board = drawn(tiling, lines);
      const { cells } = board;
      const mover = { ...MOVER, size };
      const [start, goal] = [from % cells.count, to % cells.count];
      const ways = new Ways(board);
      ways.from(mover, start, allowance);
      const walked = ways.walk(mover, goal, cells.directions[way % cells.directions.length]);
      if (ways.costs[goal] === Infinity) return expect(walked).toEqual([]);
      const { entry, steps } = board.terrain(mover);
      let at = start;
      let cost = 0;
      for (const cell of walked) {
        const d = cells.directions.findIndex((_, number) => cells.neighbour(at, number) === cell);
        expect(steps[at] & (1 << d)).not.toBe(0);
        expect(board.hasFoe(board.terrain(mover), mover, cell)).toBe(false);
        cost += entry[cell];
        at = cell;
      }
      expect([at, cost]).toEqual([goal, ways.costs[goal]]);
    }),
    { numRuns: 300 },
  );
});
