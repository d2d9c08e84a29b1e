/** Which names stand on an arena's plan and where, so that none is written over another or over a sign. Pure. */
import { type Arena, shown } from '@insidia/core';
import { type Box, type LabelPlace, boxOf, clearPlaces } from './labels';
import { type PlanScale, middleOf, scaleBar } from './plan';

export interface PlanLabel extends LabelPlace {
  key: string;
  words: string;
  className: string;
}

/** px: least half width of a sign */
export const SIGN = { spawnPoint: 8, point: 4, partyStart: 14 };

export const spawnRadius = (scatter: number, { scale }: PlanScale): number => Math.max(SIGN.spawnPoint, scatter * scale);
export const pointRadius = (radius: number, { scale }: PlanScale): number => Math.max(SIGN.point, radius * scale);

/** px: from its middle to its corners; it is a square on one of them. */
const cornerOf = ({ radius }: { radius: number }, plan: PlanScale): number => Math.SQRT2 * pointRadius(radius, plan);

/** What is said of where the party starts, and where. */
export const PARTY_STARTS = 'party starts';
export const partyStartsAt = ({ partyStart }: Pick<Arena, 'partyStart'>, { x, y }: PlanScale): LabelPlace => ({
  x: x(partyStart.x) - SIGN.partyStart - 4,
  y: y(partyStart.y) + 4,
  anchor: 'end',
});

/** Names of spawn points, those in use first, then of points, walls, zones and ground; a name that has no room is left out. */
export function planLabels(arena: Arena, plan: PlanScale, width: number, height: number, used?: ReadonlySet<string>): PlanLabel[] {
  const { x, y } = plan;
  const inUse = ({ id }: { id: string }) => used?.has(id) ?? false;
  const around = (at: { x: number; y: number }, out: number): Record<'right' | 'left' | 'above' | 'below', LabelPlace> => ({
    right: { x: x(at.x) + out + 4, y: y(at.y) + 4, anchor: 'start' },
    left: { x: x(at.x) - out - 4, y: y(at.y) + 4, anchor: 'end' },
    above: { x: x(at.x), y: y(at.y) - out - 5, anchor: 'middle' },
    below: { x: x(at.x), y: y(at.y) + out + 11, anchor: 'middle' },
  });
  const span = (corners: readonly { x: number; y: number }[]) => {
    const across = corners.map((corner) => x(corner.x));
    const down = corners.map((corner) => y(corner.y));
    return { left: Math.min(...across), right: Math.max(...across), top: Math.min(...down), bottom: Math.max(...down) };
  };
  const spawnPoints = [...arena.spawnPoints].sort((a, b) => Number(inUse(b)) - Number(inUse(a)));
  const places = [
    ...spawnPoints.map((point) => {
      const { right, left, above, below } = around(point, spawnRadius(point.scatter, plan));
      return {
        key: `spawn ${point.id}`,
        words: point.name,
        className: `t12 halo-s ${inUse(point) ? 'tb' : ''}`,
        places: [right, left, above, below],
      };
    }),
    ...arena.points.map((point) => {
      const { right, left, above, below } = around(point, cornerOf(point, plan));
      return { key: `point ${point.id}`, words: point.name, className: 't2 halo-s', places: [above, below, right, left] };
    }),
  ];
  const shapes = [
    ...arena.walls.map((wall) => {
      const { left, right, top, bottom } = span(wall.corners);
      const middle = x(middleOf(wall.corners).x);
      const where: LabelPlace[] = [
        { x: middle, y: bottom + 12, anchor: 'middle' },
        { x: middle, y: top - 5, anchor: 'middle' },
        { x: right + 5, y: (top + bottom) / 2 + 4, anchor: 'start' },
        { x: left - 5, y: (top + bottom) / 2 + 4, anchor: 'end' },
      ];
      return { key: `wall ${wall.id}`, words: `${wall.name} ${shown(wall.height)}`, className: 't2 halo-s', places: where };
    }),
    ...arena.zones.map(({ id, name, corners }) => {
      const { left, top, bottom } = span(corners);
      const middle = x(middleOf(corners).x);
      const where: LabelPlace[] = [
        { x: middle, y: top + 12, anchor: 'middle' },
        { x: middle, y: bottom - 5, anchor: 'middle' },
        { x: middle, y: (top + bottom) / 2 + 4, anchor: 'middle' },
        { x: left + 4, y: top - 4, anchor: 'start' },
        { x: left + 4, y: bottom + 12, anchor: 'start' },
      ];
      return { key: `zone ${id}`, words: name, className: 't3 halo-s', places: where };
    }),
    ...arena.ground.map(({ id, kind, corners }) => {
      const middle = middleOf(corners);
      const at = (down: number): LabelPlace => ({ x: x(middle.x), y: y(middle.y) + 4 + down, anchor: 'middle' });
      return { key: `ground ${id}`, words: kind, className: 't3', places: [at(0), at(14), at(-14)] };
    }),
  ];
  const bounds = { left: 0, right: width, top: 0, bottom: height };
  const signs = signsOf(arena, plan);
  const found = placed(places, signs, bounds);
  // Who comes where must be read even where it is over a wall; all else keeps clear of walls.
  const taken = [...signs, ...arena.walls.map(({ corners }) => span(corners)), ...found.map((one) => boxOf(one.words, one))];
  return [...found, ...placed(shapes, taken, bounds)];
}

function placed(
  labels: readonly { key: string; words: string; className: string; places: readonly LabelPlace[] }[],
  taken: readonly Box[],
  bounds: Box,
): PlanLabel[] {
  const places = clearPlaces(labels, taken, bounds);
  return labels.flatMap(({ key, words, className }, i) => {
    const place = places[i];
    return place ? [{ key, words, className, ...place }] : [];
  });
}

/** What no name may be written over: the arena's edge, the ruler, where the party starts, and signs. */
function signsOf(arena: Arena, plan: PlanScale): Box[] {
  const { x, y } = plan;
  const about = (at: { x: number; y: number }, out: number): Box => ({
    left: x(at.x) - out,
    right: x(at.x) + out,
    top: y(at.y) - out,
    bottom: y(at.y) + out,
  });
  const bar = scaleBar(arena, plan);
  const [left, right, top, bottom] = [x(-arena.width / 2), x(arena.width / 2), y(arena.depth / 2), y(-arena.depth / 2)];
  return [
    { left, right, top: top - 1, bottom: top + 1 },
    { left, right, top: bottom - 1, bottom: bottom + 1 },
    { left: left - 1, right: left + 1, top, bottom },
    { left: right - 1, right: right + 1, top, bottom },
    { left: bar.left, right: bar.right, top: bar.y - 16, bottom: bar.y + 3 },
    about(arena.partyStart, SIGN.partyStart),
    boxOf(PARTY_STARTS, partyStartsAt(arena, plan)),
    ...arena.spawnPoints.map((point) => about(point, SIGN.spawnPoint)),
    ...arena.points.map((point) => about(point, cornerOf(point, plan))),
  ];
}
