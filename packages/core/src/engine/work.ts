/** What fights cost, counted and not timed: steps that units live. Seconds follow from how fast a machine is. */
import type { Compiled } from './tables';
import { MOST_LIVE, MOST_WORK, SUMMON_ROOM } from './tuning';

/** Summoned units that are reckoned with where any may be summoned. */
const SUMMONED = 12;

/** Steps that all units of one run may live, if it takes its whole time: seldom less than what it comes to, often more. */
export function plannedWork({ capacity, step, limit, kinds }: Pick<Compiled, 'capacity' | 'step' | 'limit' | 'kinds'>): number {
  const summons = kinds.some(({ attacks }) => attacks.some(({ summonKind }) => summonKind >= 0));
  const units = summons ? Math.max(1, capacity - SUMMON_ROOM) + SUMMONED : capacity;
  return Math.min(MOST_WORK, Math.min(MOST_LIVE, units) * Math.ceil(limit / step));
}
