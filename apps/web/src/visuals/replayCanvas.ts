/** Draws one instant of a recorded run on a canvas. Pure but for the canvas it is handed. */
import {
  AREA_WIDTH,
  type Arena,
  type ReasonLook,
  type Replay,
  SHOT_WIDTH,
  STAGGERED,
  UNIT_WIDTH,
  type UnitHead,
  stepAt,
} from '@insidia/core';
import { type GroundShown, drawCells, drawCursor, drawGround } from './boardCanvas';
import { type PlanScale, polygonPoints } from './plan';
import { token } from './theme';

export interface ReplayLook {
  heads: ReadonlyMap<string, UnitHead>;
  selected?: number;
  /** What was asked of the selected unit at this instant, with the line to its target. */
  reasons?: ReasonLook;
  /** Names beside all units. */
  names: boolean;
  /** Of a fight on a board: what its cells show of the selected unit’s next turn, and which of them is pointed at. */
  shown?: GroundShown;
  cell?: number;
  /** Where the camera looks, m; absent: the middle of the arena. */
  follow?: { x: number; y: number };
}

const UP = Math.PI / 4;

/** Where a unit is at an instant, between two steps. */
export interface Placed {
  unit: number;
  x: number;
  y: number;
  fx: number;
  fy: number;
  health: number;
  shield: number;
  phase: number;
  attack: number;
  until: number;
  state: number;
  target: number;
  /** m */
  radius: number;
}

export function placedAt(replay: Replay, seconds: number): Placed[] {
  const step = stepAt(replay, seconds);
  const share = Math.min(1, Math.max(0, seconds / replay.step - step));
  const { unitAt, unitOf, unitData } = replay;
  const next = new Map<number, number>();
  if (step + 2 < unitAt.length) for (let row = unitAt[step + 1]; row < unitAt[step + 2]; row++) next.set(unitOf[row], row);
  const found: Placed[] = [];
  for (let row = unitAt[step]; row < unitAt[step + 1]; row++) {
    const at = row * UNIT_WIDTH;
    const later = next.get(unitOf[row]);
    const between = (column: number) =>
      later === undefined
        ? unitData[at + column]
        : unitData[at + column] + (unitData[later * UNIT_WIDTH + column] - unitData[at + column]) * share;
    found.push({
      unit: unitOf[row],
      x: between(0),
      y: between(1),
      fx: unitData[at + 2],
      fy: unitData[at + 3],
      health: unitData[at + 4],
      shield: unitData[at + 5],
      phase: unitData[at + 6],
      attack: unitData[at + 7],
      until: unitData[at + 8] - share * replay.step,
      state: unitData[at + 9],
      target: unitData[at + 10],
      radius: unitData[at + 11],
    });
  }
  return found;
}

export function drawReplay(
  ctx: CanvasRenderingContext2D,
  replay: Replay,
  arena: Arena,
  plan: PlanScale,
  seconds: number,
  look: ReplayLook,
  width: number,
  height: number,
): void {
  ctx.clearRect(0, 0, width, height);
  ctx.save();
  if (look.follow) ctx.translate(width / 2 - plan.x(look.follow.x), height / 2 - plan.y(look.follow.y));
  const units = placedAt(replay, seconds);
  const byNumber = new Map(units.map((one) => [one.unit, one]));
  drawArena(ctx, arena, plan, () => drawFloor(ctx, replay, arena, plan, look));
  drawAreas(ctx, replay, plan, seconds, look);
  const selected = look.selected === undefined ? undefined : byNumber.get(look.selected);
  if (selected) drawSelected(ctx, replay, plan, selected, byNumber, look);
  drawShots(ctx, replay, plan, seconds, look);
  for (const one of units) drawUnit(ctx, replay, plan, one, look);
  if (selected && look.reasons?.line) drawLine(ctx, plan, look.reasons);
  if (replay.board && look.cell !== undefined) drawCursor(ctx, replay.board, plan, look.cell);
  ctx.restore();
}

