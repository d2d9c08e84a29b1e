/** What a group brings. */
import type { Fight } from '../fight';
import { childKey, PURPOSE } from '../time/chance';
import { drawCount, groupChance } from './counts';

/**
 * What a group brings at one coming: for each unit its entry of the pool. Drawn from the group's own luck, so it is the
 * same whenever it is asked.
 */
export function planGroup(fight: Fight, wave: number, coming: number, number: number): number[] {
  const group = fight.compiled.waves[wave].groups[number];
  const key = childKey(group.key, 1000 + coming);
  const count =
    drawCount(fight, group.key, coming, group.min[coming], group.max[coming]) * (group.rule === 'each' ? group.points.length : 1);
  if (group.weights.length === 1 && group.draws !== 'budget') return new Array<number>(count).fill(0);
  const left = [...group.weights];
  const plan: number[] = [];
  let budget = group.budget;
  const most = group.draws === 'budget' ? group.max[coming] : count;
  for (let n = 0; plan.length < most; n++) {
    const usable = left.map((weight, e) => (group.draws === 'budget' && group.worths[e] > budget ? 0 : weight));
    const total = usable.reduce((a, b) => a + b, 0);
    if (total <= 0) break;
    let ticket = groupChance(fight, key, PURPOSE.pool, n) * total;
    let entry = usable.findIndex((weight) => (ticket -= weight) < 0);
    if (entry < 0) entry = usable.reduce((last, weight, e) => (weight > 0 ? e : last), 0);
    plan.push(entry);
    budget -= group.worths[entry];
    if (group.draws === 'once') left[entry] = Math.max(0, left[entry] - 1);
  }
  return plan;
}
