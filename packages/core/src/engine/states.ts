import { type Fight, NOBODY } from './fight';
import { EVENT } from './log';
import { SECOND } from './tuning';

/** Phase of a step: the first transition whose time and condition have come is taken; one a step. */
export function changeStates(fight: Fight): void {
  const { alive } = fight;
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    if (fight.leaves[unit] === 0) continue;
    const { leaves } = fight.kinds[unit].states[fight.state[unit]];
    for (let l = 0; l < leaves.length; l++) {
      const leave = leaves[l];
      const since = fight.now - fight.stateSince[unit];
      if (since < leave.after || !holds(fight, unit, leave.subject, leave.above, leave.value, since)) continue;
      enterState(fight, unit, leave.to);
      break;
    }
  }
}

export function enterState(fight: Fight, unit: number, state: number): void {
  fight.state[unit] = state;
  takeUp(fight, unit);
  fight.log.add(fight.now, EVENT.state, unit, NOBODY, state);
}

/** A state begins: what every step asks of it is put beside the unit. */
export function takeUp(fight: Fight, unit: number): void {
  const kind = fight.kinds[unit];
  const { does, speed, near, far, leaves, mayAttack } = kind.states[fight.state[unit]];
  fight.stateSince[unit] = fight.now;
  fight.does[unit] = does;
  fight.pace[unit] = speed;
  fight.near[unit] = near;
  fight.far[unit] = far;
  fight.leaves[unit] = leaves.length;
  fight.mayAttack[unit] = mayAttack && kind.choice.length ? 1 : 0;
}

/** A comparison with something that is not there (the distance to no target) is false. */
function holds(fight: Fight, unit: number, subject: number, above: boolean, value: number, since: number): boolean {
  let actual: number;
  if (subject === 0) {
    if (fight.target[unit] === NOBODY) return false;
    actual = fight.bearingGap[unit];
  } else if (subject === 1) {
    actual = fight.healthNow(unit) / fight.kinds[unit].maxHealth;
  } else {
    actual = since / SECOND;
  }
  return above ? actual > value : actual < value;
}
