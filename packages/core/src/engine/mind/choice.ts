/** Which attack a unit begins: its combo, then priorities from the top, within one a draw by weight among the usable. */
import { DOING } from '../../record/doing';
import { microsecondsUp } from '../../record/time';
import { within } from '../body/facing';
import { inRange } from '../body/reach';
import type { Fight } from '../fight';
import { startAttack } from '../harm/attack';
import { gapOver } from '../harm/slots';
import { NOBODY, PHASE, TASK, URGE } from '../numbers';
import { type CompiledPriority, DO } from '../unit-tables';
import { tryAgainAt } from '../time/again';
import { PURPOSE } from '../time/chance';
import { holds } from './conditions';
import { entryTarget, hindrance, hurdleOf } from './hurdles';
import { readyHurdle } from './ready';
import { lineToTarget } from './senses';
import { chooseTarget } from './targets';

/** Beside the loops that ask for them at every unit and step. */
const { idle: IDLE } = PHASE;

const { cooldown: COOLDOWN, pause: PAUSE, range: RANGE } = DOING;

/**
 * Phase of a step: whoever stands idle tries to begin an attack. Whoever waits for a cooldown or a pause, and has said so,
 * has its next try queued for the instant at which that ends: nothing else can have changed for it.
 */
export function tryAttacks(fight: Fight): void {
  const {
    alive,
    alerted,
    phase,
    bearingGap,
    doing,
    choiceAt,
    nextReady,
    pauseUntil,
    target,
    mayAttack,
    urge,
    task,
    owedAttack,
    comboAttack,
    now,
  } = fight;
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    if (phase[unit] !== IDLE || alerted[unit] === 0) continue;
    const why = doing[unit];
    if ((why === COOLDOWN && choiceAt[unit] === nextReady[unit]) || (why === PAUSE && choiceAt[unit] === pauseUntil[unit])) {
      const waits = choiceAt[unit] > now && target[unit] >= 0 && mayAttack[unit] === 1 && urge[unit] === 0 && task[unit] === 0;
      if (waits && owedAttack[unit] < 0 && comboAttack[unit] < 0 && now >= fight.staggeredUntil[unit]) continue;
    }
    tryAttack(fight, unit, bearingGap[unit]);
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
  const { now } = fight;
  if (fight.urge[unit] !== URGE.none || fight.task[unit] !== TASK.none || now < fight.staggeredUntil[unit]) {
    const hindered = hindrance(fight, unit);
    if (hindered !== 0) return fight.sayDoing(unit, hindered);
  }
  if (fight.owedAttack[unit] >= 0) return payOwed(fight, unit);
  if (fight.comboAttack[unit] >= 0 && tryCombo(fight, unit, gap)) return;
  if (fight.target[unit] === NOBODY) return fight.sayDoing(unit, DOING.noTarget);
  if (!fight.mayAttack[unit]) return fight.sayDoing(unit, DOING.noAttack);
  if (now < fight.pauseUntil[unit]) {
    tryAgainAt(fight, unit, fight.pauseUntil[unit]);
    return fight.sayDoing(unit, DOING.pause);
  }
  if (now < fight.nextReady[unit]) {
    tryAgainAt(fight, unit, fight.nextReady[unit]);
    return fight.sayDoing(unit, DOING.cooldown);
  }
  choose(fight, unit, gap);
}

/** What its state had it do on entering: whatever its cooldown, price and range. */
function payOwed(fight: Fight, unit: number): void {
  const number = fight.owedAttack[unit];
  fight.owe(unit, NOBODY);
  const attack = fight.attackOf(unit, number);
  const target = entryTarget(fight, unit, number, null);
  startAttack(fight, unit, number, target === NOBODY ? unit : target, attack);
}

/** The follow-up of the last attack comes before any choice, while its window is open. */
function tryCombo(fight: Fight, unit: number, gap: number): boolean {
  const number = fight.comboAttack[unit];
  if (fight.now >= fight.comboUntil[unit]) {
    fight.endCombo(unit);
    return false;
  }
  const attack = fight.attackOf(unit, number);
  const target = attack.targets === 'foes' ? fight.target[unit] : entryTarget(fight, unit, number, null);
  if (target === NOBODY || hurdleOf(fight, unit, target, number, target === fight.target[unit] ? gap : fight.gap(unit, target)) !== 0)
    return false;
  fight.endCombo(unit);
  startAttack(fight, unit, number, target, attack);
  return true;
}

/** Targets found for the entries of the priority being looked at. */
const targets: number[] = [];

