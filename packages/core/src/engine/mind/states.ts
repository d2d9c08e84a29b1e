/** Which state a unit is in: its transitions, and what it takes up on entering one. */
import { emptyList } from '../../record/columns';
import { EVENT } from '../../record/log';
import { microsecondsUp } from '../../record/time';
import { forgetWay } from '../body/route';
import type { Fight } from '../fight';
import { endCooldowns, refillCharges } from '../harm/readiness';
import { setEnergy } from '../harm/vitals';
import { NOBODY } from '../numbers';
import type { CompiledState } from '../unit-tables';
import { tryAgainAt } from '../time/again';
import { PURPOSE } from '../time/chance';
import { refit, shelter, takeUp } from './changes';
import { holds } from './conditions';
import { beginErrand } from './going';
import { count, setFlag } from './signals';

/** Phase of a step: a way out whose time and condition have come is taken; one a step. Who reels stays, and decides later. */
export function changeStates(fight: Fight): void {
  const { alive, leaves, now } = fight;
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    if (leaves[unit] === 0 || now < fight.staggeredUntil[unit]) continue;
    changeState(fight, unit);
  }
}

/** Takes a way out whose time and condition have come. */
export function changeState(fight: Fight, unit: number): void {
  const state = fight.kinds[unit].states[fight.state[unit]];
  if (state.decideMax > 0) {
    if (fight.now < fight.decideAt[unit]) return;
    fight.decideAt[unit] += untilDecision(fight, unit, state);
    fight.chancesDrawn[unit]++;
  }
  const to = wayOut(fight, unit, state.leaves);
  if (to >= 0) enterState(fight, unit, to);
}

/** µs to the next time that a state's ways out are asked. */
function untilDecision(fight: Fight, unit: number, { decideMin, decideMax }: CompiledState): number {
  return microsecondsUp(decideMax > decideMin ? decideMin + (decideMax - decideMin) * fight.chance(unit, PURPOSE.decision) : decideMin);
}

/** Ways that are drawn among, at one time. */
const held: number[] = [];

/** Where a unit goes: the first in order that holds; else one drawn by weight of those that hold; else otherwise; −1: nowhere. */
function wayOut(fight: Fight, unit: number, leaves: CompiledState['leaves']): number {
  const stood = fight.since(fight.stateSince[unit]);
  let otherwise = -1;
  let total = 0;
  emptyList(held);
  for (let l = 0; l < leaves.length; l++) {
    const { when, to, after, weight } = leaves[l];
    if (stood < after) continue;
    if (weight >= 0) held.push(l);
    else if (when === null) otherwise = otherwise < 0 ? to : otherwise;
    else if (holds(fight, unit, when)) return to;
  }
  let count = 0;
  for (const l of held) {
    const { when, weight } = leaves[l];
    if (weight === 0 || (when !== null && !holds(fight, unit, when))) continue;
    held[count++] = l;
    total += weight;
  }
  if (count === 0) return otherwise;
  let left = count > 1 ? fight.chance(unit, PURPOSE.way) * total : 0;
  for (let i = 0; i < count; i++) {
    left -= leaves[held[i]].weight;
    if (left < 0) return leaves[held[i]].to;
  }
  return leaves[held[count - 1]].to;
}

export function enterState(fight: Fight, unit: number, state: number): void {
  const changes = fight.kinds[unit].states[fight.state[unit]].tweaks.length + fight.kinds[unit].states[state].tweaks.length > 0;
  goInto(fight, unit, state);
  fight.log.add(fight.now, EVENT.state, unit, NOBODY, state);
  passGates(fight, unit, state);
  begin(fight, unit);
  if (changes) refit(fight, unit);
  onEnter(fight, unit);
}

/** The unit is in another state; each time is told from the last. */
function goInto(fight: Fight, unit: number, state: number): void {
  fight.state[unit] = state;
  fight.chancesDrawn[unit]++;
}

/** In its first state: newly there. */
export function beginFirst(fight: Fight, unit: number): void {
  fight.state[unit] = fight.kinds[unit].startsIn;
  begin(fight, unit);
}

/** In its first state again: back from the dead. */
export function startOver(fight: Fight, unit: number): void {
  goInto(fight, unit, fight.kinds[unit].startsIn);
  begin(fight, unit);
}

/** The state's clock starts, and what it left open before is forgotten. */
function begin(fight: Fight, unit: number): void {
  const state = fight.kinds[unit].states[fight.state[unit]];
  const { startAt, invulnerable } = state;
  fight.stateSince[unit] = fight.now;
  if (state.decideMax > 0) fight.decideAt[unit] = fight.ends(unit, untilDecision(fight, unit, state));
  beginErrand(fight, unit, startAt);
  forgetWay(fight, unit);
  shelter(fight, unit, invulnerable);
  takeUp(fight, unit);
}

/** A gate is passed once its state has come; a gate above it whose state has not is skipped, and that is said. */
function passGates(fight: Fight, unit: number, state: number): void {
  const { gates } = fight.kinds[unit];
  let last = -1;
  for (let g = 0; g < gates.length; g++) if (gates[g].state === state) last = g;
  for (let g = 0; g <= last; g++) {
    if (fight.gatesPassed[unit] & (1 << g)) continue;
    fight.gatesPassed[unit] |= 1 << g;
    if (gates[g].state !== state) fight.log.add(fight.now, EVENT.gate, unit, NOBODY, g, 1);
  }
}

function onEnter(fight: Fight, unit: number): void {
  const kind = fight.kinds[unit];
  const { raise, lower, refill, enterAttack, counts } = kind.states[fight.state[unit]];
  if (raise >= 0) setFlag(fight, unit, raise, true);
  if (lower >= 0) setFlag(fight, unit, lower, false);
  for (let c = 0; c < counts.length; c++) count(fight, unit, counts[c]);
  if (refill) {
    setEnergy(fight, unit, kind.energy);
    endCooldowns(fight, unit);
    refillCharges(fight, unit);
    if (fight.alerted[unit]) tryAgainAt(fight, unit, fight.now);
  }
  if (enterAttack >= 0 && kind.attacks[enterAttack].traits.chosen) {
    // Whoever is in the middle of something does it as soon as that is over.
    fight.owe(unit, enterAttack);
    if (fight.alerted[unit]) tryAgainAt(fight, unit, fight.now);
  }
}
