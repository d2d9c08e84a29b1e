/**
 * What a change does to a statistic of a measure, from the same seeds before and after it. The interval is of the difference;
 * seeds that ran to the same digest add nothing to it.
 */
import { draw } from '../engine/time/chance';
import { Z95, Z995, studentT } from '../measures/intervals';
import type { Statistic } from '../measures/measure';
import { quantileOf } from '../measures/quantile';

export type Direction = 'up' | 'down' | 'none' | 'never' | 'mute';

export interface PairedEffect {
  /** The statistic before and after; NaN: it has none. */
  before: number;
  after: number;
  /** after − before; NaN where either is not finite */
  difference: number;
  low: number;
  high: number;
  /** Seeds that both have run. */
  runs: number;
  /** Seeds whose fight went otherwise. */
  touched: number;
  /**
   * up, down: the interval does not hold 0. none: it does. never: not one of the fights went otherwise, so in these runs there is
   * exactly none. mute: the measure can't speak, for it has no value, or no finite one, before or after.
   */
  says: Direction;
}

/** Whether something can be seen of it. */
export const isSeen = (effect: PairedEffect | undefined): boolean => effect?.says === 'up' || effect?.says === 'down';

/** One version of a fight, run on seeds in a row: what is read of a sample. */
export interface Ran {
  /** What tells one fight from another. */
  digests: ArrayLike<string | number>;
  /** One value a run; NaN: none, +∞: a survivor. */
  values: ArrayLike<number>;
}

const QUANTILE = { median: 0.5, p10: 0.1, p90: 0.9 } as const;

/** @param after of the same seeds, in the same order; of more seeds than one has, those that both have count */
export function effectOf(before: Ran, after: Ran, statistic: Statistic, confidence: 0.95 | 0.995 = 0.95): PairedEffect {
  const runs = Math.min(before.digests.length, after.digests.length);
  let touched = 0;
  const pairs: [number, number][] = [];
  for (let i = 0; i < runs; i++) {
    if (before.digests[i] !== after.digests[i]) touched++;
    const [a, b] = [before.values[i], after.values[i]];
    // A run that has no value on one side only has nothing to be compared with; a share counts it as not so.
    if (statistic === 'share') pairs.push([a > 0 ? 1 : 0, b > 0 ? 1 : 0]);
    else if (a === a && b === b) pairs.push([a, b]);
  }
  const [was, is] = [0, 1].map((side) =>
    statisticOf(
      pairs.map((pair) => pair[side]),
      statistic,
    ),
  );
  const known = Number.isFinite(was) && Number.isFinite(is);
  const base = { before: was, after: is, difference: known ? is - was : NaN, runs, touched };
  if (runs > 0 && touched === 0) return { ...base, low: 0, high: 0, says: 'never' };
  if (!known || pairs.length < 2) return { ...base, low: NaN, high: NaN, says: 'mute' };
  const interval =
    statistic === 'share'
      ? ofShares(pairs, confidence)
      : statistic === 'mean'
        ? ofMeans(pairs, confidence)
        : ofQuantiles(pairs, QUANTILE[statistic], confidence);
  const { low, high } = interval;
  return { ...base, low, high, says: low > 0 ? 'up' : high < 0 ? 'down' : 'none' };
}

function statisticOf(values: readonly number[], statistic: Statistic): number {
  if (!values.length) return NaN;
  if (statistic === 'share' || statistic === 'mean') return values.reduce((a, b) => a + b, 0) / values.length;
  return quantileOf(
    [...values].sort((a, b) => a - b),
    QUANTILE[statistic],
  );
}

/**
 * Paired shares: Wald's interval with half a pair more on each discordant side and one on both (Bonett & Price 2012, Statistics in
 * Medicine 31): of n pairs f₁₂ turned to yes, f₂₁ to no; p = (f + 1) ÷ (n + 2); p₁₂ − p₂₁ ± z √((p₁₂ + p₂₁ − (p₁₂ − p₂₁)²) ÷ (n + 2)).
 */
function ofShares(pairs: readonly (readonly [number, number])[], confidence: 0.95 | 0.995): { low: number; high: number } {
  const n = pairs.length + 2;
  const up = (pairs.filter(([a, b]) => a < b).length + 1) / n;
  const down = (pairs.filter(([a, b]) => a > b).length + 1) / n;
  const half = (confidence === 0.95 ? Z95 : Z995) * Math.sqrt((up + down - (up - down) ** 2) / n);
  return { low: up - down - half, high: up - down + half };
}

