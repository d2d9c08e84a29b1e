/** One enemy type against a party member or several, on open ground or in an arena: the encounter behind a readout. */
import type { CompileOptions } from '../engine/compile';
import type { Lens } from '../model/effective';
import { effectiveUnit } from '../model/effective';
import { Arena, SpawnPoint } from '../model/arena';
import { Encounter, Wave, WaveGroup } from '../model/encounter';
import { LIMITS } from '../model/limits';
import type { Project } from '../model/project';

export interface DuelOptions {
  enemy: string;
  /** A party member, or several that stand together. */
  against: string | readonly string[];
  /** 1 to 12 */
  copies?: number;
  /** m between the edges of the bodies at the start */
  distance?: number;
  /** s */
  limit?: number;
  /** An arena to stand in: the party where it starts there. Absent: open ground. */
  arena?: string;
}

export const DUEL_DEFAULTS = { copies: 1, distance: 12, limit: 60 } as const;

/**
 * What to hand to `compile` for a duel: party member at the middle facing the enemy, enemies at the distance facing back.
 * Neither knows of the other until it looks. Ids in it are fixed, so the luck of a duel does not depend on names.
 * @throws Error for a unit that is not there or options out of range
 */
export function duelOptions(project: Project, lens: Lens, options: DuelOptions): CompileOptions {
  const { enemy, against, copies, distance, limit } = { ...DUEL_DEFAULTS, ...options };
  if (!Number.isInteger(copies) || copies < 1 || copies > 12)
    throw new Error(`copies must be a whole number from 1 to 12: it is ${copies}`);
  if (!(distance >= 0 && distance <= 200)) throw new Error(`distance must be from 0 to 200 m: it is ${distance}`);
  const members = typeof against === 'string' ? [against] : against;
  if (members.length < 1 || members.length > LIMITS.party)
    throw new Error(`against must name 1 to ${LIMITS.party} party members: it names ${members.length}`);
  const near = effectiveUnit(project, enemy, lens).unit.body.radius;
  const radii = near + effectiveUnit(project, members[0], lens).unit.body.radius;
  const scatter = copies > 1 ? near * 4 : 0;
  const arena = options.arena === undefined ? openGround(distance + radii) : within(project, options.arena, distance + radii, near);
  const point = arena.spawnPoints[0];
  Object.assign(point, { scatter });
  const group = Object.assign(new WaveGroup(), { id: 'duel-group', enemy, count: { min: copies, max: copies }, at: [point.id] });
  const wave = Object.assign(new Wave(), { id: 'duel-wave', name: 'duel', groups: [group] });
  const encounter = Object.assign(new Encounter(), { id: 'duel', name: 'duel', arena: arena.id, waves: [wave], limit });
  encounter.party = members.map((unit, i) => ({ id: i === 0 ? 'duel-member' : `duel-member-${i + 1}`, unit }));
  return { ...lens, encounter, arena };
}

function openGround(apart: number): Arena {
  const point = Object.assign(new SpawnPoint(), { id: 'duel-point', name: 'opposite', x: apart, facing: 180 });
  return Object.assign(new Arena(), { id: 'duel-ground', name: 'open ground', width: 1000, depth: 1000, spawnPoints: [point] });
}

/** Directions tried for a place to stand in an arena, beginning with the way the party faces. */
const DIRECTIONS = 24;

/**
 * An arena with its party start, and the enemy opposite it at the distance: straight ahead, or in the first direction
 * turned from there in which that place lies inside, clear of walls and, where there is such a place, in plain view. Where
 * none does, as far ahead as the arena goes.
 * @throws Error for an arena that is not there
 */
function within(project: Project, id: string, apart: number, radius: number): Arena {
  const found = project.arenas.find((one) => one.id === id);
  if (!found) throw new Error(`there is no arena "${id}" in ${project.name}`);
  const { x, y, facing } = found.partyStart;
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
