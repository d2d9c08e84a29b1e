/** Conditions: what each subject asks of the fight at this instant. A comparison with something that is not there is false. */
import { SUBJECT_NAMES, type Subject, TARGET_DOES } from '../model/condition';
import { PURPOSE, draw } from './chance';
import { type Fight, NOBODY, PHASE, TASK, URGE } from './fight';
import { lineToTarget, seesUnit } from './senses';
import { compares, inReach } from './reach';
import { ENEMY, PARTY, type CompiledCondition } from './tables';

/** Chances that one unit's conditions may hold; more share draws. */
const CHANCES = 256;

/** @param unit who asks; NOBODY for the encounter */
export function holds(fight: Fight, unit: number, condition: CompiledCondition): boolean {
  // What is asked most, at every step of nearly every unit, comes first.
  if (condition.subject === DISTANCE && unit >= 0) {
    if (fight.target[unit] === NOBODY) return false;
    const gap = targetGap(fight, unit);
    return compares(gap, condition.above, condition.value);
  }
  return holdsAny(fight, unit, condition);
}

const DISTANCE = SUBJECT_NAMES.indexOf('distance');

/** At steps the bearings are fresh; at other instants the distance is looked up again. */
function targetGap(fight: Fight, unit: number): number {
  const { now } = fight;
  if (now === fight.segmentStart[unit] && now + fight.compiled.step === fight.stepEnd) return fight.bearingGap[unit];
  return fight.gap(unit, fight.target[unit]);
}

function holdsAny(fight: Fight, unit: number, condition: CompiledCondition): boolean {
  const subject: Subject = SUBJECT_NAMES[condition.subject];
  const { parts } = condition;
  switch (subject) {
    case 'all':
      return parts.every((part) => holds(fight, unit, part));
    case 'any':
      return parts.some((part) => holds(fight, unit, part));
    case 'not':
      return !holds(fight, unit, parts[0]);
    case 'sees':
    case 'line':
    case 'attackReady':
    case 'targetRole':
    case 'targetDoes':
    case 'waveStarted':
    case 'flag':
      return isSo(fight, unit, subject, condition) === condition.yes;
    case 'chance':
      return chanceOf(fight, unit, condition.node) < condition.value;
    default: {
      // A comparison with NaN is false either way.
      return compares(quantity(fight, unit, subject, condition), condition.above, condition.value);
    }
  }
}

/** Drawn once on entering a state: the same however often it is asked. */
function chanceOf(fight: Fight, unit: number, node: number): number {
  return draw(fight.seed, fight.key[unit], PURPOSE.condition, fight.stateEntries[unit] * CHANCES + (node % CHANCES));
}

function isSo(fight: Fight, unit: number, subject: Subject, { of }: CompiledCondition): boolean {
  if (subject === 'flag') return fight.flags[of] ?? false;
  if (subject === 'waveStarted') return fight.waves[of]?.started ?? false;
  if (subject === 'attackReady') return isReady(fight, unit, of);
  const target = fight.target[unit];
  if (target === NOBODY) return false;
  if (subject === 'targetRole') return fight.kinds[target].role === of;
  if (subject === 'targetDoes') return isDoing(fight, target, TARGET_DOES[of]);
  return subject === 'sees' ? seesUnit(fight, unit, target) : lineToTarget(fight, unit, target);
}

function isReady(fight: Fight, unit: number, attack: number): boolean {
  const room = fight.compiled.attackRoom;
  if (attack >= 0) return fight.readyAt[unit * room + attack] <= fight.now;
  return fight.nextReady[unit] <= fight.now;
}

function isDoing(fight: Fight, unit: number, doing: (typeof TARGET_DOES)[number]): boolean {
  switch (doing) {
    case 'attacking':
      return fight.phase[unit] !== PHASE.idle;
    case 'staggered':
      return fight.now < fight.staggeredUntil[unit];
    case 'reloading':
      return fight.task[unit] === TASK.reload;
    case 'mending':
      return fight.task[unit] === TASK.dose || fight.task[unit] === TASK.rescue;
    case 'evading':
      return fight.urge[unit] === URGE.evade;
    default:
      return fight.phase[unit] === PHASE.idle && fight.task[unit] === TASK.none && fight.now >= fight.staggeredUntil[unit];
  }
}

