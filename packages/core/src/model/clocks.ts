/** Seconds, turns or both: what the fights that meet a unit go by. */
import type { Encounter } from './encounter';
import { metIn } from './meets';
import type { Project } from './project';
import { alteredUnit } from './variants';

/** What duels may go by: in turns as well where some fight takes them. */
export const duelClocks = ({ encounters }: Project): readonly Encounter['clock'][] =>
  encounters.some(({ clock }) => clock === 'rounds') ? ['continuous', 'rounds'] : ['continuous'];

/** By unit, what fights that meet it go by; in seconds where none does. Who meets whom is looked up once, for as many as are asked about. */
export function clocksIn(project: Project): (id: string) => Set<Encounter['clock']> {
  if (!duelClocks(project).includes('rounds')) return () => new Set(['continuous']);
  const fights = project.encounters.map((encounter) => ({
    clock: encounter.clock,
    met: new Set(metIn(encounter, encounter.party, (one) => alteredUnit(project, one))),
  }));
  return (id) => {
    const found = new Set(fights.filter(({ met }) => met.has(id)).map(({ clock }) => clock));
    return found.size ? found : found.add('continuous');
  };
}

/** The same of one unit. */
export const clocksOf = (project: Project, id: string): Set<Encounter['clock']> => clocksIn(project)(id);
