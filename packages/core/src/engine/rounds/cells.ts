/**
 * The cells of a board: squares with or without diagonals, or hexagons; which lie beside one another and how far apart two
 * are. Nothing here knows of walls or units. Columns count eastwards, rows northwards; of hexagons every other row, the
 * second first, lies half a cell farther east.
 */

import { type CellSet, addCell, emptySet } from './cell-sets';

export type Tiling = 'squares' | 'diagonals' | 'hexagons';

/** A way on the plane of the board in whole numbers: two to a cell eastwards, and two (of hexagons one) northwards. */
export interface Bearing {
  east: number;
  north: number;
}

/** Directions counter-clockwise from east, as bearings. */
const DIRECTIONS: Record<Tiling, readonly Bearing[]> = {
  squares: bearings([2, 0], [0, 2], [-2, 0], [0, -2]),
  diagonals: bearings([2, 0], [2, 2], [0, 2], [-2, 2], [-2, 0], [-2, -2], [0, -2], [2, -2]),
  hexagons: bearings([2, 0], [1, 1], [-1, 1], [-2, 0], [-1, -1], [1, -1]),
};

function bearings(...pairs: [number, number][]): Bearing[] {
  return pairs.map(([east, north]) => ({ east, north }));
}

/** Cells from everything to whoever found no cell to stand on: farther than any board is wide. */
const NOWHERE = 1000;

/** No two cells of a board are farther apart. */
const FARTHEST = 127;

/** So many bands are kept: 2 MB of them on the largest board. */
const MOST_BANDS = 4096;

export class Cells {
  readonly count: number;
  readonly directions: readonly Bearing[];
  /** Cell beside each in each direction, one cell's after another's; −1: the edge. */
  readonly beside: Int32Array;
  /** Column and row of each: looked up, a division less wherever two cells are held against one another. */
  private readonly columnOf: Uint8Array;
  private readonly rowOf: Uint8Array;
  private readonly bands = new Map<number, CellSet>();

  /** @param columns and rows: 1 to 64 each */
  constructor(
    readonly tiling: Tiling,
    readonly columns: number,
    readonly rows: number,
  ) {
    this.count = columns * rows;
    this.directions = DIRECTIONS[tiling];
    this.columnOf = Uint8Array.from({ length: this.count }, (_, cell) => cell % columns);
    this.rowOf = Uint8Array.from({ length: this.count }, (_, cell) => Math.floor(cell / columns));
    const ways = this.directions.length;
    this.beside = new Int32Array(this.count * ways).fill(-1);
    for (let cell = 0; cell < this.count; cell++) {
      for (let d = 0; d < ways; d++) this.beside[cell * ways + d] = this.step(cell, this.directions[d]);
    }
  }

  column(cell: number): number {
    return this.columnOf[cell];
  }

  row(cell: number): number {
    return this.rowOf[cell];
  }

  /** @returns −1: not on the board */
  at(column: number, row: number): number {
    return column >= 0 && column < this.columns && row >= 0 && row < this.rows ? row * this.columns + column : -1;
  }

  neighbour(cell: number, direction: number): number {
    return this.beside[cell * this.directions.length + direction];
  }

  private step(cell: number, { east, north }: Bearing): number {
    const row = this.row(cell);
    if (this.tiling !== 'hexagons') return this.at(this.column(cell) + east / 2, row + north / 2);
    return this.at((this.column(cell) * 2 + (row & 1) + east - ((row + north) & 1)) / 2, row + north);
  }

  /** Steps between two cells where nothing is in the way. */
  distance(a: number, b: number): number {
    return this.gap(a, 1, b, 1);
  }

  /**
   * Steps between the nearest cells of two bodies. A body on squares covers size × size of them from its own cell to north and
   * east; on hexagons all that are fewer than its size away from its own.
   */
  gap(a: number, sizeA: number, b: number, sizeB: number): number {
    if (a < 0 || b < 0) return NOWHERE;
    const rowA = this.rowOf[a];
    const rowB = this.rowOf[b];
    const columnA = this.columnOf[a];
    const columnB = this.columnOf[b];
    if (this.tiling === 'hexagons') {
      const q = columnB - (rowB >> 1) - columnA + (rowA >> 1);
      const r = rowB - rowA;
      return Math.max(0, (Math.abs(q) + Math.abs(r) + Math.abs(q + r)) / 2 - (sizeA - 1) - (sizeB - 1));
    }
    const across = Math.max(0, columnB - columnA - sizeA + 1, columnA - columnB - sizeB + 1);
    const along = Math.max(0, rowB - rowA - sizeA + 1, rowA - rowB - sizeB + 1);
    return this.tiling === 'squares' ? across + along : Math.max(across, along);
  }

