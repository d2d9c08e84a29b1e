/** One step of a unit, into WISH: towards a place, or away from what it keeps clear of. */
import type { Fight } from '../fight';
import { NOBODY } from '../numbers';
import { RETREAT_SECONDS } from '../tuning';
import { turnInStep } from './facing';
import { cosine, sine } from './rotation';
import { stepTowards, WAY, WISH } from './route';

/**
 * A step away from what lies in the direction (dx, dy), into WISH: straight back where there is room for half a second's
 * run, else slanting to the side with more room, else sideways, so that nobody backs into a corner for good.
 */
export function stepAway(fight: Fight, unit: number, dx: number, dy: number, distance: number): void {
  const look = Math.max(distance, fight.pace[unit] * RETREAT_SECONDS);
  let awayX = 0 - dx;
  let awayY = 0 - dy;
  if (!hasRoom(fight, unit, awayX, awayY, look)) {
    for (let turn = 45; turn <= 135; turn += 45) {
      const c = cosine(turn);
      const s = sine(turn);
      const leftX = 0 - dx * c + dy * s;
      const leftY = 0 - dx * s - dy * c;
      const rightX = 0 - dx * c - dy * s;
      const rightY = dx * s - dy * c;
      const left = hasRoom(fight, unit, leftX, leftY, look);
      const right = hasRoom(fight, unit, rightX, rightY, look);
      if (!left && !right) continue;
      // Of two clear sides the one towards the middle.
      const inward = 0 - fight.x[unit] * (leftX - rightX) - fight.y[unit] * (leftY - rightY) >= 0;
      const useLeft = left && (!right || inward);
      awayX = useLeft ? leftX : rightX;
      awayY = useLeft ? leftY : rightY;
      break;
    }
  }
  WISH.x = fight.x[unit] + awayX * distance;
  WISH.y = fight.y[unit] + awayY * distance;
}

/** Whether a body can go so far in a direction. */
export function hasRoom(fight: Fight, unit: number, dx: number, dy: number, distance: number): boolean {
  const { ground } = fight;
  const r = fight.radius[unit];
  const toX = fight.x[unit] + dx * distance;
  const toY = fight.y[unit] + dy * distance;
  if (Math.abs(toX) > ground.halfWidth - r || Math.abs(toY) > ground.halfDepth - r) return false;
  return ground.clearWay(fight.kinds[unit].ground, fight.x[unit], fight.y[unit], toX, toY, r);
}

/** Towards a place and no farther; whoever has no target looks where it goes. */
export function arrive(fight: Fight, unit: number, toX: number, toY: number, most: number): void {
  const dx = toX - fight.x[unit];
  const dy = toY - fight.y[unit];
  const left = Math.sqrt(dx * dx + dy * dy);
  if (left === 0 || most <= 0) return;
  stepTowards(fight, unit, toX, toY, Math.min(most, left));
  if (fight.target[unit] === NOBODY && !fight.held[unit]) turnInStep(fight, unit, WAY.x, WAY.y);
}
