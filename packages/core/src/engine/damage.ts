/** What a hit does once it has landed: window → spread → crit → armour → least damage → shield → health. */
import { type Landing, interrupt } from './attack';
import { PURPOSE } from './chance';
import { tryAgainAt } from './choice';
import { type Fight, NOBODY, PHASE } from './fight';
import { EVENT } from './log';
import { leave } from './over-time';
import { alert } from './senses';
import { DEAD_BELOW } from './tuning';

export function applyHit(fight: Fight, { attacker, victim, attack: number }: Landing): void {
  if (windowStops(fight, attacker, victim, number)) {
    fight.log.add(fight.now, EVENT.blocked, attacker, victim, number);
    return;
  }
  openWindow(fight, attacker, victim, number);
  const attack = fight.attackOf(attacker, number);
  let amount = fight.around(attacker, PURPOSE.damage, attack.amount, attack.spread);
  if (attack.critChance > 0 && fight.chance(attacker, PURPOSE.crit) < attack.critChance) amount *= attack.critMultiplier;
  hurt(fight, EVENT.hit, attacker, victim, number, amount);
  if (attack.tickEvery > 0) leave(fight, attacker, victim, number, attack);
  if (fight.isAlive[victim] && !fight.alerted[victim]) {
    alert(fight, victim);
    tryAgainAt(fight, victim, fight.now);
  }
}

/** Damage from armour on: armour → least damage → shield → health; direct hits and ticks alike. */
export function hurt(fight: Fight, event: number, attacker: number, victim: number, attack: number, amount: number): void {
  const { armour, minimumDamage, maxHealth, regenDelay, shield, shieldDelay } = fight.kinds[victim];
  const { now } = fight;
  const dealt = Math.max(amount - armour, Math.min(amount, minimumDamage), 0);
  let absorbed = 0;
  if (shield > 0 && dealt > 0) {
    const held = fight.shieldNow(victim);
    absorbed = Math.min(held, dealt);
    fight.shield[victim] = held - absorbed;
    fight.shieldAt[victim] = now;
    fight.shieldFrom[victim] = now + shieldDelay;
  }
  const through = dealt - absorbed;
  const health = fight.healthNow(victim);
  let left = health - through;
  if (left < DEAD_BELOW * maxHealth) left = 0;
  fight.health[victim] = left;
  fight.healthAt[victim] = now;
  if (dealt > 0) fight.regenFrom[victim] = now + regenDelay;
  const lost = left === 0 ? Math.min(health, through) : through;
  fight.log.add(now, event, attacker, victim, attack, lost, through - lost, dealt, absorbed);
  if (left === 0 && fight.isAlive[victim] && !fight.dying.some(({ unit }) => unit === victim)) {
    fight.dying.push({ unit: victim, by: attacker, attack });
  }
}

/** The key of a window that only stops the same attacker, or the same attack of it. */
function windowKey(fight: Fight, attacker: number, victim: number, attack: number): number {
  const pair = victim * fight.compiled.capacity + attacker;
  return fight.kinds[victim].windowScope === 1 ? pair : pair * fight.compiled.attackRoom + attack;
}

function windowStops(fight: Fight, attacker: number, victim: number, attack: number): boolean {
  const { window, windowScope } = fight.kinds[victim];
  if (window === 0) return false;
  const until = windowScope === 0 ? fight.windowUntil[victim] : (fight.windows.get(windowKey(fight, attacker, victim, attack)) ?? 0);
  return fight.now < until;
}

function openWindow(fight: Fight, attacker: number, victim: number, attack: number): void {
  const { window, windowScope } = fight.kinds[victim];
  if (window === 0) return;
  if (windowScope === 0) fight.windowUntil[victim] = fight.now + window;
  else fight.windows.set(windowKey(fight, attacker, victim, attack), fight.now + window);
}

/** Dead is dead: its timers end, its shots fly on. Whoever was winding up against it breaks off and chooses anew. */
export function die(fight: Fight, unit: number, by: number, attack: number): void {
  fight.stand(unit);
  fight.isAlive[unit] = 0;
  fight.overTime.endOn(unit);
  fight.serial[unit]++;
  fight.phase[unit] = PHASE.idle;
  fight.shots.stale = true;
  fight.crowd.clear();
  remove(fight.alive, unit);
  remove(fight.living[fight.side[unit]], unit);
  fight.log.add(fight.now, EVENT.death, unit, by, attack);
  for (let i = 0; i < fight.alive.length; i++) {
    const other = fight.alive[i];
    if (fight.target[other] === unit) {
      fight.target[other] = NOBODY;
      if (fight.phase[other] === PHASE.idle) tryAgainAt(fight, other, fight.now);
    }
    if (fight.attackTarget[other] === unit && windingUp(fight, other)) interrupt(fight, other);
  }
}

/** Before the first hit instant: at that instant itself the wind-up is over. */
function windingUp(fight: Fight, unit: number): boolean {
  const windup = fight.phase[unit] === PHASE.windup;
  return windup && fight.now < fight.attackStart[unit] + fight.attackOf(unit, fight.attack[unit]).windup;
}

function remove(list: number[], unit: number): void {
  list.splice(list.indexOf(unit), 1);
}
