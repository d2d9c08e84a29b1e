/**
 * Where a unit goes in its turn: of the cells that it can come to and stay on, the one that serves its state best; of equals
 * the cheapest to come to, then the one with the least turn from where it faces.
 */
import { contains } from '../body/clearance';
import { face } from '../body/facing';
import { goOn, rest } from '../mind/going';
import { bestFriend } from '../mind/targets';
import type { Fight } from '../fight';
import { NOBODY } from '../numbers';
import { DO } from '../unit-tables';
import { PURPOSE } from '../time/chance';
import { passOver } from '../waves/zones';
import type { Board, Mover } from './board';
import { type CellSet, both, eachCell, emptySet, hasCell, isEmpty, listOf, removeCell, setOf } from './cell-sets';
import type { Bearing } from './cells';
import { cellsCovering, cellsFromHome, faceAlong, facingOf, homeCells, middleOfBody, moverOf, standOn } from './places';
import { type Sees, seesFrom } from './sight';
import { Ways } from './ways';

/** What a cell is worth: the lower, the better. */
type Worth = (cell: number) => number;

/** What is worked out over one board: ways there, ways back from where it wants to be, and cells that are looked over. */
interface Desk {
  there: Ways;
  back: Ways;
  cells: CellSet;
  goals: CellSet;
}

/** Kept with the board, for no turn to allocate. */
const DESKS = new WeakMap<Board, Desk>();

export function waysOf(board: Board): Desk {
  let desk = DESKS.get(board);
  if (!desk) {
    const { count } = board.cells;
    DESKS.set(board, (desk = { there: new Ways(board), back: new Ways(board), cells: emptySet(count), goals: emptySet(count) }));
  }
  return desk;
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
      return goToOne(fight, mover, allowance, homeCells(fight, mover));
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
    case DO.patrol:
      return walkRound(fight, mover, allowance, true);
    case DO.wander:
      return stray(fight, mover, allowance);
    default:
      return 0;
  }
}

/** To the next stop of its round; where it has rested long enough on to the one after. @param again it may go on from a stop in this turn */
function walkRound(fight: Fight, mover: Mover, allowance: number, again: boolean): number {
  const { unit } = mover;
  const { patrol, backAndForth } = fight.kinds[unit].states[fight.state[unit]];
  const point = patrol[fight.stop[unit] % patrol.length];
  const goals = cellsCovering(fight, mover, fight.homeX[unit] + point.x, fight.homeY[unit] + point.y);
  if (!goals.includes(fight.onCell[unit])) return goToOne(fight, mover, allowance, goals);
  if (fight.waitUntil[unit] === 0) rest(fight, unit, fight.ends(unit, point.pause));
  if (point.turns) face(fight, unit, point.fx, point.fy);
  if (fight.now < fight.waitUntil[unit]) return 0;
  goOn(fight, unit, patrol.length, backAndForth);
  return again ? walkRound(fight, mover, allowance, false) : 0;
}

/**
 * To a cell that is drawn evenly among those that it can come to within its radius of home, and within its zone. They are
 * counted from home outwards and by their turn from where it faces, so that nothing hangs on how cells are numbered.
 */
function stray(fight: Fight, mover: Mover, allowance: number): number {
  const board = fight.board!;
  const { unit, size } = mover;
  const { radius, roams } = fight.kinds[unit].states[fight.state[unit]];
  const zone = roams && roams.zone >= 0 ? fight.compiled.zones[roams.zone] : null;
  const from = fight.onCell[unit];
  const { there } = waysOf(board);
  there.from(mover, from, allowance);
  const facing = facingOf(fight, fight.fx[unit], fight.fy[unit]);
  const fromHome = (cell: number) => cellsFromHome(fight, unit, cell, size);
  const open = listOf(there.stands).filter((cell) => {
    const { x, y } = middleOfBody(fight, cell, size);
    return zone ? contains(zone.shape, x, y) : fromHome(cell) <= radius;
  });
  if (open.length === 0) return goToOne(fight, mover, allowance, homeCells(fight, mover));
  const bearing = (cell: number) => board.cells.bearing(from, size, cell, size);
  open.sort(
    (a, b) =>
      fromHome(a) - fromHome(b) ||
      there.costs[a] - there.costs[b] ||
      (a === from || b === from ? Number(b === from) - Number(a === from) : board.cells.compareTurns(facing, bearing(a), bearing(b))),
  );
  return walk(fight, mover, open[Math.floor(fight.chance(unit, PURPOSE.wander) * open.length)]);
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
  const size = fight.sizeOf(other);
  const at = fight.onCell[other];
  const from = fight.onCell[mover.unit];
  const gapAt = (cell: number) => board.cells.gap(cell, mover.size, at, size);
  const sees = needsLine ? seesFrom(fight, mover, other) : null;
  const gap = gapAt(from);
  if (gap >= near && gap <= far && (sees === null || sees(from))) return 0;
  const { there, cells, goals } = waysOf(board);
  there.from(mover, from, allowance);
  const band = board.cells.band(at, size, mover.size, Math.ceil(near), Math.floor(far));
  const found = best(fight, mover, both(there.stands, band, cells), ALIKE, sees);
  if (found !== NOBODY) return walk(fight, mover, found);
  if (gap < near)
    return walk(
      fight,
      mover,
      best(fight, mover, there.stands, (cell) => Math.max(0, near - gapAt(cell))),
    );
  both(board.free(mover, goals), band, goals);
  if (sees !== null)
    eachCell(goals, (cell) => {
      if (!sees(cell)) removeCell(goals, cell);
    });
  return comeNearer(fight, mover, goals, allowance) ?? walk(fight, mover, best(fight, mover, there.stands, gapAt));
}