const text = (
  ctx: CanvasRenderingContext2D,
  words: string,
  x: number,
  y: number,
  colour: string,
  weight = 400,
  align: CanvasTextAlign = 'left',
) => {
  ctx.font = `${weight} 11px ${token('--font-text') || 'sans-serif'}`;
  ctx.textAlign = align;
  ctx.lineJoin = 'round';
  ctx.lineWidth = 3;
  ctx.strokeStyle = token('--sheet');
  ctx.strokeText(words, x, y);
  ctx.fillStyle = colour;
  ctx.fillText(words, x, y);
};

/** Lines of metres, or cells with what they show of the selected unit's next turn. */
function drawFloor(ctx: CanvasRenderingContext2D, replay: Replay, arena: Arena, plan: PlanScale, look: ReplayLook): void {
  const { board } = replay;
  if (!board) return drawGrid(ctx, arena, plan);
  drawCells(ctx, board, plan);
  const ground = look.reasons?.turn?.ground;
  if (ground && look.selected !== undefined)
    drawGround(ctx, board, plan, ground, look.shown ?? 'none', colourOf(replay, look.selected, look));
}

/** @param floor draws what walls stand on */
function drawArena(ctx: CanvasRenderingContext2D, arena: Arena, plan: PlanScale, floor: () => void): void {
  const [left, top] = [plan.x(-arena.width / 2), plan.y(arena.depth / 2)];
  ctx.fillStyle = token('--sheet');
  ctx.fillRect(left, top, arena.width * plan.scale, arena.depth * plan.scale);
  for (const { corners } of arena.ground) fillShape(ctx, polygonPoints(corners, plan), token('--stripe'), token('--rule'));
  floor();
  ctx.strokeStyle = token('--ink');
  ctx.lineWidth = 2;
  ctx.strokeRect(left, top, arena.width * plan.scale, arena.depth * plan.scale);
  for (const wall of arena.walls) {
    const points = polygonPoints(wall.corners, plan);
    fillShape(ctx, points, wall.height >= 1.6 ? token('--ink') : token('--well'), token('--ink'));
    const low = Math.max(...points.map(([, y]) => y));
    const middle = points.reduce((sum, [x]) => sum + x, 0) / points.length;
    text(ctx, `${wall.name} ${wall.height}`, middle, low + 12, token('--ink-3'), 400, 'center');
  }
  ctx.setLineDash([3, 3]);
  for (const point of arena.spawnPoints) {
    ctx.strokeStyle = token('--rule');
    ctx.lineWidth = 1;
    ctx.beginPath();
    ctx.arc(plan.x(point.x), plan.y(point.y), Math.max(5, point.scatter * plan.scale), 0, 2 * Math.PI);
    ctx.stroke();
  }
  ctx.setLineDash([]);
  for (const point of arena.points) {
    const r = Math.max(4, point.radius * plan.scale);
    ctx.save();
    ctx.translate(plan.x(point.x), plan.y(point.y));
    ctx.rotate(UP);
    ctx.strokeStyle = token('--ink-2');
    ctx.strokeRect(-r, -r, 2 * r, 2 * r);
    ctx.restore();
  }
}

/** Lines of metres, where a fight goes by them. */
function drawGrid(ctx: CanvasRenderingContext2D, arena: Arena, plan: PlanScale): void {
  const [left, top] = [plan.x(-arena.width / 2), plan.y(arena.depth / 2)];
  ctx.strokeStyle = token('--hair');
  ctx.lineWidth = 0.6;
  const step = plan.scale < 8 ? 10 : 5;
  ctx.beginPath();
  for (let x = Math.ceil(-arena.width / 2 / step) * step; x <= arena.width / 2; x += step) {
    ctx.moveTo(plan.x(x), top);
    ctx.lineTo(plan.x(x), top + arena.depth * plan.scale);
  }
  for (let y = Math.ceil(-arena.depth / 2 / step) * step; y <= arena.depth / 2; y += step) {
    ctx.moveTo(left, plan.y(y));
    ctx.lineTo(left + arena.width * plan.scale, plan.y(y));
  }
  ctx.stroke();
}

function fillShape(ctx: CanvasRenderingContext2D, points: [number, number][], fill: string, stroke: string): void {
  ctx.beginPath();
  points.forEach(([x, y], i) => (i ? ctx.lineTo(x, y) : ctx.moveTo(x, y)));
  ctx.closePath();
  ctx.fillStyle = fill;
  ctx.fill();
  ctx.strokeStyle = stroke;
  ctx.lineWidth = 1.2;
  ctx.stroke();
}

