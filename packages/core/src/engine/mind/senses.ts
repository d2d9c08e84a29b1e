/** Who notices foes, who still knows where they are, who has lost them; calls for help; the leash. */
import { DOING } from '../../record/doing';
import { BREAK, EVENT } from '../../record/log';
import { microsecondsUp } from '../../record/time';
import { within } from '../body/facing';
import { inReach, squareInReach } from '../body/reach';
import { forgetWay } from '../body/route';
import type { Fight } from '../fight';
import { interrupt } from '../harm/interrupt';
import { drawInitialDelays } from '../harm/readiness';
import { NOBODY, PHASE, URGE } from '../numbers';
import { PURPOSE } from '../time/chance';
import { DUE } from '../time/queue';
import { shelter } from './changes';
import { thingToStrike } from './assault';
import { setUrge } from './urges';
import { dropTarget, reconsiderAt } from './wanted';

/** Phase of a step: looks, and what comes of them. */
export function look(fight: Fight): void {
  const { alive, alerted, target, bearingLength, lose, lastSeen, now } = fight;
  const walled = fight.ground.walls.length > 0;
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    if (alerted[unit]) {
      if (target[unit] >= 0 && inReach(bearingLength[unit], lose[unit]) && (!walled || stillSees(fight, unit))) {
        lastSeen[unit] = now;
        if (fight.searches) {
          fight.knownX[unit] = fight.x[target[unit]];
          fight.knownY[unit] = fight.y[target[unit]];
        }
      } else if (target[unit] >= 0 && target[unit] === thingToStrike(fight, unit)) lastSeen[unit] = now;
      else maybeLose(fight, unit);
      if (fight.leashed[unit]) holdLeash(fight, unit);
    } else if (!fight.noticing[unit] && now >= fight.nextLook[unit]) lookAround(fight, unit);
  }
}

/** In rounds at the start of its turn: whom it notices, and whether it still knows where its target is. */
export function lookInTurn(fight: Fight, unit: number): void {
  const kind = fight.kinds[unit];
  const target = fight.target[unit];
  if (!fight.alerted[unit]) {
    if (kind.temper === 'hostile' && perceivesFoe(fight, unit)) alert(fight, unit);
  } else if (target >= 0 && withinCentres(fight, unit, target, kind.lose) && (!kind.needsLine || seesPast(fight, unit, target))) {
    fight.lastSeen[unit] = fight.now;
  } else maybeLose(fight, unit);
}

/** Looked up as often as it looks; between two looks it goes by the last. */
function stillSees(fight: Fight, unit: number): boolean {
  const kind = fight.kinds[unit];
  if (!kind.needsLine) return true;
  if (fight.now >= fight.nextLook[unit]) {
    setNextLook(fight, unit);
    if (!seesPast(fight, unit, fight.target[unit])) return false;
    fight.seenFor[unit] = 1;
    return true;
  }
  return fight.now - fight.lastSeen[unit] <= kind.lookEvery;
}

/** Looks fall on the first step at or after birth + k × interval. */
function setNextLook(fight: Fight, unit: number): void {
  const { lookEvery } = fight.kinds[unit];
  if (lookEvery === 0) return;
  const done = Math.floor((fight.now - fight.bornAt[unit]) / lookEvery);
  fight.nextLook[unit] = fight.bornAt[unit] + (done + 1) * lookEvery;
}

function lookAround(fight: Fight, unit: number): void {
  const kind = fight.kinds[unit];
  setNextLook(fight, unit);
  if (kind.temper !== 'hostile' || fight.urge[unit] === URGE.home) return;
  if (!perceivesFoe(fight, unit)) {
    fight.seenFor[unit] = 0;
    return;
  }
  if (kind.buildUp > 0) {
    fight.seenFor[unit] += Math.max(kind.lookEvery, fight.compiled.step);
    if (fight.seenFor[unit] < kind.buildUp) return;
  }
  const wait = microsecondsUp(fight.around(unit, PURPOSE.reaction, kind.reactionMean, kind.reactionSpread));
  if (wait === 0) return alert(fight, unit);
  fight.noticing[unit] = 1;
  fight.queue.push(fight.now + wait, DUE.notice, unit, 0, 0);
}

function perceivesFoe(fight: Fight, unit: number): boolean {
  const { hearing } = fight.kinds[unit];
  const foes = fight.living[1 - fight.side[unit]];
  for (let i = 0; i < foes.length; i++) {
    if (seesUnit(fight, unit, foes[i])) return true;
    if (hearing > 0 && withinCentres(fight, unit, foes[i], hearing) && makesNoise(fight, foes[i])) return true;
  }
  return false;
}

/** Within sight distance and angle, and past the walls. */
export function seesUnit(fight: Fight, unit: number, other: number): boolean {
  const kind = fight.kinds[unit];
  if (!withinCentres(fight, unit, other, kind.sight) || !within(fight, unit, other, kind.sightCosine)) return false;
  return !kind.needsLine || seesPast(fight, unit, other);
}

/** Whether no wall stands between its eye and half the other's height. */
export function seesPast(fight: Fight, unit: number, other: number): boolean {
  return clearFrom(fight, unit, fight.kinds[unit].eye, other);
}

/** Whether no wall stands between a height above a unit and half the other's height. @param height m */
export function clearFrom(fight: Fight, unit: number, height: number, other: number): boolean {
  const { now, ground } = fight;
  if (ground.walls.length === 0 || needsNoLine(fight, unit, other)) return true;
  const half = fight.kinds[other].height / 2;
  return !ground.blocked(fight.xAt(unit, now), fight.yAt(unit, now), height, fight.xAt(other, now), fight.yAt(other, now), half);
}

