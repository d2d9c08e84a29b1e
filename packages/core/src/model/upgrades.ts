/** Documents of earlier versions of the format are made into today's, one small step after the other. */
import { idFor, nameFor } from './new-ids';
import { type Json, isDictionary } from './pointer';
import { InvalidDocument } from './problem';

/** Makes a document of one version into one of the next; it may change what it is handed. */
export type Upgrade = (document: Record<string, Json>) => Record<string, Json>;

/** By the version that each starts from: the first is that of version 1. */
export const UPGRADES: readonly Upgrade[] = [withTraits, asItIs, asItIs];

/**
 * A document of the newest version, from one of any; what has no version, or a strange one, is handed back as it is.
 * @throws InvalidDocument for one of a version that is not known yet
 */
export function upgraded(input: Json, upgrades: readonly Upgrade[] = UPGRADES): Json {
  if (!isDictionary(input) || !Number.isInteger(input.version)) return input;
  const newest = upgrades.length + 1;
  const version = input.version as number;
  if (version > newest) {
    const message = `must be at most ${newest}: it was written by a newer Insidia, which can read it`;
    throw new InvalidDocument([{ path: '/version', rule: 'version', value: version, message }]);
  }
  if (version < 1 || version === newest) return input;
  let document = structuredClone(input);
  for (let from = version; from < newest; from++) document = { ...upgrades[from - 1](document), version: from + 1 };
  return document;
}

/** The items of a list, or none where there is no list: what is wrong is found by the rules of the newest version. */
const items = (value: Json): Record<string, Json>[] => (Array.isArray(value) ? value.filter(isDictionary) : []);

/**
 * From version 1: what a share of a group carried becomes a trait, once for all that carry the same; and points with health,
 * which all stood in every encounter of their arena, are listed where none of its lists named them.
 */
function withTraits(document: Record<string, Json>): Record<string, Json> {
  const traits: { id: string; name: string; tweaks: Json }[] = [];
  const taken = Object.values(document).flatMap((list) => items(list).map(({ id }) => String(id)));
  const traitOf = (tweaks: Json): string => {
    const known = traits.find((trait) => JSON.stringify(trait.tweaks) === JSON.stringify(tweaks));
    if (known) return known.id;
    const name = nameFor(
      'Elite',
      traits.map((trait) => trait.name),
    );
    const id = idFor(name, [...taken, ...traits.map((trait) => trait.id)]);
    traits.push({ id, name, tweaks });
    return id;
  };
  for (const encounter of items(document.encounters)) {
    for (const wave of items(encounter.waves))
      for (const group of items(wave.groups)) {
        const { elite } = group;
        if (!isDictionary(elite)) continue;
        delete group.elite;
        group.traits = [{ trait: traitOf(elite.tweaks ?? []), share: elite.chance ?? 0.1 }];
      }
    listPoints(encounter, items(document.arenas));
  }
  return traits.length ? { ...document, traits } : document;
}

/** From version 2, no file of which asks anything of its numbers; from version 3, none of which has a fight that takes turns. */
function asItIs(document: Record<string, Json>): Record<string, Json> {
  return document;
}

function listPoints(encounter: Record<string, Json>, arenas: Record<string, Json>[]): void {
  const ends = encounter.ends ?? {};
  if (!isDictionary(ends) || ends.also !== undefined) return;
  const named = [ends.defend, ends.destroy].flatMap((list) => (Array.isArray(list) ? (list as Json[]) : []));
  const arena = arenas.find(({ id }) => id === encounter.arena);
  const standing = items(arena?.points).filter(({ id, health }) => health !== undefined && !named.includes(id));
  if (standing.length) encounter.ends = { ...ends, also: standing.map(({ id }) => id) };
}
