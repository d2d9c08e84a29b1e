import { type BandMeasure, type BoardRow, commonClock, unitOf } from '@insidia/core';

/** px of a name where cells need the room, and where they have more than they use. */
const NAME = { least: 124, most: 220 };
/** px of a cell from which names take what is left. */
const ROOMY = 150;

/** The unit that most of a board stands in, said once, and that of a row that stands in another, said beside it. */
export function rowUnits(measure: BandMeasure, rows: readonly Pick<BoardRow, 'clock'>[]) {
  const common = unitOf(measure, commonClock(rows.map(({ clock }) => clock)));
  return {
    common,
    beside: ({ clock }: Pick<BoardRow, 'clock'>): string | undefined => {
      const own = unitOf(measure, clock);
      return own === common ? undefined : own;
    },
  };
}

/** @param width px of names and cells together */
export const nameWidth = (width: number, columns: number): number =>
  Math.round(Math.min(NAME.most, Math.max(NAME.least, width - ROOMY * columns)));
