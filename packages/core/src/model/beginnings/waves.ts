/** What a new wave may begin as: who comes, how many, from where, when. */
import type { Arena } from '../arena';
import { blank } from '../blank';
import { type Encounter, PoolEntry, Repeat, Wave, WaveGroup } from '../encounter';
import { type Beginning } from './beginning';

/** What a wave is made for: at least one enemy, and an arena with somewhere to come from. */
export interface WaveSetting {
  encounter: Pick<Encounter, 'waves'>;
  arena: Pick<Arena, 'spawnPoints'>;
  /** Units that may come; the first is meant where one is. */
  enemies: readonly string[];
}

export interface WaveBeginning extends Beginning {
  /** Of its group, besides who comes: changed in place. */
  group?: (group: WaveGroup, setting: WaveSetting) => void;
  wave?: (wave: Wave, setting: WaveSetting) => void;
}

const many = (min: number, max = min) => ({ min, max });

export const WAVE_BEGINNINGS: readonly WaveBeginning[] = [
  { id: 'together', called: 'three at once', about: 'from one spawn point', name: 'Wave', group: (group) => (group.count = many(3)) },
  {
    id: 'trickle',
    called: 'one after another',
    about: 'five, two seconds apart',
    name: 'Trickle',
    group: (group) => Object.assign(group, { count: many(5), spacing: 2 }),
  },
  {
    id: 'sides',
    called: 'from all sides',
    about: 'one at each spawn point',
    name: 'From all sides',
    group: (group, { arena }) => Object.assign(group, { count: many(1), rule: 'each', at: arena.spawnPoints.map(({ id }) => id) }),
  },
  {
    id: 'mixed',
    called: 'a mixed handful',
    about: 'four to six, drawn from up to three kinds, each at a spawn point drawn for it',
    name: 'Mixed',
    group: (group, { arena, enemies }) => {
      delete group.enemy;
      Object.assign(group, {
        pool: enemies.slice(0, 3).map((enemy) => ({ ...blank(PoolEntry), enemy })),
        count: many(4, 6),
        rule: 'random',
        at: arena.spawnPoints.map(({ id }) => id),
      });
    },
  },
  {
    id: 'again',
    called: 'again and again',
    about: 'three, four times over, each three seconds after the last of them is down',
    name: 'Again',
    group: (group) => (group.count = many(3)),
    wave: (wave) => (wave.repeat = { ...blank(Repeat), times: 4, when: 'defeated', share: 1, pause: 3 }),
  },
  {
    id: 'reserve',
    called: 'a reserve',
    about: 'two, once four fifths of the wave before are down, at the latest after half a minute',
    name: 'Reserve',
    group: (group) => (group.count = many(2)),
    wave: (wave, { encounter }) => {
      if (encounter.waves.length) Object.assign(wave, { start: 'defeated', share: 0.8, timeout: 30 });
    },
  },
];

/**
 * A wave that begins so. It comes once the wave before it is defeated, the first at once; whoever comes knows of the party.
 * @throws Error where nobody can come, or from nowhere
 */
export function beginWave(beginning: WaveBeginning, setting: WaveSetting, own: { id: string; name: string }): Wave {
  const [enemy] = setting.enemies;
  const point = setting.arena.spawnPoints[0]?.id;
  if (enemy === undefined || point === undefined) throw new Error('a wave begins with an enemy and a spawn point');
  const group: WaveGroup = { ...blank(WaveGroup), id: 'group', enemy, at: [point], alerted: true };
  beginning.group?.(group, setting);
  const wave: Wave = { ...blank(Wave), ...own, start: setting.encounter.waves.length ? 'defeated' : 'atOnce', groups: [group] };
  beginning.wave?.(wave, setting);
  return wave;
}