function choose(fight: Fight, unit: number, gap: number): void {
  const { choice, attacks } = fight.kinds[unit];
  let highest: number = DOING.noAttack;
  let soonest = Infinity;
  for (let p = 0; p < choice.length; p++) {
    const priority = choice[p];
    if (priority.condition !== null && !holds(fight, unit, priority.condition)) {
      highest = Math.max(highest, DOING.condition);
      continue;
    }
    let total = 0;
    let usable = 0;
    let last: number = NOBODY;
    for (let e = 0; e < priority.attacks.length; e++) {
      const hurdle = entryHurdle(fight, unit, priority, e, gap);
      if (hurdle === 0 && priority.weights[e] > 0) {
        total += priority.weights[e];
        usable++;
        last = e;
      } else {
        if (hurdle > highest) highest = hurdle;
        soonest = Math.min(soonest, freeAt(fight, unit, priority.attacks[e], hurdle));
      }
    }
    if (usable === 0) continue;
    let chosen = last;
    if (usable > 1) {
      let left = fight.chance(unit, PURPOSE.choice) * total;
      for (let e = 0; e <= last; e++) {
        if (targets[e] === UNUSABLE || priority.weights[e] <= 0) continue;
        left -= priority.weights[e];
        if (left < 0) {
          chosen = e;
          break;
        }
      }
    }
    return startAttack(fight, unit, priority.attacks[chosen], targets[chosen], attacks[priority.attacks[chosen]]);
  }
  if (soonest < Infinity) tryAgainAt(fight, unit, soonest);
  fight.sayDoing(unit, highest === DOING.range && outOfBand(fight, unit) ? DOING.toBand : highest);
}

/** An entry that can't be used has no target in the list. */
const UNUSABLE = -2;

function entryHurdle(fight: Fight, unit: number, priority: CompiledPriority, e: number, gap: number): number {
  const number = priority.attacks[e];
  targets[e] = UNUSABLE;
  if (priority.plain[e]) return plainHurdle(fight, unit, number, e, gap);
  const condition = priority.conditions[e];
  if (condition !== null && !holds(fight, unit, condition)) return DOING.condition;
  const targeting = priority.targetings[e];
  const attack = fight.kinds[unit].attacks[number];
  const plain = targeting === null && attack.targets === 'foes' && attack.traits.strikes;
  const target = plain ? fight.target[unit] : entryTarget(fight, unit, number, priority, e);
  if (target === NOBODY) return readyHurdle(fight, unit, number, attack) || DOING.noTarget;
  const hurdle = hurdleOf(fight, unit, target, number, plain ? gap : fight.gap(unit, target));
  if (hurdle === 0) targets[e] = target;
  return hurdle;
}

/** The same for an entry that asks for nothing else: what most entries of most units are. */
function plainHurdle(fight: Fight, unit: number, number: number, e: number, gap: number): number {
  if (fight.now < fight.readyAt[unit * fight.compiled.attackRoom + number]) return COOLDOWN;
  const attack = fight.kinds[unit].attacks[number];
  if (!inRange(gap, attack.rangeMin, attack.rangeMax)) return RANGE;
  const target = fight.target[unit];
  if (attack.needsLine && !lineToTarget(fight, unit, target)) return DOING.line;
  if (!within(fight, unit, target, attack.facingCosine)) return DOING.facing;
  targets[e] = target;
  return 0;
}

function outOfBand(fight: Fight, unit: number): boolean {
  const does = fight.does[unit];
  // Bearings are of steps: in turns it has gone since.
  const gap = fight.inTurns ? fight.gap(unit, fight.target[unit]) : fight.bearingGap[unit];
  return (does === DO.band || does === DO.strafe) && !inRange(gap, fight.near[unit], fight.far[unit]);
}

/** When a hurdle that time alone mends will be gone; Infinity for any other. */
function freeAt(fight: Fight, unit: number, number: number, hurdle: number): number {
  const at = unit * fight.compiled.attackRoom + number;
  const attack = fight.attackOf(unit, number);
  if (fight.readyAt[at] > fight.now) return fight.readyAt[at];
  if (hurdle === DOING.charges) {
    const grown = Math.floor((fight.now - fight.chargedAt[at]) / attack.recharge);
    return fight.chargedAt[at] + (grown + 1) * attack.recharge;
  }
  if (hurdle === DOING.energy) return affordableAt(fight, unit, attack.energy);
  return hurdle === DOING.slot ? gapOver(fight, attack) : Infinity;
}

/** The instant at which a price can be paid: energy grows linearly; Infinity where it never gets there. */
function affordableAt(fight: Fight, unit: number, price: number): number {
  const { energy, energyRegen } = fight.kinds[unit];
  if (energyRegen === 0 || energy < price) return Infinity;
  return fight.now + Math.max(1, microsecondsUp((price - fight.energyNow(unit)) / energyRegen));
}
