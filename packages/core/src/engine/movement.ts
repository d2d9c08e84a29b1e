/** Where units go in a step: what their state wants, as far as their attack lets them, bodies giving way to each other. */
import { doubled } from './columns';
import { turnBy } from './facing';
import type { Fight } from './fight';
import { sweepAll } from './shots';
import { PARTING_ITERATIONS, SECOND } from './tuning';

const HOLD = 0;
const BAND = 2;
const FLEE = 3;

/** Phase of a step: every living unit turns, and gets one straight segment from now to the step's end. */
export function move(fight: Fight): void {
  const step = (fight.stepEnd - fight.now) / SECOND;
  turnToTargets(fight);
  wishPlaces(fight, step);
  partBodies(fight);
  setSegments(fight, step);
  if (fight.shots.flying.length) sweepAll(fight);
}

/** Whoever has a target turns to it, unless an attack holds the facing. */
function turnToTargets(fight: Fight): void {
  const { alive, target, alerted, held, turnsAtOnce, stepCosine, turnedAt, fx, fy, bearingX, bearingY, now } = fight;
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    if (target[unit] >= 0 && alerted[unit] && !held[unit]) {
      const x = bearingX[unit];
      const y = bearingY[unit];
      // What it can turn in a step is enough far more often than not.
      if (turnsAtOnce[unit] || fx[unit] * x + fy[unit] * y >= stepCosine[unit]) {
        fx[unit] = x;
        fy[unit] = y;
      } else turnBy(fight, unit, x, y);
    }
    turnedAt[unit] = now;
  }
}

/** Where each would be at the step's end if nobody were in its way. */
function wishPlaces(fight: Fight, step: number): void {
  const { alive, target, alerted, does, pace, moving, near, far, acceleration, speed } = fight;
  const { x, y, vx, vy, radius, bearingGap, bearingX, bearingY, crowd } = fight;
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    let along = 0; // m towards the target; negative: away
    if (target[unit] >= 0 && alerted[unit]) {
      const what = does[unit];
      if (what === FLEE) along = -Infinity;
      else if (what !== HOLD) {
        // Where the target will be if it goes on as it did: whoever chases its old place stays a step behind.
        const going = vx[target[unit]] * bearingX[unit] + vy[target[unit]] * bearingY[unit];
        const gap = bearingGap[unit] + going * step;
        if (gap > far[unit]) along = gap - far[unit];
        else if (what === BAND && gap < near[unit]) along = gap - near[unit];
      }
    }
    if (along === 0) speed[unit] = 0;
    else {
      let most = pace[unit] * moving[unit];
      if (acceleration[unit] > 0) most = Math.min(most, speed[unit] + acceleration[unit] * step);
      speed[unit] = most;
      along = along > 0 ? Math.min(along, most * step) : Math.max(along, 0 - most * step);
    }
    crowd.x[i] = x[unit] + bearingX[unit] * along;
    crowd.y[i] = y[unit] + bearingY[unit] * along;
    crowd.radius[i] = radius[unit];
  }
}

/** The arena's edge comes last: nobody ends a step outside. */
function setSegments(fight: Fight, step: number): void {
  const { alive, x, y, vx, vy, crowd } = fight;
  const { halfWidth, halfDepth } = fight.compiled;
  const perSecond = 1 / step;
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    vx[unit] = (inside(crowd.x[i], halfWidth - crowd.radius[i]) - x[unit]) * perSecond;
    vy[unit] = (inside(crowd.y[i], halfDepth - crowd.radius[i]) - y[unit]) * perSecond;
  }
}

function inside(to: number, limit: number): number {
  return to > limit ? Math.max(limit, 0) : to < 0 - limit ? Math.min(0 - limit, 0) : to;
}

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
function partBodies(fight: Fight): void {
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
