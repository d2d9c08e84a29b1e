/** What is asked of a fight: a statistic of a measure in one cell, and between what it is wanted. */
import { type BandMeasure, GOAL_MEASURES, columnOf } from '../measures/list';
import type { Between } from '../measures/enough';
import type { Statistic } from '../measures/measure';
import type { Clock } from '../record/clock';
import type { Sample } from '../measures/sample';
import { type Scenario, scenarioKey } from '../analysis/scenario';
import type { Goal } from '../analysis/cells';
import type { Ran } from '../analysis/effect';

export interface Objective {
  cell: Scenario;
  /** What the fight goes by; absent: seconds. */
  clock?: Clock;
  measure: BandMeasure;
  /** The unit, encounter or wave that is measured. */
  of: string;
  /** The measure's column in a sample of the cell. */
  column: string;
  statistic: Statistic;
  /** Absent: nothing is wanted of it, it is only looked at. */
  band?: Between;
}

/** A goal of the brief as an aim. */
export const aimOf = ({ band, cell, clock, column, of }: Goal): Objective => ({
  cell,
  clock,
  measure: band.measure,
  of,
  column,
  statistic: band.statistic,
  band: { ...(band.low !== undefined && { low: band.low }), ...(band.high !== undefined && { high: band.high }) },
});

/** A measure that nothing is wanted of, by its usual statistic. */
export function lookAt(cell: Scenario, measure: BandMeasure, clock?: Clock): Objective {
  const { of, usual } = GOAL_MEASURES[measure];
  const subject = cell.kind === 'duel' ? 'enemy' : of.includes('encounter') ? 'encounter' : of[0];
  return { cell, ...(clock && { clock }), measure, of: cell.id, column: columnOf(measure, subject, cell.id), statistic: usual };
}

/** What an aim reads of a sample. */
export const readOf = (sample: Sample, { column }: Objective): Ran => ({ digests: sample.digests, values: sample.columns[column] });

/** The cells of aims, each once. */
export const cellsOf = (aims: readonly Objective[]): Scenario[] => [...new Map(aims.map(({ cell }) => [scenarioKey(cell), cell])).values()];
