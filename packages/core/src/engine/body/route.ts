/** The way to a place around walls: straight, or by a way point that is kept for a while. */
import type { Fight } from '../fight';
import { WAY_LASTS } from '../tuning';

/** The way is straight, or leads by a way point. */
const STRAIGHT = 0;

const DETOUR = 1;

/** Where the last question led. */
export const WISH = { x: 0, y: 0 };

/** Direction of the last `route`, a unit vector. */
export const WAY = { x: 1, y: 0 };

/** What it knew of its way no longer holds: it looks again when it next goes anywhere. */
export function forgetWay(fight: Fight, unit: number): void {
  fight.wayUntil[unit] = 0;
}

/** The direction in which a unit should set out for a place, around walls; its way point is kept for a while. */
function route(fight: Fight, unit: number, toX: number, toY: number): void {
  const { ground, now } = fight;
  const x = fight.x[unit];
  const y = fight.y[unit];
  const kind = fight.kinds[unit];
  let aimX = toX;
  let aimY = toY;
  if (ground.isBounded(kind.ground)) {
    const arrived = fight.wayGoal[unit] !== STRAIGHT && near(x, y, fight.wayX[unit], fight.wayY[unit], fight.radius[unit]);
    if (now >= fight.wayUntil[unit] || arrived) {
      fight.wayUntil[unit] = now + WAY_LASTS;
      if (ground.clearWay(kind.ground, x, y, toX, toY, fight.radius[unit])) {
        fight.wayGoal[unit] = STRAIGHT;
        // A straight way is checked more often than a detour: the next wall may be near.
        fight.wayUntil[unit] = now + WAY_LASTS / 4;
      } else if (ground.wayTowards(kind.ground, x, y, toX, toY, fight.radius[unit])) {
        fight.wayGoal[unit] = DETOUR;
        fight.wayX[unit] = ground.x;
        fight.wayY[unit] = ground.y;
      } else fight.wayGoal[unit] = STRAIGHT;
    }
    if (fight.wayGoal[unit] !== STRAIGHT) {
      aimX = fight.wayX[unit];
      aimY = fight.wayY[unit];
    }
  }
  const dx = aimX - x;
  const dy = aimY - y;
  const length = Math.sqrt(dx * dx + dy * dy);
  WAY.x = length > 0 ? dx / length : fight.fx[unit];
  WAY.y = length > 0 ? dy / length : fight.fy[unit];
}

export function near(x: number, y: number, toX: number, toY: number, distance: number): boolean {
  const dx = toX - x;
  const dy = toY - y;
  return dx * dx + dy * dy <= distance * distance;
}

/** A step of so many metres along the way to a place, into WISH. */
export function stepTowards(fight: Fight, unit: number, toX: number, toY: number, distance: number): void {
  route(fight, unit, toX, toY);
  WISH.x = fight.x[unit] + WAY.x * distance;
  WISH.y = fight.y[unit] + WAY.y * distance;
}
