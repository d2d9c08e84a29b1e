/** Runs a batch in a worker thread. */
import { type BatchSummary, type Compiled, runBatch } from '@insidia/core';

export default function work({ compiled, seed, runs }: { compiled: Compiled; seed: number; runs: number }): BatchSummary {
  return runBatch(compiled, seed, runs);
}
