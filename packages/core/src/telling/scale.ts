/**
 * Rulers: where a value lies on the page, from which value to which, and which values get a tick. Ticks and
 * parts are d3-array's; a straight line needs no library (d3-scale would bring formats and colours into the first view). Whatever is asked (nothing, one value, all but the same, values
 * beyond every measure) there is a ruler with a handful of ticks.
 */
import { bin, tickStep, ticks as ticksBetween } from 'd3-array';

export interface Scale {
  (value: number): number;
  invert: (position: number) => number;
}

/** Share of the larger of two values below which they count as equal: what rounding leaves, not what was measured. */
const EQUAL = 1e-9;
/** What is smaller counts as nothing, what is larger as this: beyond them powers of ten and pixels come apart. */
const LEAST = 1e-15;
const MOST = 1e15;

/** Whether two ends of a ruler are one value, up to rounding. */
export function isPoint(from: number, to: number): boolean {
  return !(to - from > Math.max(LEAST, EQUAL * Math.max(Math.abs(from), Math.abs(to))));
}

/** A value on the page, to a billionth of a pixel: `from` at `left`, `to` at `right`, and beyond them as far as it goes. */
export function linear(from: number, to: number, left: number, right: number): Scale {
  const [low, high] = domain(from, to);
  const share = (right - left) / (high - low);
  // What never came lies beyond the far end, wherever that is.
  const place = (value: number) =>
    Number.isFinite(value) ? Math.round((left + (bounded(value) - low) * share) * 1e9) / 1e9 : value * Math.sign(right - left);
  return Object.assign(place, { invert: (position: number) => low + (position - left) / share });
}

/** Two ends that are finite and apart. What is a point reaches one unit on, so that it lies at its left end. */
function domain(from: number, to: number): [number, number] {
  const low = Number.isFinite(from) ? bounded(from) : 0;
  const high = Number.isFinite(to) ? bounded(to) : low;
  return isPoint(low, high) ? [low, low + Math.max(1, Math.abs(low) * 1e-3)] : [low, high];
}

const bounded = (value: number) => Math.max(-MOST, Math.min(MOST, value));

/**
 * From where to where a ruler goes that shows some values: with a share of their span beside them, and where they are all
 * one, a share of themselves. What is not finite is left out; with nothing left, from 0 to 1. What is never below 0 has no
 * ruler below 0.
 */
export function rulerOf(values: Iterable<number | undefined>, pad = 0.06): [number, number] {
  let low = Infinity;
  let high = -Infinity;
  for (const value of values) {
    if (value === undefined || !Number.isFinite(value)) continue;
    low = Math.min(low, bounded(value));
    high = Math.max(high, bounded(value));
  }
  if (low > high) return [0, 1];
  const beside = (isPoint(low, high) ? Math.abs(high) || 1 : high - low) * pad;
  return [low >= 0 ? Math.max(0, low - beside) : low - beside, high + beside];
}

/** How many of some values fall into each of so many equal parts of a ruler; what lies outside is left out. */
export function binned(values: readonly number[], from: number, to: number, parts: number): number[] {
  const [low, high] = domain(from, to);
  const edges = Array.from({ length: parts - 1 }, (_, i) => low + ((high - low) * (i + 1)) / parts);
  const counts = bin<number, number>()
    .domain([low, high])
    .thresholds(edges)(values.filter(Number.isFinite))
    .map(({ length }) => length);
  // Edges that rounding has made one come out as one part.
  while (counts.length < parts) counts.push(0);
  return counts;
}

/** A ruler in two pieces with a gap between: the near one drawn wider than the far one. */
export function broken(at: number, to: number, left: number, right: number, nearShare: number, gap: number): Scale {
  const middle = left + (right - left) * nearShare;
  const near = linear(0, at, left, middle - gap / 2);
  const far = linear(at, to, middle + gap / 2, right);
  const scale = ((value: number) => (value <= at ? near(value) : far(value))) as Scale;
  scale.invert = (position) => (position < middle ? Math.min(at, near.invert(position)) : Math.max(at, far.invert(position)));
  return scale;
}

/** Round values from `from` to `to`, about as many as asked: steps of 1, 2 or 5 × a power of ten. One, where they are one. */
export function ticks(from: number, to: number, about: number): number[] {
  if (!Number.isFinite(from) || !Number.isFinite(to)) return Number.isFinite(from) ? [from] : [];
  const [low, high] = [bounded(from), bounded(to)];
  return isPoint(low, high) ? [low] : ticksBetween(low, high, about);
}

/** The next round value at or above: 1, 1.5, 2, 2.5, 3, 4, 5, 6, 8 × a power of ten. */
export function roundUp(value: number): number {
  if (!(value > LEAST)) return 1;
  if (!(value < MOST)) return MOST;
  const power = Number(`1e${value.toExponential().split('e')[1]}`);
  const found = [1, 1.5, 2, 2.5, 3, 4, 5, 6, 8, 10].find((factor) => factor * power >= value * (1 - EQUAL)) ?? 10;
  return Number((found * power).toPrecision(12));
}

/** Seconds at which a clock gets a tick: whole steps of seconds, minutes or hours, about as many as asked. */
export function clockTicks(until: number, about: number): number[] {
  if (!(until >= 0) || until === Infinity) return [0];
  const steps = [1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 1200, 1800, 3600];
  const step = steps.find((one) => until / one <= about) ?? tickStep(0, until, about);
  return Array.from({ length: Math.floor(until / step) + 1 }, (_, i) => i * step);
}
