/** Runs one shard of a batch in a worker thread. */
import { Batch, CURVES, type Compiled, Curves, type Sample, sampleOf } from '@insidia/core';

export interface ShardTask {
  compiled: Compiled;
  firstSeed: number;
  runs: number;
}

export interface ShardResult {
  sample: Sample;
  /** What is kept over the clock, one curve after the other in the core's order; of each a row a run, of each row a value a bin. */
  curves: Float32Array;
}

export default function work({ compiled, firstSeed, runs }: ShardTask): ShardResult {
  const curves = new Curves(compiled);
  const batch = new Batch(compiled, firstSeed, runs, curves.watch, (run) => curves.add(run));
  batch.advance(runs);
  const bins = curves.times.length;
  const all = new Float32Array(CURVES.length * runs * bins);
  CURVES.forEach((name, c) => curves.rows[name].forEach((row, i) => all.set(row, (c * runs + i) * bins)));
  return { sample: sampleOf(compiled, batch.rows), curves: all };
}
