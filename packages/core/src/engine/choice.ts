import { startAttack } from './attack';
import { PURPOSE } from './chance';
import { within } from './facing';
import { type Fight, NOBODY, PHASE } from './fight';
import { DOING } from './log';
import { DUE } from './queue';
import { chooseTarget } from './targets';
import { microsecondsUp } from './time';

/** Phase of a step: whoever stands idle tries to begin an attack. */
export function tryAttacks(fight: Fight): void {
  const { alive, alerted, phase, bearingGap } = fight;
  const { idle } = PHASE;
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    if (alerted[unit] && phase[unit] === idle) tryAttack(fight, unit, bearingGap[unit]);
  }
}

/** A try at an instant of its own: a cooldown or pause ended, a target died. Nothing acts on a stale target. */
export function tryAtInstant(fight: Fight, unit: number): void {
  if (!fight.isAlive[unit] || !fight.alerted[unit] || fight.phase[unit] !== PHASE.idle) return;
  if (fight.target[unit] === NOBODY || !fight.isAlive[fight.target[unit]]) chooseTarget(fight, unit);
  const target = fight.target[unit];
  tryAttack(fight, unit, target === NOBODY ? 0 : fight.gap(unit, target));
}

/** @param gap m to the target at this instant */
function tryAttack(fight: Fight, unit: number, gap: number): void {
  const target = fight.target[unit];
  if (target === NOBODY) return fight.sayDoing(unit, DOING.noTarget);
  if (!fight.mayAttack[unit]) return fight.sayDoing(unit, DOING.noAttack);
  if (fight.now < fight.pauseUntil[unit]) {
    tryAgainAt(fight, unit, fight.pauseUntil[unit]);
    return fight.sayDoing(unit, DOING.pause);
  }
  if (fight.now < fight.nextReady[unit]) {
    tryAgainAt(fight, unit, fight.nextReady[unit]);
    return fight.sayDoing(unit, DOING.cooldown);
  }
  choose(fight, unit, target, gap);
}

/** Priorities from the top; the first with a usable entry decides, by weight among its usable ones. */
function choose(fight: Fight, unit: number, target: number, gap: number): void {
  const { choice, attacks } = fight.kinds[unit];
  const room = fight.compiled.attackRoom;
  let highest: number = DOING.noAttack;
  let soonest = Infinity;
  for (let p = 0; p < choice.length; p++) {
    const priority = choice[p];
    let total = 0;
    let usable = 0;
    let last: number = NOBODY;
    for (let e = 0; e < priority.attacks.length; e++) {
      const hurdle = hurdleOf(fight, unit, target, priority.attacks[e], gap);
      if (hurdle === 0 && priority.weights[e] > 0) {
        total += priority.weights[e];
        usable++;
        last = e;
      } else if (hurdle > highest) highest = hurdle;
      const ready = fight.readyAt[unit * room + priority.attacks[e]];
      if (ready > fight.now && ready < soonest) soonest = ready;
      if (hurdle === DOING.energy) soonest = Math.min(soonest, affordableAt(fight, unit, attacks[priority.attacks[e]].energy));
    }
    if (usable === 0) continue;
    let chosen = last;
    if (usable > 1) {
      let left = fight.chance(unit, PURPOSE.choice) * total;
      for (let e = 0; e <= last; e++) {
        if (priority.weights[e] <= 0 || hurdleOf(fight, unit, target, priority.attacks[e], gap) !== 0) continue;
        left -= priority.weights[e];
        if (left < 0) {
          chosen = e;
          break;
        }
      }
    }
    return startAttack(fight, unit, priority.attacks[chosen], target, attacks[priority.attacks[chosen]]);
  }
  if (soonest < Infinity) tryAgainAt(fight, unit, soonest);
  fight.sayDoing(unit, highest);
}

/** What stands in the way of an attack: 0 for nothing, else one of DOING. The farthest hurdle reached is the reason. */
function hurdleOf(fight: Fight, unit: number, target: number, number: number, gap: number): number {
  const attack = fight.attackOf(unit, number);
  if (fight.now < fight.readyAt[unit * fight.compiled.attackRoom + number]) return DOING.cooldown;
  if (attack.energy > 0 && fight.energyNow(unit) < attack.energy * (1 - 1e-12)) return DOING.energy;
  if (gap < attack.rangeMin || gap > attack.rangeMax) return DOING.range;
  if (attack.facingCosine > -1 && !within(fight, unit, target, attack.facingCosine)) return DOING.facing;
  return 0;
}

/** The instant at which a price can be paid: energy grows linearly; Infinity where it never gets there. */
function affordableAt(fight: Fight, unit: number, price: number): number {
  const { energy, energyRegen } = fight.kinds[unit];
  if (energyRegen === 0 || energy < price) return Infinity;
  return fight.now + Math.max(1, microsecondsUp((price - fight.energyNow(unit)) / energyRegen));
}

/** One choice at a time is queued for a unit, for the earliest instant at which it could go otherwise. */
export function tryAgainAt(fight: Fight, unit: number, time: number): void {
  if (fight.choiceAt[unit] === time) return; // it is queued already
  fight.choiceAt[unit] = time;
  fight.queue.push(time, DUE.choice, unit, fight.serial[unit], 0);
}
