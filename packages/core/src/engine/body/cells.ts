/** Who is in which square cell of the plain, for whoever asks who is near: sorted anew as often as it is asked for. */

/** Cells a place: with more of them on a wide plain, they are made wider. */
const MOST_A_PLACE = 16;

export class Cells {
  columns = 0;
  rows = 0;
  /** Places in the order of their cells, row by row, and within a cell in their own. */
  readonly order: Int32Array;
  /** Of each place of that order, its cell: row × columns + column. */
  readonly cell: Int32Array;
  /** Where each cell begins in the order; behind the last one, how many there are. */
  readonly from: Int32Array;
  private readonly cellOf: Int32Array;

  /** @param most so many can be sorted */
  constructor(private readonly most: number) {
    this.order = new Int32Array(most);
    this.cell = new Int32Array(most);
    this.cellOf = new Int32Array(most);
    this.from = new Int32Array(MOST_A_PLACE * most + 2);
  }

  /** Sorts the first n places, at least one. @param least m: no cell is narrower */
  sort(x: Float64Array, y: Float64Array, n: number, least: number): void {
    let [left, right, bottom, top] = [x[0], x[0], y[0], y[0]];
    for (let i = 1; i < n; i++) {
      left = Math.min(left, x[i]);
      right = Math.max(right, x[i]);
      bottom = Math.min(bottom, y[i]);
      top = Math.max(top, y[i]);
    }
    let width = least;
    do {
      this.columns = Math.floor((right - left) / width) + 1;
      this.rows = Math.floor((top - bottom) / width) + 1;
      width *= 2;
    } while (this.columns * this.rows > MOST_A_PLACE * this.most);
    width /= 2;
    const { order, cell, from, cellOf, columns, rows } = this;
    from.fill(0, 0, columns * rows + 1);
    for (let i = 0; i < n; i++) {
      cellOf[i] = Math.floor((y[i] - bottom) / width) * columns + Math.floor((x[i] - left) / width);
      from[cellOf[i] + 1]++;
    }
    for (let c = 0; c < columns * rows; c++) from[c + 1] += from[c];
    // Filled from behind, each cell's end becomes its beginning.
    for (let i = n - 1; i >= 0; i--) {
      const at = --from[cellOf[i] + 1];
      order[at] = i;
      cell[at] = cellOf[i];
    }
    for (let c = 0; c < columns * rows; c++) from[c] = from[c + 1];
    from[columns * rows] = n;
  }
}
