/** What causes a stretch of pressure: each wave and each kind of enemy is left out in turn, and the same seeds are run again. */
import { type Without, partsOf, waitingFor } from '../engine/without';
import { CURVE_BINS } from '../measures/curves';
import type { Encounter, Wave } from '../model/encounter';
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

/** When a wave came, s on the clock; undefined: it did not. */
type Came = (wave: string) => number | undefined;

/**
 * Who may be left out, the likeliest first: waves by how near before the window's middle they came, then the kinds of those.
 * One wave or one kind alone is not tried: without it there is no fight.
 * @param passes what waits for a wave's defeat waits as long as it does with it; else it comes sooner
 */
export function suspectsOf(project: Project, encounter: Encounter, window: Window, came: Came, passes = false): Suspect[] {
  const { waves, units } = partsOf(encounter);
  const heads = new Map(unitHeads(project).map(({ id, name }) => [id, name]));
  const named = new Map(encounter.waves.map((wave) => [wave.id, wave]));
  const middle = (window.from + window.to) / 2;
  // One that came afterwards can't have been the cause; one that never did, least of all.
  const distance = (wave: string) => {
    const at = came(wave);
    return at === undefined ? Infinity : at > middle ? 1e6 + at : middle - at;
  };
  const nearest = [...waves].sort((a, b) => distance(a) - distance(b) || waves.indexOf(a) - waves.indexOf(b));
  const first = (unit: string) => nearest.findIndex((wave) => bringsOf(named.get(wave)!).includes(unit));
  const without = (wave: string): Without => {
    const after = passes ? passesFor(encounter, wave, came) : undefined;
    return after === undefined ? `wave:${wave}` : `wave:${wave}+${after}`;
  };
  return [
    ...(waves.length > 1 ? nearest.map((id): Suspect => ({ without: without(id), name: named.get(id)!.name })) : []),
    ...(units.length > 1
      ? [...units].sort((a, b) => first(a) - first(b)).map((id): Suspect => ({ without: `unit:${id}`, name: heads.get(id) ?? id }))
      : []),
  ];
}

const bringsOf = ({ groups }: Wave) => partsOf({ waves: [{ groups } as Wave] }).units;

/** s from a wave's coming to that of the first that waits for its defeat, less what that waits besides; undefined: none does. */
function passesFor(encounter: Encounter, wave: string, came: Came): number | undefined {
  const start = came(wave);
  const spans = waitingFor(encounter, wave).flatMap((id) => {
    const at = came(id);
    return at === undefined || start === undefined ? [] : [at - start - encounter.waves.find((one) => one.id === id)!.delay];
  });
  return spans.length ? Math.max(0, Math.round(2 * Math.min(...spans)) / 2) : undefined;
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
