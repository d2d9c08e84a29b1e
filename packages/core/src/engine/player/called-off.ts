/** Announced attacks that do not come after all. */
import type { Fight } from '../fight';

/** What is under way ends with its owner's attack, unless it has left it: nobody has to answer it any more. */
export function callOff(fight: Fight, attacker: number): void {
  for (const member of fight.players) {
    const threat = fight.threats[member].find(({ use }) => use === fight.use[attacker]);
    if (threat && fight.now < threat.leavesAt) threat.off = true;
  }
}
