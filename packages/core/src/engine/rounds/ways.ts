/**
 * Least ways over a board, and which of several as good is taken: the one that turns least from where the unit faces, step by
 * step, of equals counter-clockwise. So nothing hangs on how cells are numbered, and a board that is turned is fought alike.
 */
import type { Board, Mover, Terrain } from './board';
import type { Bearing } from './cells';

/** How a search for ways back is bounded. */
interface Bounds {
  /** Foes are in the way. */
  foesBlock?: boolean;
  /** What is dearer is not worked out. */
  most?: number;
  /** What it costs to come to each cell from where the way begins: only cells on a way as cheap as `most` are looked at. */
  ahead?: Float64Array;
  /** Ends with the cheapest cells of which this holds. */
  until?: (cell: number) => boolean;
  /** None of those is farther from a cell than so much: ways that lead away from it are left for later (A*). */
  near?: { cell: number; within: number };
}

/** Costs over a board, kept from one question to the next so that none allocates. */
export class Ways {
  /** Of the last question: what it costs to come to each cell; Infinity: not within what was allowed, or not asked. */
  readonly costs: Float64Array;
  /** Cells that were reached. */
  readonly reached: number[] = [];
  /** Where costs are even cells wait in lines by what they are estimated at, else in a heap. */
  private even = true;
  private readonly lines: number[][] = [];
  private line = 0;
  private readonly heap: number[] = [];
  /** What each of the heap was estimated at as it came there. */
  private readonly keys: number[] = [];
  /** What a way over each cell is estimated at, in all. */
  private readonly estimates: Float64Array;
  private near: { cell: number; within: number } | undefined;
  private readonly settled: Uint8Array;
  /** What `from` was asked last, and how the board was then: asked the same again, the answer stands. */
  private readonly asked = { terrain: null as Terrain | null, side: -1, start: -1, allowance: -1, moves: -1 };

  constructor(readonly board: Board) {
    this.costs = new Float64Array(board.cells.count).fill(Infinity);
    this.estimates = new Float64Array(board.cells.count);
    this.settled = new Uint8Array(board.cells.count);
  }

  /** What it costs to come from a cell to others, up to an allowance. From no cell (−1) none is come to. */
  from(mover: Mover, start: number, allowance: number): void {
    const { board, costs } = this;
    const { beside, directions } = board.cells;
    const terrain = mover.terrain ?? board.terrain(mover);
    const { asked } = this;
    const { side } = mover;
    const { moves } = board;
    if (asked.moves === moves && asked.start === start && asked.allowance === allowance && asked.side === side && asked.terrain === terrain)
      return;
    const { entry, steps } = terrain;
    const ways = directions.length;
    this.forget(terrain.even);
    Object.assign(asked, { terrain, side, start, allowance, moves });
    if (start < 0) return;
    this.reach(start, 0);
    for (let cell = this.nearest(); cell >= 0; cell = this.nearest()) {
      const open = steps[cell];
      for (let d = 0; d < ways; d++) {
        if ((open & (1 << d)) === 0) continue;
        const next = beside[cell * ways + d];
        const cost = costs[cell] + entry[next];
        if (costs[next] <= cost || cost > allowance + ROUNDING || board.hasFoe(terrain, mover, next)) continue;
        this.reach(next, cost);
      }
    }
  }

  /** What it costs to come from each cell to the cheapest to come to of some. */
  to(mover: Mover, goals: readonly number[], { foesBlock = true, most = Infinity, ahead, until, near }: Bounds = {}): void {
    const { board, costs } = this;
    const { beside, directions } = board.cells;
    const terrain = mover.terrain ?? board.terrain(mover);
    const { entry, steps } = terrain;
    const ways = directions.length;
    this.forget(terrain.even);
    this.near = near;
    for (const goal of goals) if (!foesBlock || !board.hasFoe(terrain, mover, goal)) this.reach(goal, 0);
    let enough = most;
    for (let cell = this.nearest(); cell >= 0 && this.estimates[cell] <= enough + ROUNDING; cell = this.nearest()) {
      if (until && costs[cell] < enough && until(cell)) enough = costs[cell];
      const cost = costs[cell] + entry[cell];
      if (!(cost <= enough + ROUNDING)) continue;
      for (let d = 0; d < ways; d++) {
        const before = beside[cell * ways + d];
        if (before < 0 || costs[before] <= cost) continue;
        // It is walked the other way: from there to here.
        if ((steps[before] & (1 << ((d + ways / 2) % ways))) === 0) continue;
        if (ahead && ahead[before] + cost > most + ROUNDING) continue;
        if (foesBlock && board.hasFoe(terrain, mover, before)) continue;
        this.reach(before, cost);
      }
    }
  }

