/** Whether a readout has run enough to say what it shows, or goes on. */
import { type Wanted, look } from '../measures/look';
import type { Statistic } from '../measures/measure';
import { type BandMeasure, columnOf } from '../measures/list';
import { sampleOf } from '../measures/sample';
import type { Row } from '../measures/row';
import type { Compiled } from '../engine/tables';
import type { Project } from '../model/project';
import { goalsOf } from './cells';
import { type Scenario, scenarioKey } from './scenario';

/** Runs after which a readout looks at what it has: 50, 100, 200 … */
export const FIRST_LOOK = 50;

/** Runs beyond which a readout does not go by itself: a batch is there for more. */
export const READOUT_CAP = 1600;

/** Runs at each end of the tiers, to see how far a measure goes across them. */
export const ACROSS_RUNS = 20;

/** Of how far a measure goes across the tiers: its interval may be so wide. */
const PART_OF_SPREAD = 0.1;

/** The same of the value, where there are no tiers, and where the tiers make next to no difference. */
const PART_OF_VALUE = { withoutTiers: 0.05, least: 0.02 };

/** What a readout tells in numbers. */
const TOLD: Record<Scenario['kind'], readonly (readonly [BandMeasure, Statistic])[]> = {
  duel: [
    ['timeToKill', 'median'],
    ['timeToDown', 'median'],
    ['peakPressureShare', 'median'],
  ],
  encounter: [
    ['won', 'share'],
    ['length', 'median'],
    ['peakPressureShare', 'median'],
    ['longestWithoutLull', 'median'],
  ],
};

/** The values of one measure that is told, one a run. */
export interface ToldMeasure {
  measure: BandMeasure;
  statistic: Statistic;
  /** The measure's column in a sample. */
  column: string;
  /** NaN: the run has none; +∞: a survivor */
  values: Float64Array;
}

/** What some runs of a scenario tell. @param rows of seeds in a row, at least one */
export function toldBy({ kind, id }: Scenario, compiled: Compiled, rows: readonly Row[]): ToldMeasure[] {
  const { columns } = sampleOf(compiled, rows);
  return TOLD[kind].map(([measure, statistic]) => {
    const column = columnOf(measure, measure === 'timeToKill' ? 'enemy' : 'encounter', id);
    return { measure, statistic, column, values: columns[column] };
  });
}

/** The scenario at the lowest and at the highest tier; none in a project that has but one, or none. */
export function endsOfTiers({ tiers }: Project, scenario: Scenario): Scenario[] {
  return tiers.length < 2 ? [] : [tiers[0], tiers[tiers.length - 1]].map(({ id }) => ({ ...scenario, tier: id }));
}

/**
 * Whether every measure that is told is told well enough: its 99.5 % interval is narrower than a tenth of how far it goes across
 * the tiers (5 % of its value, where there are none), or clear of the edges of every goal that speaks of it.
 *
 * @param across what the ends of the tiers tell, as `toldBy` has it
 */
export function toldEnough(
  project: Project,
  scenario: Scenario,
  told: readonly ToldMeasure[],
  across: readonly (readonly ToldMeasure[])[],
): boolean {
  const key = scenarioKey({ ...scenario, turned: undefined });
  const goals = goalsOf(project, { tiers: [scenario.tier], skills: [scenario.skill] }).filter(({ cell }) => scenarioKey(cell) === key);
  return told.every(({ column, statistic, values }, i) => {
    const ends = across.map((end) => look(end[i].values, { statistic, cap: 0 }).estimate.value).filter(Number.isFinite);
    const wanted: Wanted =
      ends.length < 2
        ? { statistic, narrower: PART_OF_VALUE.withoutTiers, cap: READOUT_CAP }
        : { statistic, tolerance: PART_OF_SPREAD * Math.abs(ends[1] - ends[0]), narrower: PART_OF_VALUE.least, cap: READOUT_CAP };
    const now = look(values, wanted);
    // Of what no run has there is nothing to tell.
    if (now.enough || now.estimate.n === 0) return true;
    const spoken = goals.filter((goal) => goal.column === column);
    return spoken.length > 0 && spoken.every(({ band }) => look(values, { statistic: band.statistic, band, cap: READOUT_CAP }).enough);
  });
}
