/** Where a duel in turns takes place: a board of its own, in cells. */
import { HEXAGON_ROW } from '../model/board-size';
import { Arena, Corner, SpawnPoint, Wall } from '../model/arena';
import { LIMITS } from '../model/limits';
import type { EncounterRounds } from '../model/rounds';
import type { DuelFrom } from './duel-setup';

/** Cells of the board beyond who stands on it, to each side. */
const AROUND = 8;
/** Cells: a wall between is one deep and so many wide. */
const WALL = { wide: 5, least: 3 };

/** What a board must have room for. */
interface Standing {
  /** Cells from the nearest of one to the nearest of the other. */
  distance: number;
  /** Of the first member's body and the enemy's. */
  sizes: readonly [number, number];
  from: DuelFrom;
  /** m, how high a wall stands halfway; absent: none */
  wall?: number;
}

/**
 * A board on which the party stands and the enemies opposite, in one row.
 * @throws Error for what has no room on a board
 */
export function openBoard({ ground, cell }: Pick<EncounterRounds, 'ground' | 'cell'>, { distance, sizes, from, wall }: Standing): Arena {
  if (!(Number.isInteger(distance) && distance >= 1)) throw new Error(`distance in turns must be whole cells from 1: it is ${distance}`);
  const hexagons = ground === 'hexagons';
  const [own, theirs] = sizes;
  // On squares a body reaches east and north of its own cell; on hexagons to all sides.
  const apart = distance + (hexagons ? own + theirs - 2 : own - 1);
  const columns = apart + 1 + 2 * AROUND;
  if (columns > LIMITS.boardSide) throw new Error(`distance in turns must leave room on ${LIMITS.boardSide} cells: it is ${distance}`);
  const rows = 2 * AROUND + 1;
  const high = cell * (hexagons ? HEXAGON_ROW : 1);
  /** m: the middle of a body whose own cell is so many columns from the board's edge. */
  const middle = (column: number, size: number) => (column - (columns - 1) / 2 + (hexagons ? 0 : (size - 1) / 2)) * cell;
  const aside = (size: number) => (hexagons ? 0 : ((size - 1) / 2) * cell);
  const [here, there] = [AROUND, AROUND + apart];
  const point = Object.assign(new SpawnPoint(), {
    id: 'duel-point',
    name: 'opposite',
    x: middle(there, theirs),
    y: aside(theirs),
    facing: 180,
  });
  const board = Object.assign(new Arena(), {
    id: 'duel-ground',
    name: 'open board',
    width: columns * cell,
    depth: rows * high,
    spawnPoints: [point],
  });
  Object.assign(board.partyStart, { x: middle(here, own), y: aside(own), facing: from === 'behind' ? 180 : 0 });
  if (wall === undefined) return board;
  if (!(wall >= 0.1 && wall <= 20)) throw new Error(`the wall between must be from 0.1 to 20 m high: it is ${wall}`);
  if (distance < WALL.least) throw new Error(`a wall between needs a distance of at least ${WALL.least} cells: it is ${distance}`);
  const column = here + own - 1 + Math.ceil(distance / 2);
  const [left, right] = [middle(column, 1) - cell / 2, middle(column, 1) + cell / 2];
  const half = (WALL.wide / 2) * high;
  const corners = [
    [left, -half],
    [right, -half],
    [right, half],
    [left, half],
  ].map(([x, y]) => Object.assign(new Corner(), { x, y }));
  return Object.assign(board, {
    walls: [Object.assign(new Wall(), { id: 'duel-wall', name: 'wall between', height: wall, corners })],
  });
}