/** Onto one of some cells, or as near to it as the way that is left allows. */
function goToOne(fight: Fight, mover: Mover, allowance: number, goals: readonly number[]): number {
  const board = fight.board!;
  const from = fight.onCell[mover.unit];
  if (goals.length === 0 || goals.includes(from)) return 0;
  const { there } = waysOf(board);
  there.from(mover, from, allowance);
  const apart = (cell: number) =>
    goals.reduce((least, goal) => Math.min(least, board.cells.gap(cell, mover.size, goal, mover.size)), Infinity);
  return (
    comeNearer(fight, mover, setOf(board.cells.count, goals), allowance) ?? walk(fight, mover, best(fight, mover, there.stands, apart))
  );
}

/** To where least of the way to some cells is left; past foes where no other way leads there. @returns null: none does */
function comeNearer(fight: Fight, mover: Mover, goals: CellSet, allowance: number): number | null {
  if (isEmpty(goals)) return null;
  const { there, back, cells } = waysOf(fight.board!);
  const near = { cell: fight.onCell[mover.unit], within: allowance };
  for (const foesBlock of [true, false]) {
    const found = best(fight, mover, back.nearestTo(mover, goals, there.stands, { foesBlock, near }, cells), ALIKE);
    if (found !== NOBODY) return walk(fight, mover, found);
  }
  return null;
}

function flee(fight: Fight, mover: Mover, allowance: number, other: number): number {
  const board = fight.board!;
  const size = fight.sizeOf(other);
  const { there } = waysOf(board);
  there.from(mover, fight.onCell[mover.unit], allowance);
  return walk(
    fight,
    mover,
    best(fight, mover, there.stands, (cell) => 0 - board.cells.gap(cell, mover.size, fight.onCell[other], size)),
  );
}

/** All are as good: the cheapest to come to is taken. */
const ALIKE: Worth = () => 0;

/**
 * Of some cells that it can come to and stay on the one that is worth most; of equals its own, then the cheapest to come to, then
 * the one with the least turn from where it faces.
 * @param passes what is asked besides of one that would be taken: last, for it is dear
 * @returns −1: none
 */
export function best(fight: Fight, mover: Mover, among: CellSet, worth: Worth, passes: Sees | null = null): number {
  const { cells } = fight.board!;
  const { there } = waysOf(fight.board!);
  const from = fight.onCell[mover.unit];
  let facing: Bearing | null = null;
  const isNearer = (a: number, b: number) => {
    facing ??= facingOf(fight, fight.fx[mover.unit], fight.fy[mover.unit]);
    return cells.compareTurns(facing, cells.bearing(from, mover.size, a, mover.size), cells.bearing(from, mover.size, b, mover.size)) < 0;
  };
  let found: number = NOBODY;
  let least = Infinity;
  const consider = (cell: number) => {
    const value = worth(cell);
    if (value > least + CLOSE) return;
    if (value > least - CLOSE) {
      const dearer = there.costs[cell] - there.costs[found];
      if (dearer > CLOSE) return;
      if (dearer > 0 - CLOSE && !isNearer(cell, found)) return;
    }
    if (passes !== null && !passes(cell)) return;
    found = cell;
    least = value;
  };
  // Its own first: it costs nothing, and nothing is as near.
  if (hasCell(among, from)) consider(from);
  eachCell(among, consider);
  return found;
}

/** Walks to a cell that it can come to, and faces the way of its last step. @returns what the way cost */
export function walk(fight: Fight, mover: Mover, to: number): number {
  const { unit, size } = mover;
  const from = fight.onCell[unit];
  if (to === from || to === NOBODY) return 0;
  const { there } = waysOf(fight.board!);
  const cost = there.costs[to];
  const way = there.walk(mover, to, facingOf(fight, fight.fx[unit], fight.fy[unit]));
  const before = way.length > 1 ? way[way.length - 2] : from;
  if (fight.compiled.rounds!.zonesPassed)
    for (const cell of way) {
      const { x, y } = middleOfBody(fight, cell, size);
      passOver(fight, unit, x, y);
    }
  faceAlong(fight, unit, fight.board!.cells.bearing(before, size, to, size));
  standOn(fight, unit, to);
  return cost;
}

/** Less than two worths or costs differ by that are not meant to be one. */
const CLOSE = 1e-9;
