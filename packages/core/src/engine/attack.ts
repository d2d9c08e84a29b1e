/** One use of an attack: wind-up, hits at their own instants, recovery; then the pause and the next choice. */
import { tryAgainAt } from './choice';
import { PURPOSE } from './chance';
import { type CompiledAttack, MELEE, PROJECTILE } from './compile';
import { turn, turnTo, within } from './facing';
import { type Fight, NOBODY, PHASE } from './fight';
import { DOING, EVENT, MISS } from './log';
import { DUE } from './queue';
import { aimOf, launch } from './shots';
import { microsecondsUp } from './time';

/** A hit that will land at this instant, to be applied once all are settled. */
export interface Landing {
  attacker: number;
  victim: number;
  attack: number;
}

export function startAttack(fight: Fight, unit: number, number: number, target: number, attack: CompiledAttack): void {
  const { now } = fight;
  fight.serial[unit]++;
  fight.choiceAt[unit] = -1;
  fight.phase[unit] = PHASE.windup;
  fight.attack[unit] = number;
  fight.attackTarget[unit] = target;
  fight.attackStart[unit] = now;
  fight.use[unit] = ++fight.uses;
  if (!attack.cooldownFromEnd) startCooldown(fight, unit, number, attack);
  if (attack.energy > 0) {
    fight.energy[unit] = Math.max(0, fight.energyNow(unit) - attack.energy);
    fight.energyAt[unit] = now;
  }
  aim(fight, unit, target, attack);
  fight.moving[unit] = attack.moving;
  fight.held[unit] = attack.turns ? 0 : 1;
  if (attack.moving === 0) fight.stand(unit);
  fight.log.add(now, EVENT.start, unit, target, number, fight.gap(unit, target));
  fight.doing[unit] = DOING.attacking; // the start says it
  fight.queue.push(now + attack.windup, DUE.hit, unit, fight.serial[unit], 0);
  fight.queue.push(now + attack.windup, DUE.phaseEnd, unit, fight.serial[unit], PHASE.windup);
}

function startCooldown(fight: Fight, unit: number, number: number, attack: CompiledAttack): void {
  const room = fight.compiled.attackRoom;
  fight.readyAt[unit * room + number] = fight.now + attack.cooldown;
  let next = Infinity;
  const { choice } = fight.kinds[unit];
  for (let p = 0; p < choice.length; p++) {
    for (let e = 0; e < choice[p].attacks.length; e++) next = Math.min(next, fight.readyAt[unit * room + choice[p].attacks[e]]);
  }
  fight.nextReady[unit] = next;
}

function aim(fight: Fight, unit: number, target: number, attack: CompiledAttack): void {
  if (attack.delivery !== PROJECTILE || attack.lead === 0) return turnTo(fight, unit, target);
  const [dx, dy] = aimOf(fight, unit, target, attack);
  turn(fight, unit, dx, dy);
}

/** A hit instant is due: its target's life, range and arc are looked up again. Landings are collected, not applied. */
export function settleHit(fight: Fight, unit: number, index: number, landings: Landing[]): void {
  const number = fight.attack[unit];
  const attack = fight.attackOf(unit, number);
  const target = fight.attackTarget[unit];
  if (index === 0 && attack.turns && fight.isAlive[target]) aim(fight, unit, target, attack);
  if (index + 1 < attack.hits) {
    const next = fight.attackStart[unit] + attack.windup + (index + 1) * attack.every;
    fight.queue.push(next, DUE.hit, unit, fight.serial[unit], index + 1);
  }
  if (attack.delivery === PROJECTILE) launch(fight, unit, number, attack, target);
  else strike(fight, unit, number, attack, target, landings);
}

/** Melee: everyone in reach and arc, the target first, then the nearest. Instant line: whom it meets, in order. */
function strike(fight: Fight, unit: number, number: number, attack: CompiledAttack, target: number, landings: Landing[]): void {
  const { met } = fight;
  met.clear();
  if (attack.delivery === MELEE) meetInArc(fight, unit, attack, target);
  else meetOnLine(fight, unit, attack);
  const limit = attack.delivery === MELEE ? attack.limit : 1;
  let struck = 0;
  let aimFailed: number = NOBODY;
  let again = false;
  for (let i = 0; i < met.count && struck < limit; i++) {
    const victim = met.units[i];
    const pair = unit * fight.compiled.capacity + victim;
    if (!attack.everyHit && fight.struckIn[pair] === fight.use[unit]) {
      again = true;
      continue;
    }
    if (!aimHolds(fight, unit, attack, fight.gap(unit, victim))) {
      aimFailed = victim;
      fight.log.add(fight.now, EVENT.miss, unit, victim, number, MISS.aim);
      continue;
    }
    struck++;
    fight.struckIn[pair] = fight.use[unit];
    landings.push({ attacker: unit, victim, attack: number });
  }
  if (struck === 0 && aimFailed === NOBODY && !again) {
    const reason = fight.isAlive[target] && fight.gap(unit, target) <= attack.rangeMax ? MISS.arc : MISS.reach;
    fight.log.add(fight.now, EVENT.miss, unit, target, number, reason);
  }
}

