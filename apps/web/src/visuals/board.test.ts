import { type BoardShape, type GroundLook, cellName } from '@insidia/core';
import { describe, expect, test } from '@jest/globals';
import { cellAt, cellBeside, cellCorners, cellWords, groundWords } from './board';
import { planScale } from './plan';

const ROW = Math.sqrt(3) / 2;
function board(tiling: BoardShape['tiling'], columns: number, rows: number, side: number): BoardShape {
  const cells = Array.from({ length: columns * rows }, (_, i) => ({ column: i % columns, row: Math.floor(i / columns) }));
  const hexagons = tiling === 'hexagons';
  return {
    tiling,
    columns,
    rows,
    side,
    x: cells.map(({ column, row }) => (column - (columns - 1) / 2 + (hexagons ? (row & 1) / 2 - 0.25 : 0)) * side),
    y: cells.map(({ row }) => (row - (rows - 1) / 2) * side * (hexagons ? ROW : 1)),
  };
}
const BOARDS = [board('squares', 4, 3, 1.5), board('diagonals', 1, 7, 0.5), board('hexagons', 5, 4, 2)];

describe('the cells of a board', () => {
  test.each(BOARDS)('$tiling: each is found at its middle and just inside each of its corners, and none outside the board', (one) => {
    const plan = planScale({ width: 40, depth: 40 }, 400, 400, { margin: 0 });
    for (let cell = 0; cell < one.x.length; cell++) {
      expect(cellAt(one, { x: one.x[cell], y: one.y[cell] })).toBe(cell);
      for (const [px, py] of cellCorners(one, cell, plan)) {
        const corner = plan.at(px, py);
        const inside = { x: one.x[cell] + (corner.x - one.x[cell]) * 0.95, y: one.y[cell] + (corner.y - one.y[cell]) * 0.95 };
        expect(cellAt(one, inside)).toBe(cell);
      }
    }
    expect(cellAt(one, { x: 100, y: 0 })).toBeUndefined();
    expect(cellAt(one, { x: 0, y: -100 })).toBeUndefined();
  });

  test('neighbours share corners: no gaps and no overlaps', () => {
    const plan = planScale({ width: 40, depth: 40 }, 400, 400, { margin: 0 });
    const areaOf = (corners: [number, number][]) =>
      Math.abs(
        corners.reduce((sum, [x, y], i) => sum + x * corners[(i + 1) % corners.length][1] - y * corners[(i + 1) % corners.length][0], 0),
      ) / 2;
    expect(areaOf(cellCorners(BOARDS[0], 5, plan))).toBeCloseTo((1.5 * 10) ** 2, 6);
    // Of hexagons the distance of rows is ¾ of their height.
    expect(areaOf(cellCorners(BOARDS[2], 7, plan))).toBeCloseTo(2 * 10 * (2 * 10 * ROW), 6);
  });

  test('arrow keys go from cell to cell and stop at the edge; Home and End go to the ends of a row', () => {
    const shape = { columns: 4, rows: 3 };
    expect(['ArrowRight', 'ArrowLeft', 'ArrowUp', 'ArrowDown'].map((key) => cellBeside(shape, 5, key))).toEqual([6, 4, 9, 1]);
    expect(['ArrowRight', 'ArrowUp'].map((key) => cellBeside(shape, 11, key))).toEqual([undefined, undefined]);
    expect(['ArrowLeft', 'ArrowDown'].map((key) => cellBeside(shape, 0, key))).toEqual([undefined, undefined]);
    expect(['Home', 'End', 'x'].map((key) => cellBeside(shape, 6, key))).toEqual([4, 7, undefined]);
    expect([cellName(shape, 0), cellName(shape, 6)]).toEqual(['column 1, row 1', 'column 3, row 2']);
  });
});

describe('what is said of cells', () => {
  const [shape] = BOARDS;
  const ground = (): GroundLook => ({ goes: new Float32Array(12).fill(-1), strikes: new Uint8Array(12), harm: new Float32Array(12) });

  test('of one: who stands there, what it costs, whether it is struck, what is to be expected', () => {
    const look = ground();
    look.goes[5] = 1;
    look.strikes[5] = 1;
    look.harm[5] = 12.4;
    look.harm[6] = NaN;
    expect(cellWords(shape, 5, 'Clipper', look, undefined)).toBe(
      'Column 2, row 2: Clipper can come there for 1 cell of way; whoever is there can be struck in its next turn; 12 hp are to be expected there until its turn.',
    );
    expect(cellWords(shape, 6, 'Clipper', look, undefined)).toBe('Column 3, row 2: it can’t stand there.');
    expect(cellWords(shape, 6, 'Clipper', look, 'Warden')).toBe('Column 3, row 2: Warden stands there.');
    expect(cellWords(shape, 0, 'Clipper', look, undefined)).toBe('Column 1, row 1: nobody can strike it there before its turn.');
    expect(cellWords(shape, 0, 'Clipper', undefined, undefined)).toBe('Column 1, row 1.');
  });

  test('of all: where it comes and strikes, and where most is to be expected', () => {
    const look = ground();
    expect(groundWords(shape, 'Clipper', look)).toBe('Next Clipper can come to 0 cells and strike in 0; nobody can strike it before that.');
    // Its own cell is no way.
    look.goes[5] = 0;
    look.goes[6] = 1;
    look.strikes.fill(1, 0, 3);
    look.harm.set([NaN, 2.25, 4.5]);
    expect(groundWords(shape, 'Clipper', look)).toBe(
      'Next Clipper can come to 1 cell and strike in 3; before that at most 4.5 hp of harm, in column 3, row 1.',
    );
  });
});
