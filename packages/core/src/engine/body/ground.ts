/** The ground of one arena: its walls, how much room there is, and the ways around. Empty ground costs nothing. */
import type { Compiled, CompiledShape, CompiledWall } from '../tables';
import { GOAL_BLOCK, GRAZE_SHARE, LOOK_AHEAD_CELLS, MOST_TRACES, PUSH_ITERATIONS, SQUEEZE_CELLS, TOUCH_SHARE } from '../tuning';
import { Clearance, distanceTo } from './clearance';
import { blocked } from './lines';
import { KEPT_WAYS, type KeptWays, groundKey } from './kept-ways';
import { type DistanceField, STRAIGHT as STRAIGHT_COST, downhill } from './ways';

export class Ground {
  readonly walls: readonly CompiledWall[];
  readonly halfWidth: number;
  readonly halfDepth: number;
  /** By class of ground: what is closed, walls among it. */
  private readonly shapes: Boxed[][];
  /** Whether a class meets anything but the arena's edge. */
  private readonly bounded: boolean[];
  private readonly clearances: (Clearance | undefined)[];
  /** What each class is kept as. */
  private readonly keys: (string | undefined)[];
  private readonly cell: number;
  /** Where the last question ended: a place out of walls, or a way point. */
  x = 0;
  y = 0;

  /** @param kept what is known of grounds */
  constructor(
    { walls, closed, halfWidth, halfDepth, grid }: Compiled,
    private readonly kept: KeptWays = KEPT_WAYS,
  ) {
    this.walls = walls;
    this.halfWidth = halfWidth;
    this.halfDepth = halfDepth;
    this.cell = grid;
    this.shapes = closed.map((shapes) => [...walls, ...shapes].map(boxed));
    this.bounded = this.shapes.map(({ length }) => length > 0);
    this.clearances = this.shapes.map(() => undefined);
    this.keys = this.shapes.map(() => undefined);
  }

  /** Whether a class of units has walls or closed ground to go around. */
  isBounded(ground: number): boolean {
    return this.bounded[ground];
  }

  /** Whether the line between two points, with their heights, passes below a wall. */
  blocked(x0: number, y0: number, h0: number, x1: number, y1: number, h1: number): boolean {
    return this.walls.length > 0 && blocked(this.walls, x0, y0, h0, x1, y1, h1);
  }

  private clearance(ground: number): Clearance {
    return (this.clearances[ground] ??= this.ways(ground).clearance);
  }

  private ways(ground: number) {
    const { halfWidth, halfDepth, cell } = this;
    const shapes = this.shapes[ground];
    const key = (this.keys[ground] ??= groundKey(halfWidth, halfDepth, cell, shapes));
    return this.kept.of(key, () => this.clearances[ground] ?? new Clearance(halfWidth, halfDepth, cell, shapes));
  }

  /** Whether a body may stand somewhere: inside the arena, clear of walls and closed ground. */
  isFree(ground: number, x: number, y: number, radius: number): boolean {
    if (Math.abs(x) > this.halfWidth - radius || Math.abs(y) > this.halfDepth - radius) return false;
    const shapes = this.shapes[ground];
    for (let s = 0; s < shapes.length; s++) if (isNear(shapes[s], x, y, radius) && distanceTo(shapes[s], x, y) < radius) return false;
    return true;
  }

  /**
   * Moves a body from a free place towards another as far as walls let it, sliding along them; the end is left in x and y.
   * In hops no longer than its radius, so that it can't pass through a wall however thin.
   */
  slide(ground: number, fromX: number, fromY: number, toX: number, toY: number, radius: number): void {
    const dx = toX - fromX;
    const dy = toY - fromY;
    const hops = Math.max(1, Math.ceil(Math.sqrt(dx * dx + dy * dy) / radius - 1e-9));
    let x = fromX;
    let y = fromY;
    for (let hop = 0; hop < hops; hop++) {
      if (this.pushOut(ground, x + dx / hops, y + dy / hops, radius)) {
        x = this.x;
        y = this.y;
      } else break;
    }
    this.x = x;
    this.y = y;
  }

