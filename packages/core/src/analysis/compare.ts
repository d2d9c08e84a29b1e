import { draw } from '../engine/time/chance';
import { quantileOf } from '../measures/quantile';

/** How the median of a measure moved between two versions run on the same seeds. */
export interface Change {
  /** after − before, of the medians */
  difference: number;
  low: number;
  high: number;
  /** The interval of the difference does not hold 0. */
  visible: boolean;
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

/**
 * Paired difference of medians with a 95 % percentile interval by bootstrap over seeds: runs are drawn with replacement,
 * each seed with both of its versions. Undefined unless both medians are finite. The draws are counter-based, so the same
 * two batches give the same interval.
 *
 * @param before one value a seed; NaN: none
 * @param after in the same order of seeds
 */
export function pairedChange(before: readonly number[], after: readonly number[]): Change | undefined {
  const pairs = before.map((value, i) => [value, after[i]]).filter(([a, b]) => a === a && b === b);
  const n = pairs.length;
  if (n < 2) return undefined;
  const orders = [0, 1].map((side) => pairs.map((_, i) => i).sort((i, j) => pairs[i][side] - pairs[j][side]));
  const medians = [0, 1].map((side) =>
    quantileOf(
      pairs.map((pair) => pair[side]).sort((a, b) => a - b),
      0.5,
    ),
  );
  if (!medians.every(Number.isFinite)) return undefined;
  const differences: number[] = [];
  const rank = Math.ceil(n / 2);
  for (const counts of resamples(n)) {
    const [from, to] = orders.map((order, side) => {
      let seen = 0;
      for (const i of order) if ((seen += counts[i]) >= rank) return pairs[i][side];
      return NaN;
    });
    if (Number.isFinite(to - from)) differences.push(to - from);
  }
  differences.sort((a, b) => a - b);
  if (!differences.length) return undefined;
  const low = quantileOf(differences, 0.025);
  const high = quantileOf(differences, 0.975);
  return { difference: medians[1] - medians[0], low, high, visible: low > 0 || high < 0 };
}
