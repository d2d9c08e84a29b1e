/** What habits are made of: levels, each a turn of every party member and, where a play style can say it, the tweak that comes to it. */
import type { Turn } from '../../model/turn';
import type { Tweak } from '../../model/tweak';

/** One way of a habit. */
export interface Level {
  /** In words: "never takes cover". Of the first: empty. */
  says: string;
  turns: Turn[];
  /** The same as a play style has it; absent: no style can say it. */
  tweaks?: Tweak[];
  /** It asks less of a player than what is written. */
  idle: boolean;
}

export interface Habit {
  id: string;
  /** The first is as it is written. */
  levels: Level[];
}

export const AS_WRITTEN: Level = { says: '', turns: [], tweaks: [], idle: false };

/** Shares of the distances that are written. */
export const DISTANCES = [0.25, 0.5, 0.75, 1.4, 2, 3];
export const PACES = [0.5, 0];

/** A turn of every party member, and the tweak that comes to it. */
export function ofParty(path: string, op: '×' | '=', value: number | string): Pick<Level, 'turns' | 'tweaks'> {
  return {
    turns: [{ path: `/units/*${path}`, role: 'party', op, value }],
    tweaks: [Object.assign({} as Tweak, { scope: 'party', path, op, value })],
  };
}

/** Several of one level. */
export function all(parts: readonly Pick<Level, 'turns' | 'tweaks'>[]): Pick<Level, 'turns' | 'tweaks'> {
  const tweaks = parts.every((one) => one.tweaks) ? parts.flatMap((one) => one.tweaks!) : undefined;
  return { turns: parts.flatMap(({ turns }) => turns), ...(tweaks && { tweaks }) };
}
