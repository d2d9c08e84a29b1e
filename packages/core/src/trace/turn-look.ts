/**
 * What comes next in a fight in turns, as it looks to one unit: who has a turn before its own comes, where it can go and strike
 * then, and what it would cost to stand where until then. As things stand: nobody else is moved, nothing is drawn, nothing is
 * changed.
 */
import { inRange } from '../engine/body/reach';
import type { Fight } from '../engine/fight';
import { holds } from '../engine/mind/conditions';
import { meanHarm } from '../engine/mind/promise';
import { NOBODY, PHASE } from '../engine/numbers';
import { listOf } from '../engine/rounds/cell-sets';
import { allowanceOf, waysOf } from '../engine/rounds/moving';
import { middleOfBody, moverOf } from '../engine/rounds/places';
import { readyStrikes } from '../engine/rounds/reach';
import { type CompiledAttack, DO } from '../engine/unit-tables';
import { ROUND, roundOf } from '../record/time';

export interface NextTurn {
  unit: number;
  /** From 1. */
  round: number;
}

/** By cell of the board, row by row from the south-west. */
export interface GroundLook {
  /** What it costs to come there in its next turn and stay; −1: it can’t. */
  goes: Float32Array;
  /** 1: whoever is there could be struck in that turn. */
  strikes: Uint8Array;
  /**
   * hp: what those who have their turn before it would take from it there, if each that can strike it there did so with what
   * hurts most: means, less misses. NaN: it can’t stand there.
   */
  harm: Float32Array;
}

export interface TurnLook {
  /** Everybody’s next turn, as they come; what stands at a point, and does nothing in its turn, is left out. */
  order: NextTurn[];
  /** Absent in a fight without ground. */
  ground?: GroundLook;
}

/** What stands before a unit at the instant that the fight is at. */
export function turnLook(fight: Fight, unit: number): TurnLook {
  const turns = fight.alive.map((one) => ({ unit: one, time: nextTurn(fight, one) })).sort((a, b) => a.time - b.time || a.unit - b.unit);
  const order = turns
    .filter(({ unit: one }) => !fight.things.includes(one))
    .map(({ unit: one, time }) => ({ unit: one, round: roundOf(time) + 1 }));
  if (!fight.board || fight.onCell[unit] === NOBODY) return { order };
  const own = turns.find((turn) => turn.unit === unit)!.time;
  const before = turns.filter((turn) => turn.time < own && fight.side[turn.unit] !== fight.side[unit]);
  return { order, ground: { ...at(fight, own, () => goesAndStrikes(fight, unit)), harm: harmOn(fight, unit, before) } };
}

/** µs: the first turn of a unit after this instant. */
function nextTurn(fight: Fight, unit: number): number {
  const round = Math.max(roundOf(fight.now), fight.firstRound(unit));
  const time = fight.turnOf(unit, round);
  return time > fight.now ? time : fight.turnOf(unit, round + 1);
}

/** What something comes to at another instant, everybody where they are now. */
function at<T>(fight: Fight, time: number, asked: () => T): T {
  const { now } = fight;
  fight.now = time;
  try {
    return asked();
  } finally {
    fight.now = now;
  }
}

/** Whether a unit may begin something in its turn at this instant: it neither reels nor has anything under way. */
function isFree(fight: Fight, unit: number): boolean {
  if (fight.now < fight.staggeredUntil[unit]) return false;
  if (fight.phase[unit] === PHASE.idle) return true;
  // What it has begun strikes in a turn of its own, and it recovers so many turns from there.
  const strikes = fight.hitsAt[unit];
  const { recovery } = fight.attackOf(unit, fight.attack[unit]);
  return fight.now >= fight.turnOf(unit, roundOf(strikes) + recovery / ROUND) && fight.now >= strikes;
}

/** Cells that a unit can come to and stay on, its own among them, with what the way costs. */
function stands(fight: Fight, unit: number, allowance: number): { cell: number; cost: number }[] {
  const { there } = waysOf(fight.board!);
  there.from(moverOf(fight, unit), fight.onCell[unit], allowance);
  return listOf(there.stands).map((cell) => ({ cell, cost: there.costs[cell] }));
}

/** Whether a body on a cell strikes one on another with an attack. @param tall m: height of what is aimed at */
function strikesFrom(fight: Fight, unit: number, from: number, attack: CompiledAttack, to: number, size: number, tall: number): boolean {
  const { cells } = fight.board!;
  const own = fight.sizeOf(unit);
  const gap = cells.gap(from, own, to, size);
  if (gap < 1 || !inRange(gap, attack.rangeMin, attack.rangeMax)) return false;
  // What bursts about itself is begun in range and strikes no farther than it bursts.
  if (attack.delivery === 'area' && attack.areaAbout === 'self' && gap > attack.areaRadius) return false;
  if (!attack.needsLine || gap <= 1 || fight.ground.walls.length === 0) return true;
  const [a, b] = [middleOfBody(fight, from, own), middleOfBody(fight, to, size)];
  return !fight.ground.blocked(a.x, a.y, fight.kinds[unit].muzzle, b.x, b.y, tall / 2);
}

