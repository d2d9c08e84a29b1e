/**
 * Where a unit goes in its turn: of the cells that it can come to and stay on, the one that serves its state best; of equals
 * the cheapest to come to, then the one with the least turn from where it faces.
 */
import { clearFrom } from '../mind/senses';
import { bestFriend } from '../mind/targets';
import type { Fight } from '../fight';
import { NOBODY } from '../numbers';
import { DO } from '../tables';
import type { Board, Mover } from './board';
import { cellsCovering, faceAlong, facingOf, middleOfBody, moverOf, standOn } from './places';
import { Ways } from './ways';

/** What a cell is worth: the lower, the better; Infinity: it is not gone to. */
type Worth = (cell: number) => number;

/** Ways over one board: there, and back from where it wants to be. Kept with the board, for no turn to allocate. */
const WAYS = new WeakMap<Board, { there: Ways; back: Ways }>();

export function waysOf(board: Board): { there: Ways; back: Ways } {
  let ways = WAYS.get(board);
  if (!ways) WAYS.set(board, (ways = { there: new Ways(board), back: new Ways(board) }));
  return ways;
}

/** What the ground may cost that a unit goes over in this turn. */
export function allowanceOf(fight: Fight, unit: number): number {
  return Math.floor(fight.pace[unit] * (1 - fight.slowed[unit]) + 1e-9);
}

/** Moves a unit as its state wants it. @param allowance what is left of it @returns what the way cost */
export function moveAsStateWants(fight: Fight, unit: number, allowance: number): number {
  if (!fight.board || allowance <= 0 || fight.onCell[unit] === NOBODY) return 0;
  const mover = moverOf(fight, unit);
  const state = fight.kinds[unit].states[fight.state[unit]];
  const target = fight.target[unit];
  switch (fight.does[unit]) {
    case DO.approach:
    case DO.search:
      return target === NOBODY ? 0 : goTo(fight, mover, allowance, target, { near: 0, far: state.far, needsLine: !state.stopsAnyway });
    case DO.band:
    case DO.strafe:
      return target === NOBODY ? 0 : goTo(fight, mover, allowance, target, { near: state.near, far: state.far, needsLine: false });
    case DO.flee:
      return target === NOBODY ? 0 : flee(fight, mover, allowance, target);
    case DO.home:
      return fight.homeCell[unit] === NOBODY ? 0 : goToOne(fight, mover, allowance, [fight.homeCell[unit]]);
    case DO.goTo: {
      const place = fight.compiled.places[state.toPoint];
      if (!place) return 0;
      const thing = fight.things[state.toPoint];
      // What stands there is gone up to, not into.
      if (thing !== NOBODY && fight.isAlive[thing]) return goTo(fight, mover, allowance, thing, { near: 0, far: 1, needsLine: false });
      return goToOne(fight, mover, allowance, cellsCovering(fight, mover, place.x, place.y));
    }
    case DO.follow: {
      const leader = state.picks === null ? NOBODY : bestFriend(fight, unit, state.picks, NOBODY);
      return leader === NOBODY ? 0 : goTo(fight, mover, allowance, leader, { near: state.near, far: state.far, needsLine: false });
    }
    default:
      return 0;
  }
}

/** Between two distances of another, and with a clear line to it where that is asked for. */
interface Band {
  near: number;
  far: number;
  needsLine: boolean;
}

/** Into a band about another: there the cheapest place; else as near to it as the way that is left allows; from too near, away. */
function goTo(fight: Fight, mover: Mover, allowance: number, other: number, { near, far, needsLine }: Band): number {
  const board = fight.board!;
  const { size } = moverOf(fight, other);
  const at = fight.onCell[other];
  const from = fight.onCell[mover.unit];
  const gapAt = (cell: number) => board.cells.gap(cell, mover.size, at, size);
  const serves = (cell: number) => {
    const gap = gapAt(cell);
    return gap >= near && gap <= far && (!needsLine || gap <= 1 || clearAt(fight, mover, cell, other));
  };
  if (serves(from)) return 0;
  const { there } = waysOf(board);
  there.from(mover, from, allowance);
  const found = best(fight, mover, (cell) => (serves(cell) ? 0 : Infinity));
  if (found !== from) return walk(fight, mover, found);
  if (gapAt(from) < near)
    return walk(
      fight,
      mover,
      best(fight, mover, (cell) => Math.max(0, near - gapAt(cell))),
    );
  const goals = around(board, at, far, size, mover).filter((cell) => board.isFree(mover, cell) && serves(cell));
  return comeNearer(fight, mover, goals, allowance) ?? walk(fight, mover, best(fight, mover, gapAt));
}

