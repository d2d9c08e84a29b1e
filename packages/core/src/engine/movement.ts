/** Where units go in a step: what their state wants, as far as their attack lets them, bodies giving way to each other. */
import { turnTo } from './facing';
import { type Fight, NOBODY, PHASE } from './fight';
import { sweepAll } from './shots';
import { PARTING_ITERATIONS, SECOND } from './tuning';

const APPROACH = 1;
const BAND = 2;
const FLEE = 3;

/** Phase of a step: every living unit gets one straight segment from now to the step's end. */
export function move(fight: Fight): void {
  const { alive } = fight;
  const step = (fight.stepEnd - fight.now) / SECOND;
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    fight.x[unit] = fight.xAt(unit, fight.now);
    fight.y[unit] = fight.yAt(unit, fight.now);
    fight.segmentStart[unit] = fight.now;
    fight.vx[unit] = fight.vy[unit] = 0;
  }
  for (let i = 0; i < alive.length; i++) want(fight, alive[i], step);
  partBodies(fight, step);
  stayInside(fight, step);
  if (fight.shots.flying.length) sweepAll(fight);
}

/** Sets the velocity a unit would have if nobody were in its way. */
function want(fight: Fight, unit: number, step: number): void {
  const target = fight.target[unit];
  if (!fight.alerted[unit] || target === NOBODY) {
    fight.speed[unit] = 0;
    return;
  }
  const kind = fight.kinds[unit];
  const state = kind.states[fight.state[unit]];
  const phase = fight.phase[unit];
  if (phase === PHASE.idle || (phase === PHASE.windup && kind.attacks[fight.attack[unit]].turns)) turnTo(fight, unit, target);
  else fight.turnedAt[unit] = fight.now;
  if (state.does === 0) {
    fight.speed[unit] = 0;
    return;
  }
  const share = phase === PHASE.idle ? 1 : kind.attacks[fight.attack[unit]].moving;
  const dx = fight.x[target] - fight.x[unit];
  const dy = fight.y[target] - fight.y[unit];
  const distance = Math.sqrt(dx * dx + dy * dy);
  const gap = Math.max(0, distance - fight.radius[unit] - fight.radius[target]);
  // How far it wants to come nearer (negative: to get away) within this step.
  let nearer = 0;
  if (state.does === APPROACH) nearer = Math.max(0, gap - state.far);
  else if (state.does === BAND) nearer = gap > state.far ? gap - state.far : gap < state.near ? gap - state.near : 0;
  else if (state.does === FLEE) nearer = -Infinity;
  const wish = nearer === 0 ? 0 : state.speed * share;
  const gained = kind.acceleration > 0 ? fight.speed[unit] + kind.acceleration * step : wish;
  const speed = Math.min(wish, gained);
  fight.speed[unit] = speed;
  if (speed === 0) return;
  const signed = nearer > 0 ? Math.min(speed, nearer / step) : Math.max(0 - speed, nearer / step);
  if (distance > 0) {
    fight.vx[unit] = (dx / distance) * signed;
    fight.vy[unit] = (dy / distance) * signed;
  } else {
    fight.vx[unit] = fight.fx[unit] * signed;
    fight.vy[unit] = fight.fy[unit] * signed;
  }
}

// Scratch of the parting: pairs that may touch, and the sums of what each unit gives way. Grows, never shrinks.
const order: number[] = [];
const pairs: number[] = [];
let endX = new Float64Array(64);
let endY = new Float64Array(64);
let giveX = new Float64Array(64);
let giveY = new Float64Array(64);

/**
 * Bodies that would overlap at the step's end part equally, all pairs together, a few times over. Candidates are found
 * by sweeping along x; they are summed in order of unit numbers, so the order of the sweep leaves no trace.
 */