/** NaN where there is nothing to compare. */
export function quantity(fight: Fight, unit: number, subject: Subject, { of, within }: CompiledCondition): number {
  const { now } = fight;
  switch (subject) {
    case 'clock':
      return now;
    case 'enemiesAlive':
      return fight.living[ENEMY].length;
    case 'partyAlive':
      return fight.standing;
    case 'killed':
      return fight.killed[of] ?? NaN;
    case 'kindHealthShare':
      return lowestShareOf(fight, of);
    case 'waveShare': {
      const wave = fight.waves[of];
      return wave?.started ? 1 - wave.defeated / Math.max(1, wave.planned) : NaN;
    }
    case 'healthShare':
      return fight.healthNow(unit) / fight.kinds[unit].maxHealth;
    case 'shieldShare':
      return fight.kinds[unit].shield > 0 ? fight.shieldNow(unit) / fight.kinds[unit].shield : NaN;
    case 'energy':
      return fight.energyNow(unit);
    case 'charges':
      return fight.chargesNow(unit, of);
    case 'timeInState':
      return now - fight.stateSince[unit];
    case 'sinceHit':
      return now - fight.hurtAt[unit];
    case 'sinceAttack':
      return now - fight.attackedAt[unit];
    case 'homeDistance':
      return fight.apartFrom(unit, fight.homeX[unit], fight.homeY[unit]);
    case 'nearestFoe':
      return nearestGap(fight, unit, fight.living[PARTY + ENEMY - fight.side[unit]]);
    case 'nearestFriend':
      return nearestGap(fight, unit, fight.living[fight.side[unit]]);
    case 'damageTaken':
      return damageSince(fight, unit, now - within);
    case 'friends':
      return countWithin(fight, unit, fight.living[fight.side[unit]], within);
    case 'foes':
      return countWithin(fight, unit, fight.living[PARTY + ENEMY - fight.side[unit]], within);
    case 'fallen':
      return fallenWithin(fight, unit, within);
    default: {
      const target = fight.target[unit];
      if (target === NOBODY) return NaN;
      if (subject === 'targetHealthShare') return fight.healthNow(target) / fight.kinds[target].maxHealth;
      return targetGap(fight, unit);
    }
  }
}

function lowestShareOf(fight: Fight, type: number): number {
  let lowest = NaN;
  for (let i = 0; i < fight.alive.length; i++) {
    const unit = fight.alive[i];
    if (fight.kinds[unit].type !== type) continue;
    const share = fight.healthNow(unit) / fight.kinds[unit].maxHealth;
    if (!(share >= lowest)) lowest = share;
  }
  return lowest;
}

function nearestGap(fight: Fight, unit: number, others: readonly number[]): number {
  let nearest = NaN;
  for (let i = 0; i < others.length; i++) {
    if (others[i] === unit) continue;
    const gap = fight.gap(unit, others[i]);
    if (!(gap >= nearest)) nearest = gap;
  }
  return nearest;
}

function countWithin(fight: Fight, unit: number, others: readonly number[], radius: number): number {
  let count = 0;
  for (let i = 0; i < others.length; i++) if (others[i] !== unit && inReach(fight.gap(unit, others[i]), radius)) count++;
  return count;
}

function fallenWithin(fight: Fight, unit: number, radius: number): number {
  let count = 0;
  for (const { unit: fallen, until } of fight.fallen) {
    if (fight.side[fallen] === fight.side[unit] && until > fight.now && inReach(fight.gap(unit, fallen), radius)) count++;
  }
  return count;
}

/** Damage taken in (since, now]. */
export function damageSince(fight: Fight, unit: number, since: number): number {
  const recent = fight.recent[unit];
  let sum = 0;
  for (let i = 0; i < recent.length; i += 2) if (recent[i] > since) sum += recent[i + 1];
  return sum;
}
