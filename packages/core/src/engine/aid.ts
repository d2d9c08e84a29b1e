/** What help does for a friend, a fallen one, or oneself: it skips armour and windows, and wastes what is not needed. */
import type { Fight } from './fight';
import { EVENT, MISS } from '../record/log';
import { revive } from './death';
import { inReach } from './reach';
import { giveEffects } from './struck';
import { type CompiledAttack, FALLEN } from './tables';

export function giveAid(fight: Fight, unit: number, other: number, number: number, attack: CompiledAttack): void {
  const { now, log } = fight;
  if (attack.targets === FALLEN) {
    const at = fight.fallen.findIndex((one) => one.unit === other && one.until > now);
    const raising = attack.effects.revive;
    if (at < 0 || !raising) log.add(now, EVENT.miss, unit, other, number, MISS.gone);
    else revive(fight, unit, other, number, raising.amount + raising.share * fight.kinds[other].maxHealth);
    return;
  }
  // Nothing acts on a stale world: whoever was to be helped must live and be in reach.
  if (!fight.isAlive[other] || (other !== unit && !inReach(fight.gap(unit, other), attack.rangeMax))) {
    log.add(now, EVENT.miss, unit, other, number, fight.isAlive[other] ? MISS.reach : MISS.gone);
    return;
  }
  giveEffects(fight, unit, other, number, attack);
}

/** A tick of this instant took its last health: with what it is given now it lives. */
function spare(fight: Fight, unit: number): void {
  const at = fight.dying.findIndex((one) => one.unit === unit);
  if (at >= 0) fight.dying.splice(at, 1);
}

/** Gives health up to the maximum; the rest is wasted, and said. */
export function heal(fight: Fight, unit: number, other: number, number: number, amount: number): void {
  const health = fight.healthNow(other);
  const given = Math.max(0, Math.min(amount, fight.kinds[other].maxHealth - health));
  fight.health[other] = health + given;
  fight.healthAt[other] = fight.now;
  if (given > 0) spare(fight, other);
  fight.log.add(fight.now, EVENT.heal, unit, other, number, given, amount - given);
}
