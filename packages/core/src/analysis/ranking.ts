/** Enemies, encounters and tiers in order of how hard they measure, and whether the order that is declared is the measured one. */
import { type Interval, studentT } from '../measures/intervals';

export interface Compared extends Interval {
  /** Mean of second − first over the seeds. */
  difference: number;
}

/** Paired difference of means on the same seeds with its 95 % interval by t. @param first one value a seed, finite; NaN: none */
export function pairedMean(first: ArrayLike<number>, second: ArrayLike<number>): Compared | undefined {
  const differences: number[] = [];
  for (let i = 0; i < Math.min(first.length, second.length); i++) {
    const difference = second[i] - first[i];
    if (Number.isFinite(difference)) differences.push(difference);
  }
  const n = differences.length;
  if (n < 2) return undefined;
  const mean = differences.reduce((a, b) => a + b, 0) / n;
  const squares = differences.reduce((sum, value) => sum + (value - mean) ** 2, 0);
  const half = studentT(n - 1) * Math.sqrt(squares / (n - 1) / n);
  return { difference: mean, low: mean - half, high: mean + half };
}

export interface Rank {
  id: string;
  /** Mean over the runs. */
  value: number;
  interval: Interval;
}

/** From the least to the most. */
export function ranked(entries: readonly { id: string; values: ArrayLike<number> }[]): Rank[] {
  return entries
    .flatMap(({ id, values }) => {
      const own = Array.from(values).filter(Number.isFinite);
      if (!own.length) return [];
      const value = own.reduce((a, b) => a + b, 0) / own.length;
      const deviation = Math.sqrt(own.reduce((sum, x) => sum + (x - value) ** 2, 0) / Math.max(1, own.length - 1));
      const half = own.length > 1 ? (studentT(own.length - 1) * deviation) / Math.sqrt(own.length) : Infinity;
      return [{ id, value, interval: { low: value - half, high: value + half } }];
    })
    .sort((a, b) => a.value - b.value);
}

/** A tier and the one declared below it. */
export interface Step {
  below: string;
  id: string;
  compared: Compared;
  /** Measurably harder; measurably not; too close to call. */
  says: 'harder' | 'easier' | 'unclear';
}

/**
 * Whether each tier is harder than the one declared below it, on the same seeds.
 * @param tiers in the declared order, each with its pressure dose a run
 */
export function tierSteps(tiers: readonly { id: string; values: ArrayLike<number> }[]): Step[] {
  return tiers.slice(1).flatMap(({ id, values }, i) => {
    const compared = pairedMean(tiers[i].values, values);
    if (!compared) return [];
    const says = compared.low > 0 ? 'harder' : compared.high < 0 ? 'easier' : 'unclear';
    return [{ below: tiers[i].id, id, compared, says }];
  });
}
