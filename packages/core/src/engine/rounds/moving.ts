/**
 * Where a unit goes in its turn: of the cells that it can come to and stay on, the one that serves its state best; of equals
 * the cheapest to come to, then the one with the least turn from where it faces.
 */
import { clearFrom } from '../mind/senses';
import { bestFriend } from '../mind/targets';
import type { Fight } from '../fight';
import { NOBODY } from '../numbers';
import { DO } from '../tables';
import type { Mover } from './board';
import { cellAt, faceAlong, facingOf, homeCell, middleOfBody, moverOf, standOn } from './places';
import { Ways } from './ways';

/** What each cell that it can come to is worth: the lower, the better. */
type Worth = (cell: number) => number;

/** Two ways over one board: there, and back from where it wants to be. Kept with the board, for no turn to allocate. */
const WAYS = new WeakMap<object, { there: Ways; back: Ways; walk: Ways }>();

function waysOf({ board }: Fight): { there: Ways; back: Ways; walk: Ways } {
  let ways = WAYS.get(board!);
  if (!ways) WAYS.set(board!, (ways = { there: new Ways(board!), back: new Ways(board!), walk: new Ways(board!) }));
  return ways;
}

/** What the ground may cost that a unit goes over in this turn. */
export function allowanceOf(fight: Fight, unit: number): number {
  return Math.floor(fight.pace[unit] * (1 - fight.slowed[unit]) + 1e-9);
}

/** Moves a unit as its state wants it. @param allowance what is left of it @returns what the way cost */
export function moveAsStateWants(fight: Fight, unit: number, allowance: number): number {
  if (!fight.board || allowance <= 0) return 0;
  const worth = worthOf(fight, unit);
  return worth ? goToBest(fight, unit, allowance, worth) : 0;
}

/** What its state makes of cells; null: it stays where it is. */
function worthOf(fight: Fight, unit: number): Worth | null {
  const { cells } = fight.board!;
  const mover = moverOf(fight, unit);
  const state = fight.kinds[unit].states[fight.state[unit]];
  const target = fight.target[unit];
  const gapTo = (other: number) => {
    const { size } = moverOf(fight, other);
    const at = fight.onCell[other];
    return (cell: number) => cells.gap(cell, mover.size, at, size);
  };
  switch (fight.does[unit]) {
    case DO.approach:
    case DO.search:
      return target === NOBODY ? null : towards(fight, unit, target, 0, state.near, !state.stopsAnyway);
    case DO.band:
    case DO.strafe:
      return target === NOBODY ? null : towards(fight, unit, target, state.near, state.far, false);
    case DO.flee: {
      if (target === NOBODY) return null;
      const gap = gapTo(target);
      return (cell) => 0 - gap(cell);
    }
    case DO.home:
      return wayTo(fight, mover, [homeCell(fight, unit)]);
    case DO.goTo: {
      const place = fight.compiled.places[state.toPoint];
      if (!place) return null;
      const thing = fight.things[state.toPoint];
      // What stands there is gone up to, not into.
      if (thing !== NOBODY && fight.isAlive[thing]) return towards(fight, unit, thing, 0, 1, false);
      return wayTo(fight, mover, [cellAt(fight, place.x, place.y)]);
    }
    case DO.follow: {
      const leader = state.picks === null ? NOBODY : bestFriend(fight, unit, state.picks, NOBODY);
      return leader === NOBODY ? null : towards(fight, unit, leader, state.near, state.far, false);
    }
    default:
      return null;
  }
}

/** Between two distances of another: there at no worth; nearer by how much too near; farther by the way that is left. */
function towards(fight: Fight, unit: number, other: number, near: number, far: number, needsLine: boolean): Worth {
  const board = fight.board!;
  const mover = moverOf(fight, unit);
  const { size } = moverOf(fight, other);
  const at = fight.onCell[other];
  const serves = (cell: number) => {
    const gap = board.cells.gap(cell, mover.size, at, size);
    return gap >= near && gap <= far && (!needsLine || gap <= 1 || clearAt(fight, unit, cell, other));
  };
  let left: Worth | undefined;
  return (cell) => {
    if (serves(cell)) return 0;
    const gap = board.cells.gap(cell, mover.size, at, size);
    if (gap < near) return near - gap;
    // Worked out only where it is asked for: most turns end where it serves.
    left ??= wayTo(
      fight,
      mover,
      [...Array(board.cells.count).keys()].filter((one) => board.isFree(mover, one) && serves(one)),
      at,
    );
    return left(cell);
  };
}

/** Whether a unit would have a clear line from a cell. */
function clearAt(fight: Fight, unit: number, cell: number, other: number): boolean {
  const own = fight.onCell[unit];
  if (cell === own) return clearFrom(fight, unit, fight.kinds[unit].muzzle, other);
  const { walls } = fight.ground;
  if (walls.length === 0) return true;
  const { x, y } = middleOfBody(fight, cell, moverOf(fight, unit).size);
  const half = fight.kinds[other].height / 2;
  return !fight.ground.blocked(x, y, fight.kinds[unit].muzzle, fight.x[other], fight.y[other], half);
}

/** What is left of the way to some cells. Where none leads there past its foes, as if they were not there; else by distance alone. */
function wayTo(fight: Fight, mover: Mover, goals: readonly number[], towards = goals[0]): Worth {
  const { back } = waysOf(fight);
  const from = fight.onCell[mover.unit];
  for (const foesBlock of [true, false]) {
    back.to(mover, goals, { foesBlock });
    if (back.costs[from] < Infinity) return (cell) => back.costs[cell];
  }
  const { cells } = fight.board!;
  return (cell) => cells.gap(cell, mover.size, towards, 1);
}

/** Goes to the cell that is worth most. @returns what the way cost */
export function goToBest(fight: Fight, unit: number, allowance: number, worth: Worth): number {
  const board = fight.board!;
  const { there } = waysOf(fight);
  const mover = moverOf(fight, unit);
  const from = fight.onCell[unit];
  const facing = facingOf(fight, fight.fx[unit], fight.fy[unit]);
  there.from(mover, from, allowance);
  let best = from;
  let least = worth(from);
  for (const cell of there.reached) {
    if (cell === from || !board.isFree(mover, cell)) continue;
    const value = worth(cell);
    if (value > least + CLOSE) continue;
    if (value > least - CLOSE) {
      const dearer = there.costs[cell] - there.costs[best];
      if (dearer > CLOSE) continue;
      if (dearer > 0 - CLOSE) {
        const turn = (one: number) => board.cells.bearing(from, mover.size, one, mover.size);
        if (board.cells.compareTurns(facing, turn(cell), turn(best)) >= 0) continue;
      }
    }
    best = cell;
    least = value;
  }
  return best === from ? 0 : walk(fight, unit, best, there.costs[best]);
}

/** Walks to a cell, and faces the way of its last step. @param cost of the way @returns the same */
function walk(fight: Fight, unit: number, to: number, cost: number): number {
  const { cells } = fight.board!;
  const { walk: ways } = waysOf(fight);
  const mover = moverOf(fight, unit);
  ways.to(mover, [to], { most: cost });
  const way = ways.walk(mover, fight.onCell[unit], facingOf(fight, fight.fx[unit], fight.fy[unit]));
  const before = way.length > 1 ? way[way.length - 2] : fight.onCell[unit];
  faceAlong(fight, unit, cells.bearing(before, mover.size, to, mover.size));
  standOn(fight, unit, to);
  return cost;
}

/** Less than two costs differ by that are not meant to be one. */
const CLOSE = 1e-9;
