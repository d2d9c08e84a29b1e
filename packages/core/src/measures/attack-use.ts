import { EVENT } from '../engine/log';
import type { Stream } from './stream';

/** What became of one attack of one kind in a run. */
export interface AttackUse {
  starts: number;
  interrupted: number;
  hits: number;
  /** Ticks of damage over time. */
  ticks: number;
  misses: number;
  /** Hits stopped by an invulnerability window. */
  blocked: number;
  /** Health and shield taken. */
  damage: number;
  overkill: number;
}

export const noUse = (): AttackUse => ({ starts: 0, interrupted: 0, hits: 0, ticks: 0, misses: 0, blocked: 0, damage: 0, overkill: 0 });

/** By kind, then by attack. */
export function attackUse({ compiled, run }: Stream): AttackUse[][] {
  const { log } = run;
  const table = compiled.kinds.map(({ attacks }) => attacks.map(noUse));
  for (let i = 0; i < log.length; i++) {
    const kind = log.kind[i];
    if (kind !== EVENT.tick && (kind < EVENT.start || kind > EVENT.interrupted || kind === EVENT.death || kind === EVENT.shot)) continue;
    const use = table[run.kinds[log.actor[i]]][log.what[i]];
    if (kind === EVENT.start) use.starts++;
    else if (kind === EVENT.interrupted) use.interrupted++;
    else if (kind === EVENT.miss) use.misses++;
    else if (kind === EVENT.blocked) use.blocked++;
    else {
      if (kind === EVENT.hit) use.hits++;
      else use.ticks++;
      use.damage += log.a[i] + log.d[i];
      use.overkill += log.b[i];
    }
  }
  return table;
}
