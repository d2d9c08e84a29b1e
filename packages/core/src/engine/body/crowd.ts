/** Bodies giving way to each other: which pairs are near, and who steps aside by how much. */
import { doubled } from '../../record/columns';
import type { Fight } from '../fight';
import { DEEP, PARTING_ITERATIONS, TOUCHING } from '../tuning';

/**
 * Widest radii beyond touching within which a pair is watched: one for each of the two to stray, and half of one for
 * being pushed besides.
 */
const WATCHED = 2.5;

/** Times its distance at touching: a pair farther apart than this is left alone for the step. */
const CLOSE = 1.08;

/** Pairs of places among the living, in order. */
class PairList {
  first = new Int32Array(256);
  second = new Int32Array(256);
  /** Square of the distance at which they touch. */
  touch = new Float64Array(256);
  count = 0;

  add(a: number, b: number, touch: number): void {
    if (this.count === this.first.length) {
      this.first = doubled(this.first);
      this.second = doubled(this.second);
      this.touch = doubled(this.touch);
    }
    this.first[this.count] = a;
    this.second[this.count] = b;
    this.touch[this.count++] = touch;
  }
}

/**
 * Room for working out who gives way to whom: allocated with the fight, used at each step. Columns by place among the
 * living, who are in order of their numbers; so pairs found in this order are summed in it too.
 */
export class Crowd {
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** m; 0: gives way to nobody, nor they to it */
  readonly radius: Float64Array;
  /** How far each gives way in a round; 0 between rounds. */
  readonly giveX: Float64Array;
  readonly giveY: Float64Array;
  /** Who does, as marks and as a list. */
  readonly pushed: Uint8Array;
  readonly movers: Int32Array;
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
    this.pushed = new Uint8Array(units);
    this.movers = new Int32Array(units);
    this.fromX = new Float64Array(units);
    this.fromY = new Float64Array(units);
  }

  /** To be called whenever the living are no longer the same: places among them shift. */
  clear(): void {
    this.slack = -1;
  }
}

/** Bodies that would overlap at the step's end part equally, all pairs together, a few times over while some overlap deeply. */
export function partBodies(fight: Fight): void {
  const n = fight.alive.length;
  const { crowd } = fight;
  if (strayed(crowd, n)) watchPairs(crowd, n);
  // The first round goes over all watched pairs and keeps those that matter in this step for the others.
  crowd.close.count = 0;
  if (!giveWay(fight, crowd, crowd.watched, crowd.close)) return;
  for (let round = 1; round < PARTING_ITERATIONS; round++) {
    if (!giveWay(fight, crowd, crowd.close, null)) return;
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
  if (n > STRIPS_FROM) return watchByStrips(crowd, n, widest);
  for (let i = 0; i < n; i++) for (let j = i + 1; j < n; j++) watchPair(crowd, i, j, widest);
}

function watchPair({ x, y, radius, watched }: Crowd, i: number, j: number, widest: number): void {
  const dx = x[j] - x[i];
  const dy = y[j] - y[i];
  if (radius[i] === 0 || radius[j] === 0) return;
  const apart = radius[i] + radius[j];
  const reach = apart + WATCHED * widest;
  if (dx * dx + dy * dy < reach * reach) watched.add(i, j, apart * apart);
}

/** From so many units on, pairs are looked for in strips across the arena instead of among all. */
const STRIPS_FROM = 64;

const found: number[] = [];

/** The same pairs in the same order: only those in neighbouring strips, as wide as the widest reach, can be near. */
function watchByStrips(crowd: Crowd, n: number, widest: number): void {
  const { x } = crowd;
  const strip = (2 + WATCHED) * widest;
  const strips = new Map<number, number[]>();
  for (let i = 0; i < n; i++) {
    const at = Math.floor(x[i] / strip);
    const list = strips.get(at);
    if (list) list.push(i);
    else strips.set(at, [i]);
  }
  for (let i = 0; i < n; i++) {
    found.length = 0;
    const at = Math.floor(x[i] / strip);
    for (let s = at - 1; s <= at + 1; s++) {
      const list = strips.get(s);
      if (!list) continue;
      for (let k = 0; k < list.length; k++) if (list[k] > i) found.push(list[k]);
    }
    found.sort(ascending);
    for (let k = 0; k < found.length; k++) watchPair(crowd, i, found[k], widest);
  }
}

const ascending = (a: number, b: number) => a - b;

/**
 * One round: every overlapping pair is pushed apart, together. Of the pairs looked at, those near enough to matter are put
 * into `near`, where that is asked for.
 * @returns whether some overlap was so deep that another round is worth it
 */
function giveWay(fight: Fight, crowd: Crowd, pairs: PairList, near: PairList | null): boolean {
  const { x, y, giveX, giveY, pushed, movers } = crowd;
  const { first, second, touch, count } = pairs;
  const [touching, deeply] = [TOUCHING, DEEP];
  let moved = 0;
  let deep = false;
  for (let p = 0; p < count; p++) {
    const a = first[p];
    const b = second[p];
    const dx = x[b] - x[a];
    const dy = y[b] - y[a];
    const apart = touch[p];
    const square = dx * dx + dy * dy;
    if (near !== null) {
      if (square >= CLOSE * CLOSE * apart) continue;
      near.add(a, b, apart);
    }
    if (square >= touching * apart) continue;
    if (square < deeply * apart) deep = true;
    if (pushed[a] === 0) {
      pushed[a] = 1;
      movers[moved++] = a;
    }
    if (pushed[b] === 0) {
      pushed[b] = 1;
      movers[moved++] = b;
    }
    let gx: number;
    let gy: number;
    if (square > 0) {
      const half = (Math.sqrt(apart / square) - 1) / 2;
      gx = dx * half;
      gy = dy * half;
    } else {
      // Coinciding bodies part along the first one's facing.
      const reach = Math.sqrt(apart) / 2;
      gx = fight.fx[fight.alive[a]] * reach;
      gy = fight.fy[fight.alive[a]] * reach;
    }
    giveX[a] -= gx;
    giveY[a] -= gy;
    giveX[b] += gx;
    giveY[b] += gy;
  }
  for (let m = 0; m < moved; m++) {
    const i = movers[m];
    x[i] += giveX[i];
    y[i] += giveY[i];
    giveX[i] = giveY[i] = 0;
    pushed[i] = 0;
  }
  return deep;
}
