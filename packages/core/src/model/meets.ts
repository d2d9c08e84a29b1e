/** Which units may appear in an encounter. */
import type { Encounter, PartyMember } from './encounter';
import type { Unit } from './unit';

/**
 * Ids of all that may appear: the party, allies, waves, and what they summon, in the order in which they are named.
 * @param members of the party that take part
 * @param unitOf what an id stands for
 */
export function metIn({ allies, waves }: Encounter, members: readonly PartyMember[], unitOf: (id: string) => Unit): string[] {
  const found = new Set([...members, ...allies].map(({ unit }) => unit));
  for (const { groups } of waves) {
    for (const { enemy, pool } of groups)
      for (const id of [enemy, ...pool.map((entry) => entry.enemy)]) if (id !== undefined) found.add(id);
  }
  for (const id of found) for (const { summon } of unitOf(id).attacks) if (summon) found.add(summon.unit);
  return [...found];
}
