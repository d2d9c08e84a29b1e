/**
 * The simulated player and what is coming: an attack is announced, seen or not, reacted to, and answered in the order
 * the player would try, where an answer can still work in the time left. Whether it does is decided by the fight itself;
 * for every hit that lands all the same it is on record which answer was tried and why it failed.
 */
import { BREAK, DASH_END, VERDICT } from '../../record/log';
import { microsecondsUp, SECOND } from '../../record/time';
import type { Threat } from '../records';
import type { Fight } from '../fight';
import { startAttack } from '../harm/attack';
import { interrupt } from '../harm/interrupt';
import { hurdleOf } from '../mind/hurdles';
import { setUrge, urgeTowards } from '../mind/urges';
import { ANSWER, DASHING, NOBODY, PHASE, TASK, URGE } from '../numbers';
import type { CompiledAnswer, CompiledAttack } from '../unit-tables';
import { tryAgainAt } from '../time/again';
import { DUE } from '../time/queue';
import { openBlock, openDodge } from './guard';
import { useAnswer } from './supplies';
import { dropTask } from './task';
import { comesStraight, middleOf, outAt, ranged, settledAfter, wayOut } from './coming';
import { breaks, say } from './threats';

/** The reaction time has passed: the first answer that can still work is given. */
export function decide(fight: Fight, member: number, use: number): void {
  const threat = fight.threats[member].find((one) => one.use === use);
  if (!threat || threat.off || !fight.isAlive[member]) return;
  const attack = fight.attackOf(threat.attacker, threat.attack);
  if (fight.now > threat.hitAt || fight.now < fight.staggeredUntil[member] || fight.urge[member] === URGE.evade) {
    return say(fight, member, threat, -1, VERDICT.tooLate);
  }
  const { answers } = fight.kinds[member].player!;
  let verdict: number = VERDICT.none;
  for (let a = 0; a < answers.length; a++) {
    if (!(attack.answers & (1 << answers[a].kind))) continue;
    const outcome = attempt(fight, member, a, answers[a], threat, attack);
    if (outcome === VERDICT.tried) return say(fight, member, threat, answers[a].kind, VERDICT.tried);
    verdict = verdict === VERDICT.none ? outcome : Math.max(verdict, outcome);
  }
  say(fight, member, threat, -1, verdict);
}

/** Tries one answer. @returns tried, or why it can't work */
function attempt(fight: Fight, member: number, number: number, answer: CompiledAnswer, threat: Threat, attack: CompiledAttack): number {
  const { now } = fight;
  if (answer.cooldown > 0 && now < fight.answerReady[member][number]) return VERDICT.cooldown;
  const free = freeToMove(fight, member);
  if (answer.kind === ANSWER.dodge && !answer.protects) return stepAside(fight, member, number, answer, threat, attack, free);
  switch (answer.kind) {
    case ANSWER.dodge:
    case ANSWER.block: {
      // Its window is laid about the hit.
      const from = Math.max(now, threat.hitAt - Math.floor(answer.window / 2));
      if (free > threat.hitAt) return VERDICT.tooLate;
      useAnswer(fight, member, number, Math.max(from, free) + answer.cooldown);
      fight.queue.push(Math.max(from, free), answer.kind === ANSWER.dodge ? DUE.dodge : DUE.block, member, number, threat.attacker);
      return VERDICT.tried;
    }
    case ANSWER.stepOut:
      return stepOut(fight, member, threat, attack, free);
    case ANSWER.breakLine:
      return breakLine(fight, member, threat, attack, free);
    case ANSWER.interrupt:
      return strikeFirst(fight, member, threat, attack);
    default:
      return VERDICT.none;
  }
}

/** When a unit may move away: at once, unless an attack of its own roots it past its wind-up. */
function freeToMove(fight: Fight, member: number): number {
  const phase = fight.phase[member];
  if (phase === PHASE.idle || phase === PHASE.windup) return fight.now;
  const { moving, windup, active, recovery } = fight.attackOf(member, fight.attack[member]);
  return moving > 0 ? fight.now : fight.attackStart[member] + windup + active + recovery;
}

/** A dodge begins: for its window nothing that allows it lands; it carries the member across the attacker's way. */
export function beginDodge(fight: Fight, member: number, number: number, attacker: number): void {
  if (!fight.isAlive[member] || fight.now < fight.staggeredUntil[member]) return;
  const { window, distance, way, protects } = fight.kinds[member].player!.answers[number];
  if (protects) openDodge(fight, member, window);
  if (distance <= 0 || window <= 0) return;
  const [dx, dy] = dodgeWay(fight, member, attacker, way, distance);
  const speed = ((distance * SECOND) / window) * (1 - fight.slowed[member]);
  evade(fight, member, dx, dy, speed, fight.now + window);
  carry(fight, member, dx, dy, speed, distance * (1 - fight.slowed[member]));
}

