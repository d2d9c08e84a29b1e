/** Whom support is for: the friend that is hurt most, or the nearest of the fallen. */
import { type Fight, ILL, NOBODY } from './fight';
import { lineToTarget } from './senses';
import { type CompiledAttack, FALLEN } from './tables';

/** A friend within range and line that this attack would do something for; NOBODY where there is none. */
export function friendToHelp(fight: Fight, unit: number, attack: CompiledAttack): number {
  return attack.targets === FALLEN ? nearestFallen(fight, unit, attack) : neediestFriend(fight, unit, attack);
}

function reaches(fight: Fight, unit: number, other: number, attack: CompiledAttack): boolean {
  const gap = fight.gap(unit, other);
  return gap >= attack.rangeMin && gap <= attack.rangeMax && (!attack.needsLine || lineToTarget(fight, unit, other));
}

/** The lowest share of health; what gives no health looks for the nearest who lacks what it gives. */
function neediestFriend(fight: Fight, unit: number, attack: CompiledAttack): number {
  const friends = fight.living[fight.side[unit]];
  let best: number = NOBODY;
  let least = Infinity;
  for (let i = 0; i < friends.length; i++) {
    const friend = friends[i];
    if (friend === unit || !couldUse(fight, friend, attack) || !reaches(fight, unit, friend, attack)) continue;
    const need = attack.heals ? fight.healthNow(friend) / fight.kinds[friend].maxHealth : fight.gap(unit, friend);
    if (need >= least) continue;
    least = need;
    best = friend;
  }
  return best;
}

function couldUse(fight: Fight, friend: number, attack: CompiledAttack): boolean {
  if (attack.heals) return fight.healthNow(friend) < fight.kinds[friend].maxHealth;
  if (attack.lentAmount > 0 && fight.lent[friend] >= attack.lentAmount) return false;
  return !fight.ills[friend].some(({ what, value }) => what === ILL.boost && value === attack.boost?.id);
}

function nearestFallen(fight: Fight, unit: number, attack: CompiledAttack): number {
  let best: number = NOBODY;
  let least = Infinity;
  for (const { unit: fallen, until } of fight.fallen) {
    if (until <= fight.now || fight.side[fallen] !== fight.side[unit] || !reaches(fight, unit, fallen, attack)) continue;
    const gap = fight.gap(unit, fallen);
    if (gap < least || (gap === least && fallen < best)) {
      least = gap;
      best = fallen;
    }
  }
  return best;
}
