/** Where a unit goes that does not simply look to its target: patrols, wandering, the way home, answers, and ways around walls. */
import { DOING } from '../../record/doing';
import { EVENT, GONE } from '../../record/log';
import { turnInStep } from '../body/facing';
import { cosine, sine } from '../body/rotation';
import { forgetWay, near, stepTowards, WAY, WISH } from '../body/route';
import type { Fight } from '../fight';
import { depart } from '../harm/death';
import { heal } from '../harm/healing';
import { NOBODY, URGE } from '../numbers';
import { DO } from '../tables';
import { PURPOSE } from '../time/chance';
import { PER_MICROSECOND, RETHINK, RETREAT_SECONDS } from '../tuning';
import { shelter } from './changes';
import { goOn, pursueGoal, rest, setGoal, strafeSide, turnRound } from './going';
import { setUrge } from './urges';

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

function hasRoom(fight: Fight, unit: number, dx: number, dy: number, distance: number): boolean {
  const { ground } = fight;
  const r = fight.radius[unit];
  const toX = fight.x[unit] + dx * distance;
  const toY = fight.y[unit] + dy * distance;
  if (Math.abs(toX) > ground.halfWidth - r || Math.abs(toY) > ground.halfDepth - r) return false;
  return ground.clearWay(fight.kinds[unit].ground, fight.x[unit], fight.y[unit], toX, toY, r);
}

/**
 * Where a unit on an errand would be at the step's end, into WISH.
 * @param most m it can go in this step at its state's pace
 */
export function goOnErrand(fight: Fight, unit: number, most: number, step: number): void {
  WISH.x = fight.x[unit];
  WISH.y = fight.y[unit];
  if (fight.urge[unit] !== URGE.none) return followUrge(fight, unit, step);
  const state = fight.kinds[unit].states[fight.state[unit]];
  switch (state.does) {
    case DO.strafe:
      return strafe(fight, unit, most);
    case DO.patrol:
      return patrol(fight, unit, most);
    case DO.wander:
      return wander(fight, unit, most, fight.homeX[unit], fight.homeY[unit], state.radius);
    case DO.search:
      return wander(fight, unit, most, fight.knownX[unit], fight.knownY[unit], state.radius);
    case DO.home:
      return arrive(fight, unit, fight.homeX[unit], fight.homeY[unit], most);
    case DO.goTo: {
      const place = fight.compiled.places[state.toPoint];
      if (place) arrive(fight, unit, place.x, place.y, most);
      return;
    }
    case DO.follow:
      return follow(fight, unit, most, state.toType, state.toRole, state.far);
  }
}

/** An answer, a place to be at, the way home: whatever the state says. */
function followUrge(fight: Fight, unit: number, step: number): void {
  const free = fight.now < fight.staggeredUntil[unit] ? 0 : 1 - fight.slowed[unit];
  switch (fight.urge[unit]) {
    case URGE.evade: {
      const left = Math.max(0, Math.min(step, (fight.urgeUntil[unit] - fight.now) * PER_MICROSECOND));
      const distance = fight.urgeSpeed[unit] * free * left;
      WISH.x += fight.urgeX[unit] * distance;
      WISH.y += fight.urgeY[unit] * distance;
      return;
    }
    case URGE.goTo:
      return arrive(fight, unit, fight.urgeX[unit], fight.urgeY[unit], fight.urgeSpeed[unit] * fight.mobility[unit] * step);
    case URGE.home:
      if (near(fight.x[unit], fight.y[unit], fight.homeX[unit], fight.homeY[unit], fight.radius[unit])) return comeHome(fight, unit);
      return arrive(fight, unit, fight.homeX[unit], fight.homeY[unit], fight.kinds[unit].run * fight.mobility[unit] * step);
  }
}

/** Home again: whole where its leash says so, gone for good, or on the watch once more. */
function comeHome(fight: Fight, unit: number): void {
  const kind = fight.kinds[unit];
  setUrge(fight, unit, URGE.none);
  shelter(fight, unit, kind.states[fight.state[unit]].invulnerable);
  fight.log.add(fight.now, EVENT.home, unit, NOBODY, 0);
  if (kind.leashGone) {
    setUrge(fight, unit, URGE.still);
    fight.leaving.push(unit);
    return;
  }
  if (kind.leashHeals) heal(fight, unit, unit, -2, kind.maxHealth);
  fight.sayDoing(unit, DOING.unaware);
}

