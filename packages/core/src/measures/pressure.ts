import { SECOND } from '../engine/tuning';
import { type Stream, isDamage, isParty } from './stream';

/** s: the window W of damage pressure unless said otherwise. */
export const PRESSURE_WINDOW_SECONDS = 3;

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

/** Full health and shield of the party at the start: what shares of pressure are shares of. */
export function partyHealth({ compiled }: Stream): number {
  return compiled.party.reduce((sum, { kind }) => sum + compiled.kinds[kind].maxHealth + compiled.kinds[kind].shield, 0);
}

/**
 * Damage pressure p(t) = health and shield the party lost in (t − W, t] ÷ W, evaluated where it can rise: at each hit on the party.
 *
 * Worked: W = 3; 6 lost at 1 s, 6 at 2 s, 6 at 4 s: p = 2, 4, 4 (the window (1, 4] holds the hits at 2 and 4).
 */
export function pressure(stream: Stream, windowSeconds = PRESSURE_WINDOW_SECONDS): Pressure {
  const { log } = stream.run;
  const window = windowSeconds * SECOND;
  let tail = 0;
  let inside = 0;
  let peak = 0;
  let peakAt = NaN;
  let total = 0;
  for (let i = 0; i < log.length; i++) {
    if (!hurtsParty(stream, i)) continue;
    total += lost(stream, i);
    inside += lost(stream, i);
    for (; log.time[tail] <= log.time[i] - window; tail++) if (hurtsParty(stream, tail)) inside -= lost(stream, tail);
    if (inside / windowSeconds > peak * (1 + 1e-12)) {
      peak = inside / windowSeconds;
      peakAt = log.time[i] / SECOND;
    }
  }
  const full = partyHealth(stream);
  return { peak, peakShare: peak / full, peakAt, dose: total / full };
}

/** Times (s) and amounts of health the party lost: what the curve is made from. */
export function partyLosses(stream: Stream): { time: number; amount: number; by: number }[] {
  const { log, kinds } = stream.run;
  const losses = [];
  for (let i = 0; i < log.length; i++) {
    if (hurtsParty(stream, i)) losses.push({ time: log.time[i] / SECOND, amount: lost(stream, i), by: kinds[log.actor[i]] });
  }
  return losses;
}

function hurtsParty(stream: Stream, i: number): boolean {
  const { log } = stream.run;
  return isDamage(log.kind[i]) && log.a[i] + log.d[i] > 0 && isParty(stream, log.other[i]);
}

/** Health and shield lost. */
function lost({ run: { log } }: Stream, i: number): number {
  return log.a[i] + log.d[i];
}
