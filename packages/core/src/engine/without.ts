/** An encounter without one of its waves, or without one kind of enemy: what does it do to the fight? */
import type { Encounter, Wave } from '../model/encounter';

/** `wave:ID`, `wave:ID+SECONDS` or `unit:ID`. */
export type Without = `wave:${string}` | `unit:${string}`;

/** The most seconds that an empty wave may stand for. */
const LONGEST = 3600;

/**
 * The wave still comes when it would, but brings nobody, so it is over at once, and what waits for its defeat comes sooner; with
 * so many seconds, what waits for it waits that much longer instead: its time passes, and nobody comes. A kind is missing from
 * every group and every pool. Luck goes by the ids of waves and groups, so all others are drawn as before on the same seed.
 * @throws Error for a wave that the encounter does not have, a name of neither sort, or a time that is none
 */
export function leaveOut(encounter: Encounter, without: string): Encounter {
  const [, sort, id, plus, seconds] = /^(wave|unit):([^+]*)(\+(.*))?$/.exec(without) ?? [];
  if (sort === undefined || (plus !== undefined && sort === 'unit'))
    throw new Error(`what is left out must be wave:ID, wave:ID+SECONDS or unit:ID: it is ${without}`);
  if (sort === 'unit') return { ...encounter, waves: encounter.waves.map((wave) => withoutUnit(wave, id)) };
  if (!encounter.waves.some((wave) => wave.id === id)) throw new Error(`there is no wave "${id}" in ${encounter.name}`);
  const time = plus === undefined ? 0 : seconds === '' ? NaN : Number(seconds);
  if (!(time >= 0 && time <= LONGEST)) throw new Error(`the seconds that pass for ${id} must be from 0 to ${LONGEST}: they are ${seconds}`);
  const waiting = waitingFor(encounter, id);
  return {
    ...encounter,
    waves: encounter.waves.map((wave) => {
      if (wave.id === id) return { ...wave, groups: [] };
      return waiting.includes(wave.id) ? { ...wave, delay: wave.delay + time } : wave;
    }),
  };
}

/** Waves that come once another is defeated. */
export function waitingFor({ waves }: Pick<Encounter, 'waves'>, id: string): string[] {
  return waves.filter(({ start, after }, i) => start === 'defeated' && (after ?? waves[i - 1]?.id) === id).map((wave) => wave.id);
}

function withoutUnit(wave: Wave, id: string): Wave {
  return {
    ...wave,
    groups: wave.groups
      .map((group) => ({ ...group, pool: group.pool.filter(({ enemy }) => enemy !== id) }))
      .filter((group, i) => (wave.groups[i].pool.length ? group.pool.length > 0 : group.enemy !== id)),
  };
}

/** What an encounter can be run without: its waves that bring somebody, and the kinds that they bring. */
export function partsOf({ waves }: Pick<Encounter, 'waves'>): { waves: string[]; units: string[] } {
  const units = waves.flatMap(({ groups }) => groups.flatMap(({ enemy, pool }) => (pool.length ? pool.map((one) => one.enemy) : [enemy])));
  return {
    waves: waves.filter(({ groups }) => groups.length > 0).map(({ id }) => id),
    units: [...new Set(units.filter((id): id is string => id !== undefined))],
  };
}
