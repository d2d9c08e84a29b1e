/**
 * Least ways over a board, and which of several as good is taken: the one that turns least from where the unit faces, step by
 * step, of equals counter-clockwise. So nothing hangs on how cells are numbered, and a board that is turned is fought alike.
 */
import type { Board, Mover } from './board';
import type { Bearing } from './cells';

/** Costs over a board, kept from one question to the next so that none allocates. */
export class Ways {
  /** Of the last question: what it costs to come to each cell; Infinity: not within what was allowed. */
  readonly costs: Float64Array;
  /** Cells that were reached, in the order of their cost. */
  readonly reached: number[] = [];
  private readonly heap: number[] = [];
  private readonly settled: Uint8Array;

  constructor(readonly board: Board) {
    this.costs = new Float64Array(board.cells.count).fill(Infinity);
    this.settled = new Uint8Array(board.cells.count);
  }

  /** What it costs to come from a cell to others, up to an allowance. */
  from(mover: Mover, cell: number, allowance: number, foesBlock = true): void {
    const { cells } = this.board;
    this.forget();
    this.reach(cell, 0);
    for (let next = this.nearest(); next >= 0; next = this.nearest()) {
      for (let d = 0; d < cells.directions.length; d++) {
        const beside = cells.neighbour(next, d);
        if (beside < 0 || this.settled[beside] === 1 || !this.board.mayStep(mover, next, d)) continue;
        const cost = this.costs[next] + this.board.entry(mover, beside, foesBlock);
        if (cost <= allowance + ROUNDING) this.reach(beside, cost);
      }
    }
  }

  /** What it costs to come from each cell to the cheapest to come to of some. @param most what is dearer is not worked out */
  to(mover: Mover, goals: readonly number[], { foesBlock = true, most = Infinity } = {}): void {
    const { cells } = this.board;
    const ways = cells.directions.length;
    this.forget();
    for (const goal of goals) this.reach(goal, 0);
    for (let next = this.nearest(); next >= 0; next = this.nearest()) {
      const entry = this.board.entry(mover, next, foesBlock);
      if (entry === Infinity) continue;
      for (let d = 0; d < ways; d++) {
        const beside = cells.neighbour(next, d);
        // It is walked the other way: from there to here.
        if (beside < 0 || this.settled[beside] === 1 || !this.board.mayStep(mover, beside, (d + ways / 2) % ways)) continue;
        if (this.costs[next] + entry <= most + ROUNDING) this.reach(beside, this.costs[next] + entry);
      }
    }
  }

  /**
   * The way from a cell to another, after `to` has been asked for that one alone.
   * @returns the cells after the first; empty where there is none
   */
  walk(mover: Mover, from: number, facing: Bearing, foesBlock = true): number[] {
    const { cells } = this.board;
    const way: number[] = [];
    if (this.costs[from] === Infinity) return way;
    let ahead = facing;
    for (let at = from; this.costs[at] > 0; at = way[way.length - 1]) {
      let best = -1;
      for (let d = 0; d < cells.directions.length; d++) {
        const beside = cells.neighbour(at, d);
        if (beside < 0 || !this.board.mayStep(mover, at, d)) continue;
        const left = this.costs[beside] + this.board.entry(mover, beside, foesBlock);
        if (!(left <= this.costs[at] + ROUNDING)) continue;
        if (best < 0 || cells.compareTurns(ahead, cells.directions[d], cells.directions[best]) < 0) best = d;
      }
      ahead = cells.directions[best];
      way.push(cells.neighbour(at, best));
    }
    return way;
  }

  private forget(): void {
    for (const cell of this.reached) {
      this.costs[cell] = Infinity;
      this.settled[cell] = 0;
    }
    this.reached.length = this.heap.length = 0;
  }

  private reach(cell: number, cost: number): void {
    if (cost >= this.costs[cell]) return;
    if (this.costs[cell] === Infinity) this.reached.push(cell);
    this.costs[cell] = cost;
    this.push(cell);
  }

  /** The cheapest cell that is not settled yet; −1: none is left. */
  private nearest(): number {
    while (this.heap.length > 0) {
      const cell = this.pop();
      if (this.settled[cell] === 1) continue;
      this.settled[cell] = 1;
      return cell;
    }
    return -1;
  }

  private push(cell: number): void {
    const { heap, costs } = this;
    let at = heap.length;
    heap.push(cell);
    while (at > 0) {
      const above = (at - 1) >> 1;
      if (costs[heap[above]] <= costs[cell]) break;
      heap[at] = heap[above];
      at = above;
    }
    heap[at] = cell;
  }

  private pop(): number {
    const { heap, costs } = this;
    const top = heap[0];
    const last = heap.pop()!;
    if (heap.length === 0) return top;
    let at = 0;
    for (;;) {
      let below = 2 * at + 1;
      if (below >= heap.length) break;
      if (below + 1 < heap.length && costs[heap[below + 1]] < costs[heap[below]]) below++;
      if (costs[heap[below]] >= costs[last]) break;
      heap[at] = heap[below];
      at = below;
    }
    heap[at] = last;
    return top;
  }
}

/** Sums of costs in another order may differ by so much. */
const ROUNDING = 1e-9;
