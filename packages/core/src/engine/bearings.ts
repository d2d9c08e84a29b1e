import { type Fight, NOBODY } from './fight';
import { PER_MICROSECOND } from './tuning';

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
  for (let i = 0; i < alive.length; i++) takeBearing(fight, alive[i]);
}

/** The way from a unit to its target, from where both are at the beginning of the step. */
export function takeBearing(fight: Fight, unit: number): void {
  const target = fight.target[unit];
  if (target === NOBODY) return;
  const dx = fight.x[target] - fight.x[unit];
  const dy = fight.y[target] - fight.y[unit];
  const length = Math.sqrt(dx * dx + dy * dy);
  fight.bearingLength[unit] = length;
  fight.bearingGap[unit] = Math.max(0, length - fight.radius[unit] - fight.radius[target]);
  // Coinciding bodies: straight ahead.
  fight.bearingX[unit] = length > 0 ? dx / length : fight.fx[unit];
  fight.bearingY[unit] = length > 0 ? dy / length : fight.fy[unit];
}
