/**
 * Ways around walls: a distance field from every cell to a goal, shared by all of one width who go there. A field depends
 * on nothing but the arena, the goal and the width, so keeping it for later runs changes no result.
 */
import type { Clearance } from './clearance';

/** Cost of a step to a neighbour, and what scraping along a wall adds; 7 : 5 stands for √2 within 1 %. */
const STRAIGHT = 5;
const DIAGONAL = 7;
const TIGHT = 3;
const BUCKETS = 16;
export const UNREACHED = 0x7fffffff;

/**
 * Costs from every cell to the goal (Dial's buckets: every cost is below BUCKETS). A goal that is too tight for the body
 * is widened to the nearest cells that are not.
 *
 * @param least m of room a cell needs to be entered
 * @param goal a cell
 */
export function distanceField(clearance: Clearance, least: number, goal: number): Int32Array {
  const { columns, rows, room, cell } = clearance;
  const cost = new Int32Array(room.length).fill(UNREACHED);
  const buckets: number[][] = Array.from({ length: BUCKETS }, () => []);
  let left = seed(clearance, least, goal, cost, buckets[0]);
  for (let now = 0, empty = 0; left > 0 && empty < BUCKETS; now++) {
    const bucket = buckets[now % BUCKETS];
    empty = bucket.length ? 0 : empty + 1;
    for (let i = 0; i < bucket.length; i++) {
      const at = bucket[i];
      left--;
      if (cost[at] !== now) continue;
      const column = at % columns;
      const row = (at - column) / columns;
      for (let dr = -1; dr <= 1; dr++) {
        for (let dc = -1; dc <= 1; dc++) {
          const c = column + dc;
          const r = row + dr;
          if ((dc === 0 && dr === 0) || c < 0 || r < 0 || c >= columns || r >= rows) continue;
          const next = r * columns + c;
          if (room[next] < least) continue;
          const slanted = dc !== 0 && dr !== 0;
          // No cutting of corners: a slanted step needs both cells beside it.
          if (slanted && (room[row * columns + c] < least || room[r * columns + column] < least)) continue;
          const total = now + (slanted ? DIAGONAL : STRAIGHT) + (room[next] < least + cell ? TIGHT : 0);
          if (total >= cost[next]) continue;
          cost[next] = total;
          buckets[total % BUCKETS].push(next);
          left++;
        }
      }
    }
    bucket.length = 0;
  }
  return cost;
}

function seed({ columns, rows, room }: Clearance, least: number, goal: number, cost: Int32Array, into: number[]): number {
  const column = goal % columns;
  const row = (goal - column) / columns;
  const widest = Math.max(columns, rows);
  for (let ring = 0; ring < widest && into.length === 0; ring++) {
    for (let r = Math.max(0, row - ring); r <= Math.min(rows - 1, row + ring); r++) {
      for (let c = Math.max(0, column - ring); c <= Math.min(columns - 1, column + ring); c++) {
        if (Math.max(Math.abs(r - row), Math.abs(c - column)) !== ring) continue;
        const at = r * columns + c;
        if (room[at] < least) continue;
        cost[at] = 0;
        into.push(at);
      }
    }
  }
  return into.length;
}

/** The neighbour that is nearest to the goal; the cell itself where none is nearer. */
export function downhill({ columns, rows }: Clearance, cost: Int32Array, at: number): number {
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
