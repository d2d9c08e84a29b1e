/** Seconds, turns or both: what the fights that meet a unit go by. */
import type { Encounter } from './encounter';
import { metIn } from './meets';
import type { Project } from './project';
import { alteredUnit } from './variants';

/** What duels may go by: in turns as well where some fight takes them. */
export const duelClocks = ({ encounters }: Project): readonly Encounter['clock'][] =>
  encounters.some(({ clock }) => clock === 'rounds') ? ['continuous', 'rounds'] : ['continuous'];

/** What fights that meet a unit go by; in seconds where none does. */
export function clocksOf(project: Project, id: string): Set<Encounter['clock']> {
  const turns = project.encounters.filter(({ clock }) => clock === 'rounds');
  if (!turns.length) return new Set(['continuous']);
  const meets = (encounter: Encounter) => metIn(encounter, encounter.party, (one) => alteredUnit(project, one)).includes(id);
  const found = new Set<Encounter['clock']>(turns.some(meets) ? ['rounds'] : []);
  if (!found.size || project.encounters.some((encounter) => encounter.clock === 'continuous' && meets(encounter))) found.add('continuous');
  return found;
}
