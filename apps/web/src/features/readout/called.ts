import { type BandMeasure, type Clock, goalIn } from '@insidia/core';

/** As a measure is called by a clock: "Rounds-to-kill". */
export function called(measure: BandMeasure, clock: Clock): string {
  const { label } = goalIn(measure, clock);
  return `${label[0].toUpperCase()}${label.slice(1)}`;
}
