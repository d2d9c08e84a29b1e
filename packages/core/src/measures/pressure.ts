import { SECOND, roundOf } from '../record/time';
import { PRESSURE_CLOCKS, PRESSURE_WINDOW_SECONDS, type PressureClock, pressureClock } from './clock';
import { type Stream, isDamage, isMember, lostIn, membersOf, partyHealth, typeOf } from './stream';

export interface Pressure {
  /** Largest p(t), hp/s. */
  peak: number;
  /** The same as a share of the party's full health, per second. */
  peakShare: number;
  /** s: when. NaN when the party took no damage. */
  peakAt: number;
  /** All party damage ÷ party full health: 1 would down everyone once. */
  dose: number;
}

/** One loss of the party: s (in rounds the middle of its round, from 0 on), health and shield lost, the type, attack and wave (−1: none) of whoever did it. */
export interface Loss {
  time: number;
  amount: number;
  by: number;
  attack: number;
  wave: number;
}

/** s; in rounds the middle of the round that it lies in, so that all of a round lies within one. */
const momentOf = (stream: Stream, time: number) => (stream.compiled.rounds ? roundOf(time) + 0.5 : time / SECOND);

/** Every loss of a party member, in order; what friends did to it is left out. */
export function partyLosses(stream: Stream): Loss[] {
  const { run } = stream;
  const { log } = run;
  const losses: Loss[] = [];
  for (let i = 0; i < log.length; i++) {
    if (!isDamage(log.kind[i]) || !isMember(stream, log.other[i])) continue;
    const amount = lostIn(stream, i);
    const by = log.actor[i];
    if (amount > 0)
      losses.push({ time: momentOf(stream, log.time[i]), amount, by: typeOf(stream, by), attack: log.what[i], wave: run.waves[by] });
  }
  return losses;
}

/**
 * Damage pressure p(t) = health and shield the party lost in (t − W, t] ÷ W, evaluated where it can rise: at each hit on the party.
 *
 * Worked: W = 3; 6 lost at 1 s, 6 at 2 s, 6 at 4 s: p = 2, 4, 4 (the window (1, 4] holds the hits at 2 and 4).
 */
export function pressureOf(losses: readonly Loss[], full: number, windowSeconds = PRESSURE_WINDOW_SECONDS): Pressure {
  let tail = 0;
  let inside = 0;
  let peak = 0;
  let peakAt = NaN;
  let total = 0;
  for (const { time, amount } of losses) {
    total += amount;
    inside += amount;
    for (; losses[tail].time <= time - windowSeconds; tail++) inside -= losses[tail].amount;
    if (inside / windowSeconds > peak * (1 + 1e-12)) {
      peak = inside / windowSeconds;
      peakAt = time;
    }
  }
  return { peak, peakShare: peak / full, peakAt, dose: total / full };
}

export function pressure(stream: Stream): Pressure {
  return pressureOf(partyLosses(stream), partyHealth(stream), pressureClock(stream).window);
}

/** p(t) as it stands at given times, s in ascending order; hp/s. */
export function pressureAt(losses: readonly Loss[], times: ArrayLike<number>, windowSeconds = PRESSURE_WINDOW_SECONDS): Float64Array {
  const curve = new Float64Array(times.length);
  let head = 0;
  let tail = 0;
  let inside = 0;
  for (let i = 0; i < times.length; i++) {
    for (; head < losses.length && losses[head].time <= times[i]; head++) inside += losses[head].amount;
    for (; tail < head && losses[tail].time <= times[i] - windowSeconds; tail++) inside -= losses[tail].amount;
    // Adding and taking away leaves what rounding leaves.
    curve[i] = tail === head ? 0 : Math.max(0, inside) / windowSeconds;
  }
  return curve;
}

/** Stretches in which p(t) is above (or at most at) a level, s. p changes at every loss and a window after it. */
function stretches(
  losses: readonly Loss[],
  length: number,
  level: number,
  windowSeconds: number,
): { from: number; to: number; above: boolean }[] {
  const changes = [
    ...losses.map(({ time, amount }) => ({ time, amount })),
    ...losses.map(({ time, amount }) => ({ time: time + windowSeconds, amount: 0 - amount })),
  ]
    .filter(({ time }) => time <= length)
    .sort((a, b) => a.time - b.time || a.amount - b.amount);
  const found: { from: number; to: number; above: boolean }[] = [];
  let inside = 0;
  let from = 0;
  let above = false;
  for (let i = 0; i < changes.length; i++) {
    inside += changes[i].amount;
    if (i + 1 < changes.length && changes[i + 1].time === changes[i].time) continue;
    const now = inside / windowSeconds > level * (1 + 1e-9);
    if (now === above) continue;
    if (changes[i].time > from) found.push({ from, to: changes[i].time, above });
    from = changes[i].time;
    above = now;
  }
  if (length > from) found.push({ from, to: length, above });
  return found;
}

