import { type BandMeasure, type Clock, type PairedEffect, infinityAsText, numberOf } from '@insidia/core';

/** "+0.05 (0.01 to 0.09)": of what no fight shows, and of what can't be told, a word. */
export function effectText(measure: BandMeasure, { says, difference, low, high }: PairedEffect, clock?: Clock): string {
  if (says === 'never') return 'never';
  if (says === 'mute') return 'no value';
  const signed = (value: number) => `${value > 0 ? '+' : ''}${numberOf(measure, value, clock)}`;
  return `${says === 'none' ? '≈ ' : ''}${signed(difference)} (${signed(low)} to ${signed(high)})`;
}

export const json = (value: unknown): string => JSON.stringify(value, infinityAsText, 2) + '\n';
