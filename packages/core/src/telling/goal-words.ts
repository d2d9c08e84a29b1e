/** Numbers of measures as a board tells them. */
import type { Verdict } from '../measures/enough';
import type { Statistic } from '../measures/measure';
import { type BandMeasure, GOAL_MEASURES, goalIn } from '../measures/list';
import type { Clock } from '../record/clock';
import { clockTime, fixed, shown } from './numbers';

/** What a number of a measure is written behind. */
export function unitOf(measure: BandMeasure, clock: Clock = 'continuous'): string {
  const { unit } = goalIn(measure, clock);
  if (!GOAL_MEASURES[measure].percent) return unit;
  return unit.startsWith('/') ? `%${unit}` : '%';
}

/** As people read and type it: percent where it is told so. */
export function told(measure: BandMeasure, value: number): number {
  return GOAL_MEASURES[measure].percent ? value * 100 : value;
}

export function untold(measure: BandMeasure, value: number): number {
  return GOAL_MEASURES[measure].percent ? value / 100 : value;
}

/** "6.8", "1:36" from ninety seconds on, "never" for a survivor, "—" for nothing. */
export function numberOf(measure: BandMeasure, value: number, clock: Clock = 'continuous'): string {
  if (Number.isNaN(value)) return '—';
  if (value === Infinity) return 'never';
  const own = told(measure, value);
  if (unitOf(measure, clock) === 's' && own >= 90) return clockTime(own);
  // A count of rounds is whole in every run.
  if (clock === 'rounds' && Number.isInteger(own)) return shown(own);
  const size = Math.abs(own);
  return size === 0 ? '0' : fixed(own, size >= 100 ? 0 : size >= 10 ? 1 : 2);
}

/** A number that somebody chose, or a tick of a ruler: no more places than it has. */
export function plainOf(measure: BandMeasure, value: number, clock: Clock = 'continuous'): string {
  const own = told(measure, value);
  return unitOf(measure, clock) === 's' && own >= 90 ? clockTime(own) : shown(own);
}

/** The same with its unit. */
export function quantityOf(measure: BandMeasure, value: number, clock: Clock = 'continuous'): string {
  const text = numberOf(measure, value, clock);
  const unit = unitOf(measure, clock);
  return text === '—' || text === 'never' || text.includes(':') || !unit ? text : `${text} ${unit}`;
}

/** "wanted 4.5–7", "wanted at most 9". */
export function wantedWords(measure: BandMeasure, { low, high }: { low?: number; high?: number }, clock: Clock = 'continuous'): string {
  const number = (value: number) => plainOf(measure, value, clock);
  if (low === undefined) return `wanted at most ${number(high ?? Infinity)}`;
  return high === undefined ? `wanted at least ${number(low)}` : `wanted ${number(low)}–${number(high)}`;
}

export const STATISTIC_WORDS: Record<Statistic, string> = {
  median: 'median',
  mean: 'mean',
  p10: 'p10',
  p90: 'p90',
  share: 'share of runs',
};

export const VERDICT_WORDS: Record<Verdict, string> = {
  met: 'met',
  missedLow: 'missed low',
  missedHigh: 'missed high',
  undecided: 'undecided',
};
