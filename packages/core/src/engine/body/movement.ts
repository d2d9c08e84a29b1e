/** Where units go in a step: what their state wants, as far as their attack lets them, bodies giving way, walls last. */
import { SECOND } from '../../record/time';
import type { Fight } from '../fight';
import { sweepDashes } from '../harm/dashes';
import { steerShots, sweepAll } from '../harm/shots';
import { goOnErrand, leaveField } from '../mind/errands';
import { lineToTarget } from '../mind/senses';
import { DO } from '../unit-tables';
import { partBodies } from './crowd';
import { turnToTargets } from './facing';
import { stepTowards, WISH } from './route';
import { stepAway } from './steps';

/** Beside the loops that ask for them at every unit and step. */
const { hold: HOLD, approach: APPROACH, band: BAND, flee: FLEE } = DO;

/** Phase of a step: every living unit turns, and gets one straight segment from now to the step's end. */
export function move(fight: Fight): void {
  const step = (fight.stepEnd - fight.now) / SECOND;
  turnToTargets(fight);
  wishPlaces(fight, step);
  partBodies(fight);
  setSegments(fight, step);
  if (fight.leaving.length) leaveField(fight);
  if (fight.shots.flying.length) {
    steerShots(fight);
    sweepAll(fight);
  }
  if (fight.dashers.length) sweepDashes(fight);
}

/** Where each would be at the step's end if nobody were in its way. */
function wishPlaces(fight: Fight, step: number): void {
  const { alive, target, alerted, does, pace, mobility, near, far, acceleration, speed, urge, dashing } = fight;
  const { x, y, vx, vy, radius, bearingGap, bearingX, bearingY, crowd, ground } = fight;
  const { halfWidth, halfDepth } = ground;
  const walled = ground.walls.length > 0 || fight.compiled.closed.length > 1;
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    crowd.radius[i] = radius[unit];
    if (dashing[unit]) {
      // It makes its own way: nobody of the crowd meets it.
      crowd.radius[i] = 0;
      crowd.x[i] = x[unit];
      crowd.y[i] = y[unit];
      continue;
    }
    let what = does[unit];
    const hunts = target[unit] >= 0 && alerted[unit] === 1;
    if (urge[unit] !== 0 || (what > FLEE && !(hunts && engages(fight, unit)))) {
      const most = topSpeed(fight, unit, step) * step;
      goOnErrand(fight, unit, most, step);
      crowd.x[i] = WISH.x;
      crowd.y[i] = WISH.y;
      continue;
    }
    if (what > FLEE) what = APPROACH;
    let along = 0; // m towards the target; negative: away
    if (hunts && what !== HOLD) {
      if (what === FLEE) along = -Infinity;
      else {
        // Where the target will be if it goes on as it did: whoever chases its old place stays a step behind.
        const going = vx[target[unit]] * bearingX[unit] + vy[target[unit]] * bearingY[unit];
        const gap = bearingGap[unit] + going * step;
        if (gap > far[unit]) along = gap - far[unit];
        else if (what === BAND && gap < near[unit]) along = gap - near[unit];
        else if (walled && what === APPROACH && seeksLine(fight, unit)) along = gap;
      }
    }
    if (along === 0) {
      fight.setSpeed(unit, 0);
      crowd.x[i] = x[unit];
      crowd.y[i] = y[unit];
      continue;
    }
    let most = pace[unit] * mobility[unit];
    if (acceleration[unit] > 0) most = Math.min(most, speed[unit] + acceleration[unit] * step);
    fight.setSpeed(unit, most);
    along = along > 0 ? Math.min(along, most * step) : Math.max(along, 0 - most * step);
    const toX = x[unit] + bearingX[unit] * along;
    const toY = y[unit] + bearingY[unit] * along;
    if (walled && along > 0) {
      stepTowards(fight, unit, x[target[unit]], y[target[unit]], along);
      crowd.x[i] = WISH.x;
      crowd.y[i] = WISH.y;
    } else if (
      along < 0 &&
      (walled || Math.abs(toX) > halfWidth - pace[unit] - radius[unit] || Math.abs(toY) > halfDepth - pace[unit] - radius[unit])
    ) {
      stepAway(fight, unit, bearingX[unit], bearingY[unit], 0 - along);
      crowd.x[i] = WISH.x;
      crowd.y[i] = WISH.y;
    } else {
      crowd.x[i] = toX;
      crowd.y[i] = toY;
    }
  }
}

/** m/s in this step, with what acceleration allows. */
function topSpeed(fight: Fight, unit: number, step: number): number {
  let most = fight.pace[unit] * fight.mobility[unit];
  if (fight.acceleration[unit] > 0) most = Math.min(most, fight.speed[unit] + fight.acceleration[unit] * step);
  fight.setSpeed(unit, most);
  return most;
}

/** On its way somewhere, but leaves it to fight. */
function engages(fight: Fight, unit: number): boolean {
  const { does, onTheWay, strikes } = fight.kinds[unit].states[fight.state[unit]];
  if (strikes !== 'no') return fight.mayAttack[unit] === 1;
  return onTheWay === 'engage' && does !== DO.follow && does !== DO.strafe && fight.mayAttack[unit] === 1;
}

/** Near enough but with a wall between: it goes on, unless it was told where to stop. */
function seeksLine(fight: Fight, unit: number): boolean {
  return !fight.kinds[unit].states[fight.state[unit]].stopsAnyway && !lineToTarget(fight, unit, fight.target[unit]);
}

/** Walls and the arena's edge come last: nobody ends a step outside or in a wall. */
function setSegments(fight: Fight, step: number): void {
  const { alive, x, y, crowd, ground } = fight;
  const { halfWidth, halfDepth } = ground;
  const perSecond = 1 / step;
  const walled = ground.walls.length > 0 || fight.compiled.closed.length > 1;
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    if (fight.dashing[unit]) continue;
    if (walled && (crowd.x[i] !== x[unit] || crowd.y[i] !== y[unit])) {
      ground.slide(fight.kinds[unit].ground, x[unit], y[unit], crowd.x[i], crowd.y[i], crowd.radius[i]);
      fight.goTo(unit, ground.x, ground.y, perSecond);
      continue;
    }
    const toX = crowd.x[i];
    const toY = crowd.y[i];
    const limitX = halfWidth - crowd.radius[i];
    const limitY = halfDepth - crowd.radius[i];
    const within = toX <= limitX && toX >= 0 - limitX && toY <= limitY && toY >= 0 - limitY;
    fight.goTo(unit, within ? toX : inside(toX, limitX), within ? toY : inside(toY, limitY), perSecond);
  }
}

function inside(to: number, limit: number): number {
  return to > limit ? Math.max(limit, 0) : to < 0 - limit ? Math.min(0 - limit, 0) : to;
}