  /**
   * Where a body of a size would be between two distances of another body. Kept: it is for whoever asks to leave it as it is.
   * @param near and far: whole cells
   */
  band(at: number, sizeAt: number, size: number, near: number, far: number): CellSet {
    const from = near > 0 ? Math.min(near, FARTHEST + 1) : 0;
    const to = Math.min(far, FARTHEST);
    if (at < 0 || from > to) return this.bandOf(at, sizeAt, size, near, far);
    // Small enough to be looked up as a whole number: twelve bits, two, two, seven, seven.
    const key = ((((at << 2) | sizeAt) << 2) | size) * (FARTHEST + 1) * (FARTHEST + 1) + from * (FARTHEST + 1) + to;
    let band = this.bands.get(key);
    if (band) return band;
    if (this.bands.size >= MOST_BANDS) this.bands.clear();
    this.bands.set(key, (band = this.bandOf(at, sizeAt, size, from, to)));
    return band;
  }

  private bandOf(at: number, sizeAt: number, size: number, near: number, far: number): CellSet {
    const band = emptySet(this.count);
    for (let cell = 0; cell < this.count; cell++) {
      const gap = this.gap(cell, size, at, sizeAt);
      if (gap >= near && gap <= far) addCell(band, cell);
    }
    return band;
  }

  /** The cells that a body covers; null where it would hang over the edge. */
  footprint(cell: number, size: number): readonly number[] | null {
    if (size === 1) return [cell];
    const covered = this.tiling === 'hexagons' ? this.disc(cell, size - 1) : this.block(cell, size);
    return covered.includes(-1) ? null : covered;
  }

  private block(cell: number, size: number): number[] {
    const column = this.column(cell);
    const row = this.row(cell);
    return Array.from({ length: size * size }, (_, i) => this.at(column + (i % size), row + Math.floor(i / size)));
  }

  private disc(cell: number, radius: number): number[] {
    const row = this.row(cell);
    const q = this.column(cell) - (row >> 1);
    const cells: number[] = [];
    for (let dr = -radius; dr <= radius; dr++) {
      for (let dq = Math.max(-radius, -radius - dr); dq <= Math.min(radius, radius - dr); dq++) {
        cells.push(this.at(q + dq + ((row + dr) >> 1), row + dr));
      }
    }
    return cells;
  }

  /** From the middle of one body to the middle of another. */
  bearing(a: number, sizeA: number, b: number, sizeB: number): Bearing {
    const rowA = this.row(a);
    const rowB = this.row(b);
    const columns = this.column(b) - this.column(a);
    if (this.tiling === 'hexagons') return { east: 2 * columns + (rowB & 1) - (rowA & 1), north: rowB - rowA };
    return { east: 2 * columns + sizeB - sizeA, north: 2 * (rowB - rowA) + sizeB - sizeA };
  }

  /**
   * Which of two bearings comes first for somebody who faces a third: the smaller turn; of equals counter-clockwise before
   * clockwise; in one direction the nearer. No way at all comes before any. In whole numbers, so that it is exact, and the same
   * however the board is turned.
   * @returns < 0: a comes first; > 0: b does; 0: they are one bearing
   */
  compareTurns(facing: Bearing, a: Bearing, b: Bearing): number {
    // Northwards a hexagon's step is √3 of its step eastwards.
    const weight = this.tiling === 'hexagons' ? 3 : 1;
    const dot = (v: Bearing, w: Bearing) => v.east * w.east + weight * v.north * w.north;
    const lengthA = dot(a, a);
    const lengthB = dot(b, b);
    if (lengthA === 0 || lengthB === 0) return lengthA - lengthB;
    const aheadA = dot(facing, a);
    const aheadB = dot(facing, b);
    // cos a ≷ cos b, both squared with their signs kept, over a common denominator.
    const turn = aheadB * Math.abs(aheadB) * lengthA - aheadA * Math.abs(aheadA) * lengthB;
    if (turn !== 0) return turn;
    const left = (v: Bearing) => facing.east * v.north - facing.north * v.east > 0;
    return Number(left(b)) - Number(left(a)) || lengthA - lengthB;
  }
}
