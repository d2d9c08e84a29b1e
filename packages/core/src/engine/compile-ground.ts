/** Shapes of the ground as a run reads them. */
import type { Arena, Corner } from '../model/arena';
import type { CompiledShape, CompiledWall } from './tables';

/** Corners counter-clockwise, whichever way they were given. */
export function shapeOf(corners: readonly Corner[]): CompiledShape {
  const area = corners.reduce((sum, a, i) => {
    const b = corners[(i + 1) % corners.length];
    return sum + a.x * b.y - b.x * a.y;
  }, 0);
  const ordered = area < 0 ? [...corners].reverse() : corners;
  return { xs: ordered.map(({ x }) => x), ys: ordered.map(({ y }) => y) };
}

/** A wall as lines of sight meet it: corners counter-clockwise, with its bounds. */
export function compileWall({ id, name, height, corners }: Arena['walls'][number]): CompiledWall {
  const { xs, ys } = shapeOf(corners);
  return { id, name, height, xs, ys, left: Math.min(...xs), right: Math.max(...xs), bottom: Math.min(...ys), top: Math.max(...ys) };
}
