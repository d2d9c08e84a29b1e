/** The point that is promised to have all that is wanted with the least change: what is tried next. */
import type { Model } from './model';
import { type Knob, type DialPoint, type Preferred, endsOf, steppedPoint } from './problem';

export interface Promised {
  at: number[];
  /** How far outside of what is wanted it is promised to lie, in all, each in its own scale; 0: inside with its margin. */
  outside: number;
}

export interface Wanted {
  model: Model;
  low: number;
  high: number;
  /** Kept from the edges for the luck of the runs that are to prove it. */
  luck: number;
  /** No more than this is kept from an edge: a third of what is wanted. */
  most: number;
  /** What counts as one outside: half of what is wanted, or as much as its luck. */
  scale: number;
}

export interface Within {
  knobs: readonly Knob[];
  middle: DialPoint;
  /** How far from the middle each dial may go. */
  radius: number;
  /** How many errors of the promise are kept from the edges. */
  caution: number;
  prefer: Preferred;
  /** Dials that are not turned at all. */
  kept?: ReadonlySet<number>;
}

/** Weight of what is outside against change. */
const WEIGHT = 400;
/** What a number that is turned costs by itself, where few are preferred; a hair of it always, for each is to be explained. */
const EACH = { numbers: 0.35, change: 0.01, margin: 0.01 } as const;
/** How much of change counts where margin is preferred. */
const LITTLE = 0.05;
/** Parts of the radius by which a dial is moved, from coarse to fine. */
const STRIDES = [1, 0.5, 0.25, 0.12, 0.06, 0.03, 0.015];

/** @param from points to begin at, besides the middle and what is written */
export function propose(wanted: readonly Wanted[], within: Within, from: readonly DialPoint[] = []): Promised {
  const { knobs, middle, radius, kept } = within;
  const ends = knobs.map((knob, i): [number, number] => {
    if (kept?.has(i)) return [0, 0];
    const [low, high] = endsOf(knob);
    return [Math.max(low, middle[i] - radius), Math.min(high, middle[i] + radius)];
  });
  const clamp = (at: DialPoint) => at.map((value, i) => Math.min(Math.max(value, Math.min(...ends[i])), Math.max(...ends[i])));
  const starts = [middle, middle.map(() => 0), ...from].map(clamp);
  let best: { at: number[]; cost: number } | undefined;
  for (const start of starts) {
    const found = descend(start, ends, radius, (at) => costOf(at, wanted, within));
    if (!best || found.cost < best.cost - 1e-9) best = found;
  }
  // Each number back as it is written, the least turned first: what is not needed is not turned.
  let { at, cost } = best!;
  for (const i of at.map((_, index) => index).sort((a, b) => Math.abs(at[a]) - Math.abs(at[b]))) {
    if (at[i] === 0 || ends[i][0] > 0 || ends[i][1] < 0) continue;
    const shut = ends.map((end, k): [number, number] => (k === i || (kept?.has(k) ?? false) ? [0, 0] : end));
    const without = descend(
      at.map((value, k) => (k === i ? 0 : value)),
      shut,
      radius,
      (point) => costOf(point, wanted, within),
    );
    if (without.cost <= cost + 1e-9) ({ at, cost } = without);
  }
  const rounded = steppedPoint(knobs, at);
  return { at: rounded, outside: outsideAt(rounded, wanted, within.caution) };
}

/** Dial by dial, by ever smaller strides, until nothing is better. */
function descend(
  start: readonly number[],
  ends: readonly [number, number][],
  radius: number,
  cost: (at: DialPoint) => number,
): { at: number[]; cost: number } {
  const at = [...start];
  let now = cost(at);
  for (const stride of STRIDES) {
    for (let again = 0; again < 12; again++) {
      let better = false;
      for (let i = 0; i < at.length; i++) {
        const was = at[i];
        for (const to of [was + stride * radius, was - stride * radius, 0]) {
          const held = Math.min(Math.max(to, ends[i][0]), ends[i][1]);
          if (held === at[i]) continue;
          const before = at[i];
          at[i] = held;
          const then = cost(at);
          if (then < now - 1e-12) {
            now = then;
            better = true;
          } else at[i] = before;
        }
      }
      if (!better) break;
    }
  }
  return { at, cost: now };
}

function costOf(at: DialPoint, wanted: readonly Wanted[], { prefer, caution }: Within): number {
  let change = 0;
  let turned = 0;
  for (const value of at) {
    const size = Math.abs(value);
    change += size + 0.5 * size * size;
    if (size > 1e-9) turned++;
  }
  const own = (prefer === 'margin' ? LITTLE : 1) * change + EACH[prefer] * turned;
  const margin = prefer === 'margin' ? roomAt(at, wanted) : 0;
  const out = outsideAt(at, wanted, caution);
  return own - margin + WEIGHT * (out + out * out);
}

/** How far a point is promised to be outside, or too near to the edges to be proved. */
function outsideAt(at: DialPoint, wanted: readonly Wanted[], caution: number): number {
  let sum = 0;
  for (const { model, low, high, luck, most, scale } of wanted) {
    const { y, error } = model.predict(at);
    const margin = Math.min(caution * error + luck, most);
    sum += Math.max(0, low + margin - y, y - (high - margin)) / scale;
  }
  return sum;
}

/** The least room to an edge of any goal, in scales: what is to be large where margin is preferred. */
function roomAt(at: DialPoint, wanted: readonly Wanted[]): number {
  let least = 2;
  for (const { model, low, high, scale } of wanted) {
    const { y, error } = model.predict(at);
    least = Math.min(least, (y - low - error) / scale, (high - y - error) / scale);
  }
  return Math.max(-2, least);
}
