/** What an edit added in seconds and metres alone to what fights in turns is said in turns. */
import { type RoundScale, encounterWithRounds, withRounds } from './derive-rounds';
import { setAt } from './edit';
import { Encounter } from './encounter';
import { metIn } from './meets';
import { valueAt } from './pointer';
import type { Project } from './project';
import { lacksOf } from './rounds-relations';
import { Unit } from './unit';
import { alteredUnit, lineage } from './variants';

/** What a round and a cell stand for where nobody has said. */
export const USUAL_SCALE: RoundScale = { round: 2, cell: 1 };

/**
 * A document in which units of fights in turns, and these fights themselves, say in turns whatever was added in seconds
 * and metres alone: as an edit makes it, at the usual scale. What says something of turns stays as it is.
 * @returns the same object where nothing is lacking
 */
export function withTurnsFilled(project: Project): Project {
  const inTurns = project.encounters.filter(({ clock }) => clock === 'rounds');
  if (!inTurns.length) return project;
  const known = (id: string) => project.units.some((unit) => unit.id === id) || project.variants.some((variant) => variant.id === id);
  // What is named and not there is for the rules to refuse.
  if (inTurns.some(({ party, allies, waves }) => ![...party, ...allies].every(({ unit }) => known(unit)) || !namedIn(waves).every(known)))
    return project;
  const originals = new Set(
    inTurns.flatMap((encounter) =>
      metIn(encounter, encounter.party, (id) => alteredUnit(project, id)).map((id) => lineage(project, id).original.id),
    ),
  );
  let changed = false;
  const fill = <T extends object>(type: new () => object, object: T, derive: (object: T) => T): T => {
    const lacking = lacksOf(project, type, object);
    if (!lacking.length) return object;
    changed = true;
    const derived = derive(object);
    const copy = structuredClone(object);
    for (const path of lacking) setAt(copy, path, valueAt(derived, path));
    return copy;
  };
  const units = project.units.map((unit) => (originals.has(unit.id) ? fill(Unit, unit, (one) => withRounds(one, USUAL_SCALE)) : unit));
  const encounters = project.encounters.map((one) =>
    one.clock === 'rounds'
      ? fill(Encounter, one, (given) => encounterWithRounds(given, { ...USUAL_SCALE, cell: given.rounds?.cell ?? 1 }))
      : one,
  );
  return changed ? { ...project, units, encounters } : project;
}

const namedIn = (waves: Encounter['waves']): string[] =>
  waves.flatMap(({ groups }) =>
    groups.flatMap(({ enemy, pool }) => [enemy, ...pool.map((entry) => entry.enemy)].filter((id) => id !== undefined)),
  );