/** Announced areas: hatched until they strike. */
function drawAreas(ctx: CanvasRenderingContext2D, replay: Replay, plan: PlanScale, seconds: number, look: ReplayLook): void {
  const step = stepAt(replay, seconds);
  for (let i = replay.areaAt[step]; i < replay.areaAt[step + 1]; i++) {
    const [x, y, radius, angle, fx, fy, strikes, owner] = replay.areaData.subarray(i * AREA_WIDTH, (i + 1) * AREA_WIDTH);
    const colour = colourOf(replay, owner, look);
    const facing = Math.atan2(-fy, fx);
    const half = (Math.min(360, angle) * Math.PI) / 360;
    ctx.beginPath();
    if (angle < 359.5) ctx.moveTo(plan.x(x), plan.y(y));
    ctx.arc(plan.x(x), plan.y(y), radius * plan.scale, facing - half, facing + half);
    ctx.closePath();
    ctx.save();
    ctx.globalAlpha = 0.14;
    ctx.fillStyle = colour;
    ctx.fill();
    ctx.globalAlpha = strikes > 0 ? 0.75 : 1;
    ctx.clip();
    if (strikes > 0) hatch(ctx, plan.x(x), plan.y(y), radius * plan.scale, colour);
    else {
      ctx.globalAlpha = 0.35;
      ctx.fill();
    }
    ctx.restore();
    ctx.strokeStyle = colour;
    ctx.lineWidth = 1.4;
    ctx.stroke();
  }
}

function hatch(ctx: CanvasRenderingContext2D, x: number, y: number, radius: number, colour: string): void {
  ctx.strokeStyle = colour;
  ctx.lineWidth = 1.2;
  ctx.beginPath();
  for (let offset = -2 * radius; offset <= 2 * radius; offset += 6) {
    ctx.moveTo(x + offset - radius, y + radius);
    ctx.lineTo(x + offset + radius, y - radius);
  }
  ctx.stroke();
}

function colourOf(replay: Replay, unit: number, look: ReplayLook): string {
  const head = look.heads.get(replay.units[unit]?.kind ?? '');
  return token(`--e-${head?.colour ?? 'ink'}`);
}

function drawShots(ctx: CanvasRenderingContext2D, replay: Replay, plan: PlanScale, seconds: number, look: ReplayLook): void {
  const step = stepAt(replay, seconds);
  const since = seconds - step * replay.step;
  for (let i = replay.shotAt[step]; i < replay.shotAt[step + 1]; i++) {
    const [x, y, vx, vy, owner] = replay.shotData.subarray(i * SHOT_WIDTH, (i + 1) * SHOT_WIDTH);
    const [nowX, nowY] = [x + vx * since, y + vy * since];
    ctx.strokeStyle = colourOf(replay, owner, look);
    ctx.lineWidth = 2;
    ctx.beginPath();
    ctx.moveTo(plan.x(nowX), plan.y(nowY));
    ctx.lineTo(plan.x(nowX - vx * 0.03), plan.y(nowY - vy * 0.03));
    ctx.stroke();
  }
}

function drawSelected(
  ctx: CanvasRenderingContext2D,
  replay: Replay,
  plan: PlanScale,
  one: Placed,
  byNumber: ReadonlyMap<number, Placed>,
  look: ReplayLook,
): void {
  const unit = replay.units[one.unit];
  ctx.strokeStyle = colourOf(replay, one.unit, look);
  ctx.lineWidth = 1;
  // On a board the cells say how far it reaches, and without ground everything is in reach.
  for (const attack of replay.rounds ? [] : unit.attacks) {
    ctx.setLineDash(attack.min > 0 ? [5, 4] : []);
    ctx.beginPath();
    ctx.arc(plan.x(one.x), plan.y(one.y), (one.radius + attack.max) * plan.scale, 0, 2 * Math.PI);
    ctx.stroke();
    text(
      ctx,
      `${attack.name} to ${Number(attack.max.toFixed(2))}`,
      plan.x(one.x),
      plan.y(one.y) - (one.radius + attack.max) * plan.scale - 3,
      token('--ink-3'),
      400,
      'center',
    );
  }
  ctx.setLineDash([]);
  const target = byNumber.get(one.target);
  if (target && !look.reasons?.line) {
    ctx.setLineDash([2, 4]);
    ctx.beginPath();
    ctx.moveTo(plan.x(one.x), plan.y(one.y));
    ctx.lineTo(plan.x(target.x), plan.y(target.y));
    ctx.stroke();
    ctx.setLineDash([]);
  }
}

