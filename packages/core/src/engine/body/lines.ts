/** Lines of sight and fire against walls: convex shapes with a height. */
import type { CompiledWall } from '../tables';

/** Where a straight line meets a wall first, or that it meets none. Used again for every question. */
export interface Crossing {
  /** Place of the wall in its list; −1: the line is clear. */
  wall: number;
  /** Share of the way at which it is met. */
  at: number;
  /** How much higher than the line the wall is where that is lowest, m. */
  excess: number;
}

export const CROSSING: Crossing = { wall: -1, at: 1, excess: 0 };

/**
 * Whether a line from (x0, y0, h0) to (x1, y1, h1) passes below some wall's height; the first such wall is left in CROSSING.
 * The line is clipped against the convex shape (Cyrus and Beck, 1978): between the shares at which it enters and leaves,
 * it is lowest at one of the two.
 */
export function blocked(walls: readonly CompiledWall[], x0: number, y0: number, h0: number, x1: number, y1: number, h1: number): boolean {
  CROSSING.wall = -1;
  CROSSING.at = 1;
  for (let w = 0; w < walls.length; w++) {
    const wall = walls[w];
    if (x0 < wall.left && x1 < wall.left) continue;
    if (x0 > wall.right && x1 > wall.right) continue;
    if (y0 < wall.bottom && y1 < wall.bottom) continue;
    if (y0 > wall.top && y1 > wall.top) continue;
    if (h0 >= wall.height && h1 >= wall.height) continue;
    crossWall(wall, w, x0, y0, h0, x1, y1, h1);
  }
  return CROSSING.wall >= 0;
}

function crossWall(wall: CompiledWall, number: number, x0: number, y0: number, h0: number, x1: number, y1: number, h1: number): void {
  const { xs, ys } = wall;
  const dx = x1 - x0;
  const dy = y1 - y0;
  let enter = 0;
  let leave = 1;
  for (let i = 0, j = xs.length - 1; i < xs.length; j = i++) {
    // The edge from corner j to corner i; its outward normal is (ey, −ex) for corners counter-clockwise.
    const ex = xs[i] - xs[j];
    const ey = ys[i] - ys[j];
    const outside = (x0 - xs[j]) * ey - (y0 - ys[j]) * ex;
    const towards = dx * ey - dy * ex;
    if (towards === 0) {
      if (outside >= 0) return;
      continue;
    }
    const share = (0 - outside) / towards;
    if (towards < 0) enter = Math.max(enter, share);
    else leave = Math.min(leave, share);
    if (enter >= leave) return;
  }
  const low = Math.min(h0 + (h1 - h0) * enter, h0 + (h1 - h0) * leave);
  if (low >= wall.height || enter >= CROSSING.at) return;
  CROSSING.wall = number;
  CROSSING.at = enter;
  CROSSING.excess = wall.height - low;
}
