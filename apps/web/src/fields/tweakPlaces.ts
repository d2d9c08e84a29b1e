/** What a tweak can speak of, in words: whose number or word, and which. */
import {
  Encounter,
  type Project,
  TWEAK_SCOPES,
  type Tweak,
  placeName,
  type Constructor,
  type FieldTweak,
  changeableAt,
  placesOfTweaked,
  pointerSteps,
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

/**
 * What a tweak becomes where it is to change another place: as it is where that fits, else a number is left alone and a word is set.
 */
export function changeOf(
  root: Constructor,
  path: string,
  was?: Pick<FieldTweak, 'op' | 'value'>,
): Pick<FieldTweak, 'path' | 'op' | 'value'> {
  const field = changeableAt(root, pointerSteps(path));
  if (field?.kind === 'yesNo') return { path, op: '=', value: was?.value === false ? false : true };
  if (field?.kind === 'word') {
    const known = field.words.find((word) => word === was?.value);
    return { path, op: '=', value: known ?? field.words[0] };
  }
  return typeof was?.value === 'number' ? { path, op: was.op, value: was.value } : { path, op: '×', value: 1 };
}

/** Which numbers and words those have, the ones that hold for lists as a whole first. */
export function placeOffers(project: Project, whose: string, encounter?: Encounter): Offer[] {
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
    placesOfTweaked(unit)
      .filter((path) => !known.has(path))
      .map((path) => ({ id: path, name: nameOfPlace(unit, path).slice(unit.name.length + 1) })),
  );
  return [...wide, ...own];
}

const unique = (list: string[]) => [...new Set(list)];
