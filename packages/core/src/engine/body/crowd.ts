/** Bodies giving way to each other: which pairs are near, and who steps aside by how much. */
import { doubled } from '../../record/columns';
import type { Fight } from '../fight';
import { Cells } from './cells';
import { DEEP, PARTING_ITERATIONS, TOUCHING } from '../tuning';

/**
 * Widest radii beyond touching within which a pair is watched: one for each of the two to stray, and half of one for
 * being pushed besides.
 */
const WATCHED = 2.5;

/** Times its distance at touching: a pair farther apart than this is left alone for the step. */
const CLOSE = 1.08;

/** With more units than that, pairs are looked for in cells of the ground instead of among all. */
const CELLS_FROM = 48;

/** Pairs of places among the living, the lower one first. */
class PairList {
  first = new Int32Array(256);
  second = new Int32Array(256);
  /** Square of the distance at which they touch. */
  touch = new Float64Array(256);
  count = 0;

  add(a: number, b: number, touch: number): void {
    if (this.count === this.first.length) this.grow();
    this.first[this.count] = a;
    this.second[this.count] = b;
    this.touch[this.count++] = touch;
  }

  /** The pairs of another list in the order of one of their two, otherwise in the order that they have. @param begins room for n + 1 */
  sortedBy(list: PairList, places: Int32Array, n: number, begins: Int32Array): void {
    while (this.first.length < list.count) this.grow();
    this.count = list.count;
    begins.fill(0, 0, n + 1);
    for (let p = 0; p < list.count; p++) begins[places[p] + 1]++;
    for (let i = 0; i < n; i++) begins[i + 1] += begins[i];
    for (let p = 0; p < list.count; p++) {
      const at = begins[places[p]]++;
      this.first[at] = list.first[p];
      this.second[at] = list.second[p];
      this.touch[at] = list.touch[p];
    }
  }

  private grow(): void {
    this.first = doubled(this.first);
    this.second = doubled(this.second);
    this.touch = doubled(this.touch);
  }
}

/**
 * Room for working out who gives way to whom: allocated with the fight, used at each step. Columns by place among the
 * living, who are in order of their numbers.
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
  readonly cells: Cells;
  /** Room for putting them in order. */
  readonly halfSorted = new PairList();
  readonly begins: Int32Array;

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
    this.cells = new Cells(units);
    this.begins = new Int32Array(units + 1);
  }

  /** To be called whenever the living are no longer the same: places among them shift. */
  clear(): void {
    this.slack = -1;
  }
}

/** Bodies that would overlap at the step's end part equally, all pairs together, a few times over while some overlap deeply. */
export function partBodies(fight: Fight): void {
  const { crowd } = fight;
  const pairs = closePairs(crowd, fight.alive.length);
  for (let round = 0; round < PARTING_ITERATIONS; round++) {
    if (!giveWay(fight, crowd, pairs)) return;
  }
}

/** The pairs near enough to matter in this step, in order of their places: it is summed in that order. */
export function closePairs(crowd: Crowd, n: number): PairList {
  const { close, halfSorted, begins } = crowd;
  close.count = 0;
  if (n <= CELLS_FROM) {
    if (strayed(crowd, n)) watchPairs(crowd, n);
    closeWatched(crowd);
  } else {
    closeByCells(crowd, n);
    halfSorted.sortedBy(close, close.second, n, begins);
    close.sortedBy(halfSorted, halfSorted.first, n, begins);
  }
  return close;
}

/** Those of the watched pairs. */
function closeWatched({ x, y, watched, close }: Crowd): void {
  const { first, second, touch, count } = watched;
  for (let p = 0; p < count; p++) {
    const dx = x[second[p]] - x[first[p]];
    const dy = y[second[p]] - y[first[p]];
    if (dx * dx + dy * dy < CLOSE * CLOSE * touch[p]) close.add(first[p], second[p], touch[p]);
  }
}

/**
 * Those of all, in any order: in many there is always somebody who has strayed, so none are watched. Each looks at those behind
 * it in its own cell, in the next one of its row, and in the three of the next row.
 */
function closeByCells(crowd: Crowd, n: number): void {
  const { x, y, radius, cells } = crowd;
  let widest = 0;
  for (let i = 0; i < n; i++) widest = Math.max(widest, radius[i]);
  if (widest === 0) return;
  cells.sort(x, y, n, 2 * CLOSE * widest);
  const { order, cell, from, columns, rows } = cells;
  for (let k = 0; k < n; k++) {
    const i = order[k];
    if (radius[i] === 0) continue;
    const right = (cell[k] + 1) % columns > 0 ? 1 : 0;
    const end = from[cell[k] + right + 1];
    for (let l = k + 1; l < end; l++) closePair(crowd, i, order[l]);
    const above = cell[k] + columns;
    if (above >= columns * rows) continue;
    const endAbove = from[above + right + 1];
    for (let l = from[above % columns > 0 ? above - 1 : above]; l < endAbove; l++) closePair(crowd, i, order[l]);
  }
}

function closePair({ x, y, radius, close }: Crowd, i: number, j: number): void {
  const dx = x[j] - x[i];
  const dy = y[j] - y[i];
  const apart = radius[i] + radius[j];
  if (dx * dx + dy * dy >= CLOSE * CLOSE * (apart * apart) || radius[j] === 0) return;
  if (i < j) close.add(i, j, apart * apart);
  else close.add(j, i, apart * apart);
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
  const { x, y, radius, fromX, fromY, watched } = crowd;
  let widest = 0;
  for (let i = 0; i < n; i++) {
    widest = Math.max(widest, radius[i]);
    fromX[i] = x[i];
    fromY[i] = y[i];
  }
  crowd.slack = widest;
  watched.count = 0;
  for (let i = 0; i < n; i++) {
    if (radius[i] === 0) continue;
    for (let j = i + 1; j < n; j++) {
      const dx = x[j] - x[i];
      const dy = y[j] - y[i];
      const apart = radius[i] + radius[j];
      const reach = apart + WATCHED * widest;
      if (radius[j] > 0 && dx * dx + dy * dy < reach * reach) watched.add(i, j, apart * apart);
    }
  }
}

/**
 * One round: every overlapping pair is pushed apart, together.
 * @returns whether some overlap was so deep that another round is worth it
 */
function giveWay(fight: Fight, crowd: Crowd, pairs: PairList): boolean {
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
