/** What causes a stretch of pressure: each wave and each kind of enemy is left out in turn, and the same seeds are run again. */
import { type Without, partsOf } from '../engine/without';
import { CURVE_BINS } from '../measures/curves';
import { type Encounter } from '../model/encounter';
import type { Project } from '../model/project';
import { unitHeads } from '../model/variants';
import { type Compared, pairedMean } from './ranking';

export interface Suspect {
  without: Without;
  name: string;
}

/** s: from when to when on the encounter's clock. */
export interface Window {
  from: number;
  to: number;
}

/** Who may be left out. One wave or one kind alone is not tried: without it there is no fight. */
export function suspectsOf(project: Project, encounter: Encounter): Suspect[] {
  const { waves, units } = partsOf(encounter);
  const heads = new Map(unitHeads(project).map(({ id, name }) => [id, name]));
  const named = new Map(encounter.waves.map(({ id, name }) => [id, name]));
  return [
    ...(waves.length > 1 ? waves.map((id): Suspect => ({ without: `wave:${id}`, name: named.get(id) ?? id })) : []),
    ...(units.length > 1 ? units.map((id): Suspect => ({ without: `unit:${id}`, name: heads.get(id) ?? id })) : []),
  ];
}

export interface Cause {
  without: string;
  /** Seeds that both have been run on. */
  runs: number;
  /** Mean of the curve in the window, over those runs, with it and without. */
  before: number;
  after: number;
  /** after − before, paired by seed. */
  change: Compared;
}

/** Mean of a curve's bins that end within a window. @param times s: ends of the bins */
export function meanWithin(times: ArrayLike<number>, row: ArrayLike<number>, { from, to }: Window): number {
  let sum = 0;
  let bins = 0;
  for (let bin = 0; bin < CURVE_BINS; bin++) {
    if (times[bin] <= from || times[bin] > to) continue;
    sum += row[bin];
    bins++;
  }
  return bins > 0 ? sum / bins : NaN;
}

/**
 * What leaving each out does to the mean of a curve within a window: the greatest relief first.
 *
 * @param all rows of the whole encounter, a run each, from the first seed on
 * @param others the same seeds without something each
 */
export function causesOf(
  times: ArrayLike<number>,
  all: readonly ArrayLike<number>[],
  others: readonly { without: string; rows: readonly ArrayLike<number>[] }[],
  window: Window,
): Cause[] {
  const whole = all.map((row) => meanWithin(times, row, window));
  return others
    .flatMap(({ without, rows }): Cause[] => {
      const runs = Math.min(whole.length, rows.length);
      const [before, after] = [whole.slice(0, runs), rows.slice(0, runs).map((row) => meanWithin(times, row, window))];
      const change = pairedMean(before, after);
      return change ? [{ without, runs, before: mean(before), after: mean(after), change }] : [];
    })
    .sort((a, b) => a.change.difference - b.change.difference);
}

const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
