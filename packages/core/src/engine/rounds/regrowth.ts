/** What grows back at the start of a unit's turn: health, shield and energy, each by so much a turn. */
import type { Fight } from '../fight';
import { setEnergy, setHealth, setShield } from '../harm/vitals';

export function regrow(fight: Fight, unit: number): void {
  const { turns, regenTop, shield, energy } = fight.kinds[unit];
  const { regen, shieldRegen, energyRegen } = turns!;
  const health = fight.health[unit];
  if (regen > 0 && health < regenTop && fight.now >= fight.regenFrom[unit]) setHealth(fight, unit, Math.min(regenTop, health + regen));
  if (shieldRegen > 0 && fight.now >= fight.shieldFrom[unit]) setShield(fight, unit, Math.min(shield, fight.shield[unit] + shieldRegen));
  if (energyRegen > 0) setEnergy(fight, unit, Math.min(energy, fight.energy[unit] + energyRegen));
}
