/** Traits as forms offer them: a new one, and whom one may be given to. */
import { type GivenTrait, type Project, type Trait, idFor, nameFor, takenIds } from '@insidia/core';
import { scopeOf, whoseOffers } from './tweakPlaces';

/** Whom a trait may be given to. */
export const bearerOffers = (project: Project) => whoseOffers(project).filter(({ id }) => id !== 'encounter');

/** A trait of a name of its own that makes whoever has it hold out longer, until somebody says what is meant. */
export function newTrait(project: Project, base = 'New trait'): Trait {
  const name = nameFor(
    base,
    project.traits.map((trait) => trait.name),
  );
  return { id: idFor(name, takenIds(project)), name, tweaks: [{ path: '/health/max', op: '×', value: 1.5 }] };
}

/** Who is meant by a word of `bearerOffers`. */
export function bearers(whose: string): Pick<GivenTrait, 'scope' | 'of'> {
  const { scope, of } = scopeOf(whose);
  return { scope: scope === 'encounter' ? 'enemies' : scope, ...(of !== undefined && { of }) };
}
