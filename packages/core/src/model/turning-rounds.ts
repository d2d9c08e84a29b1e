/** A document turned so that one of its fights takes turns. */
import { type RoundScale, encounterWithRounds, withRounds } from './derive-rounds';
import { metIn } from './meets';
import type { Project } from './project';
import { alteredUnit, lineage } from './variants';
import { parseProject } from './validate';

/**
 * A document in which an encounter takes turns: it, and every unit that it meets and that says nothing of turns yet, with the
 * groups that are needed. What is written of turns already stays; a unit that a variant is based on brings it what it needs.
 * @throws Error for an encounter that is not there, InvalidDocument where something is left that can't be derived
 */
export function projectWithRounds(project: Project, encounter: string, scale: RoundScale): Project {
  if (!(scale.round > 0 && scale.round <= 600)) throw new Error(`a round must be more than 0 and at most 600 s: it is ${scale.round}`);
  if (!(scale.cell >= 0.5 && scale.cell <= 20)) throw new Error(`a cell must be from 0.5 to 20 m: it is ${scale.cell}`);
  const found = project.encounters.find(({ id }) => id === encounter);
  if (!found) throw new Error(`there is no encounter "${encounter}" in ${project.name}`);
  const originals = new Set(metIn(found, found.party, (id) => alteredUnit(project, id)).map((id) => lineage(project, id).original.id));
  return parseProject({
    ...project,
    units: project.units.map((unit) => (originals.has(unit.id) && !unit.rounds ? withRounds(unit, scale) : unit)),
    encounters: project.encounters.map((one) => (one === found ? encounterWithRounds(one, scale) : one)),
  });
}