/** The line to the target; where a wall stands in it, up to there solid and dotted beyond. */
function drawLine(ctx: CanvasRenderingContext2D, plan: PlanScale, { line }: ReasonLook): void {
  if (!line) return;
  const at = line.wall?.at ?? 1;
  const [x, y] = [line.from.x + (line.to.x - line.from.x) * at, line.from.y + (line.to.y - line.from.y) * at];
  ctx.strokeStyle = line.wall ? token('--warn') : token('--ink');
  ctx.lineWidth = 1.4;
  ctx.beginPath();
  ctx.moveTo(plan.x(line.from.x), plan.y(line.from.y));
  ctx.lineTo(plan.x(x), plan.y(y));
  ctx.stroke();
  if (!line.wall) return;
  ctx.setLineDash([1, 3]);
  ctx.beginPath();
  ctx.moveTo(plan.x(x), plan.y(y));
  ctx.lineTo(plan.x(line.to.x), plan.y(line.to.y));
  ctx.stroke();
  ctx.setLineDash([]);
  ctx.fillStyle = token('--sheet');
  ctx.beginPath();
  ctx.arc(plan.x(x), plan.y(y), 5, 0, 2 * Math.PI);
  ctx.fill();
  ctx.stroke();
  text(ctx, `no line, ${line.wall.excess.toFixed(2)} m too high`, plan.x(x) + 9, plan.y(y) + 4, token('--warn'), 600);
}

function drawUnit(ctx: CanvasRenderingContext2D, replay: Replay, plan: PlanScale, one: Placed, look: ReplayLook): void {
  const unit = replay.units[one.unit];
  const head = look.heads.get(unit.kind);
  const colour = colourOf(replay, one.unit, look);
  const [x, y] = [plan.x(one.x), plan.y(one.y)];
  const r = Math.max(4, one.radius * plan.scale);
  const party = unit.side === 'party';
  ctx.lineWidth = 2;
  ctx.beginPath();
  if (party) {
    ctx.moveTo(x, y - r * 1.2);
    ctx.lineTo(x + r * 1.2, y);
    ctx.lineTo(x, y + r * 1.2);
    ctx.lineTo(x - r * 1.2, y);
    ctx.closePath();
    ctx.fillStyle = token('--sheet');
    ctx.fill();
    ctx.strokeStyle = token('--ink');
    ctx.stroke();
  } else {
    ctx.arc(x, y, r, 0, 2 * Math.PI);
    ctx.fillStyle = colour;
    ctx.fill();
    drawGlyph(ctx, head?.glyph ?? 'block', x, y, r, token('--on-e'));
  }
  // Which way it faces.
  ctx.strokeStyle = party ? token('--ink') : colour;
  ctx.beginPath();
  ctx.moveTo(x + one.fx * r, y - one.fy * r);
  ctx.lineTo(x + one.fx * (r + 5), y - one.fy * (r + 5));
  ctx.stroke();
  if (one.phase === STAGGERED) {
    ctx.strokeStyle = token('--warn');
    ctx.setLineDash([2, 3]);
    ctx.beginPath();
    ctx.arc(x, y, r + 4, 0, 2 * Math.PI);
    ctx.stroke();
    ctx.setLineDash([]);
  } else if (one.phase === 1 && one.attack >= 0) {
    // A wind-up closes a ring about the body.
    const { windup } = unit.attacks[one.attack];
    const done = windup > 0 ? 1 - Math.min(1, Math.max(0, one.until / windup)) : 1;
    ctx.strokeStyle = party ? token('--ink') : colour;
    ctx.lineWidth = 2.4;
    ctx.beginPath();
    ctx.arc(x, y, r + 4, -Math.PI / 2, -Math.PI / 2 + done * 2 * Math.PI);
    ctx.stroke();
  }
  const wide = Math.max(16, r * 2);
  bar(ctx, x - wide / 2, y - r - 8, wide, one.health, party ? token('--ink') : colour);
  if (unit.maxShield > 0) bar(ctx, x - wide / 2, y - r - 12, wide, one.shield, token('--focus'));
  if (look.selected === one.unit) {
    ctx.strokeStyle = token('--ink');
    ctx.lineWidth = 2;
    ctx.beginPath();
    ctx.arc(x, y, r + 7, 0, 2 * Math.PI);
    ctx.stroke();
  }
  if (look.names || look.selected === one.unit || party) {
    // A name that would leave the picture stands on the other side.
    const { width } = ctx.measureText(unit.name);
    const fits = x + r + 6 + width * 1.1 < ctx.canvas.width / ctx.getTransform().a;
    const weight = look.selected === one.unit ? 600 : 400;
    text(ctx, unit.name, fits ? x + r + 6 : x - r - 6, y + 4, token('--ink'), weight, fits ? 'left' : 'right');
  }
}

