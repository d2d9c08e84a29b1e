/** The first ten minutes of a project: six steps, each done by doing it. Pure; what was only looked at is remembered elsewhere. */
import { ATTACK_BEGINNINGS, type Attack, type Project, beginAttack, sameJson, traitsOf } from '@insidia/core';

/** What leaves no trace in the document: a fight was watched, the board was run. */
export type Seen = 'fight' | 'board';

export interface Step {
  id: 'enemy' | 'attack' | 'fight' | 'wave' | 'goal' | 'board';
  name: string;
  /** What to do, while it is the next. */
  how: string;
  /** Path within the project to where it is done. */
  path: string;
  done: boolean;
}

/** Whether an attack is as one of the patterns begins it, whatever it is called. */
function asBegun(attack: Attack): boolean {
  const { id, name } = attack;
  return ATTACK_BEGINNINGS.some((one) => one.written.delivery === attack.delivery && sameJson(beginAttack(one, { id, name }), attack));
}

export function firstSteps(project: Project, seen: ReadonlySet<Seen>): Step[] {
  const enemies = project.units.filter(({ side }) => side === 'enemy');
  const [enemy] = enemies;
  const at = enemy ? `enemies/${enemy.id}` : 'enemies';
  const own = enemies.some(({ attacks }) => attacks.some((attack) => traitsOf(attack.delivery).strikes && !asBegun(attack)));
  const waves = project.encounters.some((one) => one.waves.some(({ groups }) => groups.length > 0));
  return [
    { id: 'enemy', name: 'an enemy', how: 'New enemy: choose what it does, give it a name', path: 'enemies', done: enemies.length > 0 },
    {
      id: 'attack',
      name: 'its attack',
      how: 'make its attack your own: drag an edge of its beat or reach, or type a number',
      path: at,
      done: own,
    },
    { id: 'fight', name: 'its fight', how: 'read the duel at the right, and open the run behind it', path: at, done: seen.has('fight') },
    {
      id: 'wave',
      name: 'a wave',
      how: 'New encounter: choose how it begins; a wave says who comes, where and when',
      path: 'encounters',
      done: waves,
    },
    {
      id: 'goal',
      name: 'a goal',
      how: 'Add a goal: what the fight is meant to be, such as a time-to-kill between two and six seconds',
      path: 'brief',
      done: (project.brief?.bands.length ?? 0) > 0,
    },
    { id: 'board', name: 'the board', how: 'run the board: every fight against every goal', path: 'board', done: seen.has('board') },
  ];
}

/** Whether a project is so new that it is worth showing. */
export const isBeginning = ({ units, variants, encounters }: Project): boolean =>
  units.filter(({ side }) => side === 'enemy').length + variants.length <= 1 && encounters.length <= 1;
