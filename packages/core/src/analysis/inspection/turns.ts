/** What can be told of a unit as it is where fights take turns. */
import type { Attack } from '../../model/attack';
import { traitsOf } from '../../model/delivery';
import type { Priority, Unit } from '../../model/unit';
import { type Inspected } from './context';

export function turns({ unit, warn }: Inspected): void {
  if (!unit.rounds) return;
  const { priorities } = unit.choice;
  priorities.forEach((priority, p) => {
    const above = priorities.slice(0, p).flatMap((one) => alwaysReady(unit, one));
    const below = priority.entries.map(({ attack }) => unit.attacks.find(({ id }) => id === attack));
    const forestalls = above.find((attack) => below.length > 0 && below.every((one) => one && reachesAsFar(attack, one)));
    if (!forestalls) return;
    warn('forestalled', {
      at: ['choice', 'priorities', p],
      message: `nothing of priority ${p + 1} is ever begun in turns: ${forestalls.name}, above it, is ready in every turn and reaches as far`,
      mend: `put it above ${forestalls.name}, or let that rest for a turn`,
      causes: [['choice'], ['attacks', forestalls.id, 'rounds'], ['rounds', 'actions']],
      fixes: [
        {
          name: 'put it above',
          set: [{ path: '/choice/priorities', value: [priority, ...priorities.filter((one) => one !== priority)] }],
        },
        { name: `${forestalls.name} rests a turn`, set: [{ path: `/attacks/${forestalls.id}/rounds/cooldown`, value: 2 }] },
      ],
    });
  });
}

/** Attacks that a priority has ready in every turn in which the unit is free to act, whatever else: one of them is begun. */
function alwaysReady({ attacks, states, rounds }: Unit, { condition, entries }: Priority): Attack[] {
  if (condition || states.some((state) => state.attacks !== 'all')) return [];
  return entries.flatMap((entry) => {
    const attack = attacks.find(({ id }) => id === entry.attack);
    if (!attack?.rounds || entry.condition || entry.targeting || entry.weight === 0) return [];
    const { windup, recovery, cooldown, firstUse } = attack.rounds;
    const pays = attack.energy || attack.charges || attack.condition || firstUse > 0;
    return !pays && cooldown <= Math.max(rounds!.actions === 1 ? 1 : 0, windup + recovery) ? [attack] : [];
  });
}

/** Wherever the one can be begun, so can the other. */
function reachesAsFar(one: Attack, other: Attack): boolean {
  if (!one.rounds || !other.rounds || one.targets !== 'foes' || other.targets !== 'foes') return false;
  if (!traitsOf(one.delivery).needsTarget) return traitsOf(one.delivery).chosen;
  if (!traitsOf(other.delivery).needsTarget) return false;
  return one.rounds.from <= other.rounds.from && one.rounds.to >= other.rounds.to && (!one.needsLine || other.needsLine);
}