/** It goes at once, straight, as far as walls let it. @param speed m/s; @param most m */
function carry(fight: Fight, member: number, dx: number, dy: number, speed: number, most: number): void {
  if (speed <= 0) return;
  fight.stand(member);
  const x = fight.x[member];
  const y = fight.y[member];
  const metres = fight.ground.straight(fight.kinds[member].ground, x, y, dx, dy, most, fight.radius[member], 0);
  const until = fight.now + microsecondsUp(metres / speed);
  fight.fling(member, DASHING.answer, dx * speed, dy * speed, x + dx * metres, y + dy * metres, until);
  fight.queue.push(until, DUE.dashEnds, member, 0, DASH_END.done);
}

/** Which way a dodge goes: as it is said where that is clear, else across. A unit vector. */
function dodgeWay(fight: Fight, member: number, attacker: number, way: CompiledAnswer['way'], distance: number): [number, number] {
  if (way === 'sideways') return across(fight, member, attacker, distance);
  const x = fight.xAt(member, fight.now);
  const y = fight.yAt(member, fight.now);
  const apart = fight.apart(member, attacker);
  if (apart === 0) return across(fight, member, attacker, distance);
  const sign = way === 'away' ? 1 : -1;
  const dx = (sign * (x - fight.xAt(attacker, fight.now))) / apart;
  const dy = (sign * (y - fight.yAt(attacker, fight.now))) / apart;
  return clearPath(fight, member, x, y, dx, dy, distance) ? [dx, dy] : across(fight, member, attacker, distance);
}

/** A step that protects nobody by itself: given where it carries the member out of what is coming, in time. */
function stepAside(
  fight: Fight,
  member: number,
  number: number,
  answer: CompiledAnswer,
  threat: Threat,
  attack: CompiledAttack,
  free: number,
): number {
  const { attacker, hitAt, begunAt } = threat;
  const { window, distance, way } = answer;
  if (distance <= 0 || window <= 0) return VERDICT.none;
  const from = Math.max(fight.now, free, begunAt + settledAfter(attack));
  const [dx, dy] = dodgeWay(fight, member, attacker, way, distance);
  const x = fight.xAt(member, fight.now);
  const y = fight.yAt(member, fight.now);
  if (!outAt(fight, member, threat, attack, x + dx * distance, y + dy * distance)) return VERDICT.none;
  if (!clearPath(fight, member, x, y, dx, dy, distance)) return VERDICT.nowhere;
  if (from + window > hitAt) return VERDICT.tooLate;
  useAnswer(fight, member, number, from + answer.cooldown);
  fight.queue.push(from, DUE.dodge, member, number, attacker);
  return VERDICT.tried;
}

export function beginBlock(fight: Fight, member: number, number: number): void {
  if (!fight.isAlive[member] || fight.now < fight.staggeredUntil[member]) return;
  const { window, reduces } = fight.kinds[member].player!.answers[number];
  openBlock(fight, member, window, reduces);
}

/** Sideways to the way from an attacker, to the side that is clear; the left one where both are. */
function across(fight: Fight, member: number, attacker: number, distance: number): [number, number] {
  const x = fight.xAt(member, fight.now);
  const y = fight.yAt(member, fight.now);
  const dx = x - fight.xAt(attacker, fight.now);
  const dy = y - fight.yAt(attacker, fight.now);
  const length = Math.sqrt(dx * dx + dy * dy);
  const ux = length > 0 ? dx / length : 1;
  const uy = length > 0 ? dy / length : 0;
  return clearPath(fight, member, x, y, 0 - uy, ux, distance) || !clearPath(fight, member, x, y, uy, 0 - ux, distance)
    ? [0 - uy, ux]
    : [uy, 0 - ux];
}

function clearPath(fight: Fight, member: number, x: number, y: number, dx: number, dy: number, distance: number): boolean {
  const { ground } = fight;
  const r = fight.radius[member];
  const toX = x + dx * distance;
  const toY = y + dy * distance;
  if (Math.abs(toX) > ground.halfWidth - r || Math.abs(toY) > ground.halfDepth - r) return false;
  return ground.clearWay(fight.kinds[member].ground, x, y, toX, toY, r);
}

/** From now on a member runs in a direction, dropping its wind-up and whatever it was busy with. */
export function evade(fight: Fight, member: number, dx: number, dy: number, speed: number, until: number): void {
  if (fight.phase[member] === PHASE.windup) interrupt(fight, member, BREAK.answer);
  if (fight.task[member] !== TASK.none) dropTask(fight, member);
  urgeTowards(fight, member, URGE.evade, dx, dy, speed, until);
}

/** µs: the step from which whoever sets out at an instant moves. */
const nextStep = ({ compiled: { step } }: Fight, at: number): number => Math.ceil(at / step) * step;

