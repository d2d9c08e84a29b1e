/** An encounter without one of its waves, or without one kind of enemy: what does it do to the fight? */
import type { Encounter } from '../model/encounter';

/** `wave:ID` or `unit:ID`. */
export type Without = `wave:${string}` | `unit:${string}`;

/**
 * The wave still comes when it would, but brings nobody, so it is over at once; a kind is missing from every group and every pool. Luck goes by
 * the ids of waves and groups, so all others are drawn as before on the same seed.
 * @throws Error for a wave that the encounter does not have, or a name of neither sort
 */
export function leaveOut(encounter: Encounter, without: string): Encounter {
  const [sort, id] = [without.slice(0, 4), without.slice(5)];
  if ((sort !== 'wave' && sort !== 'unit') || without[4] !== ':')
    throw new Error(`what is left out must be wave:ID or unit:ID: it is ${without}`);
  if (sort === 'wave' && !encounter.waves.some((wave) => wave.id === id)) throw new Error(`there is no wave "${id}" in ${encounter.name}`);
  return {
    ...encounter,
    waves: encounter.waves.map((wave) =>
      sort === 'wave'
        ? wave.id === id
          ? { ...wave, groups: [] }
          : wave
        : {
            ...wave,
            groups: wave.groups
              .map((group) => ({ ...group, pool: group.pool.filter(({ enemy }) => enemy !== id) }))
              .filter((group, i) => (wave.groups[i].pool.length ? group.pool.length > 0 : group.enemy !== id)),
          },
    ),
  };
}

/** What an encounter can be run without: its waves that bring somebody, and the kinds that they bring. */
export function partsOf({ waves }: Pick<Encounter, 'waves'>): { waves: string[]; units: string[] } {
  const units = waves.flatMap(({ groups }) => groups.flatMap(({ enemy, pool }) => (pool.length ? pool.map((one) => one.enemy) : [enemy])));
  return {
    waves: waves.filter(({ groups }) => groups.length > 0).map(({ id }) => id),
    units: [...new Set(units.filter((id): id is string => id !== undefined))],
  };
}
