/** How many units an encounter's waves bring, all their comings together; who is summoned is not among them. */
import type { Encounter, Wave, WaveGroup } from './encounter';

/** The most units an encounter may bring, the party and allies among them. @param side of one side's groups alone */
export function plannedUnits(encounter: Encounter, side?: WaveGroup['side']): number {
  const most = (wave: Wave) =>
    overAllComings(
      wave,
      wave.groups.reduce((sum, group) => sum + (side === undefined || group.side === side ? placesOf(group) * group.count.max : 0), 0),
    );
  const standing = side === 'theirs' ? 0 : encounter.party.length + encounter.allies.length;
  return standing + encounter.waves.reduce((sum, wave) => sum + most(wave), 0);
}

/** The fewest and the most of one unit that an encounter brings. From a pool it may come not at all, or every time. */
export function plannedOf(encounter: Encounter, unit: string): { least: number; most: number } {
  const standing = [...encounter.party, ...encounter.allies].filter((member) => member.unit === unit).length;
  const planned = { least: standing, most: standing };
  for (const wave of encounter.waves) {
    let least = 0;
    let most = 0;
    for (const group of wave.groups) {
      const pool = group.pool.filter(({ weight }) => weight > 0).map(({ enemy }) => enemy);
      if (group.enemy === unit || (pool.length === 1 && pool[0] === unit)) least += placesOf(group) * group.count.min;
      if (group.enemy === unit || pool.includes(unit)) most += placesOf(group) * group.count.max;
    }
    planned.least += overAllComings(wave, least);
    planned.most += overAllComings(wave, most);
  }
  return planned;
}

/** Whether anybody stands for the party: a member, or a group of its side in a wave that must come. */
export function hasParty({ party, waves }: Pick<Encounter, 'party' | 'waves'>): boolean {
  return (
    party.length > 0 || waves.some((wave) => !wave.optional && wave.start !== 'called' && wave.groups.some(({ side }) => side === 'ours'))
  );
}

/** At how many places the whole count of a group comes. */
function placesOf({ rule, at }: WaveGroup): number {
  return rule === 'each' ? at.length : 1;
}

function overAllComings({ repeat }: Wave, once: number): number {
  let total = 0;
  for (let coming = 0, factor = 1; coming < (repeat?.times ?? 1); coming++, factor *= repeat?.count ?? 1) total += Math.ceil(once * factor);
  return total;
}
