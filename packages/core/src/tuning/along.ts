/** Along a dial: each objective at several of its values, where it enters and leaves what is wanted, and where more points are worth it. */
import { type Verdict, verdictOf } from '../measures/enough';
import { quantileOf } from '../measures/quantile';
import { type Estimate, estimate } from '../measures/verdict';
import { type Dial, stepped } from './dial';
import type { Objective } from './goal';

/** Points of a curve at first, ends and what is written among them. */
export const FIRST_POINTS = 7;
/** Points that a curve may come to. */
export const MOST_POINTS = 21;

/** Values from one end to the other, evenly, at the dial's steps; and the one that is written. */
export function gridOf(dial: Dial, now: number, points = FIRST_POINTS): number[] {
  const all = Array.from({ length: points }, (_, i) => stepped(dial, plain(dial.low + ((dial.high - dial.low) * i) / (points - 1))));
  const own = stepped(dial, now) === now ? now : undefined;
  return distinct(own === undefined ? all : [...all, own]);
}

/** Three digits: 4.67 says as much as 4.66667. */
const plain = (value: number): number => Number(value.toPrecision(3));

const distinct = (values: readonly number[]): number[] => [...new Set(values)].sort((a, b) => a - b);

/** One objective at one value. */
export interface AlongPoint extends Estimate {
  at: number;
  /** The middle half of the runs; of a share none. */
  spread?: { low: number; high: number };
  /** What its 95 % interval says to what is wanted. */
  verdict?: Verdict;
}

export function alongPoint(at: number, { statistic, band }: Objective, values: ArrayLike<number>): AlongPoint {
  const found = estimate(values, statistic);
  const own = Array.from(values)
    .filter((value) => value === value)
    .sort((a, b) => a - b);
  const known = found.n > 0 && found.value === found.value;
  return {
    ...found,
    at,
    ...(statistic !== 'share' && own.length > 0 && { spread: { low: quantileOf(own, 0.25), high: quantileOf(own, 0.75) } }),
    ...(band && { verdict: known ? verdictOf(found, band) : 'undecided' }),
  };
}

/** Where a curve enters or leaves what is wanted: between two values, as sure as its points are. */
export interface Crossing {
  /** Its best guess: on the straight line between two points. */
  at: number;
  /** It lies between these: the nearest values to both sides that are sure. */
  between: { low: number; high: number };
  /** Goes in, or out, with the dial's rise. */
  goes: 'in' | 'out';
}

/** @param points ascending, of one objective with a band */
export function crossingsOf(
  points: readonly AlongPoint[],
  { low = -Infinity, high = Infinity }: NonNullable<Objective['band']>,
): Crossing[] {
  const inside = ({ value }: AlongPoint) => value >= low && value <= high;
  const found: Crossing[] = [];
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]];
    if (Number.isNaN(a.value) || Number.isNaN(b.value) || inside(a) === inside(b)) continue;
    const [out, within] = inside(a) ? [b, a] : [a, b];
    const edge = out.value > high ? high : low;
    const share = Number.isFinite(out.value) ? (edge - within.value) / (out.value - within.value) : 0.5;
    let from = i - 1;
    while (from > 0 && points[from].verdict === 'undecided') from--;
    let to = i;
    while (to < points.length - 1 && points[to].verdict === 'undecided') to++;
    found.push({
      at: within.at + share * (out.at - within.at),
      between: { low: points[from].at, high: points[to].at },
      goes: inside(b) ? 'in' : 'out',
    });
  }
  return found;
}

/** Values worth a point more: half-way between neighbours of which one is in what is wanted and the other is not, for any objective. */
export function pointsBetween(
  dial: Dial,
  curves: readonly (readonly AlongPoint[])[],
  bands: readonly (Objective['band'] | undefined)[],
): number[] {
  const asked = curves.flatMap((points, i) => {
    const band = bands[i];
    if (!band) return [];
    return points.slice(1).flatMap((point, k) => {
      const before = points[k];
      const changes = crossingsOf([before, point], band).length > 0;
      return changes ? [stepped(dial, plain((before.at + point.at) / 2))] : [];
    });
  });
  const known = new Set(curves[0]?.map(({ at }) => at));
  return distinct(asked)
    .filter((at) => !known.has(at))
    .slice(0, Math.max(0, MOST_POINTS - known.size));
}
