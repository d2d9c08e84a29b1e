/** Where a duel takes place: open ground, with a wall between or without, or an arena. */
import { Arena, Corner, SpawnPoint, Wall } from '../model/arena';
import type { Project } from '../model/project';
import { type DuelFrom, pointOf } from './duel-setup';

/** m */
const WALL = { thick: 0.5, wide: 6, least: 1 };
/** m of ground beyond what stands on it, where there is a wall and ways around it are looked for */
const AROUND_WALL = 30;
/** Cells along one side of a ground on which ways are looked for. */
const MOST_CELLS = 500;

/**
 * Open ground: the party in the middle, the enemies' place to its right, facing it.
 * @param apart m between centres
 * @param wall m, how high a wall stands halfway; absent: none
 * @throws Error for a wall that has no room
 */
export function openGround(apart: number, distance: number, from: DuelFrom, wall?: number): Arena {
  const point = Object.assign(new SpawnPoint(), { id: 'duel-point', name: 'opposite', x: apart, facing: 180 });
  const ground = Object.assign(new Arena(), { id: 'duel-ground', name: 'open ground', width: 1000, depth: 1000, spawnPoints: [point] });
  if (from === 'behind') ground.partyStart.facing = 180;
  if (wall === undefined) return ground;
  if (!(wall >= 0.1 && wall <= 20)) throw new Error(`the wall between must be from 0.1 to 20 m high: it is ${wall}`);
  if (distance < WALL.least) throw new Error(`a wall between needs a distance of at least ${WALL.least} m: it is ${distance}`);
  const side = 2 * (apart + AROUND_WALL);
  const [left, right] = [apart / 2 - WALL.thick / 2, apart / 2 + WALL.thick / 2];
  const corners = [
    [left, -WALL.wide / 2],
    [right, -WALL.wide / 2],
    [right, WALL.wide / 2],
    [left, WALL.wide / 2],
  ].map(([x, y]) => Object.assign(new Corner(), { x, y }));
  const between = Object.assign(new Wall(), { id: 'duel-wall', name: 'wall between', height: wall, corners });
  return Object.assign(ground, { width: side, depth: side, grid: Math.max(ground.grid, side / MOST_CELLS), walls: [between] });
}

/** Directions tried for a place to stand in an arena, beginning with the way the party faces. */
const DIRECTIONS = 24;

/**
 * An arena with its party start, and the enemies at one of its spawn points; or opposite the party at the distance: straight
 * ahead (or behind its back), or in the first direction turned from there in which that place lies inside, clear of walls and, where there is such a place, in plain view. Where
 * none does, as far ahead as the arena goes.
 * @throws Error for an arena, or a point of it, that is not there
 */
export function within(project: Project, id: string, apart: number, radius: number, from: DuelFrom): Arena {
  const found = project.arenas.find((one) => one.id === id);
  if (!found) throw new Error(`there is no arena "${id}" in ${project.name}`);
  const asked = pointOf(from);
  if (asked !== undefined) {
    const point = found.spawnPoints.find((one) => one.id === asked);
    if (!point) throw new Error(`there is no spawn point "${asked}" in ${found.name}`);
    return { ...found, spawnPoints: [{ ...point }] };
  }
  const { x, y } = found.partyStart;
  const facing = found.partyStart.facing + (from === 'behind' ? 180 : 0);
  const inside = (px: number, py: number) => Math.abs(px) <= found.width / 2 - radius && Math.abs(py) <= found.depth / 2 - radius;
  const at = (degrees: number, far: number) => {
    const turn = (degrees * Math.PI) / 180;
    return { px: x + far * Math.cos(turn), py: y + far * Math.sin(turn), degrees };
  };
  const turns = Array.from({ length: DIRECTIONS }, (_, i) => facing + (i % 2 ? 1 : -1) * Math.ceil(i / 2) * (360 / DIRECTIONS));
  const places = turns.map((turn) => at(turn, apart)).filter(({ px, py }) => inside(px, py) && clearOf(found, px, py, radius));
  let place = places.find(({ px, py }) => inView(found, x, y, px, py)) ?? places[0];
  for (let far = apart; !place && far > 0.5; far *= 0.8) {
    const nearer = at(facing, far);
    if (inside(nearer.px, nearer.py) && clearOf(found, nearer.px, nearer.py, radius)) place = nearer;
  }
  const { px, py, degrees } = place ?? at(facing, Math.min(apart, 1));
  const point = Object.assign(new SpawnPoint(), { id: 'duel-point', name: 'opposite', x: px, y: py, facing: (degrees + 180) % 360 });
  return { ...found, spawnPoints: [point] };
}

/** Whether no wall, however low, crosses the line between two places. */
function inView({ walls }: Arena, x0: number, y0: number, x1: number, y1: number): boolean {
  const side = (ax: number, ay: number, bx: number, by: number, px: number, py: number) =>
    Math.sign((bx - ax) * (py - ay) - (by - ay) * (px - ax));
  return walls.every(({ corners }) =>
    corners.every((a, i) => {
      const b = corners[(i + 1) % corners.length];
      return (
        side(x0, y0, x1, y1, a.x, a.y) === side(x0, y0, x1, y1, b.x, b.y) ||
        side(a.x, a.y, b.x, b.y, x0, y0) === side(a.x, a.y, b.x, b.y, x1, y1)
      );
    }),
  );
}

/** Whether a body stands clear of every wall of an arena: no wall holds its middle or comes nearer than its radius. */
function clearOf({ walls }: Arena, x: number, y: number, radius: number): boolean {
  return walls.every(({ corners }) => {
    const sides = new Set<number>();
    let nearest = Infinity;
    corners.forEach((a, i) => {
      const b = corners[(i + 1) % corners.length];
      const [dx, dy] = [b.x - a.x, b.y - a.y];
      sides.add(Math.sign(dx * (y - a.y) - dy * (x - a.x)));
      const along = Math.min(1, Math.max(0, ((x - a.x) * dx + (y - a.y) * dy) / (dx * dx + dy * dy || 1)));
      nearest = Math.min(nearest, Math.hypot(x - a.x - along * dx, y - a.y - along * dy));
    });
    const holds = !(sides.has(1) && sides.has(-1));
    return !holds && nearest >= radius;
  });
}
