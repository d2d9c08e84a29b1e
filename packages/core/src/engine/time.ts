import { SECOND } from './tuning';

/** A duration of the document in whole microseconds: rounded once, half up. */
export function microseconds(seconds: number): number {
  return Math.floor(seconds * SECOND + 0.5);
}

/** A computed span in whole microseconds: rounded up, so that nothing happens before its time. */
export function microsecondsUp(seconds: number): number {
  return Math.ceil(seconds * SECOND);
}

/** Seconds of a whole number of microseconds. */
export function seconds(time: number): number {
  return time / SECOND;
}
