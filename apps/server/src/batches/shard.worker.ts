/** Runs one shard of a batch in a worker thread. */
import { Batch, type Compiled, Curves, type Sample, sampleOf } from '@insidia/core';

export interface ShardTask {
  compiled: Compiled;
  firstSeed: number;
  runs: number;
}

export interface ShardResult {
  sample: Sample;
  /** Pressure at the end of each bin, share of full health a second; a row a run. */
  pressure: Float32Array;
}

export default function work({ compiled, firstSeed, runs }: ShardTask): ShardResult {
  const curves = new Curves(compiled);
  const batch = new Batch(compiled, firstSeed, runs, undefined, (run) => curves.add(run));
  batch.advance(runs);
  const bins = curves.times.length;
  const pressure = new Float32Array(runs * bins);
  curves.pressure.forEach((row, i) => pressure.set(row, i * bins));
  return { sample: sampleOf(compiled, batch.rows), pressure };
}
