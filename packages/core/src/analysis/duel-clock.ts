/** Whether a duel is fought in seconds or takes turns, and what it is fought by where it does. */
import { clocksIn } from '../model/clocks';
import type { Encounter } from '../model/encounter';
import { metIn } from '../model/meets';
import type { Project } from '../model/project';
import { EncounterRounds } from '../model/rounds';
import { unitLacks } from '../model/rounds-relations';
import { alteredUnit } from '../model/variants';
import type { Clock } from '../record/clock';
import { DUEL_DEFAULTS, type DuelOptions } from './duel-setup';

type Asked = Pick<DuelOptions, 'enemy' | 'against' | 'company' | 'clock'>;

/**
 * As it is asked for; else in turns where all fights of the enemy take turns, and everyone else of the duel has some that do.
 * @param clocks by unit, where several duels are asked about
 */
export function clockOfDuel(project: Project, { enemy, against, company = [], clock }: Asked, clocks = clocksIn(project)): Clock {
  if (clock !== undefined) return clock;
  if (clocks(enemy).has('continuous')) return 'continuous';
  const others = [...(typeof against === 'string' ? [against] : against), ...company.map(({ unit }) => unit)];
  return others.every((id) => clocks(id).has('rounds')) ? 'rounds' : 'continuous';
}

/** Between them at the start, where nobody says: m, or cells. */
export const usualDistance = (clock: Clock): number => DUEL_DEFAULTS[clock === 'rounds' ? 'cells' : 'distance'];

/** How its turns go: as in the first fight in turns that meets the enemy, or any; no ground costs more in a duel's own arena. */
export function duelRounds(project: Project, enemy: string): EncounterRounds {
  const turns = project.encounters.filter(({ clock, rounds }) => clock === 'rounds' && rounds);
  const meets = (one: Encounter) => metIn(one, one.party, (id) => alteredUnit(project, id)).includes(enemy);
  return { ...new EncounterRounds(), ...(turns.find(meets) ?? turns[0])?.rounds };
}

/** Whether distances, walls and where one comes from mean something in a duel: in turns it may be fought without ground. */
export const duelHasGround = (project: Project, duel: Asked): boolean =>
  clockOfDuel(project, duel) === 'continuous' || duelRounds(project, duel.enemy).ground !== 'none';

/** @throws Error for a unit of the duel, or that one calls, that says nothing of turns */
export function mustTakeTurns(project: Project, encounter: Encounter): void {
  for (const id of metIn(encounter, encounter.party, (one) => alteredUnit(project, one))) {
    const unit = alteredUnit(project, id);
    const [lack] = unitLacks(project, unit, [project.units.includes(unit) ? 'units' : 'variants', id], '');
    if (lack) throw new Error(`${unit.name} can’t take turns: ${lack.path} is missing`);
  }
}
