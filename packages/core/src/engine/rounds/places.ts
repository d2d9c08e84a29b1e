/** Who stands where on a board: coming onto it, going over it, being pushed. */
import { face } from '../body/facing';
import { HEXAGON_ROW } from '../../model/board-size';
import type { Fight } from '../fight';
import { NOBODY } from '../numbers';
import type { CompiledUnit } from '../unit-tables';
import type { Mover } from './board';
import { both, eachCell, emptySet } from './cell-sets';
import type { Bearing } from './cells';

/** Less than any two places differ by that are not meant to be one. */
const CLOSE = 1e-9;

/** A unit as the board sees it. */
export function moverOf(fight: Fight, unit: number): Mover {
  const { turns, ground } = fight.kinds[unit];
  const size = turns?.size ?? 1;
  return { unit, side: fight.side[unit], size, ground, terrain: fight.board?.terrain({ size, ground }) };
}

/** It appears, on the free cell that is nearest to its place. */
export function comeOnto(fight: Fight, unit: number): void {
  const facing = facingOf(fight, fight.fx[unit], fight.fy[unit]);
  const cell = freeCell(fight, moverOf(fight, unit), fight.x[unit], fight.y[unit], facing);
  fight.homeCell[unit] = cell;
  fight.homeSize[unit] = fight.kinds[unit].turns?.size ?? 1;
  if (cell >= 0) standOn(fight, unit, cell);
}

/** Cells from a body of a unit, wherever it is, to where it came onto the board. @param size of that body */
export const cellsFromHome = (fight: Fight, unit: number, cell: number, size: number): number =>
  fight.board!.cells.gap(cell, size, fight.homeCell[unit], fight.homeSize[unit]);

/** Where it is at home: on its own cell; with another body than it came with, wherever that meets where it stood. None: it has no home. */
export function homeCells(fight: Fight, { unit, size }: Mover): number[] {
  const home = fight.homeCell[unit];
  if (home === NOBODY) return [];
  if (fight.homeSize[unit] === size) return [home];
  return Array.from({ length: fight.board!.cells.count }, (_, cell) => cell).filter((cell) => cellsFromHome(fight, unit, cell, size) === 0);
}

/** Whether a body of a radius could stand anywhere: on a board it comes to the nearest cell that is free, without ground there is room for all. */
export function roomAnywhere({ board }: Fight, ground: number, radius: number): boolean {
  if (!board) return true;
  const mover: Mover = { unit: NOBODY, side: 0, size: Math.floor(2 * radius + 0.5), ground };
  for (let cell = 0; cell < board.cells.count; cell++) if (board.isFree(mover, cell)) return true;
  return false;
}

/** m: the middle of a body whose own cell is this one. */
export function middleOfBody({ compiled }: Fight, cell: number, size: number): { x: number; y: number } {
  const tables = compiled.rounds!.board!;
  // On squares a body lies to north and east of its own cell.
  const off = tables.tiling === 'hexagons' ? 0 : ((size - 1) / 2) * tables.side;
  return { x: tables.x[cell] + off, y: tables.y[cell] + off };
}

/** A way in metres as a bearing, sixteenths of a cell apart. */
function bearingOf({ compiled }: Fight, dx: number, dy: number): Bearing {
  const { tiling, side } = compiled.rounds!.board!;
  const north = tiling === 'hexagons' ? HEXAGON_ROW * side : side / 2;
  return { east: Math.floor((dx / side) * 16 + 0.5), north: Math.floor((dy / north) * 8 + 0.5) };
}

/** The free cell whose middle is nearest to a place; of several the one with the least turn from where the unit faces; −1: none. */
export function freeCell(fight: Fight, mover: Mover, x: number, y: number, facing: Bearing): number {
  const board = fight.board!;
  const tables = fight.compiled.rounds!.board!;
  const off = tables.tiling === 'hexagons' ? 0 : ((mover.size - 1) / 2) * tables.side;
  let best = -1;
  let least = Infinity;
  let way: Bearing = facing;
  const { columns, rows } = board.cells;
  const lookAlong = (row: number) => {
    const dy = tables.y[row * columns] + off - y;
    // What lies farther north or south than the best is not nearer.
    if (dy * dy > least + CLOSE) return;
    for (let cell = row * columns; cell < (row + 1) * columns; cell++) {
      const dx = tables.x[cell] + off - x;
      const apart = dx * dx + dy * dy;
      if (apart > least + CLOSE || !board.isFree(mover, cell)) continue;
      const bearing = bearingOf(fight, dx, dy);
      if (apart > least - CLOSE && board.cells.compareTurns(facing, bearing, way) >= 0) continue;
      best = cell;
      least = apart;
      way = bearing;
    }
  };
  // Its own row first, for then few of the others need to be looked along.
  const [own] = rowsAt(fight, y);
  lookAlong(own);
  for (let row = 0; row < rows; row++) if (row !== own) lookAlong(row);
  return best;
}

