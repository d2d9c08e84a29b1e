/** Curves over time of a batch: what a measure is at each of 240 instants, over the runs that still go. */
import type { Run } from '../engine/run';
import { type Compiled } from '../engine/tables';
import { SECOND } from '../engine/tuning';
import { partyLosses, pressureAt } from './pressure';
import { quantileOf } from './quantile';
import { partyHealth } from './stream';
import { tempoAt } from './wave-span';

export const CURVE_BINS = 240;

/** One curve: at the end of each bin the quantiles over the runs that still go; nothing where fewer than half do. */
export interface Curve {
  /** s: ends of the bins */
  times: number[];
  /** Runs that still go. */
  going: number[];
  p10: (number | undefined)[];
  p25: (number | undefined)[];
  median: (number | undefined)[];
  p75: (number | undefined)[];
  p90: (number | undefined)[];
}

/** Collects the curves of runs as they come; a row a run, so that parts run elsewhere can be joined in run order. */
export class Curves {
  readonly times: Float64Array;
  readonly pressure: Float32Array[] = [];
  readonly tempo: Float32Array[] = [];
  readonly lengths: number[] = [];
  private readonly full: number;

  /** @param seconds over which the bins are laid; absent: the encounter's limit */
  constructor(
    private readonly compiled: Compiled,
    seconds?: number,
  ) {
    this.times = curveTimes(compiled, seconds);
    this.full = partyHealth(compiled);
  }

  add(run: Run): void {
    const stream = { compiled: this.compiled, run };
    const pressure = pressureAt(partyLosses(stream), this.times);
    this.pressure.push(Float32Array.from(pressure, (value) => value / this.full));
    this.tempo.push(Float32Array.from(tempoAt(stream, this.times)));
    this.lengths.push(run.length / SECOND);
  }

  curve(of: 'pressure' | 'tempo'): Curve {
    return curveOf(this.times, this[of], this.lengths);
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
