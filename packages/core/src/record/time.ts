/** µs in a second. Time is a whole number of microseconds; doubles hold an hour of them exactly. */
export const SECOND = 1_000_000;

/** µs of a round: as many as in a second, so that what is told per second is told per round. */
export const ROUND = SECOND;

/** Which round an instant lies in, counted from 0. */
export const roundOf = (time: number): number => Math.floor(time / ROUND);

/** A duration of the document in whole microseconds: rounded once, half up. */
export function microseconds(seconds: number): number {
  return Math.floor(seconds * SECOND + 0.5);
}

/**
 * A computed span in whole microseconds: rounded up, so that nothing happens before its time. A millionth of a microsecond
 * more than a whole number is the noise of a double, not a span.
 */
export function microsecondsUp(seconds: number): number {
  return Math.ceil(seconds * SECOND - 1e-6);
}

/** Seconds of a whole number of microseconds. */
export function seconds(time: number): number {
  return time / SECOND;
}