/** Onto one of some cells, or as near to it as the way that is left allows. */
function goToOne(fight: Fight, mover: Mover, allowance: number, goals: readonly number[]): number {
  const board = fight.board!;
  const from = fight.onCell[mover.unit];
  if (goals.includes(from)) return 0;
  const { there } = waysOf(board);
  there.from(mover, from, allowance);
  const apart = (cell: number) =>
    goals.reduce((least, goal) => Math.min(least, board.cells.gap(cell, mover.size, goal, mover.size)), Infinity);
  return comeNearer(fight, mover, goals, allowance) ?? walk(fight, mover, best(fight, mover, apart));
}

/** To where least of the way to some cells is left; past foes where no other way leads there. @returns null: none does */
function comeNearer(fight: Fight, mover: Mover, goals: readonly number[], allowance: number): number | null {
  const board = fight.board!;
  const { there, back } = waysOf(board);
  if (goals.length === 0) return null;
  const until = (cell: number) => there.costs[cell] < Infinity && board.isFree(mover, cell);
  for (const foesBlock of [true, false]) {
    back.to(mover, goals, { foesBlock, until, near: { cell: fight.onCell[mover.unit], within: allowance } });
    if (back.reached.some(until))
      return walk(
        fight,
        mover,
        best(fight, mover, (cell) => back.costs[cell]),
      );
  }
  return null;
}

function flee(fight: Fight, mover: Mover, allowance: number, other: number): number {
  const board = fight.board!;
  const { size } = moverOf(fight, other);
  waysOf(board).there.from(mover, fight.onCell[mover.unit], allowance);
  return walk(
    fight,
    mover,
    best(fight, mover, (cell) => 0 - board.cells.gap(cell, mover.size, fight.onCell[other], size)),
  );
}

/** Cells on which a body may be so near to another. */
function around(board: Board, at: number, far: number, size: number, mover: Mover): number[] {
  const { cells } = board;
  const reach = far + size + mover.size;
  const [column, row] = [cells.column(at), cells.row(at)];
  const found: number[] = [];
  for (let r = Math.max(0, row - reach); r <= Math.min(cells.rows - 1, row + reach); r++) {
    for (let c = Math.max(0, column - reach); c <= Math.min(cells.columns - 1, column + reach); c++) found.push(r * cells.columns + c);
  }
  return found;
}

/** Whether a unit would have a clear line from a cell. */
export function clearAt(fight: Fight, { unit, size }: Mover, cell: number, other: number): boolean {
  if (cell === fight.onCell[unit]) return clearFrom(fight, unit, fight.kinds[unit].muzzle, other);
  if (fight.ground.walls.length === 0) return true;
  const { x, y } = middleOfBody(fight, cell, size);
  return !fight.ground.blocked(x, y, fight.kinds[unit].muzzle, fight.x[other], fight.y[other], fight.kinds[other].height / 2);
}

/** Of the cells that it can come to and stay on, and its own, the one that is worth most. */
function best(fight: Fight, mover: Mover, worth: Worth): number {
  const board = fight.board!;
  const { there } = waysOf(board);
  const from = fight.onCell[mover.unit];
  const facing = facingOf(fight, fight.fx[mover.unit], fight.fy[mover.unit]);
  const turn = (cell: number) => board.cells.bearing(from, mover.size, cell, mover.size);
  let found = from;
  let least = worth(from);
  for (const cell of there.reached) {
    if (cell === from || !board.isFree(mover, cell)) continue;
    const value = worth(cell);
    if (value === Infinity || value > least + CLOSE) continue;
    if (value > least - CLOSE) {
      const dearer = there.costs[cell] - there.costs[found];
      if (dearer > CLOSE) continue;
      if (dearer > 0 - CLOSE && board.cells.compareTurns(facing, turn(cell), turn(found)) >= 0) continue;
    }
    found = cell;
    least = value;
  }
  return found;
}

/** Walks to a cell that it can come to, and faces the way of its last step. @returns what the way cost */
function walk(fight: Fight, mover: Mover, to: number): number {
  const { unit, size } = mover;
  const from = fight.onCell[unit];
  if (to === from) return 0;
  const { there, back } = waysOf(fight.board!);
  const cost = there.costs[to];
  back.to(mover, [to], { most: cost, ahead: there.costs });
  const way = back.walk(mover, from, facingOf(fight, fight.fx[unit], fight.fy[unit]));
  const before = way.length > 1 ? way[way.length - 2] : from;
  faceAlong(fight, unit, fight.board!.cells.bearing(before, size, to, size));
  standOn(fight, unit, to);
  return cost;
}

/** Less than two worths or costs differ by that are not meant to be one. */
const CLOSE = 1e-9;