/**
 * Share of fighting time (first to last party damage) with p(t) above a level, hp/s; NaN without two losses.
 */
export function timeOverLevel(
  losses: readonly Loss[],
  level: number,
  { window, rounds }: PressureClock = PRESSURE_CLOCKS.continuous,
): number {
  if (losses.length < 2) return NaN;
  const first = losses[0].time;
  // The last round counts whole.
  const last = losses[losses.length - 1].time + (rounds ? 1 : 0);
  const over = stretches(losses, last, level, window).reduce(
    (sum, { from, to, above }) => sum + (above ? to - Math.max(from, first) : 0),
    0,
  );
  return last > first ? over / (last - first) : NaN;
}

/** Share of full health per second, or per round, below which the party rests. */
export const LULL_LEVEL = 0.02;

export interface Lull {
  from: number;
  to: number;
}

export interface Lulls {
  lulls: Lull[];
  /** s: longest stretch without one */
  longestWithout: number;
}

/**
 * Lulls: p(t) at or below a low level for at least L seconds; dated from W before p falls below it, for that is when the last
 * damage that counted was done. A lull at the very beginning is dated from 0.
 *
 * In rounds: stretches of at least one round with so little harm.
 *
 * Worked: W = 3, level 0, L = 3; losses at 5 and 20 s of 30: p falls to 0 at 8 and 23; lulls 0–5, 5–20 and 20–30; nothing
 * between them, so the longest stretch without one is 0.
 */
export function lulls(
  losses: readonly Loss[],
  length: number,
  level: number,
  { window, lull, rounds }: PressureClock = PRESSURE_CLOCKS.continuous,
): Lulls {
  const quiet = stretches(losses, length, level, window).filter(({ above }) => !above);
  const found = rounds
    ? // What lies between two rounds with harm is whole rounds: from the end of the one to the beginning of the other.
      quiet.map(({ from, to }) => ({ from: Math.floor(from), to: Math.floor(to) })).filter(({ from, to }) => to - from >= lull)
    : quiet
        .filter(({ from, to }) => to - from >= lull - 1e-9)
        .map(({ from, to }) => ({ from: Math.max(0, from > 0 ? from - window : 0), to }));
  let longestWithout = 0;
  let since = 0;
  for (const { from, to } of found) {
    longestWithout = Math.max(longestWithout, from - since);
    since = to;
  }
  return { lulls: found, longestWithout: Math.max(longestWithout, length - since) };
}

/** 1 at the times, s, that lie in a lull, else 0. */
export function quietAt(found: readonly Lull[], times: ArrayLike<number>): Uint8Array {
  return Uint8Array.from(times, (time) => (found.some(({ from, to }) => time > from && time <= to) ? 1 : 0));
}

/**
 * Burst: the most that one member lost within any 1 s, or one round, as a share of its full health and shield.
 * @param losses of that member
 */
export function burst(losses: readonly { time: number; amount: number }[], full: number, seconds = 1): number {
  let tail = 0;
  let inside = 0;
  let most = 0;
  for (const { time, amount } of losses) {
    inside += amount;
    for (; losses[tail].time <= time - seconds; tail++) inside -= losses[tail].amount;
    most = Math.max(most, inside);
  }
  return most / full;
}

/** By member. */
export function bursts(stream: Stream): number[] {
  const { compiled, run } = stream;
  const { log } = run;
  const of: { time: number; amount: number }[][] = compiled.seats.map(() => []);
  const members = membersOf(stream);
  for (let i = 0; i < log.length; i++) {
    if (isDamage(log.kind[i]) && isMember(stream, log.other[i]))
      of[run.seats[log.other[i]]].push({ time: momentOf(stream, log.time[i]), amount: lostIn(stream, i) });
  }
  return of.map((losses, seat) => {
    if (members[seat] < 0) return NaN;
    const { maxHealth, shield } = compiled.kinds[run.kinds[members[seat]]];
    return burst(losses, maxHealth + shield);
  });
}
