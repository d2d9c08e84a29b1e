/** How often one use of an attack hits. */
import type { Attack } from '../model/attack';
import { microseconds } from '../record/time';

/** Hits of one use: at i × every while less than `active` has passed; one when nothing is said. */
function hitsInActive(active: number, every: number): number {
  return every > 0 && active > 0 ? Math.ceil(active / every) : 1;
}

/** Hit instants of one use. A movement that hurts has its hits where it leads instead. */
export function hitInstants({ beat, dash }: Attack): number {
  if (dash && dash.hurts !== 'no') return 1;
  return hitsInActive(microseconds(beat.active), beat.every === undefined ? 0 : Math.max(1, microseconds(beat.every)));
}
