import { quantileOf } from '../measures/quantile';
import { ofQuantiles } from './effect';

/** How the median of a measure moved between two versions run on the same seeds. */
export interface Change {
  /** after − before, of the medians */
  difference: number;
  low: number;
  high: number;
  /** The interval of the difference does not hold 0. */
  visible: boolean;
}

/**
 * Paired difference of medians with a 95 % percentile interval by bootstrap over seeds. Undefined unless both medians are finite.
 *
 * @param before one value a seed; NaN: none
 * @param after in the same order of seeds
 */
export function pairedChange(before: readonly number[], after: readonly number[]): Change | undefined {
  const pairs = before.map((value, i) => [value, after[i]] as const).filter(([a, b]) => a === a && b === b);
  if (pairs.length < 2) return undefined;
  const medians = [0, 1].map((side) =>
    quantileOf(
      pairs.map((pair) => pair[side]).sort((a, b) => a - b),
      0.5,
    ),
  );
  if (!medians.every(Number.isFinite)) return undefined;
  const { low, high } = ofQuantiles(pairs, 0.5, 0.95);
  if (low !== low) return undefined;
  return { difference: medians[1] - medians[0], low, high, visible: low > 0 || high < 0 };
}
