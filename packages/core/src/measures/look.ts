/** Looks at a batch in the making: whether what it was run for is clear by now. */
import type { Statistic } from './measure';
import { type Between, type Verdict, verdictOf } from './enough';
import { type Estimate, estimate } from './verdict';

/** Confidence of the interval at a look: several looks share what one is allowed to get wrong. */
export const LOOK_CONFIDENCE = 0.995;

export interface Wanted {
  statistic?: Statistic;
  /** The interval may be so wide. */
  tolerance?: number;
  /** The same as a share of the value. */
  narrower?: number;
  /** What it is to lie between. */
  band?: Between;
  /** Runs at which it ends whatever it says. */
  cap: number;
}

export interface Look {
  runs: number;
  estimate: Estimate;
  verdict?: Verdict;
  /** Whether the batch may stop. */
  enough: boolean;
  /** It is at its cap and still undecided. */
  onTheEdge: boolean;
}

/**
 * Enough when the 99.5 % interval is narrower than what is asked, or clear of the band's edges. At the cap it is enough whatever it says.
 *
 * @param values one a run, NaN: none, +∞ allowed
 */
export function look(values: ArrayLike<number>, { statistic = 'median', tolerance, narrower, band, cap }: Wanted): Look {
  const found = estimate(values, statistic, LOOK_CONFIDENCE);
  const known = found.n > 0 && !Number.isNaN(found.value);
  const verdict = band && (known ? verdictOf(found, band) : 'undecided');
  const most = Math.max(tolerance ?? -1, narrower === undefined || !known ? -1 : narrower * Math.abs(found.value));
  // Survivors from end to end are as sure as can be: ∞ − ∞ is no width.
  const narrow = known && (found.high === found.low ? most >= 0 : found.high - found.low <= most);
  const clear = verdict !== undefined && verdict !== 'undecided';
  const capped = values.length >= cap;
  return {
    runs: values.length,
    estimate: found,
    verdict,
    enough: narrow || clear || capped,
    onTheEdge: capped && !clear && band !== undefined,
  };
}
