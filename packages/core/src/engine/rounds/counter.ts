/** Striking back. */
import { inRange } from '../body/reach';
import type { Fight } from '../fight';
import { settle } from '../harm/strike';
import { clearFrom } from '../mind/senses';

/** With an attack, whatever its cooldown and price, at whoever struck it, where that is in its range; it is answered by nobody. */
export function strikeBack(fight: Fight, unit: number, against: number, number: number): void {
  if (!fight.isAlive[unit] || !fight.isAlive[against]) return;
  const attack = fight.attackOf(unit, number);
  const gap = fight.gap(unit, against);
  if (!inRange(gap, attack.rangeMin, attack.rangeMax)) return;
  if (attack.needsLine && !clearFrom(fight, unit, fight.kinds[unit].muzzle, against)) return;
  settle(fight, unit, against, number, attack, 0, gap, fight.xAt(unit, fight.now), fight.yAt(unit, fight.now), true);
}
