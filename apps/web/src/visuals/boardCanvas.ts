/** Draws the cells of a board, and what one unit's next turn looks like on them, on a canvas. Pure but for the canvas it is handed. */
import type { BoardShape, GroundLook } from '@insidia/core';
import { cellCorners } from './board';
import type { PlanScale } from './plan';
import { token } from './theme';

/** What of a unit's next turn the cells show. */
export type GroundShown = 'reach' | 'harm' | 'none';

function path(ctx: CanvasRenderingContext2D, corners: readonly [number, number][]): void {
  ctx.beginPath();
  corners.forEach(([x, y], i) => (i ? ctx.lineTo(x, y) : ctx.moveTo(x, y)));
  ctx.closePath();
}

/** The outlines of all cells. */
export function drawCells(ctx: CanvasRenderingContext2D, board: BoardShape, plan: PlanScale): void {
  ctx.strokeStyle = token('--hair');
  ctx.lineWidth = 0.6;
  for (let cell = 0; cell < board.x.length; cell++) {
    path(ctx, cellCorners(board, cell, plan));
    ctx.stroke();
  }
}

/** Reach: tinted where it can come, hatched where it can strike from there. Harm: the larger a square, the more. */
export function drawGround(
  ctx: CanvasRenderingContext2D,
  board: BoardShape,
  plan: PlanScale,
  { goes, strikes, harm }: GroundLook,
  shown: GroundShown,
  colour: string,
): void {
  if (shown === 'none') return;
  const most = harm.reduce((best, value) => (value > best ? value : best), 0);
  for (let cell = 0; cell < board.x.length; cell++) {
    const [x, y] = [plan.x(board.x[cell]), plan.y(board.y[cell])];
    if (shown === 'harm') {
      if (!(harm[cell] > 0)) continue;
      const half = (Math.sqrt(harm[cell] / most) * 0.84 * board.side * plan.scale) / 2;
      ctx.globalAlpha = 0.72;
      ctx.fillStyle = token('--ink-2');
      ctx.fillRect(x - half, y - half, 2 * half, 2 * half);
      ctx.globalAlpha = 1;
      continue;
    }
    ctx.save();
    path(ctx, cellCorners(board, cell, plan));
    if (goes[cell] >= 0) {
      ctx.globalAlpha = 0.24;
      ctx.fillStyle = colour;
      ctx.fill();
    }
    if (strikes[cell]) {
      ctx.clip();
      ctx.globalAlpha = 0.55;
      ctx.strokeStyle = colour;
      ctx.lineWidth = 1;
      const r = board.side * plan.scale * 0.7;
      ctx.beginPath();
      // One pitch for the whole board, so that hatches of neighbours meet.
      const from = Math.ceil((x + y - 2 * r) / 7) * 7;
      for (let sum = from; sum <= x + y + 2 * r; sum += 7) {
        ctx.moveTo(x - r, sum - x + r);
        ctx.lineTo(x + r, sum - x - r);
      }
      ctx.stroke();
    }
    ctx.restore();
  }
}

/** The cell that the keyboard or the pointer is at. */
export function drawCursor(ctx: CanvasRenderingContext2D, board: BoardShape, plan: PlanScale, cell: number): void {
  ctx.strokeStyle = token('--focus');
  ctx.lineWidth = 2.4;
  path(ctx, cellCorners(board, cell, plan));
  ctx.stroke();
}
