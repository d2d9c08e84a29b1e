/** Where walls, ground and units are on a board, and what it costs to go over it. */
import { type Cells } from './cells';

/** Nobody stands there. */
const NOBODY = -1;

/** Whoever goes over the board. */
export interface Mover {
  unit: number;
  side: number;
  /** cells */
  size: number;
  /** Its class of ground. */
  ground: number;
}

export class Board {
  /** By class of ground: cells that nobody of it can be on. */
  readonly blocked: readonly Uint8Array[];
  /** What it costs to come onto each; 1 or more. */
  readonly cost: Float64Array;
  /** Who stands on each; −1: nobody. */
  readonly standing: Int32Array;
  /** Sides of those who stand. */
  private readonly sides = new Map<number, number>();
  private readonly prints = new Map<number, readonly (readonly number[] | null)[]>();

  constructor(
    readonly cells: Cells,
    grounds = 1,
  ) {
    this.blocked = Array.from({ length: grounds }, () => new Uint8Array(cells.count));
    this.cost = new Float64Array(cells.count).fill(1);
    this.standing = new Int32Array(cells.count).fill(NOBODY);
  }

  /** The cells that a body of a size covers from each cell; null: it would hang over the edge. */
  footprints(size: number): readonly (readonly number[] | null)[] {
    let known = this.prints.get(size);
    if (!known) {
      known = Array.from({ length: this.cells.count }, (_, cell) => this.cells.footprint(cell, size));
      this.prints.set(size, known);
    }
    return known;
  }

  put({ unit, side, size }: Mover, cell: number): void {
    this.sides.set(unit, side);
    for (const each of this.footprints(size)[cell]!) this.standing[each] = unit;
  }

  take({ unit, size }: Mover, cell: number): void {
    for (const each of this.footprints(size)[cell]!) if (this.standing[each] === unit) this.standing[each] = NOBODY;
  }

  clear(): void {
    this.standing.fill(NOBODY);
    this.sides.clear();
  }

  /** What it costs to come onto a cell; Infinity: it can't, for a wall, the edge or a foe. Of a large body the dearest cell counts. */
  entry({ side, size, ground }: Mover, cell: number, foesBlock = true): number {
    const print = this.footprints(size)[cell];
    const blocked = this.blocked[ground];
    if (print === null) return Infinity;
    let dearest = 0;
    for (let i = 0; i < print.length; i++) {
      const each = print[i];
      if (blocked[each] === 1) return Infinity;
      const other = this.standing[each];
      if (foesBlock && other !== NOBODY && this.sides.get(other) !== side) return Infinity;
      if (this.cost[each] > dearest) dearest = this.cost[each];
    }
    return dearest;
  }

  /** Whether it could stay there: no other unit stands there, friend or foe. */
  isFree({ unit, size, ground }: Mover, cell: number): boolean {
    const print = this.footprints(size)[cell];
    if (print === null) return false;
    for (const each of print) {
      if (this.blocked[ground][each] === 1 || (this.standing[each] !== NOBODY && this.standing[each] !== unit)) return false;
    }
    return true;
  }

  /** Whether a step may be taken: a diagonal one cuts no corner of a wall. */
  mayStep({ size, ground }: Mover, cell: number, direction: number): boolean {
    if (this.cells.tiling !== 'diagonals' || direction % 2 === 0) return true;
    const ways = this.cells.directions.length;
    return [direction - 1, (direction + 1) % ways].every((beside) => {
      const next = this.cells.neighbour(cell, beside);
      const print = next < 0 ? null : this.footprints(size)[next];
      return print !== null && print.every((each) => this.blocked[ground][each] === 0);
    });
  }
}
