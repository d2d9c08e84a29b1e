/**
 * What a goal comes to at a point, on a scale on which it goes about straight: shares by their log odds, means as they are. A quantile
 * is read in two ways: far from what is wanted by the logarithm of values around it (survivors count as the longest there is, so
 * nothing jumps when half of the runs end without); near it by how many runs lie on the wrong side of each edge, as shares, for
 * these go smoothly where the quantile itself jumps from lump to lump, and are just what a proof asks.
 */
import { estimate } from '../../measures/verdict';
import type { Objective } from '../goal';

/** Of a quantile, how much of the runs beside it speaks with it. */
const AROUND = 0.12;
const QUANTILE = { median: 0.5, p10: 0.1, p90: 0.9 } as const;
/** What a survivor, or what never happens, counts as: times the largest value, or the edge that is wanted. */
const BEYOND = 1.5;
const LEAST = 1e-6;

export interface Response {
  /** On the goal's own scale. */
  y: number;
  /** Its standard error. */
  error: number;
  runs: number;
}

/** A value on the scale of a goal. */
export function onScale({ statistic }: Pick<Objective, 'statistic'>, value: number, runs = 1000): number {
  if (statistic === 'share') {
    const p = Math.min(1 - 0.5 / (runs + 1), Math.max(0.5 / (runs + 1), value));
    return Math.log(p / (1 - p));
  }
  return statistic === 'mean' ? value : Math.log(Math.max(LEAST, value));
}

/** Between what a goal is wanted, on its scale. */
export function wantedOn(goal: Objective): { low: number; high: number } {
  const { low, high } = goal.band ?? {};
  return {
    low: low === undefined ? -Infinity : onScale(goal, low, 1e6),
    high: high === undefined ? Infinity : onScale(goal, high, 1e6),
  };
}

/** Runs with which a quantile speaks for itself as much as what lies around it. */
const ITSELF = 150;

/**
 * @param values one a run; NaN: none; +∞: a survivor
 * @param exact as it is judged: of a quantile nothing around it counts
 */
export function responseOf(goal: Objective, values: ArrayLike<number>, exact = false): Response | undefined {
  const own = Array.from(values).filter((value) => value === value);
  const runs = own.length;
  if (runs < 2) return undefined;
  const { statistic, band } = goal;
  if (statistic === 'share') {
    return oddsOf(own.map((value) => value > 0));
  }
  if (statistic === 'mean') {
    const finite = own.filter(Number.isFinite);
    if (finite.length < 2) return undefined;
    const mean = finite.reduce((a, b) => a + b, 0) / finite.length;
    const squares = finite.reduce((sum, value) => sum + (value - mean) ** 2, 0);
    return { y: mean, error: Math.max(LEAST, Math.sqrt(squares / (finite.length - 1) / finite.length)), runs };
  }
  own.sort((a, b) => a - b);
  const largest = own.filter(Number.isFinite).at(-1) ?? 1;
  const beyond = Math.log(BEYOND * Math.max(largest, band?.high ?? 0, band?.low ?? 0, LEAST));
  const logs = own.map((value) => (Number.isFinite(value) ? Math.log(Math.max(LEAST, value)) : beyond));
  const q = QUANTILE[statistic];
  const [from, to] = [Math.floor(Math.max(0, q - AROUND) * runs), Math.ceil(Math.min(1, q + AROUND) * runs)];
  const near = logs.slice(from, Math.max(from + 1, to));
  const middle = logs[Math.min(runs - 1, Math.max(0, Math.ceil(q * runs) - 1))];
  // What is judged is the quantile itself: with few runs those around it say more, with many it does.
  const itself = exact ? 1 : runs / (runs + ITSELF);
  const y = itself * middle + (1 - itself) * (near.reduce((a, b) => a + b, 0) / near.length);
  const { low, high } = estimate(logs, statistic);
  const error = Math.max(LEAST, (Math.min(high, beyond) - Math.max(low, logs[0])) / 3.92);
  return { y, error, runs };
}

/** One way in which a goal is read of a point's values. */
export interface Reading {
  goal: number;
  /** Between what it is wanted, on its scale. */
  low: number;
  high: number;
  of: (values: ArrayLike<number>, exact: boolean) => Response | undefined;
}

/** A goal as it is. */
export const wholeReading = (goal: Objective, index: number): Reading => ({
  goal: index,
  ...wantedOn(goal),
  of: (values, exact) => responseOf(goal, values, exact),
});

/** A quantile by its edges: the share of runs below the lower one is to be at most the quantile's, that up to the upper one at least. */
export function edgeReadings(goal: Objective, index: number): Reading[] {
  const { statistic, band = {} } = goal;
  if (statistic === 'share' || statistic === 'mean') return [wholeReading(goal, index)];
  const q = QUANTILE[statistic];
  const at = Math.log(q / (1 - q));
  const { low, high } = band;
  const share = (holds: (value: number) => boolean) => (values: ArrayLike<number>) =>
    oddsOf(Array.from(values).flatMap((value) => (value === value ? [holds(value)] : [])));
  return [
    ...(low === undefined ? [] : [{ goal: index, low: -Infinity, high: at, of: share((value) => value < low) }]),
    ...(high === undefined ? [] : [{ goal: index, low: at, high: Infinity, of: share((value) => value <= high) }]),
  ];
}

/** A share by its log odds. */
function oddsOf(held: readonly boolean[]): Response | undefined {
  const runs = held.length;
  if (runs < 2) return undefined;
  const p = (held.filter(Boolean).length + 0.5) / (runs + 1);
  return { y: Math.log(p / (1 - p)), error: 1 / Math.sqrt(runs * p * (1 - p)), runs };
}

/** How far a response lies outside of what is wanted, on its scale; 0: inside. */
export const outside = ({ low, high }: { low: number; high: number }, y: number): number => Math.max(0, low - y, y - high);