  /**
   * m that a body can go straight from a free place before a wall, closed ground or the arena's edge stops it, at most so far.
   * It goes on by as much room as there is, again and again (sphere tracing), so that it stops at the touch and never beyond.
   * @param over height of walls that are no hindrance on the way; it does not end within one
   */
  straight(ground: number, x: number, y: number, dx: number, dy: number, most: number, radius: number, over: number): number {
    const skin = radius * TOUCH_SHARE;
    let gone = 0;
    for (let i = 0; i < MOST_TRACES && gone < most; i++) {
      const room = this.roomAt(ground, x + dx * gone, y + dy * gone, over) - radius;
      let step = room;
      if (room <= skin) {
        // At the touch it may go along what it touches, or away from it.
        step = radius * GRAZE_SHARE;
        if (this.roomAt(ground, x + dx * (gone + step), y + dy * (gone + step), over) - radius < Math.min(room, skin) - skin) break;
      }
      gone = Math.min(most, gone + step);
    }
    return over > 0 ? this.lastFree(ground, x, y, dx, dy, gone, radius) : gone;
  }

  /** m of a straight way at which a body may stand that has gone so far of it: there, or so far back that it is clear of walls. */
  lastFree(ground: number, x: number, y: number, dx: number, dy: number, gone: number, radius: number): number {
    while (gone > 0 && !this.isFree(ground, x + dx * gone, y + dy * gone, radius * (1 - TOUCH_SHARE)))
      gone = Math.max(0, gone - radius * GRAZE_SHARE);
    return gone;
  }

  /** m from a place to the nearest wall, closed ground or edge of the arena; walls up to a height not counted. */
  private roomAt(ground: number, x: number, y: number, over: number): number {
    let room = Math.min(this.halfWidth - Math.abs(x), this.halfDepth - Math.abs(y));
    const shapes = this.shapes[ground];
    for (let s = 0; s < shapes.length; s++) {
      if (s < this.walls.length && over > 0 && this.walls[s].height <= over) continue;
      if (isNear(shapes[s], x, y, room)) room = Math.min(room, distanceTo(shapes[s], x, y));
    }
    return room;
  }

  /** The nearest free place by pushing a body out of what it is in, the deepest first; false where that comes to no end. */
  private pushOut(ground: number, toX: number, toY: number, radius: number): boolean {
    let x = inside(toX, this.halfWidth - radius);
    let y = inside(toY, this.halfDepth - radius);
    const shapes = this.shapes[ground];
    if (shapes.length) {
      const clearance = this.clearance(ground);
      // A cell's middle is at most 0.71 cells from anywhere in it.
      if (clearance.room[clearance.cellAt(x, y)] < radius + clearance.cell) {
        let deepest = Infinity;
        for (let iteration = 0; iteration < PUSH_ITERATIONS && deepest > 0; iteration++) {
          deepest = 0;
          for (let s = 0; s < shapes.length; s++) {
            if (!isNear(shapes[s], x, y, radius)) continue;
            deepest = Math.max(deepest, this.pushFrom(shapes[s], x, y, radius));
            x = this.x;
            y = this.y;
          }
          x = inside(x, this.halfWidth - radius);
          y = inside(y, this.halfDepth - radius);
        }
        if (deepest > 0 && !this.isFree(ground, x, y, radius * (1 - 1e-9))) return false;
      }
    }
    this.x = x;
    this.y = y;
    return true;
  }

  /** Pushes a circle out of one shape, into x and y; how deep it was in. */
  private pushFrom({ xs, ys }: CompiledShape, x: number, y: number, radius: number): number {
    let within = true;
    let least = Infinity;
    let nearX = 0;
    let nearY = 0;
    let normalX = 0;
    let normalY = 0;
    for (let i = 0, j = xs.length - 1; i < xs.length; j = i++) {
      const ex = xs[i] - xs[j];
      const ey = ys[i] - ys[j];
      const px = x - xs[j];
      const py = y - ys[j];
      const outside = px * ey - py * ex > 0;
      if (outside) within = false;
      const square = ex * ex + ey * ey;
      const along = Math.max(0, Math.min(1, (px * ex + py * ey) / square));
      const qx = px - ex * along;
      const qy = py - ey * along;
      const distance = qx * qx + qy * qy;
      if (distance >= least) continue;
      least = distance;
      nearX = xs[j] + ex * along;
      nearY = ys[j] + ey * along;
      const length = Math.sqrt(square);
      normalX = ey / length;
      normalY = (0 - ex) / length;
    }
    const distance = Math.sqrt(least);
    this.x = x;
    this.y = y;
    if (!within && distance >= radius) return 0;
    if (within || distance === 0) {
      this.x = nearX + normalX * radius;
      this.y = nearY + normalY * radius;
      return distance + radius;
    }
    this.x = nearX + ((x - nearX) / distance) * radius;
    this.y = nearY + ((y - nearY) / distance) * radius;
    // What rounding leaves is not a depth: the push would never end.
    return radius - distance > radius * 1e-9 ? radius - distance : 0;
  }

