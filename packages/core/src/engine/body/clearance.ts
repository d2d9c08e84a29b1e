/** A grid of how much room there is: from the middle of each cell to the nearest wall, closed ground or edge of the arena. */
import type { CompiledShape } from '../tables';

export class Clearance {
  readonly columns: number;
  readonly rows: number;
  readonly room: Float64Array;

  constructor(
    readonly halfWidth: number,
    readonly halfDepth: number,
    readonly cell: number,
    shapes: readonly CompiledShape[],
  ) {
    this.columns = Math.max(1, Math.ceil((2 * halfWidth) / cell));
    this.rows = Math.max(1, Math.ceil((2 * halfDepth) / cell));
    this.room = new Float64Array(this.columns * this.rows);
    for (let row = 0; row < this.rows; row++) {
      for (let column = 0; column < this.columns; column++) {
        const x = this.xOf(column);
        const y = this.yOf(row);
        let room = Math.min(halfWidth - Math.abs(x), halfDepth - Math.abs(y));
        for (let s = 0; s < shapes.length; s++) room = Math.min(room, distanceTo(shapes[s], x, y));
        this.room[row * this.columns + column] = Math.max(0, room);
      }
    }
  }

  get cells(): number {
    return this.room.length;
  }

  xOf(column: number): number {
    return (column + 0.5) * this.cell - this.halfWidth;
  }

  yOf(row: number): number {
    return (row + 0.5) * this.cell - this.halfDepth;
  }

  /** The cell a place lies in; places outside count to the nearest one. */
  cellAt(x: number, y: number): number {
    const column = Math.floor((x + this.halfWidth) / this.cell);
    const row = Math.floor((y + this.halfDepth) / this.cell);
    const c = column < 0 ? 0 : column >= this.columns ? this.columns - 1 : column;
    const r = row < 0 ? 0 : row >= this.rows ? this.rows - 1 : row;
    return r * this.columns + c;
  }

  /**
   * Whether a body as wide as `least` can go straight from one place to another: in hops as long as the room allows, at
   * least half a cell each, so the number of hops is bounded by twice the cells on the way.
   */
  clearWay(x0: number, y0: number, x1: number, y1: number, least: number): boolean {
    const dx = x1 - x0;
    const dy = y1 - y0;
    const length = Math.sqrt(dx * dx + dy * dy);
    const { cell, room } = this;
    for (let gone = 0; gone < length;) {
      const share = gone / length;
      const free = room[this.cellAt(x0 + dx * share, y0 + dy * share)];
      if (free < least && gone > 0) return false;
      gone += Math.max(cell / 2, free - least - cell);
    }
    return true;
  }
}

/** From a place to a convex shape; 0 inside. */
export function distanceTo({ xs, ys }: CompiledShape, x: number, y: number): number {
  let inside = true;
  let least = Infinity;
  for (let i = 0, j = xs.length - 1; i < xs.length; j = i++) {
    const ex = xs[i] - xs[j];
    const ey = ys[i] - ys[j];
    const px = x - xs[j];
    const py = y - ys[j];
    if (px * ey - py * ex > 0) inside = false;
    const along = Math.max(0, Math.min(1, (px * ex + py * ey) / (ex * ex + ey * ey)));
    const qx = px - ex * along;
    const qy = py - ey * along;
    least = Math.min(least, qx * qx + qy * qy);
  }
  return inside ? 0 : Math.sqrt(least);
}

/** Whether a place lies in a convex shape. */
export function contains({ xs, ys }: CompiledShape, x: number, y: number): boolean {
  for (let i = 0, j = xs.length - 1; i < xs.length; j = i++) {
    if ((x - xs[j]) * (ys[i] - ys[j]) - (y - ys[j]) * (xs[i] - xs[j]) > 0) return false;
  }
  return true;
}
