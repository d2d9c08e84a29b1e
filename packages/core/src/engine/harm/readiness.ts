/** When each attack of a unit may be begun again: cooldowns, charges, and the earliest of those it chooses from. */
import { microsecondsUp } from '../../record/time';
import type { Fight } from '../fight';
import type { CompiledAttack } from '../unit-tables';
import { PURPOSE } from '../time/chance';

/** Off cooldown with every charge; nothing has been drawn for it yet. */
export function fillReadiness(fight: Fight, unit: number): void {
  const { attacks } = fight.kinds[unit];
  const room = fight.compiled.attackRoom;
  for (let a = 0; a < attacks.length; a++) {
    fight.readyAt[unit * room + a] = fight.chargedAt[unit * room + a] = fight.now;
    fight.charges[unit * room + a] = attacks[a].charges;
  }
}

/** Every cooldown is over. */
export function endCooldowns(fight: Fight, unit: number): void {
  const room = fight.compiled.attackRoom;
  for (let a = 0; a < fight.kinds[unit].attacks.length; a++) fight.readyAt[unit * room + a] = fight.now;
  if (fight.nextReady[unit] >= 0) fight.nextReady[unit] = fight.now;
}

export function refillCharges(fight: Fight, unit: number): void {
  const { attacks } = fight.kinds[unit];
  const room = fight.compiled.attackRoom;
  for (let a = 0; a < attacks.length; a++) fight.charges[unit * room + a] = attacks[a].charges;
}

/** Initial delays run from its first alert. */
export function drawInitialDelays(fight: Fight, unit: number): void {
  const { attacks } = fight.kinds[unit];
  const room = fight.compiled.attackRoom;
  fight.nextReady[unit] = Infinity;
  for (let a = 0; a < attacks.length; a++) {
    const { initialMin, initialMax } = attacks[a];
    const wait = initialMax > initialMin ? initialMin + (initialMax - initialMin) * fight.chance(unit, PURPOSE.delay) : initialMin;
    fight.readyAt[unit * room + a] = fight.ends(unit, microsecondsUp(wait));
    fight.nextReady[unit] = Math.min(fight.nextReady[unit], fight.readyAt[unit * room + a]);
  }
}

export function startCooldown(fight: Fight, unit: number, number: number, attack: CompiledAttack): void {
  const room = fight.compiled.attackRoom;
  fight.readyAt[unit * room + number] = fight.ends(unit, attack.cooldown);
  let next = Infinity;
  const { choice } = fight.kinds[unit];
  for (let p = 0; p < choice.length; p++) {
    for (let e = 0; e < choice[p].attacks.length; e++) next = Math.min(next, fight.readyAt[unit * room + choice[p].attacks[e]]);
  }
  fight.nextReady[unit] = next;
}

/** A touch, which is not chosen, waits for its cooldown; when it is over. */
export function waitToTouch(fight: Fight, unit: number, number: number, attack: CompiledAttack): number {
  return (fight.readyAt[unit * fight.compiled.attackRoom + number] = fight.now + Math.max(attack.cooldown, 1));
}

/** The next one grows back from when the last did, or from now when all were there. */
export function takeCharge(fight: Fight, unit: number, number: number, attack: CompiledAttack): void {
  const at = unit * fight.compiled.attackRoom + number;
  const left = fight.chargesNow(unit, number);
  if (left >= attack.charges) fight.chargedAt[at] = fight.now;
  else fight.chargedAt[at] += Math.floor(fight.since(fight.chargedAt[at]) / attack.recharge) * attack.recharge;
  fight.charges[at] = Math.max(0, left - 1);
}
