import { mean, sampleStandardDeviation } from 'simple-statistics';
import { type Interval, studentT } from './intervals';
import { quantileInterval, quantileOf } from './quantile';

/** A measure over a batch. Quantiles count +∞ (survivors); a mean exists only where every value is finite. */
export interface Summary {
  /** Runs that have a value. */
  n: number;
  /** Runs that have none (NaN), counted apart. */
  missing: number;
  /** Of n: how many are +∞. */
  infinite: number;
  median: number;
  interval: Interval;
  p10: number;
  p25: number;
  p75: number;
  p90: number;
  min: number;
  max: number;
  mean?: number;
  meanInterval?: Interval;
  standardDeviation?: number;
  /** Counts of the finite values in equal bins from min to the largest finite value. */
  histogram: { from: number; to: number; counts: number[] };
}

const BINS = 24;

/** @param values one a run, in run order; NaN: the run has none. Undefined when no run has one. */
export function summarise(values: ArrayLike<number>): Summary | undefined {
  const all = new Float64Array(values).sort();
  // NaN comes last, and +∞ before it.
  let n = all.length;
  while (n > 0 && all[n - 1] !== all[n - 1]) n--;
  if (!n) return undefined;
  const sorted = all.subarray(0, n);
  let end = n;
  while (end > 0 && sorted[end - 1] === Infinity) end--;
  const finite = new Array<number>(end);
  for (let i = 0; i < end; i++) finite[i] = sorted[i];
  const summary: Summary = {
    n,
    missing: all.length - n,
    infinite: n - finite.length,
    median: quantileOf(sorted, 0.5),
    interval: quantileInterval(sorted, 0.5),
    p10: quantileOf(sorted, 0.1),
    p25: quantileOf(sorted, 0.25),
    p75: quantileOf(sorted, 0.75),
    p90: quantileOf(sorted, 0.9),
    min: sorted[0],
    max: sorted[n - 1],
    histogram: histogram(finite),
  };
  if (finite.length === n) {
    summary.mean = mean(finite);
    if (n > 1) {
      summary.standardDeviation = sampleStandardDeviation(finite);
      const half = (studentT(n - 1) * summary.standardDeviation) / Math.sqrt(n);
      summary.meanInterval = { low: summary.mean - half, high: summary.mean + half };
    }
  }
  return summary;
}

function histogram(sorted: number[]): Summary['histogram'] {
  const from = sorted.length ? sorted[0] : 0;
  const to = sorted.length ? sorted[sorted.length - 1] : 0;
  const counts = new Array<number>(BINS).fill(0);
  for (const value of sorted) counts[to > from ? Math.min(BINS - 1, Math.floor(((value - from) / (to - from)) * BINS)) : 0]++;
  return { from, to, counts };
}
