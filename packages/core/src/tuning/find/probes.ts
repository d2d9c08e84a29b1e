/** Points around a point: turned by coins, in folded pairs; counter-based, so that anybody comes to the same. */
import { draw } from '../../engine/time/chance';
import { type DialPoint, type Knob, endsOf, steppedPoint } from './problem';

/** Share of what is written by which dials are turned around it. */
const AROUND = 0.18;

/** So far as a dial is turned around what is written; to the other side where there is no room. */
export function sideOf(knob: Knob, sign: 1 | -1): number {
  const [low, high] = endsOf(knob);
  const by =
    knob.dial.op === '×' ? Math.log(1 + AROUND) : (AROUND * Math.abs(knob.now || knob.dial.high)) / (knob.dial.high - knob.dial.low);
  const held = Math.min(high, Math.max(low, sign * by));
  const room = Math.abs(held) >= by / 2 ? held : Math.min(high, Math.max(low, -sign * by));
  const [at] = steppedPoint([knob], [room]);
  // A step that is wider than that: one step.
  return at !== 0 || !knob.dial.step ? at : Math.min(high, knob.dial.step / (knob.dial.high - knob.dial.low));
}

/** Every moving dial turned to one side or the other by a coin of its own; the other side of a pair turns all over. */
export const coinsOf = (knobs: readonly Knob[], still: ReadonlySet<number>, pair: number, side: 1 | -1): number[] =>
  knobs.map((knob, i) => (still.has(i) ? 0 : sideOf(knob, (draw(pair, i, 1, 7) < 0.5 ? side : -side) as 1 | -1)));

/** A point some way along coins, within the ranges. */
export function offset(knobs: readonly Knob[], at: DialPoint, coins: readonly number[], by: number): number[] {
  const moved = at.map((value, i) => (coins[i] === 0 ? value : held(knobs[i], value + by * coins[i])));
  return steppedPoint(knobs, moved);
}

/** A point moved by chance, each dial by at most half of so much; those that are kept stay. */
export function jittered(knobs: readonly Knob[], at: DialPoint, kept: ReadonlySet<number>, by: number, round: number): number[] {
  const moved = at.map((value, i) => (kept.has(i) ? value : held(knobs[i], value + (draw(round, i, 2, 7) - 0.5) * by)));
  return steppedPoint(knobs, moved);
}

function held(knob: Knob, at: number): number {
  const [low, high] = endsOf(knob);
  return Math.min(high, Math.max(low, at));
}
