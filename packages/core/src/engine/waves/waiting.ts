/** Units that are due while the caps on the living hold. */
import type { Fight } from '../fight';
import { DUE } from '../time/queue';
import { MOST_UNITS } from '../tuning';
import { COMINGS, waveOf } from './counts';
import { queueOfWave } from './holding';

/** A spawn among all that may wait. */
export const waitKey = (code: number, ordinal: number) => code * (MOST_UNITS + 1) + ordinal;

/** It need not wait any more. */
export function endWait(fight: Fight, wave: number, code: number, ordinal: number): void {
  if (!fight.waitingSince.size) return;
  const key = waitKey(code, ordinal);
  fight.waves[wave].waitedFor += fight.now - (fight.waitingSince.get(key) ?? fight.now);
  fight.waitingSince.delete(key);
}

/** µs that units of each wave waited for room, those included who still waited at the end. */
export function waits(fight: Fight): number[] {
  const all = fight.waves.map(({ waitedFor }) => waitedFor);
  for (const [key, since] of fight.waitingSince) all[Math.floor(key / (MOST_UNITS + 1) / COMINGS / COMINGS)] += fight.now - since;
  return all;
}

/** Those of a wave that is stopped wait no more. */
export function dropWaiting(fight: Fight, wave: number): void {
  const { waiting } = fight;
  let kept = 0;
  for (let i = 0; i < waiting.length; i += 2) {
    if (waveOf(waiting[i]) === wave) {
      endWait(fight, wave, waiting[i], waiting[i + 1]);
      continue;
    }
    waiting[kept++] = waiting[i];
    waiting[kept++] = waiting[i + 1];
  }
  waiting.length = kept;
}

/** Somebody made room: those who wait are due again, in their order. */
export function admitWaiting(fight: Fight): void {
  const { waiting } = fight;
  for (let i = 0; i < waiting.length; i += 2) queueOfWave(fight, waveOf(waiting[i]), 0, DUE.spawn, waiting[i], waiting[i + 1]);
  waiting.length = 0;
}
