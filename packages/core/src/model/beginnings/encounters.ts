/** What a new encounter may begin as: a party, and whom it meets. */
import type { Arena } from '../arena';
import { blank } from '../blank';
import { Encounter } from '../encounter';
import { LIMITS } from '../limits';
import { idFor } from '../new-ids';
import { type Beginning, beginningOf } from './beginning';
import { WAVE_BEGINNINGS, beginWave } from './waves';

export interface EncounterSetting {
  arena: Arena;
  /** Units of the party, in line. */
  party: readonly string[];
  /** Units that may come; the first is meant where one is. */
  enemies: readonly string[];
}

export interface EncounterBeginning extends Beginning {
  /** Its waves: which beginning each has, its name, and how many come. */
  waves: readonly { beginning: string; name: string; count: number }[];
  more?: (encounter: Encounter, enemies: readonly string[]) => void;
}

export const ENCOUNTER_BEGINNINGS: readonly EncounterBeginning[] = [
  {
    id: 'one',
    called: 'one wave',
    about: 'three of a kind at once',
    name: 'Encounter',
    waves: [{ beginning: 'together', name: 'Wave', count: 3 }],
  },
  {
    id: 'alone',
    called: 'one alone',
    about: 'a single enemy: a duel on this ground, or a boss',
    name: 'Alone',
    waves: [{ beginning: 'together', name: 'Alone', count: 1 }],
  },
  {
    id: 'growing',
    called: 'three waves, each larger',
    about: 'two, three, four: each once the one before is down',
    name: 'Three waves',
    waves: [2, 3, 4].map((count, i) => ({ beginning: 'together', name: `Wave ${i + 1}`, count })),
  },
  {
    id: 'lasting',
    called: 'a minute to last',
    about: 'two come every twelve seconds; won by standing after sixty',
    name: 'A minute',
    waves: [{ beginning: 'again', name: 'Again', count: 2 }],
    more: (encounter) => {
      const [wave] = encounter.waves;
      Object.assign(wave.repeat!, { times: 5, when: 'every', every: 12, pause: 0 });
      encounter.limit = 60;
      encounter.ends = { ...encounter.ends, cleared: false, survive: true };
    },
  },
  {
    id: 'kinds',
    called: 'one of each kind',
    about: 'of up to four kinds, together',
    name: 'One of each',
    waves: [{ beginning: 'together', name: 'One of each', count: 1 }],
    more: ({ waves: [wave] }, enemies) => {
      const [group] = wave.groups;
      wave.groups = enemies.slice(0, 4).map((enemy, i) => ({ ...structuredClone(group), id: `group-${i + 1}`, enemy }));
    },
  },
];

/** An encounter that begins so. @throws Error where nobody can come, or from nowhere */
export function beginEncounter(beginning: EncounterBeginning, setting: EncounterSetting, own: { id: string; name: string }): Encounter {
  const { arena, enemies, party } = setting;
  const encounter: Encounter = {
    ...blank(Encounter),
    ...own,
    arena: arena.id,
    party: party.slice(0, LIMITS.party).map((unit, i) => ({ id: `member-${i + 1}`, unit })),
  };
  for (const { beginning: begins, name, count } of beginning.waves) {
    const id = idFor(
      name,
      encounter.waves.map((wave) => wave.id),
    );
    const wave = beginWave(beginningOf(WAVE_BEGINNINGS, begins), { encounter, arena, enemies }, { id, name });
    wave.groups[0].count = { min: count, max: count };
    encounter.waves.push(wave);
  }
  beginning.more?.(encounter, enemies);
  return encounter;
}
