/** What a tweak can speak of, in words: whose number, and which. */
import {
  Encounter,
  type Project,
  TWEAK_SCOPES,
  type Tweak,
  placeName,
  placesOfNumbers,
  unitHeads,
  widePlaces,
  writtenUnit,
} from '@insidia/core';
import { nameOfPlace } from './edits';

export interface Offer {
  id: string;
  name: string;
}

/** Whose number a tweak changes, as one word: "enemies", "role swarm", "unit clipper". */
export function whoseOf({ scope, of }: Pick<Tweak, 'scope' | 'of'>): string {
  return of === undefined ? scope : `${scope} ${of}`;
}

/** Back from the word. */
export function scopeOf(whose: string): Pick<Tweak, 'scope' | 'of'> {
  // A role may have spaces in it.
  const [, scope, of] = /^(\S+)(?: (.*))?$/.exec(whose) ?? [];
  return { scope: TWEAK_SCOPES.find((one) => one === scope) ?? 'enemies', ...(of !== undefined && { of }) };
}

/** All whose numbers a tweak may change. */
export function whoseOffers(project: Project): Offer[] {
  const heads = unitHeads(project);
  const roles = unique(heads.map(({ role }) => role)).filter(Boolean);
  return [
    { id: 'enemies', name: 'all enemies' },
    { id: 'party', name: 'the party' },
    ...roles.map((role) => ({ id: `role ${role}`, name: `role ${role}` })),
    ...heads.map(({ id, name }) => ({ id: `unit ${id}`, name })),
    { id: 'encounter', name: 'the encounter' },
  ];
}

/** Which numbers those have, the ones that hold for lists as a whole first. */
export function numberOffers(project: Project, whose: string, encounter?: Encounter): Offer[] {
  const { scope, of } = scopeOf(whose);
  if (scope === 'encounter') {
    const all = encounter ? [encounter] : project.encounters;
    return unique(all.flatMap((one) => widePlaces(one, Encounter))).map((id) => ({ id, name: placeName(id, Encounter) }));
  }
  const units = unitHeads(project)
    .filter(
      ({ id, side, role }) =>
        (scope === 'enemies' && side === 'enemy') ||
        (scope === 'party' && side === 'party') ||
        (scope === 'role' && role === of) ||
        (scope === 'unit' && id === of),
    )
    .map(({ id }) => writtenUnit(project, id));
  const wide = unique(units.flatMap((unit) => widePlaces(unit))).map((id) => ({ id, name: placeName(id) }));
  if (scope !== 'unit') return wide;
  const known = new Set(wide.map(({ id }) => id));
  const own = units.flatMap((unit) =>
    placesOfNumbers(unit)
      .filter((path) => !known.has(path))
      .map((path) => ({ id: path, name: nameOfPlace(unit, path).slice(unit.name.length + 1) })),
  );
  return [...wide, ...own];
}

const unique = (list: string[]) => [...new Set(list)];
