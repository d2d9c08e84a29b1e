/** What readouts of duels and of encounters have in common: runs that are gathered in the order of their seeds. */

import type { Compiled } from '../engine/tables';
import type { Row } from '../measures/row';

/** A readout in the making: runs in portions, here or elsewhere, so that a newer edit can take its place. */
export interface ReadoutWork<Part, Result> {
  /** Tells one readout from another: same key, same runs. */
  readonly key: string;
  readonly compiled: Compiled;
  /** Of the runs taken in, in the order of their seeds. */
  readonly rows: readonly Row[];
  /** Runs taken in. */
  readonly count: number;
  /** Runs seeds in a row without taking them in, for whoever gathers them. */
  run(firstSeed: number, runs: number): Part;
  /** Takes in runs of the seeds that come next. @throws Error for any other seeds */
  add(part: Part): void;
  result(): Result;
}

/** @throws Error where a row is not of the seed that comes next */
export function nextSeed({ seed }: { seed: number }, expected: number): void {
  if (seed !== expected) throw new Error(`the next run must be of seed ${expected}: it is of ${seed}`);
}
