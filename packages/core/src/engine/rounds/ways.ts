/**
 * Least ways over a board, and which of several as good is taken: the one that turns least from where the unit faces, step by
 * step, of equals counter-clockwise. So nothing hangs on how cells are numbered, and a board that is turned is fought alike.
 */
import type { Board, Mover, Terrain } from './board';
import { type CellSet, addCell, both, eachCell, emptySet, hasCell, lowestCell } from './cell-sets';
import type { Bearing } from './cells';
import { Spread } from './strides';

/** Costs over a board, kept from one question to the next so that none allocates. */
export class Ways {
  /** Of the last question: what it costs to come to each cell; Infinity: not within what was allowed, or not asked. */
  readonly costs: Float64Array;
  /** What it costs to come to them has been put down. */
  private priced = false;
  /** Of `from`: those of them on which the mover can stay, its own among them. */
  readonly stands: CellSet;
  /** Where a step costs 1 everywhere cells are come to all at once, a step after another. */
  private readonly spread: Spread;
  /** Else they wait in a heap. */
  private readonly heap: number[] = [];
  /** What each of the heap was estimated at as it came there. */
  private readonly keys: number[] = [];
  /** What a way over each cell is estimated at, in all. */
  private readonly estimates: Float64Array;
  private near: { cell: number; within: number } | undefined;
  private readonly settled: Uint8Array;
  /** Cells that are looked at together. */
  private readonly met: CellSet;
  /** Cells on a way that is being looked for. */
  private readonly onWay: CellSet;
  /** What `from` was asked last, and how the board was then: asked the same again, the answer stands. */
  private readonly asked = { terrain: null as Terrain | null, unit: -1, side: -1, start: -1, allowance: -1, moves: -1 };

  constructor(readonly board: Board) {
    const { count } = board.cells;
    this.costs = new Float64Array(count).fill(Infinity);
    this.estimates = new Float64Array(count);
    this.settled = new Uint8Array(count);
    [this.stands, this.met, this.onWay] = Array.from({ length: 3 }, () => emptySet(count));
    this.spread = new Spread(count);
  }

  /** Cells that were reached. */
  get reached(): CellSet {
    return this.spread.reached;
  }

  /** What it costs to come from a cell to others, up to an allowance. From no cell (−1) none is come to. */
  from(mover: Mover, start: number, allowance: number): void {
    const { asked, board, stands } = this;
    const terrain = mover.terrain ?? board.terrain(mover);
    const { unit, side } = mover;
    const { moves } = board;
    if (
      asked.moves === moves &&
      asked.start === start &&
      asked.allowance === allowance &&
      asked.unit === unit &&
      asked.side === side &&
      asked.terrain === terrain
    )
      return;
    this.forget();
    asked.terrain = terrain;
    asked.unit = unit;
    asked.side = side;
    asked.start = start;
    asked.allowance = allowance;
    asked.moves = moves;
    if (start < 0) {
      stands.fill(0);
      return;
    }
    if (terrain.even) this.spreadOut(terrain, mover, start, allowance);
    else this.search(terrain, mover, start, allowance);
    both(this.reached, board.free(mover, stands), stands);
  }

  /** A step after another, everywhere at once. */
  private spreadOut({ strides }: Terrain, mover: Mover, start: number, allowance: number): void {
    const { spread, costs, met } = this;
    this.board.pastFoes(mover, spread.passed);
    addCell(spread.passed, start);
    met.fill(0);
    addCell(met, start);
    spread.begin(met);
    this.priced = true;
    costs[start] = 0;
    for (let cost = 1; cost <= allowance + ROUNDING && spread.step(strides.forth); cost++) spread.price(costs, cost);
  }

