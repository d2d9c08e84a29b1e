/** One use of an attack: wind-up, hits at their own instants, recovery; then combo, pause and the next choice. */
import type { Delivery } from '../../model/delivery';
import { DOING } from '../../record/doing';
import { EVENT } from '../../record/log';
import { microsecondsUp } from '../../record/time';
import { turn, turnTo } from '../body/facing';
import type { Fight } from '../fight';
import { hindrance } from '../mind/hurdles';
import { PHASE } from '../numbers';
import { takeRound } from '../player/supplies';
import { announce } from '../player/threats';
import type { CompiledAttack } from '../unit-tables';
import { tryAgainAt } from '../time/again';
import { PURPOSE } from '../time/chance';
import { DUE } from '../time/queue';
import { summon } from '../waves/spawns';
import { giveAid } from './aid';
import { startCooldown, takeCharge } from './readiness';
import { aimOf, launch } from './shots';
import { bestPlace } from '../rounds/area-place';
import { lungeAt } from '../rounds/places';
import { freeSlots, takeSlot } from './slots';
import { markBurst, strikeArea, strikeMelee, strikeOnLine, strikeTarget } from './strike';
import { setEnergy } from './vitals';

export function startAttack(fight: Fight, unit: number, number: number, target: number, attack: CompiledAttack): void {
  const { now } = fight;
  if (fight.observer) fight.observer(fight, unit);
  fight.beginAttack(unit, number, target, attack);
  if (!attack.cooldownFromEnd) startCooldown(fight, unit, number, attack);
  pay(fight, unit, number, attack);
  takeSlot(fight, unit, attack, target);
  if (target !== unit) aim(fight, unit, target, attack);
  if (attack.areaAbout === 'mark') setMark(fight, unit, target, attack);
  fight.setMobility(unit);
  if (fight.mobility[unit] === 0) fight.stand(unit);
  fight.log.add(now, EVENT.start, unit, target, number, target === unit ? 0 : fight.gap(unit, target));
  fight.setDoing(unit, DOING.attacking); // the start says it
  const { aids } = attack.traits;
  const { dash } = attack;
  if (dash) fight.queue.push(now + dash.start, DUE.dash, unit, fight.serial[unit], 0);
  if (!dash || dash.hurts === 'no') fight.queue.push(fight.hitsAt[unit], aids ? DUE.aid : DUE.hit, unit, fight.serial[unit], 0);
  fight.queue.push(fight.hitsAt[unit], DUE.phaseEnd, unit, fight.serial[unit], PHASE.windup);
  announce(fight, unit, attack);
}

/** Energy, a charge, a round: spent when the wind-up starts. */
function pay(fight: Fight, unit: number, number: number, attack: CompiledAttack): void {
  if (attack.energy > 0) setEnergy(fight, unit, Math.max(0, fight.energyNow(unit) - attack.energy));
  if (attack.charges > 0) takeCharge(fight, unit, number, attack);
  const { player } = fight.kinds[unit];
  if (player !== null && player.rounds > 0 && player.takesRound[number]) takeRound(fight, unit);
}

function aim(fight: Fight, unit: number, target: number, attack: CompiledAttack): void {
  if (attack.lead === 0) return turnTo(fight, unit, target);
  const [dx, dy] = aimOf(fight, unit, target, attack);
  turn(fight, unit, dx, dy);
}

/** Where a marked area will burst: where its target is now; in turns where it strikes most of those that it is for. */
function setMark(fight: Fight, unit: number, target: number, attack: CompiledAttack): void {
  if (fight.board) {
    const { x, y } = bestPlace(fight, unit, target, attack);
    fight.markX[unit] = x;
    fight.markY[unit] = y;
    return;
  }
  fight.markX[unit] = fight.xAt(target, fight.now);
  fight.markY[unit] = fight.yAt(target, fight.now);
}

/** A hit instant is due: its target's life, range and line are looked up again. Landings are collected, not applied. */
export function settleHit(fight: Fight, unit: number, index: number): void {
  const number = fight.attack[unit];
  const attack = fight.attackOf(unit, number);
  const target = fight.attackTarget[unit];
  if (index === 0 && attack.turns && fight.isAlive[target] && target !== unit) {
    aim(fight, unit, target, attack);
    if (attack.areaAbout === 'mark') setMark(fight, unit, target, attack);
  }
  if (fight.inTurns) return settleInRounds(fight, unit, number, attack, target);
  nextHit(fight, unit, index, attack, DUE.hit);
  SETTLES[attack.delivery]?.(fight, unit, number, attack, target);
}

