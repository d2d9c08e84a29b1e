/** Curves over time of a batch: what a measure is at each of 240 instants, over the runs that still go. */
import type { Fight } from '../engine/fight';
import type { Run } from '../engine/run';
import type { Compiled } from '../engine/tables';
import { SECOND } from '../record/time';
import { engagedAt } from './engaged';
import { lengthOf, lookedAt, pressureClock } from './clock';
import { LULL_LEVEL, lulls, partyLosses, pressureAt, quietAt } from './pressure';
import { quantileOf } from './quantile';
import { membersOf, partyHealth } from './stream';
import { tempoAt } from './wave-span';

export const CURVE_BINS = 240;

/** One curve: at the end of each bin the quantiles over the runs that still go; nothing where fewer than half do. */
export interface Curve {
  /** s, or rounds: ends of the bins */
  times: number[];
  /** Runs that still go. */
  going: number[];
  p10: (number | undefined)[];
  p25: (number | undefined)[];
  median: (number | undefined)[];
  p75: (number | undefined)[];
  p90: (number | undefined)[];
}

/** What is kept over the clock, in the order in which it is stored. */
export const CURVES = ['pressure', 'engaged', 'tempo', 'health', 'quiet'] as const;
export type CurveName = (typeof CURVES)[number];

export const CURVE_ABOUT: Record<CurveName, { label: string; about: string; percent?: boolean; unit: string }> = {
  pressure: { label: 'pressure', about: 'health and shield that the party loses, of its full health', percent: true, unit: '%/s' },
  engaged: { label: 'engaged', about: 'enemies in wind-up, active or recovery against the party', unit: '' },
  tempo: { label: 'tempo', about: 'kills in the last 10 s', unit: '' },
  health: { label: 'party health', about: 'health that the party has left, of its full health', percent: true, unit: '%' },
  quiet: { label: 'lull', about: 'whether the instant lies in a lull: 1 or 0', unit: '' },
};

/** Collects the curves of runs as they come; a row a run, so that parts run elsewhere can be joined in run order. */
export class Curves {
  readonly times: Float64Array;
  readonly rows: Record<CurveName, Float32Array[]> = { pressure: [], engaged: [], tempo: [], health: [], quiet: [] };
  readonly lengths: number[] = [];
  /** hp that members have at the end of each bin, and full health of those who had come by then. */
  private readonly left = new Float64Array(CURVE_BINS);
  private readonly came = new Float64Array(CURVE_BINS);
  private bin = 0;
  private leftNow = 0;
  private cameNow = 0;

  /** @param seconds over which the bins are laid; absent: the encounter's limit */
  constructor(
    private readonly compiled: Compiled,
    seconds?: number,
  ) {
    this.times = curveTimes(compiled, seconds);
  }

  /** Sees the steps of the run that is added next: what the party has left is not in its log. */
  readonly watch = (fight: Fight, time: number): void => {
    // A bin that ended before this step has what was left at the step before.
    for (; this.bin < CURVE_BINS && this.times[this.bin] * SECOND < time; this.bin++) this.keep();
    this.leftNow = 0;
    this.cameNow = 0;
    for (let unit = 0; unit < fight.count; unit++) {
      if (!fight.isMember[unit]) continue;
      this.cameNow += this.compiled.kinds[fight.kindNumber[unit]].maxHealth;
      if (fight.isAlive[unit]) this.leftNow += fight.healthNow(unit);
    }
  };

  private keep(): void {
    this.left[this.bin] = this.leftNow;
    this.came[this.bin] = this.cameNow;
  }

  add(run: Run): void {
    const stream = { compiled: this.compiled, run };
    const losses = partyLosses(stream);
    const { rows } = this;
    const times = lookedAt(stream, this.times);
    const clock = pressureClock(stream);
    const full = partyHealth(stream);
    rows.pressure.push(Float32Array.from(pressureAt(losses, times, clock.window), (value) => value / full));
    rows.engaged.push(Float32Array.from(engagedAt(stream, times)));
    rows.tempo.push(Float32Array.from(tempoAt(stream, times)));
    rows.quiet.push(Float32Array.from(quietAt(lulls(losses, lengthOf(stream), LULL_LEVEL * full, clock).lulls, times)));
    const { compiled } = this;
    const most = Array.from(membersOf(stream)).reduce((sum, unit) => sum + (unit < 0 ? 0 : compiled.kinds[run.kinds[unit]].maxHealth), 0);
    // Whoever has not come yet has lost nothing yet.
    const health = Float32Array.from(this.left, (left, bin) => (left + (most - this.came[bin])) / most);
    rows.health.push(health.fill(run.partyLeft, this.bin));
    this.bin = 0;
    this.leftNow = 0;
    this.cameNow = 0;
    this.lengths.push(lengthOf(stream));
  }

  curve(of: CurveName): Curve {
    return curveOf(this.times, this.rows[of], this.lengths);
  }
}

/**
 * The quantiles of curves at each instant.
 * @param times s: ends of the bins
 * @param rows a run each, its value at each instant
 * @param lengths s: how long each run lasted
 */
export function curveOf(times: ArrayLike<number>, rows: readonly ArrayLike<number>[], lengths: ArrayLike<number>): Curve {
  const curve: Curve = { times: Array.from(times), going: [], p10: [], p25: [], median: [], p75: [], p90: [] };
  for (let bin = 0; bin < times.length; bin++) {
    const from = bin === 0 ? 0 : times[bin - 1];
    const values = rows.filter((_, run) => lengths[run] > from).map((row) => row[bin]);
    curve.going.push(values.length);
    const enough = values.length * 2 >= rows.length && values.length > 0;
    values.sort((x, y) => x - y);
    for (const [name, q] of QUANTILES) curve[name].push(enough ? quantileOf(values, q) : undefined);
  }
  return curve;
}

/** s: ends of the bins that are laid over an encounter's limit, or over so many seconds. */
export function curveTimes(compiled: Compiled, seconds = compiled.limit / SECOND): Float64Array {
  return Float64Array.from({ length: CURVE_BINS }, (_, bin) => ((bin + 1) * seconds) / CURVE_BINS);
}

const QUANTILES = [
  ['p10', 0.1],
  ['p25', 0.25],
  ['median', 0.5],
  ['p75', 0.75],
  ['p90', 0.9],
] as const;