  /**
   * The way from a cell to another, after `to` has been asked for that one alone.
   * @returns the cells after the first; empty where there is none
   */
  walk(mover: Mover, from: number, facing: Bearing): number[] {
    const { board, costs } = this;
    const { cells } = board;
    const { entry, steps } = mover.terrain ?? board.terrain(mover);
    const way: number[] = [];
    if (costs[from] === Infinity) return way;
    let ahead = facing;
    for (let at = from; costs[at] > 0; at = way[way.length - 1]) {
      let best = -1;
      for (let d = 0; d < cells.directions.length; d++) {
        if ((steps[at] & (1 << d)) === 0) continue;
        const next = cells.neighbour(at, d);
        if (!(costs[next] + entry[next] <= costs[at] + ROUNDING)) continue;
        if (best < 0 || cells.compareTurns(ahead, cells.directions[d], cells.directions[best]) < 0) best = d;
      }
      ahead = cells.directions[best];
      way.push(cells.neighbour(at, best));
    }
    return way;
  }

  private forget(even: boolean): void {
    for (const cell of this.reached) {
      this.costs[cell] = Infinity;
      this.settled[cell] = 0;
    }
    this.reached.length = this.heap.length = this.keys.length = 0;
    for (; this.line < this.lines.length; this.line++) this.lines[this.line].length = 0;
    this.line = 0;
    this.asked.moves = -1;
    this.even = even;
    this.near = undefined;
  }

  private reach(cell: number, cost: number): void {
    if (cost >= this.costs[cell]) return;
    if (this.costs[cell] === Infinity) this.reached.push(cell);
    this.costs[cell] = cost;
    const { near } = this;
    // Each step costs 1 at least.
    const rest = near ? Math.max(0, this.board.cells.gap(cell, 1, near.cell, 1) - near.within) : 0;
    this.estimates[cell] = cost + rest;
    if (!this.even) return this.rise(cell, cost + rest);
    const line = cost + rest;
    while (this.lines.length <= line) this.lines.push([]);
    this.lines[line].push(cell);
  }

  /** The cell with the least estimate that is not settled yet; −1: none is left. */
  private nearest(): number {
    const { settled } = this;
    for (;;) {
      const cell = this.even ? this.next() : this.sink();
      if (cell < 0) return -1;
      if (settled[cell] === 1) continue;
      settled[cell] = 1;
      return cell;
    }
  }

  /** Out of the lines. */
  private next(): number {
    while (this.line < this.lines.length) {
      const cell = this.lines[this.line].pop();
      if (cell !== undefined) return cell;
      this.line++;
    }
    return -1;
  }

  /** Into the heap, at what it is estimated at now: found cheaper later, it is there twice. */
  private rise(cell: number, estimate: number): void {
    const { heap, keys } = this;
    let at = heap.length;
    heap.push(cell);
    keys.push(estimate);
    while (at > 0) {
      const above = (at - 1) >> 1;
      if (keys[above] <= estimate) break;
      heap[at] = heap[above];
      keys[at] = keys[above];
      at = above;
    }
    heap[at] = cell;
    keys[at] = estimate;
  }

  /** Out of the heap: the least; −1: it is empty. */
  private sink(): number {
    const { heap, keys } = this;
    if (heap.length === 0) return -1;
    const top = heap[0];
    const last = heap.pop()!;
    const key = keys.pop()!;
    if (heap.length === 0) return top;
    let at = 0;
    for (;;) {
      let below = 2 * at + 1;
      if (below >= heap.length) break;
      if (below + 1 < heap.length && keys[below + 1] < keys[below]) below++;
      if (keys[below] >= key) break;
      heap[at] = heap[below];
      keys[at] = keys[below];
      at = below;
    }
    heap[at] = last;
    keys[at] = key;
    return top;
  }
}

/** Sums of costs in another order may differ by so much. */
const ROUNDING = 1e-9;
