/** The readout's sentences. */
import { type Change, type Summary, fixed } from '@insidia/core';

export interface Measured {
  summary?: Summary;
  before?: Summary;
  change?: Change;
  /** More runs may yet tell. */
  tooFew?: boolean;
}

/** A share as percent, with all that is told of it. */
export function inPercent({ summary, before, change, ...rest }: Measured): Measured {
  const times = (of?: Summary): Summary | undefined =>
    of && { ...of, median: of.median * 100, min: of.min * 100, interval: { low: of.interval.low * 100, high: of.interval.high * 100 } };
  return {
    ...rest,
    summary: times(summary),
    before: times(before),
    change: change && { ...change, difference: change.difference * 100, low: change.low * 100, high: change.high * 100 },
  };
}

/** "before 26.8, changed by −2.9 (−3.5 to −2.3); interval 23.2–24.5". */
export function changeSentence({ summary, before, change, tooFew }: Measured, places: number): string {
  if (!summary) return '';
  const parts: string[] = [];
  if (before && (Number.isFinite(before.median) || Number.isFinite(summary.median))) {
    const was = `before ${Number.isFinite(before.median) ? fixed(before.median, places) : 'never'}`;
    if (!change) parts.push(before.median === summary.median ? `${was}, the same` : was);
    else if (change.low === 0 && change.high === 0) parts.push(`${was}, the same`);
    else if (!change.visible) parts.push(`${was}, ${tooFew ? 'too few runs to tell' : 'no visible change'}`);
    else
      parts.push(
        `${was}, changed by ${change.difference > 0 ? '+' : ''}${fixed(change.difference, places)} (${fixed(change.low, places)} to ${fixed(change.high, places)})`,
      );
  }
  const { low, high } = summary.interval;
  // Of a median of +∞ there is no interval to speak of: the share that survives says it.
  if (Number.isFinite(summary.median))
    parts.push(`interval ${fixed(Math.max(low, summary.min), places)}–${Number.isFinite(high) ? fixed(high, places) : 'open'}`);
  return parts.join('; ');
}

/** What a median of +∞ means. */
export function survivalSentence(summary: Summary, survives: string): string {
  const share = Math.round((100 * summary.infinite) / summary.n);
  return `${survives} in ${share} % of runs`;
}