/** Whoever runs or attacks is heard. */
function makesNoise(fight: Fight, unit: number): boolean {
  if (fight.phase[unit] !== PHASE.idle) return true;
  const { walk } = fight.kinds[unit];
  return fight.vx[unit] * fight.vx[unit] + fight.vy[unit] * fight.vy[unit] > walk * walk * 1.0001;
}

/** In rounds nothing stands between neighbours; without ground nothing between anybody. */
function needsNoLine(fight: Fight, unit: number, other: number): boolean {
  return fight.inTurns && (fight.board === null || fight.gap(unit, other) <= 1);
}

/** Line from the muzzle to half the target's height, for shots; looked up once an instant, but in turns, where one sees whole ways gone. */
export function lineToTarget(fight: Fight, unit: number, target: number): boolean {
  if (fight.ground.walls.length === 0 || needsNoLine(fight, unit, target)) return true;
  if (fight.lineAt[unit] === fight.now && fight.lineTo[unit] === target && !fight.inTurns) return fight.lineClear[unit] === 1;
  const { now, ground } = fight;
  const half = fight.kinds[target].height / 2;
  const clear = !ground.blocked(
    fight.xAt(unit, now),
    fight.yAt(unit, now),
    fight.kinds[unit].muzzle,
    fight.xAt(target, now),
    fight.yAt(target, now),
    half,
  );
  fight.lineAt[unit] = now;
  fight.lineTo[unit] = target;
  fight.lineClear[unit] = clear ? 1 : 0;
  return clear;
}

/** Centre to centre, in the plane; in rounds by cells. */
export function withinCentres(fight: Fight, a: number, b: number, distance: number): boolean {
  if (fight.inTurns) return inReach(fight.gap(a, b), distance);
  const dx = fight.xAt(b, fight.now) - fight.xAt(a, fight.now);
  const dy = fight.yAt(b, fight.now) - fight.yAt(a, fight.now);
  return squareInReach(dx * dx + dy * dy, distance);
}

/** Its eyes open where it stands. */
export function lookAgain(fight: Fight, unit: number): void {
  fight.noticing[unit] = 0;
  fight.nextLook[unit] = fight.now;
}

/** The same for the first time: it knows of no other place yet. */
export function openEyes(fight: Fight, unit: number): void {
  lookAgain(fight, unit);
  fight.knownX[unit] = fight.homeX[unit];
  fight.knownY[unit] = fight.homeY[unit];
}

/** From now on the unit acts on what it knows, and calls its friends. Its attacks' initial delays run from its first alert. */
export function alert(fight: Fight, unit: number): void {
  const kind = fight.kinds[unit];
  fight.noticing[unit] = 0;
  if (fight.alerted[unit] || kind.temper === 'passive') return;
  if (fight.urge[unit] === URGE.home) setUrge(fight, unit, URGE.none);
  fight.alerted[unit] = 1;
  fight.lastSeen[unit] = fight.now;
  fight.log.add(fight.now, EVENT.notice, unit, NOBODY, 0);
  fight.sayDoing(unit, DOING.noTarget);
  if (fight.nextReady[unit] < 0) drawInitialDelays(fight, unit);
  if (kind.alertRadius > 0) callFriends(fight, unit, kind.alertRadius);
}

function callFriends(fight: Fight, unit: number, radius: number): void {
  const friends = fight.living[fight.side[unit]];
  for (let i = 0; i < friends.length; i++) {
    if (!fight.alerted[friends[i]] && withinCentres(fight, unit, friends[i], radius)) alert(fight, friends[i]);
  }
}

/** A foe beyond `lose`, or out of sight, is pursued for as long as the memory lasts, then forgotten. */
function maybeLose(fight: Fight, unit: number): void {
  const kind = fight.kinds[unit];
  if (fight.since(fight.lastSeen[unit]) < kind.memory || fight.now < fight.boundUntil[unit]) return;
  const foes = fight.living[1 - fight.side[unit]];
  const walled = fight.ground.walls.length > 0 && kind.needsLine;
  for (let i = 0; i < foes.length; i++) {
    if (!withinCentres(fight, unit, foes[i], kind.lose) || (walled && !seesPast(fight, unit, foes[i]))) continue;
    // It turns to whom it still sees.
    if (walled) {
      reconsiderAt(fight, unit, fight.now);
      fight.lastSeen[unit] = fight.now;
    }
    return;
  }
  forget(fight, unit);
  fight.log.add(fight.now, EVENT.lose, unit, NOBODY, 0);
}

function forget(fight: Fight, unit: number): void {
  fight.alerted[unit] = 0;
  dropTarget(fight, unit);
  fight.seenFor[unit] = 0;
  if (fight.phase[unit] === PHASE.idle) fight.sayDoing(unit, DOING.unaware);
}

/** Beyond its leash it lets go of everything and goes home at a run. */
function holdLeash(fight: Fight, unit: number): void {
  const kind = fight.kinds[unit];
  const distance = fight.apartFrom(unit, fight.homeX[unit], fight.homeY[unit]);
  if (inReach(distance, kind.leash) || fight.boundUntil[unit] > fight.now) return;
  if (fight.phase[unit] === PHASE.windup) interrupt(fight, unit, BREAK.state);
  forget(fight, unit);
  setUrge(fight, unit, URGE.home);
  forgetWay(fight, unit);
  if (kind.leashIgnores) shelter(fight, unit, true);
  fight.log.add(fight.now, EVENT.leash, unit, NOBODY, 0, distance);
  if (fight.phase[unit] === PHASE.idle) fight.sayDoing(unit, DOING.goingHome);
}
