/** What help does for a friend, a fallen one, or oneself: it skips armour and windows, and wastes what is not needed. */
import { EVENT, MISS } from '../../record/log';
import { inReach } from '../body/reach';
import type { Fight } from '../fight';
import type { CompiledAttack } from '../unit-tables';
import { revive } from './death';
import { giveEffects } from './struck';

export function giveAid(fight: Fight, unit: number, other: number, number: number, attack: CompiledAttack): void {
  const { now, log } = fight;
  if (attack.targets === 'fallen') {
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
