/** From metres about the middle of an arena, y to the north, to pixels. Pure. */
import { type Arena, type Corner, roundUp } from '@insidia/core';

export interface PlanScale {
  x: (metres: number) => number;
  y: (metres: number) => number;
  /** px a metre */
  scale: number;
  /** Metres at a place on the plan. */
  at: (x: number, y: number) => { x: number; y: number };
}

/** The whole of an arena in a box of pixels, with a margin; zoomed and shifted where asked. */
export function planScale(
  { width, depth }: Pick<Arena, 'width' | 'depth'>,
  pixelsWide: number,
  pixelsHigh: number,
  { margin = 8, zoom = 1, panX = 0, panY = 0 }: { margin?: number; zoom?: number; panX?: number; panY?: number } = {},
): PlanScale {
  const scale = Math.max(0.1, Math.min((pixelsWide - 2 * margin) / width, (pixelsHigh - 2 * margin) / depth)) * zoom;
  const [cx, cy] = [pixelsWide / 2 + panX, pixelsHigh / 2 + panY];
  return {
    scale,
    x: (metres) => cx + metres * scale,
    y: (metres) => cy - metres * scale,
    at: (x, y) => ({ x: (x - cx) / scale, y: (cy - y) / scale }),
  };
}

export function polygonPoints(corners: readonly Corner[], { x, y }: PlanScale): [number, number][] {
  return corners.map((corner) => [x(corner.x), y(corner.y)]);
}

export function polygon(corners: readonly Corner[], plan: PlanScale): string {
  return polygonPoints(corners, plan)
    .map(([x, y], i) => `${i ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`)
    .join(' ')
    .concat('Z');
}

export function middleOf(corners: readonly Corner[]): { x: number; y: number } {
  const n = Math.max(1, corners.length);
  return { x: corners.reduce((sum, { x }) => sum + x, 0) / n, y: corners.reduce((sum, { y }) => sum + y, 0) / n };
}

/** The bar that says how long so many metres are, in the corner below on the right. px */
export function scaleBar(
  { width, depth }: Pick<Arena, 'width' | 'depth'>,
  { x, y, scale }: PlanScale,
): { metres: number; left: number; right: number; y: number } {
  const metres = roundUp(40 / scale);
  const right = x(width / 2) - 10;
  return { metres, left: right - metres * scale, right, y: y(-depth / 2) - 10 };
}
