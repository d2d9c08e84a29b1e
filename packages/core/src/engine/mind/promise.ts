/** What an attack promises against a foe, as whoever goes by it would reckon: means of all that is drawn, nothing of what comes after. */
import type { Fight } from '../fight';
import type { CompiledAttack, CompiledUnit } from '../unit-tables';
import { readyHurdle } from './ready';

/** hp: harm to what the foe has left, and where that is all of it, what it would have dealt in its next turn. */
export function promised(fight: Fight, unit: number, attack: CompiledAttack, foe: number): number {
  const left = leftOf(fight, foe);
  const harm = meanHarm(attack, fight.kinds[foe]);
  if (harm < left) return harm;
  return (
    left + fight.kinds[foe].attacks.reduce((most, own) => (own.traits.strikes ? Math.max(most, meanHarm(own, fight.kinds[unit])) : most), 0)
  );
}

/** hp: what a foe has left. */
const leftOf = (fight: Fight, foe: number) => fight.healthNow(foe) + fight.shieldNow(foe) + fight.lent[foe];

/** hp: the most that one of its attacks that are ready would take from a foe, wherever that is; no more than it has left. */
export function mostHarm(fight: Fight, unit: number, foe: number): number {
  const { attacks } = fight.kinds[unit];
  let most = 0;
  for (let number = 0; number < attacks.length; number++) {
    const attack = attacks[number];
    if (!attack.traits.strikes || readyHurdle(fight, unit, number, attack) !== 0) continue;
    most = Math.max(most, meanHarm(attack, fight.kinds[foe]));
  }
  return Math.min(most, leftOf(fight, foe));
}

/** Whether one of its attacks that are ready would take all that a foe has left. */
export const wouldFell = (fight: Fight, unit: number, foe: number): boolean => {
  const left = leftOf(fight, foe);
  return left > 0 && mostHarm(fight, unit, foe) >= left * (1 - 1e-12);
};

/** hp of one use: hits and ticks, past resistance and armour, with the mean of criticals, less misses. */
export function meanHarm(attack: CompiledAttack, { armour, minimumDamage, resist }: CompiledUnit): number {
  const { damage, overTime } = attack.effects;
  const past = (amount: number, type: number) => {
    const taken = amount * (type >= 0 && type < resist.length ? Math.max(0, 1 - resist[type]) : 1);
    return Math.max(taken - armour, Math.min(taken, minimumDamage), 0);
  };
  const hit = damage ? past(damage.amount, damage.type) * (1 + damage.critChance * (damage.critMultiplier - 1)) : 0;
  const ticks = overTime ? Math.floor(overTime.lasts / overTime.every + 1e-9) * past(overTime.amount, overTime.type) : 0;
  const lands = Math.min(1, (attack.accuracyNear + attack.accuracyFar) / 2);
  // Where a use strikes each target once, several hits are several chances to.
  const chances = attack.hits * Math.max(1, attack.volley);
  let missed = 1;
  for (let i = 0; i < chances && missed > 0; i++) missed *= 1 - lands;
  const atLeastOne = 1 - missed;
  const landed = attack.volley > 0 || attack.everyHit ? chances * lands : atLeastOne;
  return hit * landed + ticks * (overTime?.stacking === 'stack' ? landed : atLeastOne);
}
