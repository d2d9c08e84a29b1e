/** What keeps a unit alive whatever is done to it, and what makes its health count for nothing. */
import { traitsOf } from '../../model/delivery';
import type { Unit } from '../../model/unit';
import { paperDuel } from '../paper';
import { type Inspected, amount } from './context';

export function lasting(one: Inspected): void {
  const { unit, foes, warn } = one;
  const against = foes.reduce((sum, foe) => sum + (paperDuel(foe, unit)?.damagePerSecond ?? 0), 0);
  if (against > 0 && unit.health.regen >= against && unit.health.regenDelay < 1)
    warn('outheals', {
      at: ['health', 'regen'],
      message: `it regains ${amount(unit.health.regen)} hp a second; everybody on the other side together deals ${amount(against)} on paper`,
      mend: 'let it regain less, or only after a pause',
      causes: [
        ['health', 'regen'],
        ['health', 'regenDelay'],
      ],
      fixes: [{ name: 'regain after 3 s without damage', set: [{ path: '/health/regenDelay', value: 3 }] }],
    });
  const mends = healedPerSecond(unit);
  if (against > 0 && mends >= against)
    warn('outheals', {
      at: ['attacks'],
      message: `it mends ${amount(mends)} hp a second on paper; everybody on the other side together deals ${amount(against)}`,
      mend: 'raise the price or the cooldown of what mends',
    });
  if (unit.weakPoint?.lethal && unit.weakPoint.exposed === 'always')
    warn('healthWithoutWeight', {
      at: ['weakPoint', 'lethal'],
      severity: 'notice',
      message: 'one hit on its weak point kills it at any time: its health counts only for those who miss',
      mend: 'expose the weak point at times only, or multiply instead',
      causes: [['weakPoint']],
      fixes: [{ name: 'multiply instead', set: [{ path: '/weakPoint/lethal', value: false }] }],
    });
}

/** hp a second that a unit's own healing brings a single unit, paid for by what energy it regains. */
function healedPerSecond(unit: Unit): number {
  return unit.attacks.reduce((sum, { effects: { heal }, beat, energy, delivery }) => {
    if (!heal || !traitsOf(delivery).aids) return sum;
    const swing = beat.windup + beat.active + beat.recovery;
    let cycle = beat.cooldownFrom === 'end' ? swing + beat.cooldown : Math.max(swing, beat.cooldown);
    if (energy) cycle = unit.energy && unit.energy.regen > 0 ? Math.max(cycle, energy / unit.energy.regen) : Infinity;
    return sum + (heal.amount + heal.share * unit.health.max) / Math.max(cycle, 0.05);
  }, 0);
}
