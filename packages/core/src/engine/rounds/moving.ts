/**
 * Where a unit goes in its turn: of the cells that it can come to and stay on, the one that serves its state best; of equals
 * the cheapest to come to, then the one with the least turn from where it faces.
 */
import { contains } from '../body/clearance';
import { face } from '../body/facing';
import { goOn, rest } from '../mind/going';
import { clearFrom } from '../mind/senses';
import { bestFriend } from '../mind/targets';
import type { Fight } from '../fight';
import { NOBODY } from '../numbers';
import { DO } from '../unit-tables';
import { PURPOSE } from '../time/chance';
import { passOver } from '../waves/zones';
import type { Board, Mover } from './board';
import { cellsCovering, cellsFromHome, faceAlong, facingOf, homeCells, middleOfBody, moverOf, standOn } from './places';
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
  const open = there.reached.filter((cell) => {
    if (cell !== from && !board.isFree(mover, cell)) return false;
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
  const goals = around(board, at, far, size, mover, serves);
  return comeNearer(fight, mover, goals, allowance) ?? walk(fight, mover, best(fight, mover, gapAt));
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

/** Free cells that serve, of those on which a body may be so near to another. */
function around(board: Board, at: number, far: number, size: number, mover: Mover, serves: (cell: number) => boolean): number[] {
  const { cells } = board;
  const reach = far + size + mover.size;
  const [column, row] = [cells.column(at), cells.row(at)];
  const found: number[] = [];
  for (let r = Math.max(0, row - reach); r <= Math.min(cells.rows - 1, row + reach); r++) {
    for (let c = Math.max(0, column - reach); c <= Math.min(cells.columns - 1, column + reach); c++) {
      const cell = r * cells.columns + c;
      if (board.isFree(mover, cell) && serves(cell)) found.push(cell);
    }
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
export function best(fight: Fight, mover: Mover, worth: Worth): number {
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
export function walk(fight: Fight, mover: Mover, to: number): number {
  const { unit, size } = mover;
  const from = fight.onCell[unit];
  if (to === from) return 0;
  const { there, back } = waysOf(fight.board!);
  const cost = there.costs[to];
  back.to(mover, [to], { most: cost, ahead: there.costs });
  const way = back.walk(mover, from, facingOf(fight, fight.fx[unit], fight.fy[unit]));
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