/** Accuracy falls or rises linearly from touching to full range; drawn once for each contact. */
export function aimHolds(fight: Fight, unit: number, attack: CompiledAttack, distance: number): boolean {
  const along = attack.rangeMax > 0 ? Math.min(1, distance / attack.rangeMax) : 0;
  const accuracy = attack.accuracyNear + (attack.accuracyFar - attack.accuracyNear) * along;
  return accuracy >= 1 || (accuracy > 0 && fight.chance(unit, PURPOSE.aim) < accuracy);
}

function meetInArc(fight: Fight, unit: number, attack: CompiledAttack, target: number): void {
  const foes = fight.living[1 - fight.side[unit]];
  for (let i = 0; i < foes.length; i++) {
    const gap = fight.gap(unit, foes[i]);
    if (gap <= attack.rangeMax && within(fight, unit, foes[i], attack.arcCosine)) fight.met.add(foes[i], foes[i] === target ? -1 : gap);
  }
}

function meetOnLine(fight: Fight, unit: number, attack: CompiledAttack): void {
  const foes = fight.living[1 - fight.side[unit]];
  const x = fight.xAt(unit, fight.now);
  const y = fight.yAt(unit, fight.now);
  for (let i = 0; i < foes.length; i++) {
    const foe = foes[i];
    const dx = fight.xAt(foe, fight.now) - x;
    const dy = fight.yAt(foe, fight.now) - y;
    const along = fight.fx[unit] * dx + fight.fy[unit] * dy;
    const across = fight.fx[unit] * dy - fight.fy[unit] * dx;
    const r = fight.radius[foe];
    if (along < 0 || across * across > r * r || fight.gap(unit, foe) > attack.rangeMax) continue;
    fight.met.add(foe, along - Math.sqrt(r * r - across * across));
  }
}

/** A phase of an attack is over; phases without length are passed through at once. */
export function endPhase(fight: Fight, unit: number, phase: number): void {
  const number = fight.attack[unit];
  const attack = fight.attackOf(unit, number);
  const activeEnd = fight.attackStart[unit] + attack.windup + attack.active;
  if (phase === PHASE.windup) {
    fight.phase[unit] = PHASE.active;
    fight.held[unit] = 1;
    if (attack.active > 0) return fight.queue.push(activeEnd, DUE.phaseEnd, unit, fight.serial[unit], PHASE.active);
  }
  if (phase !== PHASE.recovery) {
    fight.phase[unit] = PHASE.recovery;
    const end = activeEnd + attack.recovery;
    if (attack.recovery > 0) return fight.queue.push(end, DUE.phaseEnd, unit, fight.serial[unit], PHASE.recovery);
  }
  finishAttack(fight, unit, number, attack);
}

function finishAttack(fight: Fight, unit: number, number: number, attack: CompiledAttack): void {
  fight.idle(unit);
  if (attack.cooldownFromEnd) startCooldown(fight, unit, number, attack);
  const { pauseMin, pauseMax } = fight.kinds[unit];
  const pause = pauseMax > pauseMin ? pauseMin + (pauseMax - pauseMin) * fight.chance(unit, PURPOSE.pause) : pauseMin;
  fight.pauseUntil[unit] = fight.now + microsecondsUp(pause);
  fight.sayDoing(unit, !fight.alerted[unit] ? DOING.unaware : pause > 0 ? DOING.pause : DOING.cooldown);
  if (fight.alerted[unit]) tryAgainAt(fight, unit, fight.pauseUntil[unit]);
}

/** Breaks off an attack in its wind-up. An end-based cooldown starts now. */
export function interrupt(fight: Fight, unit: number): void {
  const number = fight.attack[unit];
  const attack = fight.attackOf(unit, number);
  fight.log.add(fight.now, EVENT.interrupted, unit, fight.attackTarget[unit], number);
  fight.idle(unit);
  if (attack.cooldownFromEnd) startCooldown(fight, unit, number, attack);
  tryAgainAt(fight, unit, fight.now);
}
