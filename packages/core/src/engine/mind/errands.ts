/** Where a unit goes that does not simply look to its target: patrols, wandering, the way home, answers, and ways around walls. */
import { DOING } from '../../record/doing';
import { EVENT, GONE } from '../../record/log';
import { turnInStep } from '../body/facing';
import { cosine, sine } from '../body/rotation';
import { forgetWay, near, stepTowards, WISH } from '../body/route';
import { arrive, hasRoom, stepAway } from '../body/steps';
import type { Fight } from '../fight';
import { depart } from '../harm/death';
import { heal } from '../harm/healing';
import { NOBODY, URGE } from '../numbers';
import { DO } from '../unit-tables';
import { PURPOSE } from '../time/chance';
import { PER_MICROSECOND, RETHINK } from '../tuning';
import { shelter } from './changes';
import { follow } from './following';
import { goOn, pursueGoal, rest, setGoal, strafeSide, turnRound } from './going';
import { roam } from './roaming';
import { setUrge } from './urges';

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
      if (state.roams) return roam(fight, unit, most, state.roams, state.radius);
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
      return follow(fight, unit, most, state);
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