/** Away from the middle of what is coming, or sideways out of a line, from the instant its aim is fixed. */
function stepOut(fight: Fight, member: number, threat: Threat, attack: CompiledAttack, free: number, turns = attack.turns): number {
  const { attacker, hitAt, begunAt, use } = threat;
  const need = wayOut(fight, attacker, attack, member, use, turns);
  if (need === Infinity) return VERDICT.none;
  const line = comesStraight(attack);
  const from = Math.max(fight.now, free, begunAt + settledAfter(attack));
  const speed = fight.kinds[member].run * (1 - fight.slowed[member]);
  if (need > (speed * (hitAt - nextStep(fight, from))) / SECOND) return VERDICT.tooLate;
  const x = fight.xAt(member, fight.now);
  const y = fight.yAt(member, fight.now);
  let dx: number;
  let dy: number;
  if (line) [dx, dy] = across(fight, member, attacker, need);
  else {
    const [mx, my] = middleOf(fight, attacker, attack, use);
    const length = fight.apartFrom(member, mx, my);
    [dx, dy] = length > 0 ? [(x - mx) / length, (y - my) / length] : [fight.fx[attacker], fight.fy[attacker]];
  }
  if (!clearPath(fight, member, x, y, dx, dy, need)) {
    // Out of a line both sides have been looked at.
    if (line) return VERDICT.nowhere;
    [dx, dy] = across(fight, member, attacker, need);
    if (!clearPath(fight, member, x, y, dx, dy, need)) return VERDICT.nowhere;
  }
  if (from <= fight.now) evade(fight, member, dx, dy, fight.kinds[member].run, hitAt);
  else fight.queue.push(from, DUE.stepOut, member, threat.use, 0);
  return VERDICT.tried;
}

/** The aim is fixed now: the step that was put off is taken. */
export function stepOutNow(fight: Fight, member: number, use: number): void {
  const threat = fight.threats[member].find((one) => one.use === use);
  if (!threat || threat.off || !fight.isAlive[member] || fight.now > threat.hitAt || fight.now < fight.staggeredUntil[member]) return;
  stepOut(fight, member, threat, fight.attackOf(threat.attacker, threat.attack), fight.now, false);
}

/** To the nearest of eight places in reach from which the attacker's muzzle sees nothing of it. */
function breakLine(fight: Fight, member: number, { attacker, hitAt }: Threat, attack: CompiledAttack, free: number): number {
  const { ground, now } = fight;
  if (ground.walls.length === 0 || !ranged(attack)) return VERDICT.none;
  const speed = fight.kinds[member].run * (1 - fight.slowed[member]);
  const from = nextStep(fight, Math.max(now, free));
  const most = (speed * (hitAt - from)) / SECOND;
  if (most <= 0) return VERDICT.tooLate;
  const x = fight.xAt(member, now);
  const y = fight.yAt(member, now);
  const ax = fight.xAt(attacker, now);
  const ay = fight.yAt(attacker, now);
  const half = fight.kinds[member].height / 2;
  for (let reach = 1; reach <= 2; reach++) {
    const distance = (most * reach) / 2;
    for (let way = 0; way < 8; way++) {
      const dx = WAYS_X[way];
      const dy = WAYS_Y[way];
      const toX = x + dx * distance;
      const toY = y + dy * distance;
      if (!ground.blocked(ax, ay, fight.kinds[attacker].muzzle, toX, toY, half) || !clearPath(fight, member, x, y, dx, dy, distance))
        continue;
      evade(fight, member, dx, dy, fight.kinds[member].run, from + microsecondsUp(distance / speed));
      return VERDICT.tried;
    }
  }
  return VERDICT.nowhere;
}

const SLANT = Math.sqrt(0.5);

const WAYS_X = [1, SLANT, 0, 0 - SLANT, -1, 0 - SLANT, 0, SLANT];

const WAYS_Y = [0, SLANT, 1, SLANT, 0, 0 - SLANT, -1, 0 - SLANT];

/** An attack of its own that breaks off what is coming, and lands before that has left its owner. */
function strikeFirst(fight: Fight, member: number, { attacker, leavesAt }: Threat, attack: CompiledAttack): number {
  const kind = fight.kinds[member];
  let verdict: number = VERDICT.none;
  if (!fight.isAlive[attacker]) return verdict;
  for (let a = 0; a < kind.attacks.length; a++) {
    const own = kind.attacks[a];
    if (!breaks(own, attack) || !own.traits.chosen) continue;
    if (fight.phase[member] !== PHASE.idle || fight.task[member] !== TASK.none) {
      verdict = VERDICT.tooLate;
      continue;
    }
    const gap = fight.gap(member, attacker);
    if (hurdleOf(fight, member, attacker, a, gap) !== 0) {
      verdict = VERDICT.cooldown;
      continue;
    }
    const flight = own.shotSpeed > 0 ? microsecondsUp(gap / own.shotSpeed) : 0;
    if (fight.now + own.windup + flight >= leavesAt) {
      verdict = VERDICT.tooLate;
      continue;
    }
    startAttack(fight, member, a, attacker, own);
    return VERDICT.tried;
  }
  return verdict;
}

/** An evasion is over: the member is free to fight on. */
export function endEvasion(fight: Fight, member: number): void {
  setUrge(fight, member, URGE.none);
  if (fight.alerted[member] && fight.phase[member] === PHASE.idle && fight.target[member] !== NOBODY) tryAgainAt(fight, member, fight.now);
}