function bar(ctx: CanvasRenderingContext2D, x: number, y: number, width: number, share: number, colour: string): void {
  ctx.fillStyle = token('--sheet');
  ctx.fillRect(x, y, width, 3);
  ctx.fillStyle = colour;
  ctx.fillRect(x, y, width * Math.min(1, Math.max(0, share)), 3);
  ctx.strokeStyle = colour;
  ctx.lineWidth = 0.5;
  ctx.strokeRect(x, y, width, 3);
}

/** The signs of Glyph.tsx for a canvas: enough of each to be told apart at the size of a body. */
function drawGlyph(ctx: CanvasRenderingContext2D, glyph: UnitHead['glyph'], x: number, y: number, r: number, colour: string): void {
  const s = r / 10;
  ctx.fillStyle = ctx.strokeStyle = colour;
  ctx.lineWidth = Math.max(1, 2 * s);
  const dot = (dx: number, dy: number, size: number) => {
    ctx.beginPath();
    ctx.arc(x + dx * s, y + dy * s, size * s, 0, 2 * Math.PI);
    ctx.fill();
  };
  const line = (...points: [number, number][]) => {
    ctx.beginPath();
    points.forEach(([dx, dy], i) => (i ? ctx.lineTo(x + dx * s, y + dy * s) : ctx.moveTo(x + dx * s, y + dy * s)));
    ctx.stroke();
  };
  switch (glyph) {
    case 'seeds':
    case 'elder':
      dot(0, -4, 2.1);
      dot(-4, 3, 2.1);
      dot(4, 3, 2.1);
      if (glyph === 'elder') line([-4.6, 6], [4.6, 6]);
      break;
    case 'fork':
      line([-5.4, -3.6], [0, 6.4], [5.4, -3.6]);
      line([0, 6.4], [0, -6.6]);
      break;
    case 'cross':
      line([0, -5.6], [0, 5.6]);
      line([-5.6, 0], [5.6, 0]);
      break;
    case 'burst':
      dot(0, 0, 2.2);
      ctx.setLineDash([3.2 * s, 2.4 * s]);
      ctx.beginPath();
      ctx.arc(x, y, 5.4 * s, 0, 2 * Math.PI);
      ctx.stroke();
      ctx.setLineDash([]);
      break;
    case 'lamp':
      dot(-3.6, 0, 3);
      line([0.6, 0], [7.6, 0]);
      break;
    case 'bars':
      ctx.fillRect(x - 6 * s, y - 4.4 * s, 5 * s, 8.8 * s);
      ctx.fillRect(x + s, y - 4.4 * s, 5 * s, 8.8 * s);
      break;
    case 'eye':
    case 'diamond':
    case 'square':
      line([0, -6.4], [6.4, 0], [0, 6.4], [-6.4, 0], [0, -6.4]);
      if (glyph === 'eye') dot(0, 0, 1.8);
      break;
    default:
      ctx.fillRect(x - 5 * s, y - 4.6 * s, 10 * s, 9.2 * s);
  }
}
