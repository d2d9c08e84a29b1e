import type { Estimate } from '../measures/verdict';
import type { Verdict } from '../measures/enough';
import { density } from './density';
import { linear, rulerOf } from './scale';
import { type Shape, circle, path, rect } from './shape';

export interface CellPictureOptions {
  /** One a run; +∞ and NaN allowed. */
  values: readonly number[];
  estimate: Estimate;
  /** Yes or no in each run: there is no shape, only the share and its interval. */
  share: boolean;
  band?: { low?: number; high?: number };
  verdict?: Verdict;
  /** The ruler that the row's cells share. */
  from: number;
  to: number;
  width: number;
  height: number;
}

const POINTS = 40;

/** A small distribution against its band: the bracket is the band, the mark the statistic; a miss is red, what is undecided dotted. */
export function cellPicture({ values, estimate, share, band, verdict, from, to, width, height }: CellPictureOptions): Shape[] {
  const x = linear(from, to, 2, width - 2);
  const clamp = (value: number) => Math.min(Math.max(x(value), 2), width - 2);
  const base = height - 4;
  const miss = verdict === 'missedLow' || verdict === 'missedHigh';
  const ink = miss ? 'var(--miss)' : verdict === 'undecided' ? 'var(--open)' : 'var(--ink-2)';
  const { value, low, high } = estimate;
  const mark = clamp(value);
  const shapes: Shape[] = [];
  if (band) {
    const [left, right] = [clamp(band.low ?? from), clamp(band.high ?? to)];
    shapes.push(rect(left, 2, Math.max(1, right - left), base - 2, { fill: 'var(--band)' }));
    if (band.low !== undefined) shapes.push(path(`M${left + 3} 2.5 H${left} V${base}`, { stroke: 'var(--band-edge)' }));
    if (band.high !== undefined) shapes.push(path(`M${right - 3} 2.5 H${right} V${base}`, { stroke: 'var(--band-edge)' }));
  }
  if (!share) {
    const curve = density(values, from, to, POINTS);
    const peak = Math.max(...curve, 1e-12);
    const points = curve.map(
      (y, i) => `${(2 + ((width - 4) * i) / (POINTS - 1)).toFixed(1)} ${(base - (y / peak) * (base - 3)).toFixed(1)}`,
    );
    shapes.push(
      path(`M2 ${base} L${points.join(' L')} L${width - 2} ${base}Z`, {
        fill: miss ? 'var(--miss)' : 'var(--dist)',
        'fill-opacity': miss ? 0.25 : 1,
        stroke: ink,
        'stroke-width': 1.1,
        'stroke-dasharray': verdict === 'undecided' ? '1.5 1.5' : undefined,
      }),
    );
  }
  shapes.push(path(`M2 ${base + 0.5} H${width - 2}`, { stroke: 'var(--rule)' }));
  if (share) shapes.push(path(`M${clamp(low)} ${base - 1} H${clamp(high)}`, { stroke: ink, 'stroke-width': 3 }));
  if (Number.isNaN(value)) return shapes;
  if (verdict === 'missedLow') shapes.push(path(`M${mark + 3} ${base - 3.5} v7 l-6 -3.5z`, { fill: 'var(--miss)' }));
  else if (verdict === 'missedHigh' || value === Infinity)
    shapes.push(path(`M${mark - 3} ${base - 3.5} v7 l6 -3.5z`, { fill: miss ? 'var(--miss)' : ink }));
  else if (verdict === 'undecided')
    shapes.push(path(`M${mark} ${base - 4} l4 4 l-4 4 l-4 -4z`, { fill: 'var(--sheet)', stroke: 'var(--open)', 'stroke-width': 1.2 }));
  else shapes.push(circle(mark, base, 3, { fill: 'var(--ink)' }));
  return shapes;
}

/** The ruler for a row of cells: all its bands, and its values but for the outermost. */
export function rowRuler(
  cells: readonly (readonly number[] | undefined)[],
  bands: readonly ({ low?: number; high?: number } | undefined)[],
  share: boolean,
): { from: number; to: number } {
  if (share) return { from: 0, to: 1 };
  const shown: (number | undefined)[] = bands.flatMap((band) => [band?.low, band?.high]);
  for (const values of cells) {
    const finite = (values ?? []).filter(Number.isFinite).sort((a, b) => a - b);
    shown.push(finite[Math.floor(0.01 * finite.length)], finite[Math.floor(0.98 * finite.length)]);
  }
  const [from, to] = rulerOf(shown, 0.08);
  return { from, to };
}
