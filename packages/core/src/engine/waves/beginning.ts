/** How a fight begins. */
import { ENEMY, PARTY } from '../../record/sides';
import type { Fight } from '../fight';
import { NOBODY } from '../numbers';
import { textKey } from '../time/chance';
import { DUE } from '../time/queue';
import { join } from './roll';
import { appear, isFree, nearestFree } from './spawns';
import { beginWaves } from './waves';

/** The party stands, what is to be defended stands, and every wave that time starts is queued. */
export function begin(fight: Fight, seed: number): void {
  fight.reset(seed);
  const { party, allies, places, limit } = fight.compiled;
  party.forEach(({ kind, key, x, y, fx, fy }, seat) => join(fight, appearFreely(fight, kind, key, x, y, fx, fy), seat));
  for (const { kind, key, x, y, fx, fy } of allies) appearFreely(fight, kind, key, x, y, fx, fy);
  for (const { id, kind, x, y, defended, enemies } of places) {
    const unit = kind < 0 ? NOBODY : appear(fight, kind, enemies ? ENEMY : PARTY, textKey(3, id), x, y, 1, 0, NOBODY);
    fight.things.push(unit);
    if (unit === NOBODY) continue;
    fight.defended[unit] = defended ? 1 : 0;
    fight.attacked[unit] = enemies ? 1 : 0;
    if (enemies) fight.thingsLeft++;
  }
  beginWaves(fight);
  fight.queue.push(limit, DUE.end, 0, 0, 0);
}

/** Where it should stand, or the nearest free place. */
function appearFreely(fight: Fight, kind: number, key: number, x: number, y: number, fx: number, fy: number): number {
  const { radius, ground } = fight.compiled.kinds[kind];
  const place = isFree(fight, ground, x, y, radius) ? { x, y } : (nearestFree(fight, ground, x, y, radius) ?? { x, y });
  return appear(fight, kind, PARTY, key, place.x, place.y, fx, fy, NOBODY);
}
