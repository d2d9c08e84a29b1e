/** What can be seen from a place in an arena. */
import { compileWall } from '../engine/compile-ground';
import { blocked } from '../engine/body/lines';
import type { Arena } from '../model/arena';

/** One direction, with the stretches of it that are in view. */
export interface SightRay {
  /** rad, counter-clockwise from the east */
  angle: number;
  /** m from the place: from, to */
  seen: [number, number][];
}

/** Directions looked in. */
export const SIGHT_RAYS = 240;
/** m between two places looked at along a ray */
const STEP = 0.25;

/**
 * The places in view, direction by direction. One is hidden when the line from the eye to half the height of who might stand
 * there passes below a wall; behind low cover sight opens again farther off.
 *
 * @param far m: how far it sees
 * @param half m: half the height of who is looked for
 */
export function sightFrom(arena: Arena, x: number, y: number, eye: number, far: number, half: number): SightRay[] {
  const walls = arena.walls.map(compileWall);
  const inside = (px: number, py: number) => Math.abs(px) <= arena.width / 2 && Math.abs(py) <= arena.depth / 2;
  return Array.from({ length: SIGHT_RAYS }, (_, i) => {
    const angle = (2 * Math.PI * i) / SIGHT_RAYS;
    const [dx, dy] = [Math.cos(angle), Math.sin(angle)];
    const seen: [number, number][] = [];
    let from: number | undefined = 0;
    let distance = 0;
    for (let step = 1; step * STEP <= far; step++) {
      const [px, py] = [x + dx * step * STEP, y + dy * step * STEP];
      if (!inside(px, py)) break;
      distance = step * STEP;
      const hidden = blocked(walls, x, y, eye, px, py, half);
      if (hidden && from !== undefined) {
        seen.push([from, distance - STEP]);
        from = undefined;
      } else if (!hidden) from ??= distance;
    }
    if (from !== undefined && distance > from) seen.push([from, distance]);
    return { angle, seen };
  });
}
