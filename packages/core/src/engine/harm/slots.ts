/** Attack slots: how many attacks out of a pool may be under way, in all or on each target. */
import { DOING } from '../../record/doing';
import type { Fight } from '../fight';
import { PHASE } from '../numbers';
import type { CompiledAttack } from '../unit-tables';
import { tryAgainAt } from '../time/again';

/** Whether an attack's slot could be taken now; where only the gap between starts is in the way, when it ends. */
export function slotFree(fight: Fight, attack: CompiledAttack, target: number): boolean {
  if (attack.pool < 0) return true;
  const { size, perTarget, gap } = fight.compiled.pools[attack.pool];
  if (fight.now < fight.poolStart[attack.pool] + gap) return false;
  let taken = 0;
  for (const hold of fight.slots) if (hold.pool === attack.pool && (!perTarget || hold.target === target)) taken += hold.takes;
  return taken + attack.takes <= size;
}

/** The instant at which a pool's gap is over; Infinity where it is not the gap that is in the way. */
export function gapOver(fight: Fight, attack: CompiledAttack): number {
  if (attack.pool < 0) return Infinity;
  const end = fight.poolStart[attack.pool] + fight.compiled.pools[attack.pool].gap;
  return end > fight.now ? end : Infinity;
}

export function takeSlot(fight: Fight, unit: number, attack: CompiledAttack, target: number): void {
  if (attack.pool < 0) return;
  fight.slots.push({ unit, pool: attack.pool, target, takes: attack.takes });
  fight.poolStart[attack.pool] = fight.now;
}

/** Gives back what a unit holds; whoever waits for a slot tries at once. */
export function freeSlots(fight: Fight, unit: number): void {
  const { slots } = fight;
  if (slots.length === 0) return;
  let freed = false;
  for (let i = slots.length - 1; i >= 0; i--) {
    if (slots[i].unit !== unit) continue;
    slots.splice(i, 1);
    freed = true;
  }
  if (!freed) return;
  for (const other of fight.alive) {
    if (other !== unit && fight.doing[other] === DOING.slot && fight.phase[other] === PHASE.idle) tryAgainAt(fight, other, fight.now);
  }
}
