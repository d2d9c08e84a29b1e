import type { Fight } from '../fight';

/** Phase of a step: everyone is where its segment ended, and knows the way to its target. */
export function arrive(fight: Fight): void {
  fight.carry();
  takeBearings(fight, fight.alive);
}

/** Before it is after anybody: straight ahead. */
export function bearAhead(fight: Fight, unit: number): void {
  fight.bearingX[unit] = fight.fx[unit];
  fight.bearingY[unit] = fight.fy[unit];
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