  /** By what the way costs. */
  private search(terrain: Terrain, mover: Mover, start: number, allowance: number): void {
    const { board, costs } = this;
    const { beside, directions } = board.cells;
    const { entry, steps } = terrain;
    const ways = directions.length;
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

  /**
   * Of some cells those from which least of a way is left to the cheapest to come to of others. None: no way leads there.
   * @param near none of those is farther from a cell than so much: ways that lead away from it are left for later (A*)
   * @param out where they are put @returns it
   */
  nearestTo(
    mover: Mover,
    goals: CellSet,
    among: CellSet,
    { foesBlock, near }: { foesBlock: boolean; near?: { cell: number; within: number } },
    out: CellSet,
  ): CellSet {
    const terrain = mover.terrain ?? this.board.terrain(mover);
    this.forget();
    const { passed } = this.spread;
    if (foesBlock) this.board.pastFoes(mover, passed);
    else passed.fill(-1);
    return terrain.even ? this.spreadBack(terrain, goals, among, out) : this.searchBack(terrain, goals, among, near, out);
  }

  private spreadBack({ open, strides }: Terrain, goals: CellSet, among: CellSet, out: CellSet): CellSet {
    const { spread } = this;
    // Nobody comes over what is closed.
    both(spread.passed, open, spread.passed);
    spread.begin(goals);
    while (!spread.meets(among) && spread.step(strides.back));
    return spread.met(among, out);
  }

  private searchBack(
    { entry, steps }: Terrain,
    goals: CellSet,
    among: CellSet,
    near: { cell: number; within: number } | undefined,
    out: CellSet,
  ): CellSet {
    const { costs, met } = this;
    const { passed } = this.spread;
    const { beside, directions } = this.board.cells;
    const ways = directions.length;
    this.near = near;
    eachCell(both(goals, passed, met), (goal) => this.reach(goal, 0));
    let enough = Infinity;
    for (let cell = this.nearest(); cell >= 0 && this.estimates[cell] <= enough + ROUNDING; cell = this.nearest()) {
      if (costs[cell] < enough && hasCell(among, cell)) enough = costs[cell];
      const cost = costs[cell] + entry[cell];
      if (!(cost <= enough + ROUNDING)) continue;
      for (let d = 0; d < ways; d++) {
        const before = beside[cell * ways + d];
        if (before < 0 || costs[before] <= cost) continue;
        // It is walked the other way: from there to here.
        if ((steps[before] & (1 << ((d + ways / 2) % ways))) === 0 || !hasCell(passed, before)) continue;
        this.reach(before, cost);
      }
    }
    out.fill(0);
    eachCell(both(this.reached, among, met), (cell) => {
      if (costs[cell] <= enough + ROUNDING) addCell(out, cell);
    });
    return out;
  }

  /**
   * The cheapest way from where `from` was asked from to a cell, of several the one that turns least from a facing, step by step.
   * @returns the cells after the first; empty where there is none
   */
  walk(mover: Mover, to: number, facing: Bearing): number[] {
    const { board, costs, onWay } = this;
    const { cells } = board;
    const { beside, directions } = cells;
    const { entry, steps } = mover.terrain ?? board.terrain(mover);
    const ways = directions.length;
    const { start } = this.asked;
    const walked: number[] = [];
    if (to < 0 || costs[to] === Infinity) return walked;
    // Backwards over every cell by which it is come to as cheaply; the list grows as it is gone through.
    onWay.fill(0);
    addCell(onWay, to);
    const over = [to];
    for (const cell of over) {
      for (let d = 0; d < ways; d++) {
        const before = beside[cell * ways + d];
        if (before < 0 || hasCell(onWay, before) || !(costs[before] + entry[cell] <= costs[cell] + ROUNDING)) continue;
        if ((steps[before] & (1 << ((d + ways / 2) % ways))) === 0) continue;
        addCell(onWay, before);
        over.push(before);
      }
    }
    let ahead = facing;
    for (let at = start; at !== to; at = walked[walked.length - 1]) {
      let best = -1;
      for (let d = 0; d < ways; d++) {
        if ((steps[at] & (1 << d)) === 0) continue;
        const next = beside[at * ways + d];
        if (!hasCell(onWay, next) || !(costs[at] + entry[next] <= costs[next] + ROUNDING)) continue;
        if (best < 0 || cells.compareTurns(ahead, directions[d], directions[best]) < 0) best = d;
      }
      ahead = directions[best];
      walked.push(beside[at * ways + best]);
    }
    return walked;
  }

  private forget(): void {
    const { reached, costs, settled } = this;
    for (let w = 0; this.priced && w < reached.length; w++) {
      for (let bits = reached[w]; bits !== 0; bits &= bits - 1) {
        const cell = lowestCell(w, bits);
        costs[cell] = Infinity;
        settled[cell] = 0;
      }
    }
    this.priced = false;
    reached.fill(0);
    if (this.heap.length > 0) this.heap.length = this.keys.length = 0;
    this.asked.moves = -1;
    this.near = undefined;
  }

  private reach(cell: number, cost: number): void {
    if (cost >= this.costs[cell]) return;
    addCell(this.reached, cell);
    this.priced = true;
    this.costs[cell] = cost;
    const { near } = this;
    // Each step costs 1 at least.
    const rest = near ? Math.max(0, this.board.cells.gap(cell, 1, near.cell, 1) - near.within) : 0;
    this.estimates[cell] = cost + rest;
    this.rise(cell, cost + rest);
  }

  /** The cell with the least estimate that is not settled yet; −1: none is left. */
  private nearest(): number {
    const { settled } = this;
    for (;;) {
      const cell = this.sink();
      if (cell < 0) return -1;
      if (settled[cell] === 1) continue;
      settled[cell] = 1;
      return cell;
    }
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
