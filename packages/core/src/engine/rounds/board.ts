/** Where walls, ground and units are on a board, and what it costs to go over it. */
import { type CellSet, addCell, eachCell, emptySet, hasCell, lowestCell, removeCell, setOf } from './cell-sets';
import { type Cells } from './cells';
import { type Strides, stridesOf } from './strides';

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
  /** The board as it finds it, where that has been looked up. */
  terrain?: Terrain;
}

/** The board as bodies of one size and class of ground find it, but for who stands there. */
export interface Terrain {
  /** What it costs to come onto each cell, of a large body's the dearest; Infinity: it can't be there. */
  readonly entry: Float64Array;
  /** A bit a direction in which a step may be taken from each cell: onto the board, off walls, past no corner. */
  readonly steps: Uint8Array;
  /** The cells that it covers from each; null: it would hang over the edge. */
  readonly prints: readonly (readonly number[] | null)[];
  /** Coming onto any cell costs 1. */
  readonly even: boolean;
  /** Cells that it can be on. */
  readonly open: CellSet;
  /** Steps as sets of cells take them, and take them back. */
  readonly strides: { forth: Strides; back: Strides };
  /** By cell: those from which it would cover that one. */
  readonly under: readonly (readonly number[])[];
}

export class Board {
  /** By class of ground: cells that nobody of it can be on. */
  readonly blocked: readonly Uint8Array[];
  /** What it costs to come onto each; 1 or more. */
  readonly cost: Float64Array;
  /** Who stands on each; −1: nobody. */
  readonly standing: Int32Array;
  /** Cells on which somebody of each side stands. */
  private readonly held: readonly [CellSet, CellSet];
  /** Of sizes and classes of ground that have been asked for; nothing of a run is in them. */
  readonly terrains = new Map<number, Terrain>();
  /** Goes up whenever somebody comes onto a cell or leaves one: what was worked out before may be otherwise. */
  moves = 0;

  constructor(
    readonly cells: Cells,
    grounds = 1,
  ) {
    this.blocked = Array.from({ length: grounds }, () => new Uint8Array(cells.count));
    this.cost = new Float64Array(cells.count).fill(1);
    this.standing = new Int32Array(cells.count).fill(NOBODY);
    this.held = [emptySet(cells.count), emptySet(cells.count)];
  }

  /** Walls and costs are what they were when it was asked for first. */
  terrain({ size, ground }: Pick<Mover, 'size' | 'ground'>): Terrain {
    const key = ground * 8 + size;
    let known = this.terrains.get(key);
    if (!known) this.terrains.set(key, (known = this.terrainOf(size, ground)));
    return known;
  }

  private terrainOf(size: number, ground: number): Terrain {
    const { cells, cost } = this;
    const blocked = this.blocked[ground];
    const ways = cells.directions.length;
    const prints = Array.from({ length: cells.count }, (_, cell) => cells.footprint(cell, size));
    const entry = Float64Array.from(prints, (print) =>
      print === null || print.some((each) => blocked[each] === 1) ? Infinity : Math.max(...print.map((each) => cost[each])),
    );
    const isOpen = (cell: number, direction: number) => {
      const next = cells.neighbour(cell, direction);
      return next >= 0 && entry[next] < Infinity;
    };
    const steps = new Uint8Array(cells.count);
    for (let cell = 0; cell < cells.count; cell++) {
      for (let d = 0; d < ways; d++) {
        const diagonal = cells.tiling === 'diagonals' && d % 2 === 1;
        const cuts = diagonal && !(isOpen(cell, d - 1) && isOpen(cell, (d + 1) % ways));
        if (isOpen(cell, d) && !cuts) steps[cell] |= 1 << d;
      }
    }
    const numbers = Array.from(entry.keys());
    const under: number[][] = numbers.map(() => []);
    for (const cell of numbers) for (const each of prints[cell] ?? []) under[each].push(cell);
    return {
      entry,
      steps,
      prints,
      even: entry.every((one) => one === 1 || one === Infinity),
      open: setOf(
        cells.count,
        numbers.filter((cell) => entry[cell] < Infinity),
      ),
      strides: stridesOf(cells, steps),
      under,
    };
  }

  put({ unit, side, size, ground }: Mover, cell: number): void {
    this.moves++;
    for (const each of this.terrain({ size, ground }).prints[cell]!) {
      this.standing[each] = unit;
      removeCell(this.held[1 - side], each);
      addCell(this.held[side], each);
    }
  }

  take({ unit, size, ground }: Mover, cell: number): void {
    this.moves++;
    for (const each of this.terrain({ size, ground }).prints[cell]!) {
      if (this.standing[each] !== unit) continue;
      this.standing[each] = NOBODY;
      for (const side of this.held) removeCell(side, each);
    }
  }

  clear(): void {
    this.moves++;
    this.standing.fill(NOBODY);
    for (const side of this.held) side.fill(0);
  }

  /** Whether a foe of a side stands where a body would be. */
  hasFoe({ prints }: Terrain, { side, size }: Mover, cell: number): boolean {
    const foes = this.held[1 - side];
    if (size === 1) return hasCell(foes, cell);
    const print = prints[cell];
    return print !== null && print.some((each) => hasCell(foes, each));
  }

  /** Cells on which a body would meet no foe. @param out where they are put @returns it */
  pastFoes(mover: Mover, out: CellSet): CellSet {
    const foes = this.held[1 - mover.side];
    if (mover.size === 1) {
      for (let w = 0; w < out.length; w++) out[w] = ~foes[w];
      return out;
    }
    const { under } = mover.terrain ?? this.terrain(mover);
    out.fill(-1);
    eachCell(foes, (cell) => {
      for (const from of under[cell]) removeCell(out, from);
    });
    return out;
  }

  /** Cells on which a body could stay: it meets no other there, friend or foe. @param out where they are put @returns it */
  free(mover: Mover, out: CellSet): CellSet {
    const { under, open } = mover.terrain ?? this.terrain(mover);
    const { standing } = this;
    const [a, b] = this.held;
    out.set(open);
    for (let w = 0; w < out.length; w++) {
      for (let bits = a[w] | b[w]; bits !== 0; bits &= bits - 1) {
        const cell = lowestCell(w, bits);
        if (standing[cell] === mover.unit) continue;
        if (mover.size === 1) removeCell(out, cell);
        else for (const from of under[cell]) removeCell(out, from);
      }
    }
    return out;
  }

  /** Whether it could stay there: no other unit stands there, friend or foe. */
  isFree(mover: Mover, cell: number): boolean {
    const { entry, prints } = mover.terrain ?? this.terrain(mover);
    if (entry[cell] === Infinity) return false;
    const { standing } = this;
    if (mover.size === 1) return standing[cell] === NOBODY || standing[cell] === mover.unit;
    return prints[cell]!.every((each) => standing[each] === NOBODY || standing[each] === mover.unit);
  }
}
