import { DOING, DOING_NAMES, EVENT } from '../engine/log';
import { SECOND } from '../engine/tuning';
import type { Stream } from './stream';

/** Why a unit that is alerted does not attack. */
export const IDLE_REASONS = ['pause', 'cooldown', 'energy', 'range', 'facing', 'noTarget', 'noAttack'] as const;
/** What alerted time goes into: the phases of an attack, or the reason for none. */
export const TIME_USES = ['windup', 'active', 'recovery', ...IDLE_REASONS] as const;
export type TimeUse = (typeof TIME_USES)[number];

const USE_OF_DOING = DOING_NAMES.map((name) => TIME_USES.indexOf(name as TimeUse));

/**
 * Seconds of alerted life by what they went into, by kind: row `kind` of a table with TIME_USES.length columns. While
 * several things keep a unit from attacking, the farthest hurdle counts (cooldown before energy before range before facing).
 */
export function timeUse({ compiled, run }: Stream): Float64Array[] {
  const { log } = run;
  const columns = TIME_USES.length;
  const table = compiled.kinds.map(() => new Float64Array(columns));
  const doing = new Int32Array(run.units).fill(DOING.unaware);
  const since = new Float64Array(run.units);
  const attack = new Int32Array(run.units);
  const close = (unit: number, now: number) => {
    const row = table[run.kinds[unit]];
    const span = now - since[unit];
    if (doing[unit] === DOING.attacking) {
      const { windup, active } = compiled.kinds[run.kinds[unit]].attacks[attack[unit]];
      row[0] += Math.min(span, windup) / SECOND;
      row[1] += Math.min(Math.max(span - windup, 0), active) / SECOND;
      row[2] += Math.max(span - windup - active, 0) / SECOND;
    } else if (doing[unit] !== DOING.unaware) row[USE_OF_DOING[doing[unit]]] += span / SECOND;
    since[unit] = now;
  };
  for (let i = 0; i < log.length; i++) {
    const kind = log.kind[i];
    const unit = log.actor[i];
    if (kind === EVENT.doing || kind === EVENT.start) {
      close(unit, log.time[i]);
      doing[unit] = kind === EVENT.start ? DOING.attacking : log.what[i];
      attack[unit] = kind === EVENT.start ? log.what[i] : 0;
    } else if (kind === EVENT.interrupted || kind === EVENT.death) {
      close(unit, log.time[i]);
      doing[unit] = kind === EVENT.death ? DOING.unaware : DOING.noTarget;
    }
  }
  for (let unit = 0; unit < run.units; unit++) close(unit, run.length);
  return table;
}
