/** Staying with a friend: which one, and how near. */
import { arrive, stepAway } from '../body/steps';
import type { Fight } from '../fight';
import { NOBODY } from '../numbers';
import type { CompiledState } from '../unit-tables';
import { followLeader } from './going';
import { bestFriend } from './targets';

/** Comes when it is farther than the band's far edge, backs off when nearer than its near one; in between it stands. */
export function follow(fight: Fight, unit: number, most: number, { picks, near, far }: CompiledState): void {
  if (picks === null) return;
  const present = fight.leader[unit];
  const lost = present === NOBODY || !fight.isAlive[present];
  if (lost || fight.now >= fight.nextLeader[unit])
    followLeader(fight, unit, bestFriend(fight, unit, picks, lost ? NOBODY : present), fight.now + picks.reconsider);
  const leader = fight.leader[unit];
  if (leader === NOBODY) return;
  const gap = fight.gap(unit, leader);
  if (gap > far) return arrive(fight, unit, fight.x[leader], fight.y[leader], Math.min(most, gap - far));
  if (gap >= near) return;
  const dx = fight.x[leader] - fight.x[unit];
  const dy = fight.y[leader] - fight.y[unit];
  const apart = Math.sqrt(dx * dx + dy * dy);
  // Where both stand in one place it goes backwards.
  if (apart > 0) stepAway(fight, unit, dx / apart, dy / apart, Math.min(most, near - gap));
  else stepAway(fight, unit, fight.fx[unit], fight.fy[unit], Math.min(most, near - gap));
}
