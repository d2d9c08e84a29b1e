/** Places of an arena at which a party may begin: some all over it, and in each part that no enemy gets to. */
import { minIndex } from 'd3-array';
import { Clearance } from '../../engine/body/clearance';
import type { Compiled } from '../../engine/tables';

export interface Spot {
  /** m */
  x: number;
  y: number;
  /** No enemy that moves on the ground gets there from any spawn point. */
  unreached: boolean;
}

/** All over the arena: so many along its longer side. */
const ALONG = 7;
/** Parts that no enemy gets to, and places in each. */
const MOST_PARTS = 6;
const PLACES = 3;
/** m² of a part that is worth standing in. */
const LEAST_AREA = 0.5;

/** m: the middles of the cells of a board that such places lie on, each once; closed ones are left out. */
export function cellSpots(compiled: Compiled): { x: number; y: number; cell: number }[] {
  const spots = spotsOf(compiled);
  if (!spots.length) return [];
  const { blocked, x, y } = compiled.rounds!.board!;
  const [{ kind }] = [...compiled.seats, ...compiled.allies];
  const closed = blocked[compiled.kinds[kind].ground];
  const open = x.map((_, cell) => cell).filter((cell) => !closed[cell]);
  const nearest = (to: Spot) => minIndex(open, (cell) => Math.hypot(x[cell] - to.x, y[cell] - to.y));
  const cells = new Set(open.length ? spots.map((to) => open[nearest(to)]) : []);
  return [...cells].map((cell) => ({ x: Number(x[cell].toFixed(2)), y: Number(y[cell].toFixed(2)), cell }));
}

export function spotsOf(compiled: Compiled): Spot[] {
  const { halfWidth, halfDepth, grid, walls, closed, kinds, points, seats, allies } = compiled;
  const room = (ground: number) => new Clearance(halfWidth, halfDepth, grid, [...walls, ...closed[ground]]);
  const ours = new Set([...seats, ...allies].map(({ kind }) => kind));
  const members = kinds.filter((_, kind) => ours.has(kind));
  const enemies = kinds.filter(({ walk, run }, kind) => !ours.has(kind) && (walk > 0 || run > 0));
  if (!members.length) return [];
  const own = room(members[0].ground);
  const radius = Math.max(...members.map((one) => one.radius));
  const stands = (cell: number) => own.room[cell] >= radius;
  const reached = new Uint8Array(own.cells);
  for (const kind of enemies) spread(room(kind.ground), kind.radius, points, reached);
  const spot = (cell: number, unreached: boolean): Spot => ({
    x: Number(own.xOf(cell % own.columns).toFixed(2)),
    y: Number(own.yOf(Math.floor(cell / own.columns)).toFixed(2)),
    unreached,
  });
  const step = Math.max(own.columns, own.rows) / ALONG;
  const over: Spot[] = [];
  for (let row = step / 2; row < own.rows; row += step)
    for (let column = step / 2; column < own.columns; column += step) {
      const cell = Math.floor(row) * own.columns + Math.floor(column);
      if (stands(cell)) over.push(spot(cell, reached[cell] === 0));
    }
  const parts = partsOf(own, (cell) => stands(cell) && reached[cell] === 0)
    .filter((part) => part.length * grid * grid >= LEAST_AREA)
    .sort((a, b) => b.length - a.length)
    .slice(0, MOST_PARTS);
  const within = parts.flatMap((part) => roomiest(own, part).map((cell) => spot(cell, true)));
  return [...within, ...over];
}

/** Cells from which a body so wide can be struck: those it gets to from a spawn point. */
function spread(room: Clearance, radius: number, from: readonly { x: number; y: number }[], reached: Uint8Array): void {
  const seen = new Uint8Array(room.cells);
  // A body that comes into being where there is no room is put beside it: the nearest cells with room count.
  const queue = from.map(({ x, y }) => nearestFree(room, radius, x, y)).filter((cell) => cell >= 0);
  for (const cell of queue) seen[cell] = 1;
  for (let next = 0; next < queue.length; next++) {
    const cell = queue[next];
    reached[cell] = 1;
    for (const other of besides(room, cell))
      if (!seen[other] && room.room[other] >= radius) {
        seen[other] = 1;
        queue.push(other);
      }
  }
}

function nearestFree(room: Clearance, radius: number, x: number, y: number): number {
  let best = -1;
  let least = Infinity;
  for (let cell = 0; cell < room.cells; cell++) {
    if (room.room[cell] < radius) continue;
    const far = Math.hypot(room.xOf(cell % room.columns) - x, room.yOf(Math.floor(cell / room.columns)) - y);
    if (far < least) [best, least] = [cell, far];
  }
  return best;
}

/** Cells that hang together and are as asked. */
function partsOf(room: Clearance, is: (cell: number) => boolean): number[][] {
  const seen = new Uint8Array(room.cells);
  const parts: number[][] = [];
  for (let first = 0; first < room.cells; first++) {
    if (seen[first] || !is(first)) continue;
    const part = [first];
    seen[first] = 1;
    for (let next = 0; next < part.length; next++)
      for (const other of besides(room, part[next]))
        if (!seen[other] && is(other)) {
          seen[other] = 1;
          part.push(other);
        }
    parts.push(part);
  }
  return parts;
}

function besides({ columns, rows }: Clearance, cell: number): number[] {
  const [row, column] = [Math.floor(cell / columns), cell % columns];
  return [
    ...(column > 0 ? [cell - 1] : []),
    ...(column < columns - 1 ? [cell + 1] : []),
    ...(row > 0 ? [cell - columns] : []),
    ...(row < rows - 1 ? [cell + columns] : []),
  ];
}

/** Of a part the cells with the most room, apart from one another. */
function roomiest(room: Clearance, part: readonly number[]): number[] {
  const ordered = [...part].sort((a, b) => room.room[b] - room.room[a] || a - b);
  const kept: number[] = [];
  const apart = Math.sqrt(part.length) / 2;
  for (const cell of ordered) {
    const [row, column] = [Math.floor(cell / room.columns), cell % room.columns];
    const near = kept.some((one) => Math.hypot(Math.floor(one / room.columns) - row, (one % room.columns) - column) < apart);
    if (!near) kept.push(cell);
    if (kept.length === PLACES) break;
  }
  return kept;
}
