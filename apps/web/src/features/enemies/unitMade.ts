/** Fetched when something is made. New units and encounters as patterns begin them, in a document. Pure; documents are made anew. */
export { ordinaryOpponent } from '@insidia/core';
import {
  ENCOUNTER_BEGINNINGS,
  beginningOf,
  type Encounter,
  type EncounterBeginning,
  type Project,
  type Unit,
  type UnitBeginning,
  beginEncounter,
  beginUnit,
  blankUnit,
  idFor,
  nameFor,
  takenIds,
  unitHeads,
} from '@insidia/core';

const COLOURS = ['clay', 'violet', 'blue', 'teal', 'moss', 'amber', 'orchid', 'navy', 'umber', 'ink'] as const;

/** The colour that the fewest units have. */
export function freeColour(project: Project): Unit['colour'] {
  const used = (colour: string) => unitHeads(project).filter((head) => head.colour === colour).length;
  return [...COLOURS].sort((a, b) => used(a) - used(b))[0];
}

/** A project with one unit more, which begins as a pattern or empty. @param name free or not: a free one near it is taken */
export function withNewUnit(
  project: Project,
  side: Unit['side'],
  pattern: UnitBeginning | undefined,
  name: string,
): { document: Project; unit: Unit } {
  const own = nameFor(
    name,
    unitHeads(project).map((head) => head.name),
  );
  const id = idFor(own, takenIds(project));
  const colour = freeColour(project);
  const unit = pattern ? beginUnit(pattern, { id, name: own, colour }) : { ...blankUnit(id, own, side), colour };
  return { document: { ...project, units: [...project.units, unit] }, unit };
}

/** What an encounter is begun with: the first ground that somebody can come to, the first of the party, and enemies. */
export function settingOf(project: Project, enemies: readonly string[]) {
  const heads = unitHeads(project);
  const arena = project.arenas.find(({ spawnPoints }) => spawnPoints.length > 0);
  const party = heads.filter(({ side }) => side === 'party').slice(0, 1);
  return arena && enemies.length ? { arena, party: party.map(({ id }) => id), enemies } : undefined;
}

/** A project with one encounter more, begun as a pattern; undefined where nobody can come, or from nowhere. */
export function withNewEncounter(
  project: Project,
  pattern: EncounterBeginning,
  enemies: readonly string[],
  name: string,
): { document: Project; encounter: Encounter } | undefined {
  const setting = settingOf(project, enemies);
  if (!setting) return undefined;
  const own = nameFor(
    name,
    project.encounters.map((one) => one.name),
  );
  const encounter = beginEncounter(pattern, setting, { id: idFor(own, takenIds(project)), name: own });
  return { document: { ...project, encounters: [...project.encounters, encounter] }, encounter };
}

/** The simplest encounter for one enemy that has none. */
export const withEncounterFor = (project: Project, { id, name }: Pick<Unit, 'id' | 'name'>) =>
  withNewEncounter(project, beginningOf(ENCOUNTER_BEGINNINGS, 'alone'), [id], name);
