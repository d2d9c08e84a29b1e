/** Health given. */
import { EVENT } from '../../record/log';
import type { Fight } from '../fight';
import { setHealth } from './vitals';

/** A tick of this instant took its last health: with what it is given now it lives. */
function spare(fight: Fight, unit: number): void {
  const at = fight.dying.findIndex((one) => one.unit === unit);
  if (at >= 0) fight.dying.splice(at, 1);
}

/** Gives health up to the maximum; the rest is wasted, and said. */
export function heal(fight: Fight, unit: number, other: number, number: number, amount: number): void {
  const health = fight.healthNow(other);
  const given = Math.max(0, Math.min(amount, fight.kinds[other].maxHealth - health));
  setHealth(fight, other, health + given);
  if (given > 0) spare(fight, other);
  fight.log.add(fight.now, EVENT.heal, unit, other, number, given, amount - given);
}
