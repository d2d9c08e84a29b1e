/** What help does for a friend, a fallen one, or oneself: it skips armour and windows, and wastes what is not needed. */
import { addBoost, addIll } from './effects';
import { type Fight, ILL } from './fight';
import { EVENT, MISS } from './log';
import { revive } from './death';
import { inReach } from './reach';
import { type CompiledAttack, FALLEN } from './tables';

export function giveAid(fight: Fight, unit: number, other: number, number: number, attack: CompiledAttack): void {
  const { now, log } = fight;
  if (attack.targets === FALLEN) {
    const at = fight.fallen.findIndex((one) => one.unit === other && one.until > now);
    if (at < 0 || !attack.revives) log.add(now, EVENT.miss, unit, other, number, MISS.gone);
    else revive(fight, unit, other, number, attack.reviveAmount + attack.reviveShare * fight.kinds[other].maxHealth);
    return;
  }
  // Nothing acts on a stale world: whoever was to be helped must live and be in reach.
  if (!fight.isAlive[other] || (other !== unit && !inReach(fight.gap(unit, other), attack.rangeMax))) {
    log.add(now, EVENT.miss, unit, other, number, fight.isAlive[other] ? MISS.reach : MISS.gone);
    return;
  }
  if (attack.heals) heal(fight, unit, other, number, attack.healAmount + attack.healShare * fight.kinds[other].maxHealth);
  if (attack.lentAmount > 0) {
    log.add(now, EVENT.shielded, unit, other, number, attack.lentAmount);
    addIll(fight, other, ILL.lent, attack.lentAmount, attack.lentFor, unit);
  }
  if (attack.boost !== null) addBoost(fight, unit, other, number, attack.boost);
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
