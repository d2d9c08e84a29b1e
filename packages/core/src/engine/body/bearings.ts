import type { Fight } from '../fight';
import { PER_MICROSECOND } from '../tuning';

/** Phase of a step: everyone is where its segment ended, and knows the way to its target. */
export function arrive(fight: Fight): void {
  const { alive, x, y, vx, vy, segmentStart, now } = fight;
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    const elapsed = (now - segmentStart[unit]) * PER_MICROSECOND;
    x[unit] += vx[unit] * elapsed;
    y[unit] += vy[unit] * elapsed;
    segmentStart[unit] = now;
  }
  takeBearings(fight, alive);
}

/** The way from each of some units to its target, from where both are at the beginning of the step. */
export function takeBearings(fight: Fight, units: readonly number[]): void {
  const { x, y, fx, fy, radius, target, bearingX, bearingY, bearingLength, bearingGap } = fight;
  for (let i = 0; i < units.length; i++) {
    const unit = units[i];
    const other = target[unit];
    if (other < 0) continue;
    const dx = x[other] - x[unit];
    const dy = y[other] - y[unit];
    const length = Math.sqrt(dx * dx + dy * dy);
    bearingLength[unit] = length;
    bearingGap[unit] = Math.max(0, length - radius[unit] - radius[other]);
    // Coinciding bodies: straight ahead.
    bearingX[unit] = length > 0 ? dx / length : fx[unit];
    bearingY[unit] = length > 0 ? dy / length : fy[unit];
  }
}