/**
 * Cells within some of a unit on which another could appear, from it outwards and by their turn from where it faces: so that
 * nothing hangs on how cells are numbered.
 */
export function freeAround(fight: Fight, unit: number, other: { size: number; ground: number }, most: number): number[] {
  const board = fight.board!;
  const { cells } = board;
  const at = fight.onCell[unit];
  if (at === NOBODY) return [];
  const size = fight.sizeOf(unit);
  const mover: Mover = { unit: NOBODY, side: fight.side[unit], size: other.size, ground: other.ground };
  const found: { cell: number; gap: number; way: Bearing }[] = [];
  const free = board.free(mover, emptySet(cells.count));
  eachCell(both(free, cells.band(at, size, other.size, 0, Math.floor(most)), free), (cell) =>
    found.push({ cell, gap: cells.gap(at, size, cell, other.size), way: cells.bearing(at, size, cell, other.size) }),
  );
  const facing = facingOf(fight, fight.fx[unit], fight.fy[unit]);
  return found.sort((a, b) => a.gap - b.gap || cells.compareTurns(facing, a.way, b.way)).map(({ cell }) => cell);
}

/** Puts a unit on a cell. */
export function standOn(fight: Fight, unit: number, cell: number): void {
  const mover = moverOf(fight, unit);
  const board = fight.board!;
  if (fight.onCell[unit] !== NOBODY) board.take(mover, fight.onCell[unit]);
  fight.onCell[unit] = cell;
  board.put(mover, cell);
  const { x, y } = middleOfBody(fight, cell, mover.size);
  fight.moveTo(unit, x, y);
}

/** It lies: whoever comes may stand there. */
export function leaveBoard(fight: Fight, unit: number): void {
  if (fight.board && fight.onCell[unit] !== NOBODY) fight.board.take(moverOf(fight, unit), fight.onCell[unit]);
}

/** Whether there is room for one that lies to stand again. */
export const canComeBack = (fight: Fight, unit: number): boolean => !fight.board || cellOf(fight, unit) >= 0;

/** It stands again, where it lay or as near as there is room. */
export function comeBack(fight: Fight, unit: number): void {
  if (!fight.board) return;
  const cell = cellOf(fight, unit);
  fight.onCell[unit] = NOBODY;
  if (cell >= 0) standOn(fight, unit, cell);
}

/** Where one that lies would stand; −1: nowhere is room. */
function cellOf(fight: Fight, unit: number): number {
  const mover = moverOf(fight, unit);
  const lay = fight.onCell[unit];
  return lay !== NOBODY && fight.board!.isFree(mover, lay) ? lay : nearestCell(fight, mover);
}

/** The free cell that is nearest to where it is. */
function nearestCell(fight: Fight, mover: Mover): number {
  const { unit } = mover;
  const facing = facingOf(fight, fight.fx[unit], fight.fy[unit]);
  return freeCell(fight, mover, fight.xAt(unit, fight.now), fight.yAt(unit, fight.now), facing);
}

/**
 * A row of another size, or that goes on other ground, is put in the place of a unit's own: it stands where there is room for
 * it that is nearest. Where there is none it keeps the body that it has.
 */
export function reshape(fight: Fight, unit: number, row: CompiledUnit): CompiledUnit {
  const old = fight.kinds[unit];
  if (!fight.board || !row.turns || !old?.turns || fight.isAlive[unit] === 0 || fight.onCell[unit] === NOBODY) return row;
  const { size } = old.turns;
  if (row.turns.size === size && row.ground === old.ground) return row;
  leaveBoard(fight, unit);
  fight.kinds[unit] = row;
  const cell = row.turns.size === size ? cellOf(fight, unit) : nearestCell(fight, moverOf(fight, unit));
  // eslint-disable-next-line no-restricted-syntax -- a row has some hundred fields, and this is rare
  if (cell < 0) fight.kinds[unit] = { ...row, radius: old.radius, ground: old.ground, turns: { ...row.turns, size } };
  const to = cell < 0 ? fight.onCell[unit] : cell;
  fight.onCell[unit] = NOBODY;
  standOn(fight, unit, to);
  return fight.kinds[unit];
}

/** The direction of the board that a facing is nearest to; of two as near the one to the left. */
export function facingOf({ board }: Fight, fx: number, fy: number): Bearing {
  const { directions, tiling } = board!.cells;
  const rise = tiling === 'hexagons' ? Math.sqrt(3) : 1;
  let best = directions[0];
  let most = -Infinity;
  for (const way of directions) {
    const [x, y] = [way.east, way.north * rise];
    const along = (fx * x + fy * y) / Math.sqrt(x * x + y * y);
    if (along < most - CLOSE || (along < most + CLOSE && best.east * way.north - best.north * way.east <= 0)) continue;
    best = way;
    most = along;
  }
  return best;
}