/** What a hit instant does; those that touch, and those that help, have none. */
const SETTLES: Record<Delivery, ((fight: Fight, unit: number, number: number, attack: CompiledAttack, target: number) => void) | null> = {
  melee: strikeMelee,
  hitscan: strikeOnLine,
  projectile: launch,
  area: burstOrStrike,
  contact: null,
  self: null,
  support: null,
  summon: (fight, unit, _, attack) => summon(fight, unit, attack),
};

/** In rounds nothing flies: whatever is shot meets its target, or does not, in the turn in which it strikes. */
const SETTLES_IN_ROUNDS: typeof SETTLES = { ...SETTLES, hitscan: strikeTarget, projectile: strikeTarget };

/** Every hit of a use falls in the turn in which it strikes. */
function settleInRounds(fight: Fight, unit: number, number: number, attack: CompiledAttack, target: number): void {
  const settle = SETTLES_IN_ROUNDS[attack.delivery];
  const lunge = fight.kinds[unit].turns!.lunges[number];
  if (lunge > 0 && attack.traits.strikes && fight.board && target !== unit && fight.isAlive[target]) {
    fight.log.add(fight.now, EVENT.dash, unit, target, number, lungeAt(fight, unit, target, lunge));
  }
  for (let hit = 0; hit < attack.hits; hit++) settle?.(fight, unit, number, attack, target);
}

function nextHit(fight: Fight, unit: number, index: number, attack: CompiledAttack, due: number): void {
  if (index + 1 >= attack.hits) return;
  fight.queue.push(fight.now + attack.every, due, unit, fight.serial[unit], index + 1);
}

/** An area strikes at once, or leaves a mark that bursts later whatever becomes of whoever left it. */
function burstOrStrike(fight: Fight, unit: number, number: number, attack: CompiledAttack, target: number): void {
  const { now } = fight;
  if (attack.areaAbout === 'target' && !fight.isAlive[target]) {
    fight.log.add(now, EVENT.miss, unit, target, number, 7);
    return;
  }
  const about = attack.areaAbout === 'self' ? unit : target;
  const x = attack.areaAbout === 'mark' ? fight.markX[unit] : fight.xAt(about, now);
  const y = attack.areaAbout === 'mark' ? fight.markY[unit] : fight.yAt(about, now);
  if (attack.areaDelay > 0) markBurst(fight, unit, number, attack.areaDelay, x, y);
  else strikeArea(fight, unit, number, attack, fight.use[unit], fight.side[unit], x, y, fight.fx[unit], fight.fy[unit]);
}

/** Help is due: for itself, for a friend, for a fallen one. It is given at once, before any hit of the same instant. */
export function settleAid(fight: Fight, unit: number, index: number): void {
  const number = fight.attack[unit];
  const attack = fight.attackOf(unit, number);
  nextHit(fight, unit, index, attack, DUE.aid);
  giveAid(fight, unit, fight.attackTarget[unit], number, attack);
}

/** A phase of an attack is over; phases without length are passed through at once. */
export function endPhase(fight: Fight, unit: number, phase: number): void {
  const number = fight.attack[unit];
  const attack = fight.attackOf(unit, number);
  if (phase === PHASE.windup) {
    fight.strikesNow(unit);
    if (attack.active > 0) return fight.queue.push(fight.ends(unit, attack.active), DUE.phaseEnd, unit, fight.serial[unit], PHASE.active);
  }
  if (phase !== PHASE.recovery) {
    fight.recovers(unit);
    if (attack.recovery > 0)
      return fight.queue.push(fight.ends(unit, attack.recovery), DUE.phaseEnd, unit, fight.serial[unit], PHASE.recovery);
  }
  finishAttack(fight, unit, number, attack);
}

function finishAttack(fight: Fight, unit: number, number: number, attack: CompiledAttack): void {
  fight.idle(unit);
  freeSlots(fight, unit);
  if (attack.cooldownFromEnd) startCooldown(fight, unit, number, attack);
  const { pauseMin, pauseMax } = fight.kinds[unit];
  const pause = pauseMax > pauseMin ? pauseMin + (pauseMax - pauseMin) * fight.chance(unit, PURPOSE.pause) : pauseMin;
  fight.pauseFor(unit, microsecondsUp(pause));
  if (!fight.alerted[unit]) return fight.sayDoing(unit, DOING.unaware);
  const hindered = hindrance(fight, unit);
  fight.sayDoing(unit, hindered !== 0 ? hindered : pause > 0 ? DOING.pause : DOING.cooldown);
  if (attack.next >= 0) {
    fight.mayFollow(unit, attack.next, attack.nextWindow);
    tryAgainAt(fight, unit, fight.now);
  } else tryAgainAt(fight, unit, fight.pauseUntil[unit]);
}
