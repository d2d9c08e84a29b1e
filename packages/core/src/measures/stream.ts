import type { Compiled } from '../engine/compile';
import { EVENT } from '../engine/log';
import type { Run } from '../engine/run';

/** What a measure reads: a finished run and the tables it ran on. Times in the log are µs; measures report seconds. */
export interface Stream {
  compiled: Compiled;
  run: Run;
}

/** A unit number is on the party's side. */
export function isParty({ run }: Stream, unit: number): boolean {
  return unit >= 0 && run.sides[unit] === 0;
}

/** A row of the log in which somebody is hurt: by a hit, or by a tick of damage over time. */
export function isDamage(kind: number): boolean {
  return kind === EVENT.hit || kind === EVENT.tick;
}
