/** Whether an attack is ready, wherever its target is. */
import { DOING } from '../../record/doing';
import type { Fight } from '../fight';
import type { CompiledAttack } from '../unit-tables';

/** What time alone will mend: cooldown, charges, energy, rounds; 0: nothing in the way. */
export function readyHurdle(fight: Fight, unit: number, number: number, attack: CompiledAttack): number {
  if (fight.now < fight.readyAt[unit * fight.compiled.attackRoom + number]) return DOING.cooldown;
  if (attack.charges > 0 && fight.chargesNow(unit, number) < 1) return DOING.charges;
  if (attack.energy > 0 && fight.energyNow(unit) < attack.energy * (1 - 1e-12)) return DOING.energy;
  const { player } = fight.kinds[unit];
  if (player !== null && player.rounds > 0 && player.takesRound[number] && fight.rounds[unit] === 0) return DOING.reloading;
  return 0;
}
