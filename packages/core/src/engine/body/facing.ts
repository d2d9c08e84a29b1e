import { SECOND } from '../../record/time';
import type { Fight } from '../fight';
import { cosine, sine } from './rotation';

/**
 * Turns a unit towards a direction as far as its turn rate allows since it last turned; at once where it has none. A
 * zero-length direction turns nothing: facing is always a unit vector.
 */
export function turn(fight: Fight, unit: number, dx: number, dy: number): void {
  const length = Math.sqrt(dx * dx + dy * dy);
  if (length === 0) fight.turnedAt[unit] = fight.now;
  else turnBy(fight, unit, dx / length, dy / length);
}

/** The same for a direction that is a unit vector already. */
export function turnBy(fight: Fight, unit: number, toX: number, toY: number): void {
  const elapsed = fight.now - fight.turnedAt[unit];
  fight.turnedAt[unit] = fight.now;
  const { turnRate, stepCosine, stepSine } = fight.kinds[unit];
  const degrees = (turnRate * elapsed) / SECOND;
  if (turnRate === 0 || degrees >= 180) {
    fight.fx[unit] = toX;
    fight.fy[unit] = toY;
    return;
  }
  if (degrees <= 0) return;
  const fx = fight.fx[unit];
  const fy = fight.fy[unit];
  const wholeStep = elapsed === fight.compiled.step;
  const c = wholeStep ? stepCosine : cosine(degrees);
  if (fx * toX + fy * toY >= c) {
    fight.fx[unit] = toX;
    fight.fy[unit] = toY;
    return;
  }
  const size = wholeStep ? stepSine : sine(degrees);
  const s = fx * toY - fy * toX < 0 ? 0 - size : size;
  const x = c * fx - s * fy;
  const y = s * fx + c * fy;
  const norm = Math.sqrt(x * x + y * y);
  fight.fx[unit] = x / norm;
  fight.fy[unit] = y / norm;
}

/** Towards where it has gone in this step, or as its errand wants it. */
export function turnInStep(fight: Fight, unit: number, toX: number, toY: number): void {
  fight.turnedAt[unit] = fight.now - fight.compiled.step;
  turnBy(fight, unit, toX, toY);
}

/** It faces that way from now on, a unit vector. */
export function face(fight: Fight, unit: number, fx: number, fy: number): void {
  fight.fx[unit] = fx;
  fight.fy[unit] = fy;
  fight.turnedAt[unit] = fight.now;
}

/** Whoever has a target turns to it, unless an attack holds the facing. */
export function turnToTargets(fight: Fight): void {
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

/** A unit vector turned towards a direction by at most so many degrees. A zero-length direction turns nothing. */
export function turnedTowards(fx: number, fy: number, dx: number, dy: number, degrees: number): [number, number] {
  const length = Math.sqrt(dx * dx + dy * dy);
  if (length === 0 || degrees <= 0) return [fx, fy];
  const toX = dx / length;
  const toY = dy / length;
  const c = degrees >= 180 ? -1 : cosine(degrees);
  if (fx * toX + fy * toY >= c) return [toX, toY];
  const s = fx * toY - fy * toX < 0 ? 0 - sine(degrees) : sine(degrees);
  const x = c * fx - s * fy;
  const y = s * fx + c * fy;
  const norm = Math.sqrt(x * x + y * y);
  return [x / norm, y / norm];
}

/** Turns towards another unit's place at this instant. */
export function turnTo(fight: Fight, unit: number, other: number): void {
  turn(fight, unit, fight.xAt(other, fight.now) - fight.xAt(unit, fight.now), fight.yAt(other, fight.now) - fight.yAt(unit, fight.now));
}

/** Whether a unit lies within the angle, given by its cosine, to either side of straight ahead. Coinciding places do. */
export function within(fight: Fight, unit: number, other: number, leastCosine: number): boolean {
  if (leastCosine <= -1 || (fight.inTurns && fight.board === null)) return true;
  const dx = fight.xAt(other, fight.now) - fight.xAt(unit, fight.now);
  const dy = fight.yAt(other, fight.now) - fight.yAt(unit, fight.now);
  return fight.fx[unit] * dx + fight.fy[unit] * dy >= leastCosine * Math.sqrt(dx * dx + dy * dy) * (1 - 1e-12);
}
