/** Whom the movements of attacks will meet within the step: swept against the segments of bodies, and again when one is cut. */
import { microsecondsUp } from '../../record/time';
import type { Fight } from '../fight';
import { DASHING, NOBODY } from '../numbers';
import { DUE } from '../time/queue';

/** Works out all contacts anew: segments have changed. */
export function sweepDashes(fight: Fight): void {
  for (let i = 0; i < fight.dashers.length; i++) sweepDash(fight, fight.dashers[i]);
}

/** Queues the first contact before the step or the movement ends, if there is one. An earlier plan is stale. */
export function sweepDash(fight: Fight, unit: number): void {
  const plan = fight.planDash(unit);
  if (fight.dashing[unit] !== DASHING.attack) return;
  const dash = fight.attackOf(unit, fight.attack[unit]).dash!;
  if (dash.hurts !== 'way' && !dash.stops) return;
  const until = Math.min(fight.stepEnd, fight.dashUntil[unit]);
  let first = Infinity;
  let met: number = NOBODY;
  for (let i = 0; i < fight.alive.length; i++) {
    const other = fight.alive[i];
    if (other === unit || fight.dashMet[unit].includes(other) || !(dash.stops || minds(fight, unit, other))) continue;
    const time = touchTime(fight, unit, other);
    if (time <= until && time < first) {
      first = time;
      met = other;
    }
  }
  if (met !== NOBODY) fight.queue.push(first, DUE.dashMeets, unit, plan, met);
}

/** Whether a body on its way is one that its movement hurts: a foe, or anybody under friendly fire. */
export function minds(fight: Fight, unit: number, other: number): boolean {
  const { dash, friendly } = fight.attackOf(unit, fight.attack[unit]);
  return dash!.hurts === 'way' && (friendly || fight.side[other] !== fight.side[unit]);
}

/** µs of the first touch of two bodies, both moving straight: the smaller root of |p + w t| = R, rounded up. Who parts is not touched. */
function touchTime(fight: Fight, unit: number, other: number): number {
  const px = fight.xAt(unit, fight.now) - fight.xAt(other, fight.now);
  const py = fight.yAt(unit, fight.now) - fight.yAt(other, fight.now);
  const wx = fight.vx[unit] - fight.vx[other];
  const wy = fight.vy[unit] - fight.vy[other];
  const reach = fight.radius[unit] + fight.radius[other];
  const b = px * wx + py * wy;
  if (b >= 0) return Infinity;
  const c = px * px + py * py - reach * reach;
  if (c <= 0) return fight.now;
  const a = wx * wx + wy * wy;
  const root = b * b - a * c;
  return root < 0 ? Infinity : fight.now + microsecondsUp((0 - b - Math.sqrt(root)) / a);
}
