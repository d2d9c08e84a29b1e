/** Pacing: the pressure of an encounter over its clock against what it is meant to be. */
import type { Clock } from '../record/clock';
import type { Curve } from '../measures/curves';
import type { Window } from './causes';
import { PRESSURE_CLOCKS } from '../measures/clock';
import { quantileOf } from '../measures/quantile';
import type { Brief, CurvePoint, IntendedCurve } from '../model/brief';
import type { Encounter } from '../model/encounter';

/**
 * The intended pressure at an instant: smooth through the points and never beyond the two it lies between (monotone cubic
 * interpolation: Fritsch & Carlson 1980, SIAM J. Numer. Anal. 17). Undefined before the first point and after the last.
 *
 * @param points in the order of their instants
 * Worked: points (0, 0), (10, 4), (20, 4): at 5 the slopes are 0.4 · (1 − 0) at the first and 0 at the second, so h(½) gives 2.5.
 */
export function intendedAt(points: readonly CurvePoint[], at: number): number | undefined {
  const n = points.length;
  if (n === 0 || at < points[0].at || at > points[n - 1].at) return undefined;
  const i = Math.max(
    0,
    points.findIndex((point, k) => k < n - 1 && at <= points[k + 1].at),
  );
  if (n === 1 || i === n - 1) return points[i].value;
  const slopes = slopesOf(points);
  const { at: t0, value: v0 } = points[i];
  const { at: t1, value: v1 } = points[i + 1];
  const h = t1 - t0;
  const s = (at - t0) / h;
  const s2 = s * s;
  const s3 = s2 * s;
  return (2 * s3 - 3 * s2 + 1) * v0 + (s3 - 2 * s2 + s) * h * slopes[i] + (3 * s2 - 2 * s3) * v1 + (s3 - s2) * h * slopes[i + 1];
}

/** Slopes at the points: the mean of the two secants where both go the same way, else level, held to where nothing overshoots. */
function slopesOf(points: readonly CurvePoint[]): number[] {
  const secants = points.slice(1).map(({ at, value }, i) => (value - points[i].value) / (at - points[i].at));
  const slopes = points.map((_, i) => {
    const [before, after] = [secants[i - 1] ?? secants[i], secants[i] ?? secants[i - 1]];
    return before * after <= 0 ? 0 : (before + after) / 2;
  });
  secants.forEach((secant, i) => {
    if (secant === 0) return void (slopes[i] = slopes[i + 1] = 0);
    const [a, b] = [slopes[i] / secant, slopes[i + 1] / secant];
    const length = Math.hypot(a, b);
    if (length > 3) {
      slopes[i] = (3 * a * secant) / length;
      slopes[i + 1] = (3 * b * secant) / length;
    }
  });
  return slopes;
}

/** The curve that is meant for an encounter at a tier: its own, else the one for every tier. */
export function intendedFor(brief: Brief | undefined, encounter: string, tier: string | undefined): IntendedCurve | undefined {
  const own = brief?.curves.filter((curve) => curve.encounter === encounter) ?? [];
  return own.find((curve) => curve.tier !== undefined && curve.tier === tier) ?? own.find((curve) => curve.tier === undefined);
}

/** Share of the time that the intended curve spans, as far as half of the runs last, in which the median lies within its tolerance. */
export function shareInside(
  { times, median }: Curve,
  { points, tolerance }: Pick<IntendedCurve, 'points' | 'tolerance'>,
): number | undefined {
  let inside = 0;
  let all = 0;
  median.forEach((value, bin) => {
    const intended = intendedAt(points, times[bin]);
    if (value === undefined || intended === undefined) return;
    all++;
    if (Math.abs(value - intended) <= tolerance) inside++;
  });
  return all > 0 ? inside / all : undefined;
}

/** Something worth saying of a pressure curve, and when. */
export interface Finding {
  kind: 'above' | 'below' | 'peak' | 'noLull';
  /** s */
  at: number;
  /** s: the stretch that it is about */
  window: Window;
  sentence: string;
  /** The wave it is about. */
  wave?: string;
}

/** A wave as pacing looks at it: medians over the runs. */
export interface PacedWave {
  id: string;
  name: string;
  /** s; undefined: it did not come */
  started?: number;
  /** s of lull between its first unit and the next wave's */
  rest?: number;
}

/**
 * The waves of an encounter with the medians of what has been run.
 * @param column values of a column of the sample, one a run; NaN: none
 */
