/** Conditions: what each subject asks of the fight at this instant. A comparison with something that is not there is false. */
import { type Subject, SUBJECT_NAMES, TARGET_DOES, type TargetDoes } from '../../model/condition';
import { ENEMY, PARTY } from '../../record/sides';
import { ROUND, roundOf } from '../../record/time';
import { compares, inReach } from '../body/reach';
import type { Fight } from '../fight';
import { NOBODY, PHASE, TASK, URGE } from '../numbers';
import type { CompiledCondition } from '../unit-tables';
import { cellsFromHome } from '../rounds/places';
import { canStrike } from '../rounds/reach';
import { enemiesLeft } from '../waves/counts';
import { draw, PURPOSE } from '../time/chance';
import { lineToTarget, seesUnit } from './senses';

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
  const reader = READERS_BY_NUMBER[condition.subject];
  if (reader.number) return compares(reader.number(fight, unit, condition), condition.above, condition.value);
  if (reader.isSo) return reader.isSo(fight, unit, condition) === condition.yes;
  return reader.holds(fight, unit, condition);
}

type Read<T> = (fight: Fight, unit: number, condition: CompiledCondition) => T;

/** A number to compare, NaN where there is nothing to compare: a comparison with NaN is false either way; a yes or no; or the answer itself. */
type Reader =
  | { number: Read<number>; isSo?: undefined }
  | { number?: undefined; isSo: Read<boolean> }
  | { number?: undefined; isSo?: undefined; holds: Read<boolean> };

/** What is asked of the target: of nobody, nothing can be told. */
const ofTarget =
  (read: (fight: Fight, unit: number, target: number, condition: CompiledCondition) => number): Read<number> =>
  (fight, unit, condition) =>
    fight.target[unit] === NOBODY ? NaN : read(fight, unit, fight.target[unit], condition);

const targetIs =
  (test: (fight: Fight, unit: number, target: number, condition: CompiledCondition) => boolean): Read<boolean> =>
  (fight, unit, condition) =>
    fight.target[unit] !== NOBODY && test(fight, unit, fight.target[unit], condition);

const foesOf = (fight: Fight, unit: number) => fight.living[PARTY + ENEMY - fight.side[unit]];

const friendsOf = (fight: Fight, unit: number) => fight.living[fight.side[unit]];

