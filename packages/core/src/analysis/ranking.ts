/** Enemies, encounters and tiers in order of how hard they measure, and whether the order that is declared is the measured one. */
import { type Interval, studentT } from '../measures/intervals';
import { type BandMeasure, GOAL_MEASURES } from '../measures/list';

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

/** A measure that tiers are ranked by, and its weight among several. */
export interface RankBy {
  measure: BandMeasure;
  weight: number;
}

export const RANKED_BY_DOSE: readonly RankBy[] = [{ measure: 'dose', weight: 1 }];

/** Measures that say how hard an encounter is as a whole. */
export const RANKING_MEASURES = (Object.keys(GOAL_MEASURES) as BandMeasure[]).filter((measure) => {
  const { of } = GOAL_MEASURES[measure];
  return of.includes('encounter') && !of.includes('wave');
});

/**
 * What tiers are ranked by, one value a run: a measure as it is; of several, Σ weight × its share of the lowest tier's mean,
 * where for one of which less is harder 2 − share counts, so that each is 1 at the lowest tier and more where it is harder.
 * A run without one of them, or that never came to it, has no value.
 * @param tiers in the declared order, each with the runs of every measure that it is ranked by, on the same seeds
 */
export function rankValues(
  tiers: readonly { id: string; values: (measure: BandMeasure) => ArrayLike<number> }[],
  by: readonly RankBy[],
): { id: string; values: number[] }[] {
  if (by.length === 1) return tiers.map(({ id, values }) => ({ id, values: Array.from(values(by[0].measure)) }));
  const known = tiers.filter(({ values }) => by.every(({ measure }) => values(measure).length > 0));
  const bases = by.map(({ measure }) => meanOf(known[0]?.values(measure) ?? []));
  return tiers.map(({ id, values }) => {
    const lists = by.map(({ measure }) => values(measure));
    const runs = Math.min(...lists.map(({ length }) => length));
    return {
      id,
      values: Array.from({ length: runs }, (_, run) =>
        by.reduce((sum, { measure, weight }, m) => {
          const share = lists[m][run] / bases[m];
          return sum + weight * (GOAL_MEASURES[measure].harder === 'less' ? 2 - share : share);
        }, 0),
      ),
    };
  });
}

function meanOf(values: ArrayLike<number>): number {
  const finite = Array.from(values).filter(Number.isFinite);
  return finite.reduce((a, b) => a + b, 0) / finite.length;
}

/** Whether a harder fight has less of what it is ranked by: so with a single measure of which that is said. */
export function lessIsHarder(by: readonly RankBy[]): boolean {
  return by.length === 1 && GOAL_MEASURES[by[0].measure].harder === 'less';
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
 * @param tiers in the declared order, each with what it is ranked by, one value a run
 * @param less the harder the fight, the less of it
 */
export function tierSteps(tiers: readonly { id: string; values: ArrayLike<number> }[], less = false): Step[] {
  return tiers.slice(1).flatMap(({ id, values }, i) => {
    const compared = pairedMean(tiers[i].values, values);
    if (!compared) return [];
    const [more, fewer] = [compared.low > 0, compared.high < 0];
    const says = (less ? fewer : more) ? 'harder' : (less ? more : fewer) ? 'easier' : 'unclear';
    return [{ below: tiers[i].id, id, compared, says }];
  });
}
