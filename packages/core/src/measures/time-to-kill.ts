import { EVENT } from '../engine/log';
import { SECOND } from '../engine/tuning';
import { type Stream, isDamage } from './stream';

/** A life of one unit. */
export interface Life {
  unit: number;
  kind: number;
  /** s from its first damage to its death; +∞ for one that was damaged and survived; NaN for one never damaged. */
  timeToKill: number;
  /** s from its spawn to its death; +∞ for a survivor. */
  lifetime: number;
}

/**
 * Time-to-kill: first damage taken → death. For a party member the same span is its time-to-down. Damage is health
 * or shield lost; a hit that armour took whole starts nothing.
 *
 * Worked: hits at 0.1, 0.5 … 3.3 s, death at 3.3 s: 3.2 s.
 */
export function lives({ run }: Stream): Life[] {
  const { log } = run;
  const born = new Float64Array(run.units);
  const first = new Float64Array(run.units).fill(-1);
  const died = new Float64Array(run.units).fill(-1);
  for (let i = 0; i < log.length; i++) {
    const kind = log.kind[i];
    if (isDamage(kind)) {
      if (log.a[i] + log.d[i] > 0 && first[log.other[i]] < 0) first[log.other[i]] = log.time[i];
    } else if (kind === EVENT.death) died[log.actor[i]] = log.time[i];
    else if (kind === EVENT.spawn) born[log.actor[i]] = log.time[i];
  }
  const found: Life[] = [];
  for (let unit = 0; unit < run.units; unit++) {
    const dead = died[unit] >= 0;
    found.push({
      unit,
      kind: run.kinds[unit],
      timeToKill: first[unit] < 0 ? NaN : dead ? (died[unit] - first[unit]) / SECOND : Infinity,
      lifetime: dead ? (died[unit] - born[unit]) / SECOND : Infinity,
    });
  }
  return found;
}
