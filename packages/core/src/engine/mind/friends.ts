/** Whom support is for: the friend that is hurt most, or the nearest of the fallen. */
import { inRange } from '../body/reach';
import type { Fight } from '../fight';
import { ILL, NOBODY } from '../numbers';
import type { CompiledAttack } from '../unit-tables';
import { lineToTarget } from './senses';

/** A friend within range and line that this attack would do something for; NOBODY where there is none. */
export function friendToHelp(fight: Fight, unit: number, attack: CompiledAttack): number {
  return attack.targets === 'fallen' ? nearestFallen(fight, unit, attack) : neediestFriend(fight, unit, attack);
}

function reaches(fight: Fight, unit: number, other: number, attack: CompiledAttack): boolean {
  const gap = fight.gap(unit, other);
  return inRange(gap, attack.rangeMin, attack.rangeMax) && (!attack.needsLine || lineToTarget(fight, unit, other));
}

/** The lowest share of health; a shield for whom least is lent, then the nearest; a boost for the nearest who lacks it. */
function neediestFriend(fight: Fight, unit: number, attack: CompiledAttack): number {
  const friends = fight.living[fight.side[unit]];
  const { heal, shield } = attack.effects;
  let best: number = NOBODY;
  let least = Infinity;
  let nearest = Infinity;
  for (let i = 0; i < friends.length; i++) {
    const friend = friends[i];
    if (friend === unit || !couldUse(fight, friend, attack) || !reaches(fight, unit, friend, attack)) continue;
    const has = heal ? fight.healthNow(friend) / fight.kinds[friend].maxHealth : shield ? fight.lent[friend] : 0;
    const gap = heal ? 0 : fight.gap(unit, friend);
    if (has > least || (has === least && gap >= nearest)) continue;
    least = has;
    nearest = gap;
    best = friend;
  }
  return best;
}

function couldUse(fight: Fight, friend: number, { effects: { heal, shield, boost } }: CompiledAttack): boolean {
  if (heal) return fight.healthNow(friend) < fight.kinds[friend].maxHealth;
  if (shield) return true; // what is lent adds up
  return !fight.ills[friend].some(({ what, value }) => what === ILL.boost && value === boost?.id);
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