function ofMeans(pairs: readonly (readonly [number, number])[], confidence: 0.95 | 0.995): { low: number; high: number } {
  const n = pairs.length;
  const differences = pairs.map(([a, b]) => b - a);
  const mean = differences.reduce((a, b) => a + b, 0) / n;
  const squares = differences.reduce((sum, d) => sum + (d - mean) ** 2, 0);
  const half = studentT(n - 1, confidence === 0.95 ? Z95 : Z995) * Math.sqrt(squares / (n - 1) / n);
  return { low: mean - half, high: mean + half };
}

const RESAMPLES = 400;

/** How often each of n seeds is drawn in each resample: the same for every measure, so worked out once for an n. */
function resamples(n: number): Uint16Array[] {
  if (known?.[0].length === n) return known;
  known = Array.from({ length: RESAMPLES }, (_, b) => {
    const counts = new Uint16Array(n);
    for (let i = 0; i < n; i++) counts[Math.floor(draw(b, 0, 0, i) * n)]++;
    return counts;
  });
  return known;
}

let known: Uint16Array[] | undefined;

/** What two changes do together beyond the sum of what each does alone, from the same seeds run four ways. */
export function interactionOf(
  base: Ran,
  first: Ran,
  second: Ran,
  both: Ran,
  statistic: Statistic,
  confidence: 0.95 | 0.995 = 0.95,
): PairedEffect {
  const all = [base, first, second, both];
  const runs = Math.min(...all.map(({ digests }) => digests.length));
  let touched = 0;
  const rows: number[][] = [];
  for (let i = 0; i < runs; i++) {
    const [zero, one, other, two] = all.map(({ digests }) => digests[i]);
    // Where one of them changed nothing, with the other or without, there is nothing to be beyond.
    if (!((zero === one && other === two) || (zero === other && one === two))) touched++;
    const values = all.map((ran) => ran.values[i]);
    if (statistic === 'share') rows.push(values.map((value) => (value > 0 ? 1 : 0)));
    else if (values.every((value) => value === value)) rows.push(values);
  }
  const [b, a1, a2, after] = all.map((_, side) =>
    statisticOf(
      rows.map((row) => row[side]),
      statistic,
    ),
  );
  const before = a1 + a2 - b;
  const known = Number.isFinite(before) && Number.isFinite(after);
  const found = { before, after, difference: known ? after - before : NaN, runs, touched };
  if (runs > 0 && touched === 0) return { ...found, low: 0, high: 0, says: 'never' };
  if (!known || rows.length < 2) return { ...found, low: NaN, high: NaN, says: 'mute' };
  const { low, high } =
    statistic === 'share' || statistic === 'mean'
      ? ofMeans(
          rows.map(([zero, one, other, two]) => [one + other - zero, two]),
          confidence,
        )
      : ofQuantileSum(rows, [1, -1, -1, 1], QUANTILE[statistic], confidence);
  return { ...found, low, high, says: low > 0 ? 'up' : high < 0 ? 'down' : 'none' };
}

/** Difference of quantiles, the second's less the first's, with a percentile interval by bootstrap over seeds. */
export const ofQuantiles = (
  pairs: readonly (readonly [number, number])[],
  q: number,
  confidence: 0.95 | 0.995,
): { low: number; high: number } => ofQuantileSum(pairs, [-1, 1], q, confidence);

/**
 * A sum of quantiles of versions, each with its sign, by percentile bootstrap over seeds: each seed is drawn with all of its
 * versions. The draws are counter-based, so the same versions give the same interval. Resamples in which one is +∞ say nothing.
 *
 * @param rows a seed each, a version a column
 */
function ofQuantileSum(
  rows: readonly (readonly number[])[],
  signs: readonly number[],
  q: number,
  confidence: 0.95 | 0.995,
): { low: number; high: number } {
  const n = rows.length;
  const orders = signs.map((_, side) => rows.map((_row, i) => i).sort((i, j) => rows[i][side] - rows[j][side]));
  const rank = Math.max(1, Math.ceil(q * n - 1e-9));
  const sums: number[] = [];
  for (const counts of resamples(n)) {
    let sum = 0;
    for (let side = 0; side < signs.length; side++) {
      let seen = 0;
      for (const i of orders[side]) {
        if ((seen += counts[i]) < rank) continue;
        sum += signs[side] * rows[i][side];
        break;
      }
    }
    if (Number.isFinite(sum)) sums.push(sum);
  }
  if (!sums.length) return { low: NaN, high: NaN };
  sums.sort((a, b) => a - b);
  const tail = (1 - confidence) / 2;
  return { low: quantileOf(sums, tail), high: quantileOf(sums, 1 - tail) };
}
