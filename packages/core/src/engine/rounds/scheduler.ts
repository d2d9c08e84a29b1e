/**
 * A fight in turns, beside the one in steps: rounds from the first to the limit, in each a turn for everyone in their order.
 * What happens within a turn (attacks, hits, what lasts, death, waves) is what happens in a step; only who does what when is
 * told here.
 */
import type { Fight } from '../fight';
import { DOING, TIME_USES, useOfDoing } from '../../record/doing';
import { EVENT } from '../../record/log';
import { ROUND } from '../../record/time';
import { runInstants } from '../instant';
import { tryAtInstant } from '../mind/choice';
import { alert, lookInTurn } from '../mind/senses';
import { holds } from '../mind/conditions';
import { changeState } from '../mind/states';
import { chooseTarget } from '../mind/targets';
import { NOBODY, PHASE } from '../numbers';
import { direct, isDirected } from '../waves/director';
import { allowanceOf, moveAsStateWants } from './moving';
import { restReactions } from './answering';
import { comeOnto } from './places';
import { playBest } from './playing';
import { canStrike } from './reach';
import { regrow } from './regrowth';

/** @param watch sees how it begins, and each turn once it is over */
export function runRounds(fight: Fight, watch?: (fight: Fight, time: number) => void): void {
  const directed = isDirected(fight);
  for (let round = 0; !fight.over; round++) {
    const begins = round * ROUND;
    fight.now = begins;
    restReactions(fight);
    runInstants(fight, begins);
    if (!fight.over && directed) conduct(fight);
    if (round === 0) watch?.(fight, 0);
    if (fight.over) return;
    // Whoever has no senses of its own knows of everyone.
    for (const unit of fight.alive) {
      const { temper, turns } = fight.kinds[unit];
      if (!fight.alerted[unit] && temper === 'hostile' && !turns!.senses) alert(fight, unit);
    }
    for (const { unit, time } of turnsOf(fight, round)) {
      const winding = fight.phase[unit] === PHASE.windup;
      runInstants(fight, time);
      if (fight.over) return;
      if (!fight.isAlive[unit]) continue;
      fight.now = time;
      fight.work++;
      takeTurn(fight, unit, winding && fight.phase[unit] !== PHASE.windup && fight.staggeredUntil[unit] <= time);
      if (!fight.over && directed) conduct(fight);
      watch?.(fight, time);
      if (fight.over) return;
    }
  }
}

/** Who has a turn in a round, in order: those who stand as it begins, but for whoever came just then. */
function turnsOf(fight: Fight, round: number): { unit: number; time: number }[] {
  return fight.alive
    .filter((unit) => fight.firstRound(unit) <= round)
    .map((unit) => ({ unit, time: fight.turnOf(unit, round) }))
    .sort((a, b) => a.time - b.time || a.unit - b.unit);
}

/** What the encounter does of itself: zones, events, waves that wait. */
function conduct(fight: Fight): void {
  direct(fight);
  runInstants(fight, fight.now);
}

/** Counting down is done by now: what was due at this instant has happened. @param landed an attack that it had begun has struck just now */
export function takeTurn(fight: Fight, unit: number, landed = false): void {
  const before = fight.uses;
  if (fight.board && fight.onCell[unit] === NOBODY) comeOnto(fight, unit);
  regrow(fight, unit);
  const isFree = prepare(fight, unit);
  const struck = isFree && fight.alerted[unit] === 1 ? Number(canStrike(fight, unit, holds)) : -1;
  const moved = isFree ? moveAndAct(fight, unit) : 0;
  fight.log.add(fight.now, EVENT.turn, unit, NOBODY, useOf(fight, unit, landed || fight.uses > before), moved, struck);
  // The fight may have ended within it.
  if (fight.over) fight.log.swapLast();
}

/** State and target of this turn. @returns whether it is free to move and act */
function prepare(fight: Fight, unit: number): boolean {
  if (fight.now < fight.staggeredUntil[unit]) {
    fight.sayDoing(unit, DOING.staggered);
    return false;
  }
  if (fight.kinds[unit].turns!.senses) lookInTurn(fight, unit);
  if (fight.leaves[unit] > 0) changeState(fight, unit);
  if (fight.alerted[unit]) chooseTarget(fight, unit);
  // What it has begun goes on.
  return fight.phase[unit] === PHASE.idle;
}

/** @returns what the way cost that it went */
function moveAndAct(fight: Fight, unit: number): number {
  const { moving } = fight.kinds[unit].turns!;
  const allowance = allowanceOf(fight, unit);
  const played = playBest(fight, unit, allowance);
  if (played >= 0) return played;
  let moved = moving === 'after' ? 0 : moveAsStateWants(fight, unit, allowance);
  act(fight, unit);
  if (moving !== 'before' && canMove(fight, unit)) moved += moveAsStateWants(fight, unit, allowance - moved);
  return moved;
}

/** What its turn went into, of TIME_USES; −1: it knows of no foe. @param strikes it began an attack, or one has struck */
function useOf(fight: Fight, unit: number, strikes: boolean): number {
  if (!fight.alerted[unit]) return -1;
  if (fight.phase[unit] === PHASE.windup) return TIME_USES.indexOf('windup');
  if (strikes) return TIME_USES.indexOf('active');
  return fight.phase[unit] === PHASE.recovery ? TIME_USES.indexOf('recovery') : useOfDoing(fight.doing[unit]);
}

const canMove = (fight: Fight, unit: number) =>
  !fight.over && fight.isAlive[unit] === 1 && fight.phase[unit] === PHASE.idle && fight.now >= fight.staggeredUntil[unit];

/** As many attacks as it has actions, each carried out before the next is chosen. */
function act(fight: Fight, unit: number): void {
  const { actions } = fight.kinds[unit].turns!;
  for (let done = 0; done < actions && canMove(fight, unit); done++) {
    const before = fight.uses;
    tryAtInstant(fight, unit);
    runInstants(fight, fight.now);
    if (fight.over || fight.uses === before) return;
    if (fight.target[unit] === NOBODY && fight.isAlive[unit]) chooseTarget(fight, unit);
  }
}
