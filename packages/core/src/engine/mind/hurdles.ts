/** What stands in the way of an attack, from what keeps a unit from choosing at all to the target’s distance. */
import { DOING } from '../../record/doing';
import { within } from '../body/facing';
import { inRange } from '../body/reach';
import type { Fight } from '../fight';
import { slotFree } from '../harm/slots';
import { TASK, URGE } from '../numbers';
import type { CompiledPriority } from '../unit-tables';
import { holds } from './conditions';
import { friendToHelp } from './friends';
import { readyHurdle } from './ready';
import { lineToTarget } from './senses';
import { targetFor } from './targets';

/** What keeps a unit from choosing at all; 0: nothing. */
export function hindrance(fight: Fight, unit: number): number {
  if (fight.now < fight.staggeredUntil[unit]) return DOING.staggered;
  if (fight.urge[unit] === URGE.evade) return DOING.evading;
  if (fight.urge[unit] === URGE.home) return DOING.goingHome;
  if (fight.task[unit] !== TASK.none) return fight.task[unit] === TASK.reload ? DOING.reloading : DOING.mending;
  return 0;
}

/** Whom an attack of a choice is for: its own targeting, a friend to help, itself, or the unit's target. */
export function entryTarget(fight: Fight, unit: number, number: number, priority: CompiledPriority | null, e = 0): number {
  const attack = fight.attackOf(unit, number);
  if (attack.targets !== 'foes') return friendToHelp(fight, unit, attack);
  if (!attack.traits.needsTarget) return unit;
  const targeting = priority === null ? null : priority.targetings[e];
  return targeting === null ? fight.target[unit] : targetFor(fight, unit, targeting);
}

/** What stands in the way of an attack: 0 for nothing, else one of DOING. The farthest hurdle reached is the reason. */
export function hurdleOf(fight: Fight, unit: number, target: number, number: number, gap: number): number {
  const kind = fight.kinds[unit];
  const attack = kind.attacks[number];
  const { only } = kind.states[fight.state[unit]];
  if (only !== null && !only[number]) return DOING.noAttack;
  const waits = readyHurdle(fight, unit, number, attack);
  if (waits !== 0) return waits;
  if (attack.condition !== null && !holds(fight, unit, attack.condition)) return DOING.condition;
  if (attack.pool >= 0 && !slotFree(fight, attack, target)) return DOING.slot;
  if (!attack.traits.needsTarget) return 0;
  if (!inRange(gap, attack.rangeMin, attack.rangeMax)) return DOING.range;
  if (attack.needsLine && target !== unit && !lineToTarget(fight, unit, target)) return DOING.line;
  return within(fight, unit, target, attack.facingCosine) ? 0 : DOING.facing;
}
