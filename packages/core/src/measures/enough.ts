/** How many runs are enough, and how verdicts over many bands are read together. */

/** Runs after which somebody looks at what there is: 100, 200, 400 … @param first where the looks begin */
export function nextLook(runs: number, first = 100): number {
  let look = first;
  while (look <= runs) look *= 2;
  return look;
}

export type Verdict = 'met' | 'missedLow' | 'missedHigh' | 'undecided';

export interface Between {
  /** Absent: no limit to that side. */
  low?: number;
  high?: number;
}

/** Where an interval lies to a band: inside it, wholly below, wholly above, or across an edge. */
export function verdictOf({ low, high }: { low: number; high: number }, band: Between): Verdict {
  const least = band.low ?? -Infinity;
  const most = band.high ?? Infinity;
  if (high < least) return 'missedLow';
  if (low > most) return 'missedHigh';
  return low >= least && high <= most ? 'met' : 'undecided';
}

/**
 * Holm's step-down procedure (Holm 1979, Scand. J. Statist. 6): of m tests the one with the k-th smallest p counts when
 * p ≤ α ÷ (m − k + 1) and all before it did; the chance of even one false finding stays at most α.
 *
 * Worked: p = 0.01, 0.04, 0.03 at 0.05: 0.01 ≤ 0.0167 counts, 0.03 > 0.025 ends it.
 */
export function holm(pValues: readonly number[], alpha = 0.05): boolean[] {
  const order = pValues.map((_, i) => i).sort((a, b) => pValues[a] - pValues[b]);
  const counts = pValues.map(() => false);
  for (let k = 0; k < order.length; k++) {
    if (!(pValues[order[k]] <= alpha / (order.length - k))) break;
    counts[order[k]] = true;
  }
  return counts;
}

/** A measure as the range across play styles: the least and the most of their medians. */
export function rangeAcross(medians: readonly (number | undefined)[]): { low: number; high: number } | undefined {
  const known = medians.filter((value): value is number => value !== undefined);
  return known.length ? { low: Math.min(...known), high: Math.max(...known) } : undefined;
}
