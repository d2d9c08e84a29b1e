/**
 * Time as measures tell it: seconds, or rounds where a fight takes turns. A moment of such a fight is told by its round,
 * counted from 1, and a span by how many rounds it touches: whoever is hurt and dies in the same round is killed in one.
 *
 * Worked: first hurt in round 2, dead in round 5: rounds-to-kill 4.
 */
import { type Clock, clockOf } from '../record/clock';
import { ROUND, SECOND, roundOf } from '../record/time';
import type { Stream } from './stream';

/** s: the window W of damage pressure; how long a lull is at least. */
export const PRESSURE_WINDOW_SECONDS = 3;
export const LULL_SECONDS = 3;

export const takesTurns = ({ compiled }: Stream): boolean => clockOf(compiled) === 'rounds';

/** s, or the number of the round. @param time µs; the end by the limit belongs to the last round */
export function told(stream: Stream, time: number): number {
  if (!takesTurns(stream)) return time / SECOND;
  return Math.min(roundOf(time) + 1, Math.max(1, stream.compiled.limit / ROUND));
}

/** s, or rounds, from one instant to another, µs; +∞ where it never came. */
export function spanOf(stream: Stream, from: number, to: number): number {
  if (!takesTurns(stream)) return (to - from) / SECOND;
  return to === Infinity ? Infinity : told(stream, to) - told(stream, from) + 1;
}

/** How long the run lasted: s, or rounds begun. */
export const lengthOf = (stream: Stream): number => told(stream, stream.run.length);

/** Of damage pressure: what window a loss counts in, how long a lull is at least; s or rounds. */
export interface PressureClock {
  window: number;
  lull: number;
  rounds: boolean;
}

/** In turns harm is told a round, and a round with next to none is a lull. */
export const PRESSURE_CLOCKS: Readonly<Record<Clock, PressureClock>> = {
  continuous: { window: PRESSURE_WINDOW_SECONDS, lull: LULL_SECONDS, rounds: false },
  rounds: { window: 1, lull: 1, rounds: true },
};

export const pressureClock = ({ compiled }: Stream): PressureClock => PRESSURE_CLOCKS[clockOf(compiled)];

/**
 * Where a curve is looked at for given instants of a run, s or rounds since it began: there; in rounds at the end of the round
 * that each lies in, so that a round is one step of it.
 */
export function lookedAt(stream: Stream, times: ArrayLike<number>): ArrayLike<number> {
  return takesTurns(stream) ? Float64Array.from(times, (time) => Math.max(1, Math.ceil(time - 1e-9))) : times;
}