const READERS = {
  distance: { number: ofTarget((fight, unit) => targetGap(fight, unit)) },
  homeDistance: { number: homeDistance },
  nearestFoe: { number: (fight, unit) => nearestGap(fight, unit, foesOf(fight, unit)) },
  nearestFriend: { number: (fight, unit) => nearestGap(fight, unit, friendsOf(fight, unit)) },
  healthShare: { number: (fight, unit) => fight.healthNow(unit) / fight.kinds[unit].maxHealth },
  shieldShare: { number: (fight, unit) => (fight.kinds[unit].shield > 0 ? fight.shieldNow(unit) / fight.kinds[unit].shield : NaN) },
  energy: { number: (fight, unit) => fight.energyNow(unit) },
  charges: { number: (fight, unit, { of }) => fight.chargesNow(unit, of) },
  targetHealthShare: { number: ofTarget((fight, _, target) => fight.healthNow(target) / fight.kinds[target].maxHealth) },
  timeInState: { number: (fight, unit) => fight.since(fight.stateSince[unit]) },
  sinceHit: { number: (fight, unit) => fight.since(fight.hurtAt[unit]) },
  sinceAttack: { number: (fight, unit) => fight.since(fight.attackedAt[unit]) },
  damageTaken: { number: (fight, unit, { within }) => damageSince(fight, unit, fight.now - within) },
  friends: { number: (fight, unit, { within }) => countWithin(fight, unit, friendsOf(fight, unit), within) },
  fallen: { number: (fight, unit, { within }) => fallenWithin(fight, unit, within) },
  foes: { number: (fight, unit, { within }) => countWithin(fight, unit, foesOf(fight, unit), within) },
  sees: { isSo: targetIs(seesUnit) },
  line: { isSo: targetIs(lineToTarget) },
  strikable: { isSo: (fight, unit) => canStrike(fight, unit, holds) },
  attackReady: { isSo: (fight, unit, { of }) => isReady(fight, unit, of) },
  targetRole: { isSo: targetIs((fight, _, target, { of }) => fight.kinds[target].role === of) },
  targetDoes: { isSo: targetIs((fight, _, target, { of }) => DOES[TARGET_DOES[of]](fight, target)) },
  chance: { holds: (fight, unit, { node, value }) => chanceOf(fight, unit, node) < value },
  // In rounds the round that it is, from 1.
  clock: { number: (fight) => (fight.inTurns ? (roundOf(fight.now) + 1) * ROUND : fight.now) },
  enemiesAlive: { number: (fight) => enemiesLeft(fight) },
  pointHealthShare: { number: (fight, _, { of }) => (fight.killed[of] > 0 ? 0 : lowestShareOf(fight, of)) },
  pointDestroyed: { isSo: (fight, _, { of }) => fight.killed[of] > 0 },
  partyAlive: { number: (fight) => fight.standing },
  killed: { number: (fight, _, { of }) => fight.killed[of] ?? NaN },
  kindHealthShare: { number: (fight, _, { of }) => lowestShareOf(fight, of) },
  waveShare: { number: (fight, _, { of }) => waveShare(fight, of) },
  waveStarted: { isSo: (fight, _, { of }) => fight.waves[of]?.started ?? false },
  counter: { number: (fight, _, { of }) => fight.counters[of] ?? NaN },
  flag: { isSo: (fight, _, { of }) => fight.flags[of] ?? false },
  all: { holds: (fight, unit, { parts }) => parts.every((part) => holds(fight, unit, part)) },
  any: { holds: (fight, unit, { parts }) => parts.some((part) => holds(fight, unit, part)) },
  not: { holds: (fight, unit, { parts }) => !holds(fight, unit, parts[0]) },
} satisfies Record<Subject, Reader>;

const READERS_BY_NUMBER: readonly Reader[] = SUBJECT_NAMES.map((name) => READERS[name]);

/** What is compared; NaN where there is nothing to compare. */
export function quantity(fight: Fight, unit: number, condition: CompiledCondition): number {
  const reader = READERS_BY_NUMBER[condition.subject];
  return reader.number ? reader.number(fight, unit, condition) : NaN;
}

/** Drawn once on entering a state, and anew each time that it decides: the same however often it is asked in between. */
function chanceOf(fight: Fight, unit: number, node: number): number {
  return draw(fight.seed, fight.key[unit], PURPOSE.condition, fight.chancesDrawn[unit] * CHANCES + (node % CHANCES));
}

function isReady(fight: Fight, unit: number, attack: number): boolean {
  const room = fight.compiled.attackRoom;
  if (attack >= 0) return fight.readyAt[unit * room + attack] <= fight.now;
  return fight.nextReady[unit] <= fight.now;
}

const DOES: Record<TargetDoes, (fight: Fight, unit: number) => boolean> = {
  idle: (fight, unit) => fight.phase[unit] === PHASE.idle && fight.task[unit] === TASK.none && fight.now >= fight.staggeredUntil[unit],
  attacking: (fight, unit) => fight.phase[unit] !== PHASE.idle,
  staggered: (fight, unit) => fight.now < fight.staggeredUntil[unit],
  reloading: (fight, unit) => fight.task[unit] === TASK.reload,
  mending: (fight, unit) => fight.task[unit] === TASK.dose || fight.task[unit] === TASK.rescue,
  evading: (fight, unit) => fight.urge[unit] === URGE.evade,
};

/** In turns by cells; 0 where there is no ground. */
function homeDistance(fight: Fight, unit: number): number {
  if (!fight.inTurns) return fight.apartFrom(unit, fight.homeX[unit], fight.homeY[unit]);
  const size = fight.kinds[unit].turns?.size ?? 1;
  return fight.board ? cellsFromHome(fight, unit, fight.onCell[unit], size) : 0;
}

function waveShare(fight: Fight, number: number): number {
  const wave = fight.waves[number];
  if (!wave?.started) return NaN;
  return wave.planned > 0 ? 1 - wave.defeated / wave.planned : 0;
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