/** Those who came home for good leave once everybody has moved. */
export function leaveField(fight: Fight): void {
  for (const unit of fight.leaving) if (fight.isAlive[unit]) depart(fight, unit, GONE.home);
  fight.leaving.length = 0;
}

/** Towards a place and no farther; whoever has no target looks where it goes. */
function arrive(fight: Fight, unit: number, toX: number, toY: number, most: number): void {
  const dx = toX - fight.x[unit];
  const dy = toY - fight.y[unit];
  const left = Math.sqrt(dx * dx + dy * dy);
  if (left === 0 || most <= 0) return;
  stepTowards(fight, unit, toX, toY, Math.min(most, left));
  if (fight.target[unit] === NOBODY && !fight.held[unit]) turnInStep(fight, unit, WAY.x, WAY.y);
}

function patrol(fight: Fight, unit: number, most: number): void {
  const { patrol: points, backAndForth } = fight.kinds[unit].states[fight.state[unit]];
  const point = points[fight.stop[unit] % points.length];
  const x = fight.homeX[unit] + point.x;
  const y = fight.homeY[unit] + point.y;
  if (!near(fight.x[unit], fight.y[unit], x, y, fight.radius[unit] / 4)) return arrive(fight, unit, x, y, most);
  if (fight.waitUntil[unit] === 0) rest(fight, unit, fight.now + point.pause);
  if (point.turns) turnInStep(fight, unit, point.fx, point.fy);
  if (fight.now < fight.waitUntil[unit]) return;
  forgetWay(fight, unit);
  goOn(fight, unit, points.length, backAndForth);
}

/** From one place within the radius to another, with a rest between. */
function wander(fight: Fight, unit: number, most: number, x: number, y: number, radius: number): void {
  if (fight.now < fight.waitUntil[unit]) return;
  if (fight.hasGoal[unit] && near(fight.x[unit], fight.y[unit], fight.goalX[unit], fight.goalY[unit], fight.radius[unit] / 2)) {
    pursueGoal(fight, unit, false);
    rest(fight, unit, fight.now + Math.floor(fight.chance(unit, PURPOSE.wander) * 4) * RETHINK);
    return;
  }
  if (!fight.hasGoal[unit]) {
    const angle = fight.chance(unit, PURPOSE.wander) * 360;
    const distance = Math.sqrt(fight.chance(unit, PURPOSE.wander)) * radius;
    setGoal(fight, unit, x + cosine(angle) * distance, y + sine(angle) * distance);
    forgetWay(fight, unit);
    if (!fight.ground.isFree(fight.kinds[unit].ground, fight.goalX[unit], fight.goalY[unit], fight.radius[unit])) {
      rest(fight, unit, fight.now + RETHINK);
      return;
    }
    pursueGoal(fight, unit, true);
  }
  arrive(fight, unit, fight.goalX[unit], fight.goalY[unit], most);
}

/** The nearest friend of a type or role, up to a distance. */
function follow(fight: Fight, unit: number, most: number, type: number, role: number, far: number): void {
  let leader: number = NOBODY;
  let least = Infinity;
  for (const friend of fight.living[fight.side[unit]]) {
    if (friend === unit || (fight.kinds[friend].type !== type && fight.kinds[friend].role !== role)) continue;
    const gap = fight.gap(unit, friend);
    if (gap >= least) continue;
    least = gap;
    leader = friend;
  }
  if (leader === NOBODY || least <= far) return;
  arrive(fight, unit, fight.x[leader], fight.y[leader], Math.min(most, least - far));
}

/** Around its target at the distance it keeps, to the side it chose; where that is closed, the other way. */
function strafe(fight: Fight, unit: number, most: number): void {
  if (fight.target[unit] === NOBODY || !fight.alerted[unit] || most <= 0) return;
  const dx = fight.bearingX[unit];
  const dy = fight.bearingY[unit];
  const gap = fight.bearingGap[unit];
  if (gap > fight.far[unit])
    return stepTowards(fight, unit, fight.x[fight.target[unit]], fight.y[fight.target[unit]], Math.min(most, gap - fight.far[unit]));
  if (gap < fight.near[unit]) return stepAway(fight, unit, dx, dy, Math.min(most, fight.near[unit] - gap));
  const side = strafeSide(fight, unit);
  if (!hasRoom(fight, unit, 0 - dy * side, dx * side, Math.max(most, fight.radius[unit]))) turnRound(fight, unit);
  WISH.x = fight.x[unit] - dy * fight.strafeSign[unit] * most;
  WISH.y = fight.y[unit] + dx * fight.strafeSign[unit] * most;
}
