import type { Clock } from '../record/clock';
import { intendedAt, type PacedWave } from '../analysis/pacing';
import type { Curve } from '../measures/curves';
import type { CurvePoint } from '../model/brief';
import { momentWords, shown } from './numbers';
import { type Scale, clockTicks, linear, ticks } from './scale';
import { type Shape, path, rect, text } from './shape';

export interface PacingPictureOptions {
  curve: Curve;
  /** The values are shares, told in percent. */
  percent?: boolean;
  waves: readonly PacedWave[];
  /** s: stretches in which the party rests. */
  lulls: readonly { from: number; to: number }[];
  intended?: { points: readonly CurvePoint[]; tolerance: number };
  /** s, and the value, at the far ends of the rulers. */
  until: number;
  top: number;
  width: number;
  height: number;
  /** Names of the waves stand above. */
  named: boolean;
  /** What the fight goes by; absent: seconds. */
  clock?: Clock;
}

export const PACING_EDGES = { left: 34, right: 6, foot: 16, head: 14 };

/** Where an instant and a value lie in the picture. */
export function pacingScales({ until, top, width, height }: Pick<PacingPictureOptions, 'until' | 'top' | 'width' | 'height'>): {
  x: Scale;
  y: Scale;
} {
  const { left, right, foot, head } = PACING_EDGES;
  return { x: linear(0, until, left, width - right), y: linear(0, top, height - foot, head) };
}

/** A curve over the clock: the median with its spread, lulls, wave marks, and the intended curve with its tolerance. */
export function pacingPicture(options: PacingPictureOptions): Shape[] {
  const { curve, percent, waves, lulls, intended, until, top, width, height, named, clock = 'continuous' } = options;
  const { left, right, foot, head } = PACING_EDGES;
  const { x, y } = pacingScales(options);
  const { times, median, p10, p25, p75, p90 } = curve;
  const last = median.findIndex((value) => value === undefined);
  const bins = Array.from({ length: last < 0 ? median.length : last }, (_, bin) => bin).filter((bin) => times[bin] <= until);
  const place = (bin: number, value: number | undefined) => `${x(times[bin]).toFixed(1)} ${y(Math.min(value ?? 0, top)).toFixed(1)}`;
  const line = (values: Curve['median']) => bins.map((bin) => place(bin, values[bin])).join(' L');
  const area = (low: Curve['median'], high: Curve['median']) =>
    bins.length > 1
      ? `M${line(high)} L${[...bins]
          .reverse()
          .map((bin) => place(bin, low[bin]))
          .join(' L')}Z`
      : 'M0 0';
  const shapes: Shape[] = [];
  for (const tick of ticks(0, top, 3)) {
    shapes.push(path(`M${left} ${y(tick)} H${width - right}`, { stroke: 'var(--hair)', 'stroke-width': 0.6 }));
    shapes.push(text(left - 4, y(tick) + 4, shown(percent ? 100 * tick : tick, 1), { 'text-anchor': 'end', class: 't3' }));
  }
  for (const tick of clockTicks(until, 8))
    if (x(tick) < width - right - 8)
      shapes.push(text(x(tick), height - 3, momentWords(clock, tick), { 'text-anchor': 'middle', class: 't3' }));
  for (const { from, to } of lulls)
    if (from < until)
      shapes.push(rect(x(from), head, Math.max(1, x(Math.min(to, until)) - x(from)), height - foot - head, { fill: 'var(--well)' }));
  const smooth = intended && intended.points.length > 1 ? smoothed(intended.points, 120).filter(([t]) => t <= until) : [];
  if (intended && smooth.length) {
    const within = (value: number) => y(Math.min(top, Math.max(0, value)));
    const upper = smooth.map(([t, v]) => `${x(t)} ${within(v + intended.tolerance)}`);
    const lower = smooth.map(([t, v]) => `${x(t)} ${within(v - intended.tolerance)}`).reverse();
    shapes.push(path(`M${[...upper, ...lower].join(' L')}Z`, { fill: 'var(--band)' }));
  }
  shapes.push(path(area(p10, p90), { fill: 'var(--dist)', opacity: 0.6 }), path(area(p25, p75), { fill: 'var(--dist)' }));
  if (bins.length > 1) shapes.push(path(`M${line(median)}`, { stroke: 'var(--ink)', 'stroke-width': 1.6 }));
  if (smooth.length)
    shapes.push(
      path(`M${smooth.map(([t, v]) => `${x(t)} ${y(Math.min(top, v))}`).join(' L')}`, {
        stroke: 'var(--focus)',
        'stroke-width': 1.6,
        'stroke-dasharray': '5 3',
      }),
    );
  const came = waves.flatMap(({ name, started }) => (started === undefined || started > until ? [] : [{ name, at: x(started) }]));
  came.sort((a, b) => a.at - b.at);
  came.forEach(({ name, at }, i) => {
    shapes.push(path(`M${at} ${head - 4} V${height - foot}`, { stroke: 'var(--ink-3)' }));
    const words = named ? fitting(name, (came[i + 1]?.at ?? width) - at - 6) : '';
    if (words) shapes.push(text(at + 3, head - 4, words, { class: 't3 halo' }));
  });
  shapes.push(path(`M${left} ${height - foot + 0.5} H${width - right}`, { class: 'axis' }));
  return shapes;
}

/** px that a letter of a small label takes, about. */
const LETTER = 5.4;

/** As much of a name as there is room for; nothing where that would be less than three letters. */
function fitting(name: string, room: number): string {
  const most = Math.floor(room / LETTER);
  if (name.length <= most) return name;
  return most < 4 ? '' : `${name.slice(0, most - 1)}…`;
}

function smoothed(points: readonly CurvePoint[], steps: number): [number, number][] {
  const [from, to] = [points[0].at, points[points.length - 1].at];
  return Array.from({ length: steps + 1 }, (_, i): [number, number] => {
    const t = from + ((to - from) * i) / steps;
    return [t, intendedAt(points, Math.min(to, t)) ?? 0];
  });
}
