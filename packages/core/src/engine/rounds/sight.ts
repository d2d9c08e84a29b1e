/**
 * From which cells of a board a body has a line to another: from its muzzle, over the middle of a cell, to half of the other's
 * height. Walls stand as they stand, so a line that was looked up once is kept. Nothing stands between neighbours.
 */
import type { Fight } from '../fight';
import type { Board, Mover } from './board';
import { type CellSet, addCell, emptySet, hasCell } from './cell-sets';
import { middleOfBody } from './places';

export type Sees = (cell: number) => boolean;

/** Lines to one place: which were looked up, and which are clear. */
interface Lines {
  known: CellSet;
  clear: CellSet;
}

/** So many places are kept: 4 MB of them on the largest board. */
const MOST_PLACES = 4096;

/** Of heights so many are told apart; whoever has yet another begins anew. */
const MOST_HEIGHTS = 256;

class Sights {
  readonly lines = new Map<number, Lines>();
  private readonly heights = new Map<number, number>();

  private height(metres: number): number {
    let known = this.heights.get(metres);
    if (known === undefined) this.heights.set(metres, (known = this.heights.size));
    return known;
  }

  /** Lines from a muzzle, to half a height on a cell; none is known at first. */
  linesTo(muzzle: number, size: number, at: number, sizeAt: number, half: number, count: number): Lines {
    if (this.lines.size >= MOST_PLACES || this.heights.size > MOST_HEIGHTS - 2) {
      this.lines.clear();
      this.heights.clear();
    }
    const key = (((this.height(muzzle) * MOST_HEIGHTS + this.height(half)) * 4 + size) * 4 + sizeAt) * 4096 + at;
    let lines = this.lines.get(key);
    if (!lines) this.lines.set(key, (lines = { known: emptySet(count), clear: emptySet(count) }));
    return lines;
  }
}

/** Kept with the board. */
const SIGHTS = new WeakMap<Board, Sights>();

const ALWAYS: Sees = () => true;

/** Whether a unit would have a line to another from a cell. */
export function seesFrom(fight: Fight, { unit, size }: Mover, other: number): Sees {
  const { ground, onCell, kinds } = fight;
  const at = onCell[other];
  // Whoever is on no cell is in reach of nobody.
  if (ground.walls.length === 0 || at < 0) return ALWAYS;
  const board = fight.board!;
  let sights = SIGHTS.get(board);
  if (!sights) SIGHTS.set(board, (sights = new Sights()));
  const { muzzle } = kinds[unit];
  const half = kinds[other].height / 2;
  const sizeAt = fight.sizeOf(other);
  const { known, clear } = sights.linesTo(muzzle, size, at, sizeAt, half, board.cells.count);
  return (cell) => {
    if (!hasCell(known, cell)) {
      addCell(known, cell);
      const from = middleOfBody(fight, cell, size);
      const to = middleOfBody(fight, at, sizeAt);
      if (board.cells.gap(cell, size, at, sizeAt) <= 1 || !ground.blocked(from.x, from.y, muzzle, to.x, to.y, half)) addCell(clear, cell);
    }
    return hasCell(clear, cell);
  };
}
