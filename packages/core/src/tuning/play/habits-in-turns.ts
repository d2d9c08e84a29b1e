/**
 * Habits in fights that take turns: what distance in cells, how far it goes in a turn, where it ends its turns, whether it reacts.
 * What it makes of its turns, the share in which it takes the best, stays that of the skill.
 */
import { fieldWords } from '../../model/words';
import { Unit } from '../../model/unit';
import { keepsBand } from '../../model/state';
import { DISTANCES, type Habit, type Level, PACES, all, ofParty } from './levels';

export const habitsInTurns = (members: readonly Unit[]): Habit[] => [
  distances(members),
  { id: 'pace', levels: PACES.map(pace) },
  {
    id: 'ends',
    levels: ENDS.map(({ id, name }): Level => ({ says: `ends its turns ${name}`, idle: id === 'still', ...ofParty(ENDS_AT, '=', id) })),
  },
  reactions(members),
];

const ENDS_AT = '/rounds/plays/ends';
const ENDS = fieldWords(Unit, ['rounds', 'plays', 'ends']);

function distances(members: readonly Unit[]): Habit {
  const band = members.flatMap(({ states }) => states).find(({ does, rounds }) => keepsBand(does) && rounds?.far !== undefined)?.rounds;
  const cells = (value: number, by: number) => Math.floor(value * by + 0.5);
  const levels = DISTANCES.map((by): Level => {
    const says = band ? `keeps ${cells(band.near ?? 0, by)} to ${cells(band.far!, by)} cells` : `keeps ${by} of its distance`;
    return { says, idle: false, ...all([ofParty('/states/*/rounds/near', '×', by), ofParty('/states/*/rounds/far', '×', by)]) };
  });
  return { id: 'distance', levels };
}

const pace = (by: number): Level => ({
  says: by === 0 ? 'stands still' : 'goes half as far in a turn',
  idle: true,
  ...all([ofParty('/rounds/moves', '×', by), ofParty('/states/*/rounds/moves', '×', by)]),
});

/** To let what comes come, all of it: reactions are entries of a list, which no style takes out. */
function reactions(members: readonly Unit[]): Habit {
  const does = [...new Set(members.flatMap(({ rounds }) => rounds?.reactions.map((one) => one.does) ?? []))];
  if (!does.length) return { id: 'reactions', levels: [] };
  const path = '/units/*/rounds/reactions/*';
  const says = `reacts to nothing (no ${does.join(', no ')})`;
  return { id: 'reactions', levels: [{ says, idle: true, turns: [{ path, role: 'party', op: '=', value: false }] }] };
}
