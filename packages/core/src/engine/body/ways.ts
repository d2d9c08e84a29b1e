/**
 * Ways around walls: a distance field from cells to a goal, shared by all of one width who go there. A field depends on nothing
 * but the arena, the goal and the width, so keeping it for later runs changes no result.
 */
import type { Clearance } from './clearance';

/** Cost of a step to a neighbour, and what scraping along a wall adds; 7 : 5 stands for √2 within 1 %. */
export const STRAIGHT = 5;

const DIAGONAL = 7;

const TIGHT = 3;

const BUCKETS = 16;

export const UNREACHED = 0xffff;

/** Which neighbours of each cell a body of one width can step to, and where it would scrape: made once for a width. */
export class Passages {
  /** One bit a neighbour, in the order of `steps`. */
  readonly open: Uint8Array;
  readonly tight: Uint8Array;
  /** To the eight neighbours in the list of cells; odd places are slanted. */
  readonly steps: readonly number[];

  constructor(
    readonly clearance: Clearance,
    readonly least: number,
  ) {
    const { columns, rows, room, cell } = clearance;
    this.steps = AROUND.map(([dc, dr]) => dr * columns + dc);
    this.open = new Uint8Array(room.length);
    this.tight = new Uint8Array(room.length);
    const free = (c: number, r: number) => c >= 0 && r >= 0 && c < columns && r < rows && room[r * columns + c] >= least;
    for (let at = 0; at < room.length; at++) {
      const column = at % columns;
      const row = (at - column) / columns;
      this.tight[at] = room[at] < least + cell ? TIGHT : 0;
      for (let n = 0; n < 8; n++) {
        const [dc, dr] = AROUND[n];
        if (!free(column + dc, row + dr)) continue;
        // No cutting of corners: a slanted step needs both cells beside it.
        if (n % 2 === 1 && !(free(column + dc, row) && free(column, row + dr))) continue;
        this.open[at] |= 1 << n;
      }
    }
  }
}

const AROUND: readonly (readonly [number, number])[] = [
  [1, 0],
  [1, 1],
  [0, 1],
  [-1, 1],
  [-1, 0],
  [-1, -1],
  [0, -1],
  [1, -1],
];

/** Cells waiting by their cost modulo BUCKETS; scratch that grows with the largest arena. */
let waiting: Int32Array[] = [];

const counts = new Int32Array(BUCKETS);

/**
 * Costs from cells to a goal, worked out only as far as they are asked for: those of a cell, and of all that are nearer to the goal,
 * are the same however far the field has been worked out beyond it.
 */
export class DistanceField {
  private cost: Uint16Array | undefined;
  /** Costs below this are final; beyond it lie cells that have not been reached yet. */
  private upTo = 0;

  /**
   * @param goal a cell
   * @param size cells to a side of the block, from the goal on, that counts as the goal
   */
  constructor(
    private readonly passages: Passages,
    private readonly goal: number,
    private readonly size: number,
  ) {}

  /** Costs, final for a cell and for all on any way from it to the goal; UNREACHED where there is no way. */
  from(cell: number): Uint16Array {
    const { cost } = this;
    if (cost && (cost[cell] < this.upTo || this.upTo === Infinity)) return cost;
    const { passages } = this;
    const { clearance, least, open } = passages;
    ready(open.length);
    const costs = cost ?? new Uint16Array(open.length).fill(UNREACHED);
    const left = cost ? gather(costs, this.upTo) : seed(clearance, least, this.goal, this.size, costs);
    this.cost = costs;
    this.upTo = spread(passages, costs, left, this.upTo, cell, FARTHER * this.upTo);
    return costs;
  }
}

/** How much farther a field is worked out when it has to go on, at least: to go on every cell is looked at once. */
const FARTHER = 1.5;

/** Nothing waits, and there is room for as much as may. */
function ready(cells: number): void {
  // A cell waits once for each neighbour that bettered it, at most; of one cost far fewer do.
  if (waiting.length === 0 || waiting[0].length < cells) waiting = Array.from({ length: BUCKETS }, () => new Int32Array(8 * cells));
  counts.fill(0);
}

/** What has been reached but not gone on from waits. @param from costs below this are final @returns how many */
function gather(costs: Uint16Array, from: number): number {
  let left = 0;
  for (let at = 0; at < costs.length; at++) {
    const cost = costs[at];
    if (cost < from || cost === UNREACHED) continue;
    const slot = cost & (BUCKETS - 1);
    waiting[slot][counts[slot]++] = at;
    left++;
  }
  return left;
}

/**
 * Goes on with a field by Dial's buckets: every cost of a step is below BUCKETS, so what waits lies within as many of where it ended.
 * Costs beyond UNREACHED are not kept: some thirteen thousand cells away.
 *
 * @param costs of all cells; changed
 * @param left how many wait
 * @param from costs below this are final
 * @param until a cell whose cost is to be final
 * @param least costs below this are to be final
 * @returns costs below this are final now; Infinity: all are
 */
function spread({ open, tight, steps }: Passages, costs: Uint16Array, left: number, from: number, until: number, least: number): number {
  for (let now = from; left > 0 && now < UNREACHED - BUCKETS; now++) {
    // All below this cost have been gone on from, so every way that leads down from the cell is there.
    if (now >= least && costs[until] < now) return now;
    const slot = now & (BUCKETS - 1);
    const bucket = waiting[slot];
    const count = counts[slot];
    counts[slot] = 0;
    left -= count;
    for (let i = 0; i < count; i++) {
      const at = bucket[i];
      if (costs[at] !== now) continue;
      const ways = open[at];
      for (let n = 0; n < 8; n++) {
        if ((ways & (1 << n)) === 0) continue;
        const next = at + steps[n];
        const total = now + ((n & 1) === 1 ? DIAGONAL : STRAIGHT) + tight[next];
        if (total >= costs[next]) continue;
        costs[next] = total;
        const into = total & (BUCKETS - 1);
        waiting[into][counts[into]++] = next;
        left++;
      }
    }
  }
  return Infinity;
}

/** The goal's cells cost nothing, and wait; one that is too tight for the body is widened to the nearest cells that are not. @returns how many */
function seed({ columns, rows, room }: Clearance, least: number, goal: number, size: number, costs: Uint16Array): number {
  const column = goal % columns;
  const row = (goal - column) / columns;
  const widest = Math.max(columns, rows);
  let count = 0;
  for (let ring = 0; ring < widest && count === 0; ring++) {
    for (let r = Math.max(0, row - ring); r <= Math.min(rows - 1, row + size - 1 + ring); r++) {
      for (let c = Math.max(0, column - ring); c <= Math.min(columns - 1, column + size - 1 + ring); c++) {
        const at = r * columns + c;
        if (room[at] < least || costs[at] === 0) continue;
        costs[at] = 0;
        waiting[0][count++] = at;
      }
    }
  }
  counts[0] = count;
  return count;
}

/** The neighbour that is nearest to the goal; the cell itself where none is nearer. */
export function downhill({ columns, rows }: Clearance, cost: Uint16Array, at: number): number {
  const column = at % columns;
  const row = (at - column) / columns;
  let best = at;
  for (let r = Math.max(0, row - 1); r <= Math.min(rows - 1, row + 1); r++) {
    for (let c = Math.max(0, column - 1); c <= Math.min(columns - 1, column + 1); c++) {
      const next = r * columns + c;
      if (cost[next] >= cost[best]) continue;
      const slanted = r !== row && c !== column;
      if (slanted && (cost[row * columns + c] === UNREACHED || cost[r * columns + column] === UNREACHED)) continue;
      best = next;
    }
  }
  return best;
}