/** At the instant of its turn. */
function goesAndStrikes(fight: Fight, unit: number): Pick<GroundLook, 'goes' | 'strikes'> {
  const { cells } = fight.board!;
  const goes = new Float32Array(cells.count).fill(-1);
  const strikes = new Uint8Array(cells.count);
  if (!isFree(fight, unit)) {
    goes[fight.onCell[unit]] = 0;
    return { goes, strikes };
  }
  const reached = stands(fight, unit, allowanceOf(fight, unit));
  for (const { cell, cost } of reached) goes[cell] = cost;
  const { turns, ground } = fight.kinds[unit];
  const from = turns!.moving === 'after' ? [{ cell: fight.onCell[unit] }] : reached;
  const attacks = readyStrikes(fight, unit, holds);
  const foes = fight.living[1 - fight.side[unit]];
  const tall = foes.reduce((least, foe) => Math.min(least, fight.kinds[foe].height), fight.kinds[unit].height);
  const closed = fight.board!.blocked[ground];
  for (let cell = 0; cell < cells.count; cell++) {
    if (closed[cell]) continue;
    if (from.some((stand) => attacks.some((attack) => strikesFrom(fight, unit, stand.cell, attack, cell, 1, tall)))) strikes[cell] = 1;
  }
  return { goes, strikes };
}

/** @param foes those who have a turn before the unit’s own, and when */
function harmOn(fight: Fight, unit: number, foes: readonly { unit: number; time: number }[]): Float32Array {
  const board = fight.board!;
  const mover = moverOf(fight, unit);
  const home = fight.onCell[unit];
  const harm = new Float32Array(board.cells.count);
  // It is not where it is, but on each cell in turn.
  board.take(mover, home);
  try {
    for (let cell = 0; cell < harm.length; cell++) if (!board.isFree(mover, cell)) harm[cell] = NaN;
    for (const { unit: foe, time } of foes) at(fight, time, () => addHarm(fight, foe, unit, harm));
  } finally {
    board.put(mover, home);
  }
  return harm;
}

/** What one foe would take from a unit on each cell, at the instant of its turn. */
function addHarm(fight: Fight, foe: number, unit: number, harm: Float32Array): void {
  const kind = fight.kinds[foe];
  if (!fight.alerted[foe] && kind.turns!.senses) return;
  if (kind.targeting.allowed !== null && !kind.targeting.allowed[fight.kinds[unit].type]) return;
  const board = fight.board!;
  const here = fight.onCell[foe];
  if (here === NOBODY) return;
  const size = fight.sizeOf(unit);
  const tall = fight.kinds[unit].height;
  const landing = landsNow(fight, foe);
  if (landing !== null)
    for (let cell = 0; cell < harm.length; cell++) harm[cell] += mostOf(fight, foe, unit, [landing], [here], cell, size, tall);
  if (!isFree(fight, foe)) return;
  // What is begun now and strikes later strikes after the unit’s own turn.
  const attacks = readyStrikes(fight, foe, holds).filter(
    ({ windup, areaDelay, targets }) => windup === 0 && areaDelay === 0 && targets === 'foes',
  );
  if (attacks.length === 0) return;
  const stays = kind.turns!.moving === 'after' || (fight.does[foe] === DO.hold && kind.turns!.plays === null);
  const allowance = stays ? 0 : allowanceOf(fight, foe);
  const farthest = attacks.reduce((most, { rangeMax }) => Math.max(most, rangeMax), 0);
  const own = fight.sizeOf(foe);
  const from = stands(fight, foe, allowance).map(({ cell }) => cell);
  const ways = new Set(from);
  const body = moverOf(fight, unit);
  for (let cell = 0; cell < harm.length; cell++) {
    if (Number.isNaN(harm[cell]) || board.cells.gap(here, own, cell, size) > allowance + farthest) continue;
    let places = from;
    if (board.terrain(body).prints[cell]!.some((each) => ways.has(each))) {
      // It would stand in the way.
      board.put(body, cell);
      places = stands(fight, foe, allowance).map((stand) => stand.cell);
      board.take(body, cell);
    }
    harm[cell] += mostOf(fight, foe, unit, attacks, places, cell, size, tall);
  }
}

/** What a foe has begun strikes in this turn. */
function landsNow(fight: Fight, foe: number): CompiledAttack | null {
  if (fight.phase[foe] !== PHASE.windup || fight.hitsAt[foe] > fight.now || fight.staggeredUntil[foe] > fight.now) return null;
  return fight.attackOf(foe, fight.attack[foe]);
}

/** hp: the most that it takes in a turn, from the best of some places: as many acts as it has, none after one that it must recover from. */
function mostOf(
  fight: Fight,
  foe: number,
  unit: number,
  attacks: readonly CompiledAttack[],
  places: readonly number[],
  cell: number,
  size: number,
  tall: number,
): number {
  const { actions } = fight.kinds[foe].turns!;
  let most = 0;
  for (const place of places) {
    const open: number[] = [];
    let last = 0;
    for (const attack of attacks) {
      if (!strikesFrom(fight, foe, place, attack, cell, size, tall)) continue;
      const harm = meanHarm(attack, fight.kinds[unit]);
      if (attack.recovery > 0) last = Math.max(last, harm);
      else for (let i = 0; i < (attack.cooldown === 0 ? actions : 1); i++) open.push(harm);
    }
    open.sort((a, b) => b - a);
    const sum = (count: number) => open.slice(0, count).reduce((all, harm) => all + harm, 0);
    most = Math.max(most, sum(actions), sum(actions - 1) + last);
  }
  return most;
}
