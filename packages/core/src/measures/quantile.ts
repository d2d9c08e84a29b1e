/**
 * Quantile q of n values is the ⌈q n⌉-th smallest (the first at least): always a value that occurred, so a survivor
 * counted as +∞ can be one, and nothing is interpolated with it.
 *
 * @param sorted ascending, not empty, +∞ allowed
 * Worked: of 3, 5, 8, ∞ the median is the 2nd, 5; p90 is the 4th, ∞.
 */
export function quantileOf(sorted: ArrayLike<number>, q: number): number {
  return sorted[Math.max(1, Math.ceil(q * sorted.length - 1e-9)) - 1];
}

/**
 * Interval of a quantile by order statistics: the values of ranks l and u with P(l ≤ B < u) ≥ 0.95 for B binomial (n, q);
 * an end is open (−∞ or +∞) where no rank is far enough out. Exact for independent runs of any distribution.
 *
 * @param sorted ascending
 */
export function quantileInterval(sorted: ArrayLike<number>, q: number, confidence = 0.95): { low: number; high: number } {
  const n = sorted.length;
  const [l, u] = binomialRanks(n, q, (1 - confidence) / 2);
  return { low: l >= 1 ? sorted[l - 1] : -Infinity, high: u <= n ? sorted[u - 1] : Infinity };
}

const known = new Map<string, [number, number]>();

/** Largest l with P(B < l) ≤ tail and smallest u with P(B ≥ u) ≤ tail; ranks count from 1. */
function binomialRanks(n: number, q: number, tail: number): [number, number] {
  const key = `${n} ${q} ${tail}`;
  const before = known.get(key);
  if (before) return before;
  // Log-probabilities by recurrence, so that large n underflows nowhere.
  const odds = Math.log(q / (1 - q));
  const mass = new Float64Array(n + 1);
  let log = n * Math.log(1 - q);
  mass[0] = Math.exp(log);
  for (let k = 1; k <= n; k++) {
    log += odds + Math.log((n - k + 1) / k);
    mass[k] = Math.exp(log);
  }
  let l = 0;
  for (let below = mass[0]; l < n && below <= tail; below += mass[l]) l++;
  let u = n + 1;
  for (let above = mass[n]; u > 1 && above <= tail; above += mass[u - 1]) u--;
  known.set(key, [l, u]);
  return [l, u];
}

/** The median of values in any order; NaN of none. */
export function medianOf(values: readonly number[]): number {
  return values.length
    ? quantileOf(
        [...values].sort((a, b) => a - b),
        0.5,
      )
    : NaN;
}
