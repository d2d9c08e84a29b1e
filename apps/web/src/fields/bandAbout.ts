import { type Band, type BandMeasure, GOAL_MEASURES } from '@insidia/core';

/** A band about values: from a share below the least of them to the same share above the most. @param values at least one */
export function bandAbout(measure: BandMeasure, values: readonly number[], share = 0.2): Pick<Band, 'low' | 'high'> {
  const round = (one: number) => Number(one.toPrecision(2));
  const [least, most] = [Math.min(...values), Math.max(...values)];
  if (GOAL_MEASURES[measure].share) return { low: round(Math.max(0, least - share / 2)), high: Math.min(1, round(most + share / 2)) };
  if (most === 0) return { high: GOAL_MEASURES[measure].percent ? 0.01 : 1 };
  return { low: round(least * (1 - share)), high: round(most * (1 + share)) };
}

/** A band with one edge put somewhere by hand, to three digits: as far as the other edge and no farther. */
export function movedEdge<T extends { low?: number; high?: number }>(band: T, edge: 'low' | 'high', value: number): T {
  const rounded = Number(value.toPrecision(3));
  return { ...band, [edge]: edge === 'low' ? Math.min(rounded, band.high ?? Infinity) : Math.max(rounded, band.low ?? -Infinity) };
}
