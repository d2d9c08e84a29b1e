import { EVENT } from '../record/log';
import { spanOf } from './clock';
import { type Stream, isDamage, isDown, lostIn, typeOf, membersOf } from './stream';

/** One life of one unit: a revived unit begins another. */
export interface Life {
  unit: number;
  type: number;
  /** s, or rounds, from its first damage to its death; +∞ for one that was damaged and survived; NaN for one never damaged. */
  timeToKill: number;
  /** s, or rounds, from its spawn to its death; +∞ for a survivor. */
  lifetime: number;
}

/**
 * Time-to-kill: first damage taken → death. For a party member the same span is its time-to-down. Damage is health
 * or shield lost; a hit that armour took whole starts nothing. Who leaves alive survives.
 *
 * Worked: hits at 0.1, 0.5 … 3.3 s, death at 3.3 s: 3.2 s. In rounds: hits in rounds 2 to 5, death in round 5: 4 rounds.
 */
export function lives(stream: Stream): Life[] {
  const { log, units } = stream.run;
  const born = new Float64Array(units);
  const first = new Float64Array(units).fill(-1);
  const ended = new Uint8Array(units);
  const found: Life[] = [];
  const close = (unit: number, died: number) => {
    found.push({
      unit,
      type: typeOf(stream, unit),
      timeToKill: first[unit] < 0 ? NaN : spanOf(stream, first[unit], died),
      lifetime: spanOf(stream, born[unit], died),
    });
    ended[unit] = 1;
  };
  for (let i = 0; i < log.length; i++) {
    const kind = log.kind[i];
    if (isDamage(kind)) {
      if (first[log.other[i]] < 0 && lostIn(stream, i) > 0) first[log.other[i]] = log.time[i];
    } else if (isDown(kind)) {
      // Whoever bleeds out was down already.
      if (!ended[log.actor[i]]) close(log.actor[i], log.time[i]);
    } else if (kind === EVENT.spawn) born[log.actor[i]] = log.time[i];
    else if (kind === EVENT.revive) {
      born[log.other[i]] = log.time[i];
      first[log.other[i]] = -1;
      ended[log.other[i]] = 0;
    }
  }
  for (let unit = 0; unit < units; unit++) if (!ended[unit]) close(unit, Infinity);
  return found;
}

/** A party member's first time down, s from its first damage; +∞ for one that stood to the end. */
export function timesToDown(stream: Stream, found: readonly Life[]): number[] {
  return Array.from(membersOf(stream), (member) => {
    if (member < 0) return NaN;
    const life = found.find(({ unit }) => unit === member);
    return life && life.lifetime < Infinity ? life.timeToKill : Infinity;
  });
}

/** The first of several to go down; NaN where none of them was hurt. */
export function firstDown(times: readonly number[]): number {
  const hurt = times.filter((time) => time === time);
  return hurt.length ? Math.min(...hurt) : NaN;
}
