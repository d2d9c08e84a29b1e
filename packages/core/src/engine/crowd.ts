/** Bodies giving way to each other: which pairs are near, and who steps aside by how much. */
import { doubled } from './columns';
import type { Fight } from './fight';
import { PARTING_ITERATIONS } from './tuning';

/**
 * Widest radii beyond touching within which a pair is watched: one for each of the two to stray, and half of one for
 * being pushed besides.
 */
const WATCHED = 2.5;

/** Times its distance at touching: a pair farther apart than this is left alone for the step. */
const CLOSE = 1.2;

/** Pairs of places among the living, in order. */
class PairList {
  first = new Int32Array(256);
  second = new Int32Array(256);
  count = 0;

  add(a: number, b: number): void {
    if (this.count === this.first.length) {
      this.first = doubled(this.first);
      this.second = doubled(this.second);
    }
    this.first[this.count] = a;
    this.second[this.count++] = b;
  }
}

/**
 * Room for working out who gives way to whom: allocated with the fight, used at each step. Columns by place among the
 * living, who are in order of their numbers; so pairs found in this order are summed in it too.
 */
export class Crowd {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly radius: Float64Array;
  readonly giveX: Float64Array;
  readonly giveY: Float64Array;
  /** Where each was when the pairs were collected. */
  readonly fromX: Float64Array;
  readonly fromY: Float64Array;
  /** How far anybody may have moved since before they are collected anew; below 0: at once. */
  slack = -1;
  readonly watched = new PairList();
  readonly close = new PairList();

  constructor(units: number) {
    this.x = new Float64Array(units);
    this.y = new Float64Array(units);
    this.radius = new Float64Array(units);
    this.giveX = new Float64Array(units);
    this.giveY = new Float64Array(units);
    this.fromX = new Float64Array(units);
    this.fromY = new Float64Array(units);
  }

  /** To be called whenever the living are no longer the same: places among them shift. */
  clear(): void {
    this.slack = -1;
  }
}

/** Bodies that would overlap at the step's end part equally, all pairs together, a few times over. */
export function partBodies(fight: Fight): void {
  const n = fight.alive.length;
  if (strayed(fight.crowd, n)) watchPairs(fight.crowd, n);
  if (!findClose(fight.crowd)) return;
  for (let iteration = 0; iteration < PARTING_ITERATIONS; iteration++) {
    if (!giveWay(fight, fight.crowd, n)) return;
  }
}

/** Whether somebody may by now touch somebody who is not on the list of pairs. */
function strayed(crowd: Crowd, n: number): boolean {
  const { x, y, fromX, fromY, slack } = crowd;
  if (slack < 0) return true;
  const square = slack * slack;
  for (let i = 0; i < n; i++) {
    const dx = x[i] - fromX[i];
    const dy = y[i] - fromY[i];
    if (dx * dx + dy * dy > square) return true;
  }
  return false;
}

/** Pairs that could touch before one of the two has moved by the slack, in order of their places. */
function watchPairs(crowd: Crowd, n: number): void {
  const { x, y, radius, fromX, fromY } = crowd;
  let widest = 0;
  for (let i = 0; i < n; i++) {
    widest = Math.max(widest, radius[i]);
    fromX[i] = x[i];
    fromY[i] = y[i];
  }
  crowd.slack = widest;
  crowd.watched.count = 0;
  for (let i = 0; i < n; i++) {
    const xi = x[i];
    const yi = y[i];
    const watched = radius[i] + WATCHED * widest;
    for (let j = i + 1; j < n; j++) {
      const dx = x[j] - xi;
      const dy = y[j] - yi;
      const reach = watched + radius[j];
      if (dx * dx + dy * dy < reach * reach) crowd.watched.add(i, j);
    }
  }
}

/** Of the watched pairs those that matter in this step; whether any of them overlaps. */
function findClose({ x, y, radius, watched, close }: Crowd): boolean {
  const { first, second, count } = watched;
  close.count = 0;
  let overlap = false;
  for (let p = 0; p < count; p++) {
    const a = first[p];
    const b = second[p];
    const dx = x[b] - x[a];
    const dy = y[b] - y[a];
    const apart = radius[a] + radius[b];
    const square = dx * dx + dy * dy;
    if (square >= CLOSE * CLOSE * apart * apart) continue;
    close.add(a, b);
    if (square < apart * apart) overlap = true;
  }
  return overlap;
}

function giveWay(fight: Fight, crowd: Crowd, n: number): boolean {
  const { x, y, radius, giveX, giveY } = crowd;
  const { first, second, count } = crowd.close;
  let moved = false;
  for (let p = 0; p < count; p++) {
    const a = first[p];
    const b = second[p];
    const dx = x[b] - x[a];
    const dy = y[b] - y[a];
    const apart = radius[a] + radius[b];
    const square = dx * dx + dy * dy;
    if (square >= apart * apart) continue;
    if (!moved) {
      moved = true;
      for (let i = 0; i < n; i++) giveX[i] = giveY[i] = 0;
    }
    let gx: number;
    let gy: number;
    if (square > 0) {
      // (apart² − d²) / 2 (apart² + d²) is (apart − d) / 2d to first order and needs no root; deep overlaps take more rounds.
      const half = (apart * apart - square) / (2 * (apart * apart + square));
      gx = dx * half;
      gy = dy * half;
    } else {
      // Coinciding bodies part along the first one's facing.
      gx = (fight.fx[fight.alive[a]] * apart) / 2;
      gy = (fight.fy[fight.alive[a]] * apart) / 2;
    }
    giveX[a] -= gx;
    giveY[a] -= gy;
    giveX[b] += gx;
    giveY[b] += gy;
  }
  if (!moved) return false;
  for (let i = 0; i < n; i++) {
    x[i] += giveX[i];
    y[i] += giveY[i];
  }
  return true;
}