function partBodies(fight: Fight, step: number): void {
  const { alive, radius } = fight;
  if (endX.length < fight.count) {
    const room = Math.max(fight.count, endX.length * 2);
    endX = new Float64Array(room);
    endY = new Float64Array(room);
    giveX = new Float64Array(room);
    giveY = new Float64Array(room);
  }
  let widest = 0;
  order.length = alive.length;
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    endX[unit] = fight.x[unit] + fight.vx[unit] * step;
    endY[unit] = fight.y[unit] + fight.vy[unit] * step;
    widest = Math.max(widest, radius[unit]);
    let at = i;
    while (at > 0 && endX[order[at - 1]] > endX[unit]) {
      order[at] = order[at - 1];
      at--;
    }
    order[at] = unit;
  }
  if (!collectPairs(fight, widest)) return;
  for (let iteration = 0; iteration < PARTING_ITERATIONS; iteration++) {
    if (!giveWay(fight)) break;
  }
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    fight.vx[unit] = (endX[unit] - fight.x[unit]) / step;
    fight.vy[unit] = (endY[unit] - fight.y[unit]) / step;
  }
}

/** Pairs within a body's width of touching, by unit numbers; whether any overlaps now. */
function collectPairs(fight: Fight, widest: number): boolean {
  const { radius } = fight;
  pairs.length = 0;
  let overlap = false;
  for (let i = 0; i < order.length; i++) {
    const a = order[i];
    const slack = radius[a] * 0.5;
    for (let j = i + 1; j < order.length; j++) {
      const b = order[j];
      const apart = radius[a] + radius[b];
      const dx = endX[b] - endX[a];
      if (dx > radius[a] + widest + slack) break;
      const dy = endY[b] - endY[a];
      if (dy > apart + slack || dy < 0 - apart - slack) continue;
      pairs.push(a < b ? a * 4096 + b : b * 4096 + a);
      if (dx * dx + dy * dy < apart * apart) overlap = true;
    }
  }
  if (overlap) pairs.sort((p, q) => p - q);
  return overlap;
}

function giveWay(fight: Fight): boolean {
  const { alive, radius } = fight;
  for (let i = 0; i < alive.length; i++) giveX[alive[i]] = giveY[alive[i]] = 0;
  let moved = false;
  for (let i = 0; i < pairs.length; i++) {
    const a = Math.floor(pairs[i] / 4096);
    const b = pairs[i] % 4096;
    const dx = endX[b] - endX[a];
    const dy = endY[b] - endY[a];
    const apart = radius[a] + radius[b];
    const square = dx * dx + dy * dy;
    if (square >= apart * apart) continue;
    moved = true;
    const distance = Math.sqrt(square);
    // Coinciding bodies part along the first one's facing.
    const ux = distance > 0 ? dx / distance : fight.fx[a];
    const uy = distance > 0 ? dy / distance : fight.fy[a];
    const half = (apart - distance) / 2;
    giveX[a] -= ux * half;
    giveY[a] -= uy * half;
    giveX[b] += ux * half;
    giveY[b] += uy * half;
  }
  if (!moved) return false;
  for (let i = 0; i < alive.length; i++) {
    endX[alive[i]] += giveX[alive[i]];
    endY[alive[i]] += giveY[alive[i]];
  }
  return true;
}

/** The arena's edge comes last: nobody ends a step outside. */
function stayInside(fight: Fight, step: number): void {
  const { alive } = fight;
  const { halfWidth, halfDepth } = fight.compiled;
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    const limitX = Math.max(0, halfWidth - fight.radius[unit]);
    const limitY = Math.max(0, halfDepth - fight.radius[unit]);
    const toX = fight.x[unit] + fight.vx[unit] * step;
    const toY = fight.y[unit] + fight.vy[unit] * step;
    if (toX > limitX) fight.vx[unit] = (limitX - fight.x[unit]) / step;
    else if (toX < 0 - limitX) fight.vx[unit] = (0 - limitX - fight.x[unit]) / step;
    if (toY > limitY) fight.vy[unit] = (limitY - fight.y[unit]) / step;
    else if (toY < 0 - limitY) fight.vy[unit] = (0 - limitY - fight.y[unit]) / step;
  }
}
