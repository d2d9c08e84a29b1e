/** A statistic of a measure over runs against a band: where it lies, how sure that is, and how many more runs would tell. */
import { errorFunction } from 'simple-statistics';
import { type Between, type Verdict, holm, verdictOf } from './enough';
import { type Interval, Z95, Z995, studentT, wilson } from './intervals';
import type { Statistic } from './measure';
import { quantileInterval, quantileOf } from './quantile';

const QUANTILE = { median: 0.5, p10: 0.1, p90: 0.9 } as const;

export interface Estimate extends Interval {
  /** NaN where the runs have none: a mean with survivors, nothing at all. */
  value: number;
  /** Runs that have a value. */
  n: number;
}

/** A statistic with its interval, of 95 % or of 99.5 %: quantiles by order statistics, means by t, shares by Wilson. @param values NaN: the run has none */
export function estimate(values: ArrayLike<number>, statistic: Statistic, confidence: 0.95 | 0.995 = 0.95): Estimate {
  const z = confidence === 0.95 ? Z95 : Z995;
  const own = Array.from(values).filter((value) => value === value);
  const n = own.length;
  if (n === 0) return { value: NaN, low: -Infinity, high: Infinity, n };
  if (statistic === 'share') {
    const hits = own.filter((value) => value > 0).length;
    return { value: hits / n, ...wilson(hits, n, z), n };
  }
  if (statistic === 'mean') {
    const { mean, error } = meanOf(own);
    const half = n > 1 ? studentT(n - 1, z) * error : Infinity;
    return Number.isFinite(mean)
      ? { value: mean, low: mean - half, high: mean + half, n }
      : { value: NaN, low: -Infinity, high: Infinity, n };
  }
  own.sort((a, b) => a - b);
  return { value: quantileOf(own, QUANTILE[statistic]), ...quantileInterval(own, QUANTILE[statistic], confidence), n };
}

/** Mean and its standard error. */
function meanOf(values: readonly number[]): { mean: number; error: number } {
  const n = values.length;
  const mean = values.reduce((a, b) => a + b, 0) / n;
  const squares = values.reduce((sum, value) => sum + (value - mean) ** 2, 0);
  return { mean, error: Math.sqrt(squares / (n - 1) / n) };
}

/** One band judged by itself. */
export interface Judgement {
  estimate: Estimate;
  /** What the 95 % interval says. */
  verdict: Verdict;
  /** Chance of so clear a picture, or a clearer one, were the truth at the band's nearest edge: two-sided; 1 where undecided on sight. */
  p: number;
  /** About how many more runs would decide; 0 where it is decided; undefined where it lies on the edge. */
  more?: number;
}

/** Runs beyond which nobody waits for a decision. */
const MOST_MORE = 100_000;

/**
 * Judges one band. The p-value matches the interval: it is below 0.05 where the 95 % interval is clear of the edges.
 *
 * @param values one a run, NaN: none
 */
export function judge(values: ArrayLike<number>, statistic: Statistic, band: Between): Judgement {
  const found = estimate(values, statistic);
  const verdict = found.n === 0 || Number.isNaN(found.value) ? 'undecided' : verdictOf(found, band);
  const own = Array.from(values).filter((value) => value === value);
  const { low = -Infinity, high = Infinity } = band;
  const tail = (edge: number, side: -1 | 1, closed = false) => (Number.isFinite(edge) ? tailOf(own, statistic, edge, side, closed) : 0);
  const { value } = found;
  let p = 1;
  if (value < low) p = tail(low, -1);
  else if (value > high) p = tail(high, 1);
  else if (value === value) p = Math.max(tail(low, 1, true), tail(high, -1, true));
  return { estimate: found, verdict, p: Math.min(1, 2 * p), more: verdict === 'undecided' ? moreRuns(found, band) : 0 };
}

/**
 * One-sided: how likely values lie so far to one side (1: above) of an edge when the statistic itself lies on it.
 * @param closed the edge belongs to that side, as a band's edges belong to the band: values that lie on it speak for it
 */
function tailOf(values: readonly number[], statistic: Statistic, edge: number, side: -1 | 1, closed: boolean): number {
  const n = values.length;
  if (statistic === 'share') {
    const share = values.filter((value) => value > 0).length / n;
    if (edge <= 0 || edge >= 1) return share === edge && !closed ? 1 : 0;
    return upper((side * (share - edge)) / Math.sqrt((edge * (1 - edge)) / n));
  }
  if (statistic === 'mean') {
    const { mean, error } = meanOf(values);
    return error > 0
      ? studentTail((side * (mean - edge)) / error, n - 1)
      : Number(closed ? side * (mean - edge) < 0 : side * (mean - edge) <= 0);
  }
  // Below the statistic lie at most a share q of all values, at it and below at least q: so the counts are binomial.
  const q = QUANTILE[statistic];
  const count = values.filter((value) => (side > 0 === closed ? value < edge : value <= edge)).length;
  return side > 0 ? binomialBelow(n, q, count) : 1 - (count > 0 ? binomialBelow(n, q, count - 1) : 0);
}

/** P(B ≤ k) for B binomial (n, q). */
function binomialBelow(n: number, q: number, k: number): number {
  const odds = Math.log(q / (1 - q));
  let log = n * Math.log(1 - q);
  let sum = Math.exp(log);
  for (let i = 1; i <= k; i++) {
    log += odds + Math.log((n - i + 1) / i);
    sum += Math.exp(log);
  }
  return Math.min(1, sum);
}

/** P(Z > z) of the standard normal; error below 1e-7. */
function upper(z: number): number {
  return (1 - errorFunction(z / Math.SQRT2)) / 2;
}

/** P(T > t) of Student's t with ν degrees of freedom, by Wallace's (1959) transformation to the normal: within 1 % from ν = 10 on. */
function studentTail(t: number, degrees: number): number {
  if (degrees < 1) return 1;
  const z = ((8 * degrees + 1) / (8 * degrees + 3)) * Math.sqrt(degrees * Math.log1p((t * t) / degrees));
  return upper(t < 0 ? -z : z);
}

/** The interval narrows with the root of the runs: how many until it no longer reaches over the nearest edge. */
function moreRuns({ value, low, high, n }: Estimate, band: Between): number | undefined {
  const edges = [band.low, band.high].filter((edge): edge is number => edge !== undefined);
  const apart = Math.min(...edges.map((edge) => Math.abs(value - edge)));
  const reach = value - edgeNearest(value, edges) > 0 ? value - low : high - value;
  // On the edge, without an interval or without runs this is endless, or no number at all.
  const more = Math.ceil((n * (reach / apart) ** 2 - n) / 50) * 50;
  return more <= MOST_MORE ? Math.max(50, more) : undefined;
}

function edgeNearest(value: number, edges: readonly number[]): number {
  return edges.reduce((best, edge) => (Math.abs(edge - value) < Math.abs(best - value) ? edge : best), edges[0]);
}

/** Verdicts over many bands read together (Holm at 5 %): what is decided by itself but not among so many is undecided. */
export function together(judgements: readonly Judgement[]): Verdict[] {
  const counts = holm(judgements.map(({ p }) => p));
  return judgements.map(({ verdict }, i) => (counts[i] ? verdict : 'undecided'));
}
