/**
 * Sets of cells, a bit a cell in words of 32: what would be asked of each cell is asked of 32 at once. A set of a board always
 * has as many words as the board's others.
 */
export type CellSet = Int32Array;

/** @param count of cells */
export const emptySet = (count: number): CellSet => new Int32Array((count + 31) >> 5);

export const hasCell = (set: CellSet, cell: number): boolean => cell >= 0 && ((set[cell >> 5] >>> (cell & 31)) & 1) === 1;

export function addCell(set: CellSet, cell: number): void {
  set[cell >> 5] |= 1 << (cell & 31);
}

export function removeCell(set: CellSet, cell: number): void {
  set[cell >> 5] &= ~(1 << (cell & 31));
}

/** @param cells of the board */
export function setOf(count: number, cells: Iterable<number>): CellSet {
  const set = emptySet(count);
  for (const cell of cells) addCell(set, cell);
  return set;
}

/** The cell that the lowest bit of a word stands for. @param w number of the word */
export const lowestCell = (w: number, bits: number): number => (w << 5) + 31 - Math.clz32(bits & -bits);

/** The cells of a set where a question is asked of each, from the lowest number. @returns the first of which it holds; −1: of none */
export function findCell(set: CellSet, holds: (cell: number) => boolean): number {
  for (let w = 0; w < set.length; w++) {
    for (let bits = set[w]; bits !== 0; bits &= bits - 1) {
      const cell = lowestCell(w, bits);
      if (holds(cell)) return cell;
    }
  }
  return -1;
}

/** Does something with each cell of a set, from the lowest number. */
export function eachCell(set: CellSet, does: (cell: number) => void): void {
  for (let w = 0; w < set.length; w++) {
    for (let bits = set[w]; bits !== 0; bits &= bits - 1) does(lowestCell(w, bits));
  }
}

/** The cells of a set, from the lowest number. */
export function listOf(set: CellSet): number[] {
  const cells: number[] = [];
  eachCell(set, (cell) => cells.push(cell));
  return cells;
}

/** What is in both. @param out where it is put, for nothing to be allocated @returns it */
export function both(a: CellSet, b: CellSet, out: CellSet): CellSet {
  for (let w = 0; w < out.length; w++) out[w] = a[w] & b[w];
  return out;
}

export function isEmpty(set: CellSet): boolean {
  for (let w = 0; w < set.length; w++) if (set[w] !== 0) return false;
  return true;
}