  /** m of room a body needs in a cell, in half cells, so that bodies of much the same width share their ways. */
  private least(radius: number): number {
    const halves = Math.floor(radius / this.cell / 0.5 - 2 * SQUEEZE_CELLS + 0.5);
    return Math.max(0, halves) * this.cell * 0.5;
  }

  /** Whether a body can go straight from one place to another. */
  clearWay(ground: number, x0: number, y0: number, x1: number, y1: number, radius: number): boolean {
    if (!this.bounded[ground]) return true;
    return this.clearance(ground).clearWay(x0, y0, x1, y1, this.least(radius));
  }

  /**
   * The next point to head for on the way to a place, left in x and y: as far along the field as the way is straight. False
   * where there is no way. Goals of one block of cells share a field; where a wall runs through the block, so that its far
   * side seems near, the place's own cell has one.
   */
  wayTowards(ground: number, fromX: number, fromY: number, toX: number, toY: number, radius: number): boolean {
    const clearance = this.clearance(ground);
    const least = this.least(radius);
    const goal = clearance.cellAt(toX, toY);
    const column = goal % clearance.columns;
    const block = goal - (column % GOAL_BLOCK) - (((goal - column) / clearance.columns) % GOAL_BLOCK) * clearance.columns;
    const from = clearance.cellAt(fromX, fromY);
    const shared = this.field(ground, least, block, GOAL_BLOCK).from(from);
    if (shared[from] > GOAL_BLOCK * STRAIGHT_COST) return this.follow(clearance, shared, from, fromX, fromY, least);
    return this.follow(clearance, this.field(ground, least, goal, 1).from(from), from, fromX, fromY, least);
  }

  private follow(clearance: Clearance, cost: Uint16Array, from: number, fromX: number, fromY: number, least: number): boolean {
    let at = from;
    let best = -1;
    for (let ahead = 0; ahead < LOOK_AHEAD_CELLS; ahead++) {
      const next = downhill(clearance, cost, at);
      if (next === at) break;
      at = next;
      const x = clearance.xOf(at % clearance.columns);
      const y = clearance.yOf(Math.floor(at / clearance.columns));
      if (best >= 0 && !clearance.clearWay(fromX, fromY, x, y, least)) break;
      best = at;
    }
    if (best < 0) return cost[at] === 0 && this.atCell(clearance, at);
    return this.atCell(clearance, best);
  }

  private atCell(clearance: Clearance, at: number): boolean {
    this.x = clearance.xOf(at % clearance.columns);
    this.y = clearance.yOf(Math.floor(at / clearance.columns));
    return true;
  }

  private field(ground: number, least: number, goal: number, size: number): DistanceField {
    return this.kept.field(this.ways(ground), Math.floor(least / this.cell / 0.5 + 0.5), least, goal, size);
  }
}

/** A shape with the box about it. */
interface Boxed extends CompiledShape {
  left: number;
  right: number;
  bottom: number;
  top: number;
}

function boxed({ xs, ys }: CompiledShape): Boxed {
  return { xs, ys, left: Math.min(...xs), right: Math.max(...xs), bottom: Math.min(...ys), top: Math.max(...ys) };
}

function isNear({ left, right, bottom, top }: Boxed, x: number, y: number, radius: number): boolean {
  return x > left - radius && x < right + radius && y > bottom - radius && y < top + radius;
}

function inside(to: number, limit: number): number {
  return to > limit ? Math.max(limit, 0) : to < 0 - limit ? Math.min(0 - limit, 0) : to;
}