export function pacedWaves({ waves }: Pick<Encounter, 'waves'>, runs: number, column: (name: string) => ArrayLike<number>): PacedWave[] {
  const median = (name: string) => {
    const values = Array.from(column(name)).filter((value) => value === value);
    return values.length * 2 >= runs && values.length
      ? quantileOf(
          values.sort((a, b) => a - b),
          0.5,
        )
      : undefined;
  };
  return waves.map(({ id, name }) => {
    const [started, rest] = [median(`wave ${id} started`), median(`wave ${id} rest`)];
    return { id, name, ...(started !== undefined && { started }), ...(rest !== undefined && { rest }) };
  });
}

/** Columns that `pacedWaves` reads. */
export function pacingColumns({ waves }: Pick<Encounter, 'waves'>): string[] {
  return waves.flatMap(({ id }) => [`wave ${id} started`, `wave ${id} rest`]);
}

const percent = (share: number) => `${Number((100 * share).toFixed(1))} %`;
const each = (by: Clock) => (by === 'rounds' ? 'a round' : 'a second');
const at = (by: Clock, time: number) => (by === 'rounds' ? `in round ${Math.max(1, Math.ceil(time - 1e-9))}` : `at ${clock(time)}`);
const clock = (seconds: number) => `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;

/**
 * What stands out: the peak of the median against the intended there, stretches at least as long as a lull outside the
 * tolerance, waves after which the party has no lull.
 */
export function findingsOf(
  curve: Curve,
  waves: readonly PacedWave[],
  intended?: Pick<IntendedCurve, 'points' | 'tolerance'>,
  by: Clock = 'continuous',
): Finding[] {
  const found: Finding[] = [];
  const { times, median } = curve;
  const { window: around, lull } = PRESSURE_CLOCKS[by];
  const peak = median.reduce<number>((best, value, bin) => ((value ?? -1) > (median[best] ?? -1) ? bin : best), 0);
  const highest = median[peak];
  if (highest !== undefined && highest > 0) {
    const wanted = intended && intendedAt(intended.points, times[peak]);
    const against = wanted !== undefined && wanted > 0 ? `, ${Number((highest / wanted).toFixed(1))} × the intended` : '';
    const wave = waveAt(waves, times[peak]);
    found.push({
      kind: 'peak',
      at: times[peak],
      window: { from: times[peak] - around, to: times[peak] + around },
      sentence: `the median of all runs peaks with ${percent(highest)} ${each(by)} ${at(by, times[peak])}${wave ? `, in ${wave.name}` : ''}${against}`,
      ...(wave && { wave: wave.id }),
    });
  }
  if (intended) found.push(...stretches(curve, waves, intended, by));
  waves.forEach((wave, i) => {
    const next = waves.slice(i + 1).find(({ started }) => started !== undefined);
    if (!next || wave.started === undefined || next.started === undefined || (wave.rest ?? 0) >= lull) return;
    found.push({
      kind: 'noLull',
      at: next.started,
      window: { from: wave.started, to: next.started },
      wave: next.id,
      sentence: `there is no lull between ${wave.name} and ${next.name}`,
    });
  });
  return found;
}

function waveAt(waves: readonly PacedWave[], at: number): PacedWave | undefined {
  return waves.filter(({ started }) => started !== undefined && started <= at).at(-1);
}

function stretches(
  { times, median }: Curve,
  waves: readonly PacedWave[],
  { points, tolerance }: Pick<IntendedCurve, 'points' | 'tolerance'>,
  by: Clock,
): Finding[] {
  const found: Finding[] = [];
  const step = times[1] - times[0];
  let open: { side: 'above' | 'below'; from: number; most: number } | undefined;
  const close = (to: number) => {
    if (open && to - open.from >= PRESSURE_CLOCKS[by].lull - 1e-9) {
      const wave = waveAt(waves, open.from);
      found.push({
        kind: open.side,
        at: open.from,
        window: { from: open.from, to },
        sentence: `${by === 'rounds' ? `from round ${Math.floor(open.from) + 1} to ${Math.max(1, Math.ceil(to - 1e-9))}` : `from ${clock(open.from)} to ${clock(to)}`} it is ${open.side} what is intended, by up to ${percent(open.most)} ${each(by)}`,
        ...(wave && { wave: wave.id }),
      });
    }
    open = undefined;
  };
  times.forEach((time, bin) => {
    const value = median[bin];
    const intended = intendedAt(points, time);
    const off = value === undefined || intended === undefined ? 0 : value - intended;
    const side = off > tolerance ? 'above' : off < -tolerance ? 'below' : undefined;
    if (open && open.side !== side) close(time - step);
    if (!side) return;
    open ??= { side, from: time - step, most: 0 };
    open.most = Math.max(open.most, Math.abs(off));
  });
  close(times[times.length - 1]);
  return found;
}