/** Turns a unit to a bearing. */
export function faceAlong(fight: Fight, unit: number, { east, north }: Bearing): void {
  const y = fight.board!.cells.tiling === 'hexagons' ? north * Math.sqrt(3) : north;
  const length = Math.sqrt(east * east + y * y);
  if (length > 0) face(fight, unit, east / length, y / length);
}

/**
 * Cells from a place to the nearest of a body; without ground everything is beside everything. A place between cells, as the
 * middle of a body of two by two is, is on all of them.
 */
export function cellsFrom(fight: Fight, x: number, y: number, unit: number): number {
  const { board } = fight;
  if (!board) return 0;
  const size = fight.sizeOf(unit);
  let least = Infinity;
  for (const cell of cellsAt(fight, x, y)) least = Math.min(least, board.cells.gap(cell, 1, fight.onCell[unit], size));
  return least;
}

/** Where a body can stand that covers a place. */
export function cellsCovering(fight: Fight, mover: Mover, x: number, y: number): number[] {
  const places = cellsAt(fight, x, y);
  return fight.board!.terrain(mover).prints.flatMap((print, cell) => (print?.some((each) => places.includes(each)) ? [cell] : []));
}

/** The cells whose middles are nearest to a place. */
function cellsAt(fight: Fight, x: number, y: number): number[] {
  const { columns, side, tiling } = fight.compiled.rounds!.board!;
  return rowsAt(fight, y).flatMap((row) => {
    const aside = tiling === 'hexagons' ? (row & 1) / 2 - 0.25 : 0;
    return nearest(x / side + (columns - 1) / 2 - aside, columns).map((column) => row * columns + column);
  });
}

/** The rows whose middles are nearest to a place. */
function rowsAt({ compiled }: Fight, y: number): number[] {
  const { rows, side, tiling } = compiled.rounds!.board!;
  return nearest(y / (tiling === 'hexagons' ? HEXAGON_ROW * side : side) + (rows - 1) / 2, rows);
}

/** The whole numbers from 0 that are nearest to a number: one, or the two that it lies between. */
function nearest(value: number, count: number): number[] {
  const below = Math.max(0, Math.min(count - 1, Math.floor(value)));
  const above = Math.min(count - 1, below + 1);
  const part = value - below;
  if (part > 0.5 - CLOSE && part < 0.5 + CLOSE && above > below) return [below, above];
  return [part > 0.5 ? above : below];
}

/**
 * Away from where a hit came from, cell by cell, in the direction that is nearest to that; of two as near the one to the left
 * of it. A wall, the edge or a body ends it. Where the two coincide, the way its attacker faces.
 * @returns cells
 */
export function pushBack(fight: Fight, attacker: number, victim: number, most: number, x: number, y: number): number {
  const [dx, dy] = [fight.x[victim] - x, fight.y[victim] - y];
  const away = dx === 0 && dy === 0 ? facingOf(fight, fight.fx[attacker], fight.fy[attacker]) : facingOf(fight, dx, dy);
  return slide(fight, victim, away, most);
}

/** At a foe, cell by cell, each time in the direction that is nearest to the way to it, until it stands beside it. @returns cells */
export function lungeAt(fight: Fight, unit: number, target: number, most: number): number {
  let gone = 0;
  for (; gone < most && fight.gap(unit, target) > 1; gone++) {
    const ahead = facingOf(fight, fight.x[target] - fight.x[unit], fight.y[target] - fight.y[unit]);
    if (slide(fight, unit, ahead, 1) === 0) break;
  }
  return gone;
}

/** Of a distance that a share has been taken off. */
export const wholeCells = (distance: number) => Math.floor(distance + CLOSE);

/** The least whole number of cells that is no less. */
export const wholeFrom = (distance: number) => Math.ceil(distance - CLOSE);

/** Cell by cell in one direction, until a wall, the edge or a body ends it. @returns cells */
function slide(fight: Fight, unit: number, way: Bearing, most: number): number {
  if (fight.onCell[unit] === NOBODY) return 0;
  const board = fight.board!;
  const mover = moverOf(fight, unit);
  const direction = board.cells.directions.indexOf(way);
  const whole = wholeCells(most);
  let gone = 0;
  for (; gone < whole; gone++) {
    const next = board.cells.neighbour(fight.onCell[unit], direction);
    const may = board.terrain(mover).steps[fight.onCell[unit]] & (1 << direction);
    if (may === 0 || !board.isFree(mover, next)) break;
    standOn(fight, unit, next);
  }
  return gone;
}
