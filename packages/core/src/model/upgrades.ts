/** Documents of earlier versions of the format are made into today's, one small step after the other. */
import { type Json, isDictionary } from './pointer';
import { InvalidDocument } from './problem';

/** Makes a document of one version into one of the next; it may change what it is handed. */
export type Upgrade = (document: Record<string, Json>) => Record<string, Json>;

/** By the version that each starts from: the first is that of version 1. None is needed yet. */
export const UPGRADES: readonly Upgrade[] = [];

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
