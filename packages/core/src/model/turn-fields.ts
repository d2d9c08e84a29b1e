/** Which fields of what something is in turns have a say, by what else it has: a form shows no others. */
import type { Attack } from './attack';
import { traitsOf } from './delivery';
import type { State } from './state';
import { keepsBand } from './state';
import type { Unit } from './unit';

const only = (fields: Readonly<Record<string, unknown>>): string[] => Object.keys(fields).filter((field) => fields[field]);

/** Numbers and words of a unit's turns; lists and groups have places of their own. */
export function unitTurnFields({ shield, energy, stagger, onDeath }: Pick<Unit, 'shield' | 'energy' | 'stagger' | 'onDeath'>): string[] {
  return only({
    order: true,
    spread: true,
    actions: true,
    size: true,
    moves: true,
    moving: true,
    row: true,
    regen: true,
    regenDelay: true,
    shieldRegen: shield,
    shieldDelay: shield,
    energyRegen: energy,
    shielded: true,
    staggerWindow: stagger,
    staggers: stagger,
    steady: stagger,
    revivableFor: onDeath.revivals > 0,
  });
}

/** What an attack is in turns. */
export function attackTurnFields({
  delivery,
  charges,
  area,
  next,
  summon,
  rounds,
}: Pick<Attack, 'delivery' | 'charges' | 'area' | 'next' | 'summon' | 'rounds'>): string[] {
  const { strikes, chosen } = traitsOf(delivery);
  return only({
    from: true,
    to: true,
    windup: true,
    recovery: true,
    cooldown: true,
    firstUse: true,
    hits: true,
    perTarget: (rounds?.hits ?? 1) > 1,
    recharge: charges,
    radius: area,
    delay: area,
    follows: next,
    around: summon,
    lunge: strikes && chosen,
  });
}

/** Distances of a state that its conduct goes by. */
export function stateTurnFields({ does }: Pick<State, 'does'>): string[] {
  return only({
    // Whoever holds may yet be asked whether somebody can be struck, or be played.
    moves: true,
    // In turns whoever searches goes to whom it knows of, and there is as far off as one that approaches.
    stopAt: does === 'approach' || does === 'search',
    near: keepsBand(does),
    far: keepsBand(does),
    radius: does === 'wander',
  });
}
