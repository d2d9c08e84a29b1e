/**
 * Steps over a board taken by all cells of a set at once. Cells are counted row by row, so that every step, on squares as on
 * hexagons, leads one number on or back, or about as many as a row has: the set is moved by so many bits, and what comes to
 * where no such step leads is dropped.
 */
import { type CellSet, addCell, emptySet, lowestCell } from './cell-sets';
import type { Cells } from './cells';

/** Steps of one terrain, as they are taken or as they are taken back. */
export interface Strides {
  /** How far a row leads in the numbers of cells, in words and bits. */
  words: number;
  bits: number;
  /** By word of the board and by distance, in the order of `distances`: cells at which a step so far may end. */
  ends: Int32Array;
  /** Some steps lead a row on or back and one aside. */
  slants: boolean;
}

/** Numbers of cells that steps lead, where a row has so many. */
const distances = (columns: number) => [1, -1, columns, 0 - columns, columns + 1, columns - 1, 1 - columns, -1 - columns];
const DISTANCES = 8;

/** @param steps by cell, a bit a direction in which a step may be taken @returns steps as they are taken, and taken back */
export function stridesOf(cells: Cells, steps: Uint8Array): { forth: Strides; back: Strides } {
  const { columns, count } = cells;
  const by = distances(columns);
  const [lands, leaves] = [by.map(() => emptySet(count)), by.map(() => emptySet(count))];
  for (let cell = 0; cell < count; cell++) {
    for (let d = 0; d < cells.directions.length; d++) {
      if ((steps[cell] & (1 << d)) === 0) continue;
      const next = cells.neighbour(cell, d);
      addCell(lands[by.indexOf(next - cell)], next);
      addCell(leaves[by.indexOf(cell - next)], cell);
    }
  }
  return { forth: packed(columns, lands), back: packed(columns, leaves) };
}

/** @param ends by distance */
function packed(columns: number, ends: readonly CellSet[]): Strides {
  const all = new Int32Array(DISTANCES * ends[0].length);
  ends.forEach((set, s) => set.forEach((word, w) => (all[w * DISTANCES + s] = word)));
  return {
    words: columns >> 5,
    bits: columns & 31,
    ends: all,
    slants: ends.slice(4).some((set) => set.some((word) => word !== 0)),
  };
}

/** Words that a set in front has before its first and after its last, where there is nothing: no step leads farther. */
const EDGE = 4;

/** Where a set spreads over a board, a step after another, to what it has not come to yet. */
export class Spread {
  /** What has been come to. */
  readonly reached: CellSet;
  /** What may be come to. */
  readonly passed: CellSet;
  private front: Int32Array;
  private next: Int32Array;
  /** Words of the board between which all in front lies; first > last: nothing does. */
  private first = 0;
  private last = -1;

  constructor(count: number) {
    this.reached = emptySet(count);
    this.passed = emptySet(count);
    this.front = new Int32Array(this.reached.length + 2 * EDGE);
    this.next = new Int32Array(this.reached.length + 2 * EDGE);
  }

  /** Begins with what of a set may be come to. */
  begin(set: CellSet): void {
    const { front, reached, passed } = this;
    front.fill(0);
    this.first = set.length;
    this.last = -1;
    for (let w = 0; w < set.length; w++) this.arrive(front, w, set[w] & passed[w]);
    reached.fill(0);
    for (let w = this.first; w <= this.last; w++) reached[w] = front[w + EDGE];
  }

  /** @returns whether anything is come to */
  step({ words, bits, ends, slants }: Strides): boolean {
    const { front, next, reached, passed } = this;
    const rest = 31 - bits;
    const end = Math.min(this.last + EDGE - 1, reached.length - 1);
    const begin = Math.max(0, this.first - EDGE + 1);
    next.fill(0);
    this.first = reached.length;
    this.last = -1;
    // The set as it is, a row on and a row back: the word before, this one, the next. What leaves a word comes into its neighbour.
    let i = begin + EDGE - 1;
    let before = front[i];
    let here = front[i + 1];
    let onBefore = (front[i - words] << bits) | ((front[i - words - 1] >>> 1) >>> rest);
    let onHere = (front[i + 1 - words] << bits) | ((front[i - words] >>> 1) >>> rest);
    let backBefore = (front[i + words] >>> bits) | ((front[i + words + 1] << 1) << rest);
    let backHere = (front[i + 1 + words] >>> bits) | ((front[i + words + 2] << 1) << rest);
    for (let w = begin; w <= end; w++) {
      i = w + EDGE;
      const after = front[i + 1];
      const onAfter = (front[i + 1 - words] << bits) | ((front[i - words] >>> 1) >>> rest);
      const backAfter = (front[i + 1 + words] >>> bits) | ((front[i + 2 + words] << 1) << rest);
      const e = w * DISTANCES;
      let come =
        (((here << 1) | (before >>> 31)) & ends[e]) |
        (((here >>> 1) | (after << 31)) & ends[e + 1]) |
        (onHere & ends[e + 2]) |
        (backHere & ends[e + 3]);
      if (slants)
        come |=
          (((onHere << 1) | (onBefore >>> 31)) & ends[e + 4]) |
          (((onHere >>> 1) | (onAfter << 31)) & ends[e + 5]) |
          (((backHere << 1) | (backBefore >>> 31)) & ends[e + 6]) |
          (((backHere >>> 1) | (backAfter << 31)) & ends[e + 7]);
      come &= passed[w] & ~reached[w];
      before = here;
      here = after;
      onBefore = onHere;
      onHere = onAfter;
      backBefore = backHere;
      backHere = backAfter;
      if (come === 0) continue;
      reached[w] |= come;
      this.arrive(next, w, come);
    }
    this.front = next;
    this.next = front;
    return this.last >= 0;
  }

  private arrive(front: Int32Array, w: number, come: number): void {
    if (come === 0) return;
    front[w + EDGE] = come;
    if (this.last < 0) this.first = w;
    this.last = w;
  }

  /** Whether anything that was come to last is in a set. */
  meets(set: CellSet): boolean {
    for (let w = this.first; w <= this.last; w++) if ((this.front[w + EDGE] & set[w]) !== 0) return true;
    return false;
  }

  /** What was come to last, of a set. @param out where it is put @returns it */
  met(set: CellSet, out: CellSet): CellSet {
    out.fill(0);
    for (let w = this.first; w <= this.last; w++) out[w] = this.front[w + EDGE] & set[w];
    return out;
  }

  /** Puts down a number for each cell that was come to last. */
  price(costs: Float64Array, cost: number): void {
    for (let w = this.first; w <= this.last; w++) {
      for (let bits = this.front[w + EDGE]; bits !== 0; bits &= bits - 1) costs[lowestCell(w, bits)] = cost;
    }
  }
}
