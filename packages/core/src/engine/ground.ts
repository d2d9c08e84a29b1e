/** The ground of one arena: its walls, how much room there is, and the ways around. Empty ground costs nothing. */
import { Clearance, distanceTo } from './clearance';
import { blocked } from './lines';
import type { Compiled, CompiledShape, CompiledWall } from './tables';
import { FIELD_BYTES, LOOK_AHEAD_CELLS, PUSH_ITERATIONS, SQUEEZE_CELLS } from './tuning';
import { UNREACHED, distanceField, downhill } from './ways';

export class Ground {
  readonly walls: readonly CompiledWall[];
  readonly halfWidth: number;
  readonly halfDepth: number;
  /** By class of ground: what is closed, walls among it. */
  private readonly shapes: CompiledShape[][];
  /** Whether a class meets anything but the arena's edge. */
  private readonly bounded: boolean[];
  private readonly clearances: (Clearance | undefined)[];
  private readonly fields = new Map<number, Int32Array>();
  private fieldBytes = 0;
  private readonly cell: number;
  /** Where the last question ended: a place out of walls, or a way point. */
  x = 0;
  y = 0;

  constructor({ walls, closed, halfWidth, halfDepth, grid }: Compiled) {
    this.walls = walls;
    this.halfWidth = halfWidth;
    this.halfDepth = halfDepth;
    this.cell = grid;
    this.shapes = closed.map((shapes) => [...walls, ...shapes]);
    this.bounded = this.shapes.map(({ length }) => length > 0);
    this.clearances = this.shapes.map(() => undefined);
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
    return (this.clearances[ground] ??= new Clearance(this.halfWidth, this.halfDepth, this.cell, this.shapes[ground]));
  }

  /** Whether a body may stand somewhere: inside the arena, clear of walls and closed ground. */
  isFree(ground: number, x: number, y: number, radius: number): boolean {
    if (Math.abs(x) > this.halfWidth - radius || Math.abs(y) > this.halfDepth - radius) return false;
    const shapes = this.shapes[ground];
    for (let s = 0; s < shapes.length; s++) if (distanceTo(shapes[s], x, y) < radius) return false;
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

  /** m of room a body needs in a cell. */
  private least(radius: number): number {
    return Math.max(0, radius - SQUEEZE_CELLS * this.cell);
  }

  /** Whether a body can go straight from one place to another. */
  clearWay(ground: number, x0: number, y0: number, x1: number, y1: number, radius: number): boolean {
    if (!this.bounded[ground]) return true;
    return this.clearance(ground).clearWay(x0, y0, x1, y1, this.least(radius));
  }

  /** The cell of a place: goals in one cell share a field. */
  goalOf(ground: number, x: number, y: number): number {
    return this.clearance(ground).cellAt(x, y);
  }

  /**
   * The next point to head for on the way to a goal, left in x and y: as far along the field as the way is straight. False
   * where there is no way.
   */
  wayTowards(ground: number, fromX: number, fromY: number, goal: number, radius: number): boolean {
    const clearance = this.clearance(ground);
    const least = this.least(radius);
    const cost = this.field(ground, clearance, least, goal);
    let at = clearance.cellAt(fromX, fromY);
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
    if (best < 0) return cost[at] !== UNREACHED && cost[at] === 0 && this.atCell(clearance, at);
    return this.atCell(clearance, best);
  }

  private atCell(clearance: Clearance, at: number): boolean {
    this.x = clearance.xOf(at % clearance.columns);
    this.y = clearance.yOf(Math.floor(at / clearance.columns));
    return true;
  }

  private field(ground: number, clearance: Clearance, least: number, goal: number): Int32Array {
    const key = (this.widthClass(least) * this.shapes.length + ground) * clearance.cells + goal;
    const known = this.fields.get(key);
    if (known) return known;
    if (this.fieldBytes > FIELD_BYTES) {
      this.fields.clear();
      this.fieldBytes = 0;
    }
    const made = distanceField(clearance, least, goal);
    this.fields.set(key, made);
    this.fieldBytes += made.byteLength;
    return made;
  }

  private readonly widths: number[] = [];

  private widthClass(least: number): number {
    const known = this.widths.indexOf(least);
    return known >= 0 ? known : this.widths.push(least) - 1;
  }
}

function inside(to: number, limit: number): number {
  return to > limit ? Math.max(limit, 0) : to < 0 - limit ? Math.min(0 - limit, 0) : to;
}
