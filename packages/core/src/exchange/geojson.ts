/**
 * An arena as GeoJSON (RFC 7946 objects in plane coordinates): metres from the middle of the arena, x to the east, y to the
 * north. Every feature says by `kind` what it is; what a feature needs beside its place stands in its properties.
 */
import { Arena, type Corner } from '../model/arena';
import { blank } from '../model/blank';
import { idFor } from '../model/new-ids';

export const PLANE = 'plane; metres from the middle of the arena, x to the east, y to the north';

interface Feature {
  type: 'Feature';
  id?: string;
  geometry: { type: 'Polygon'; coordinates: number[][][] } | { type: 'Point'; coordinates: number[] };
  properties: Record<string, unknown>;
}

export interface ArenaFeatures {
  type: 'FeatureCollection';
  /** Not longitude and latitude. */
  coordinates: string;
  name: string;
  width: number;
  depth: number;
  grid: number;
  notes?: string;
  features: Feature[];
}

const POLYGONS = { wall: 'walls', ground: 'ground', zone: 'zones' } as const;
const PLACES = { point: 'points', spawn: 'spawnPoints' } as const;

export function arenaToGeoJson(arena: Arena): ArenaFeatures {
  const polygons = (Object.keys(POLYGONS) as (keyof typeof POLYGONS)[]).flatMap((kind) =>
    (arena[POLYGONS[kind]] as unknown as ({ id: string; corners: Corner[] } & Record<string, unknown>)[]).map(
      ({ id, corners, ...properties }): Feature => {
        const ring = corners.map(({ x, y }) => [x, y]);
        return {
          type: 'Feature',
          id,
          geometry: { type: 'Polygon', coordinates: [[...ring, ring[0]]] },
          properties: { kind, ...properties },
        };
      },
    ),
  );
  const places = (Object.keys(PLACES) as (keyof typeof PLACES)[]).flatMap((kind) =>
    (arena[PLACES[kind]] as unknown as ({ id: string; x: number; y: number } & Record<string, unknown>)[]).map(
      ({ id, x, y, ...properties }): Feature => ({
        type: 'Feature',
        id,
        geometry: { type: 'Point', coordinates: [x, y] },
        properties: { kind, ...properties },
      }),
    ),
  );
  const { x, y, facing } = arena.partyStart;
  return {
    type: 'FeatureCollection',
    coordinates: PLANE,
    name: arena.name,
    width: arena.width,
    depth: arena.depth,
    grid: arena.grid,
    ...(arena.notes !== undefined && { notes: arena.notes }),
    features: [
      ...polygons,
      ...places,
      { type: 'Feature', geometry: { type: 'Point', coordinates: [x, y] }, properties: { kind: 'partyStart', facing } },
    ],
  };
}

/** Says what can't be taken, and where. */
export class GeoJsonError extends Error {}

/**
 * An arena from GeoJSON. Where the collection does not say its size, the arena is as large as what it holds, and a metre more.
 * Only shapes are looked at here: the project's own rules judge the rest.
 * @throws GeoJsonError
 */
export function arenaFromGeoJson(input: unknown, as: { id: string; name?: string }): Arena {
  const collection = input as Partial<ArenaFeatures> | null;
  if (
    typeof collection !== 'object' ||
    collection === null ||
    collection.type !== 'FeatureCollection' ||
    !Array.isArray(collection.features)
  )
    throw new GeoJsonError('it must be a GeoJSON FeatureCollection');
  const arena: Arena = {
    ...blank(Arena),
    id: as.id,
    name: as.name ?? (typeof collection.name === 'string' && collection.name ? collection.name : as.id),
  };
  const taken = new Set<string>();
  let [far, high] = [1, 1];
  const reach = ({ x, y }: Corner) => {
    far = Math.max(far, Math.abs(x));
    high = Math.max(high, Math.abs(y));
  };
  collection.features.forEach((feature, i) => {
    const { kind, ...properties } = (feature?.properties ?? {}) as Record<string, unknown>;
    const at = `feature ${i + 1}`;
    const { geometry } = feature ?? {};
    const id = idFor(String(feature?.id ?? properties.name ?? kind ?? 'item'), taken);
    if (geometry?.type === 'Polygon') {
      const list = POLYGONS[(kind ?? 'wall') as keyof typeof POLYGONS];
      if (!list) throw new GeoJsonError(`${at}: a polygon is a wall, ground or zone, not “${String(kind)}”`);
      const ring = geometry.coordinates?.[0];
      if (!Array.isArray(ring) || ring.length < 4)
        throw new GeoJsonError(`${at}: a polygon needs a ring of at least four positions, the last like the first`);
      const corners = ring.slice(0, -1).map((position) => cornerOf(position, at));
      corners.forEach(reach);
      taken.add(id);
      (arena[list] as unknown[]).push({ ...DEFAULTS[list], name: id, ...properties, id, corners });
    } else if (geometry?.type === 'Point') {
      const place = cornerOf(geometry.coordinates, at);
      reach(place);
      if (kind === 'partyStart') {
        arena.partyStart = { ...place, facing: Number(properties.facing ?? 0) };
        return;
      }
      const list = PLACES[(kind ?? 'spawn') as keyof typeof PLACES];
      if (!list) throw new GeoJsonError(`${at}: a place is a point, spawn or partyStart, not “${String(kind)}”`);
      taken.add(id);
      (arena[list] as unknown[]).push({ ...DEFAULTS[list], name: id, ...properties, id, ...place });
    } else
      throw new GeoJsonError(
        `${at}: its geometry must be a Polygon or a Point, not “${String((geometry as { type?: unknown } | undefined)?.type)}”`,
      );
  });
  arena.width = number(collection.width) ?? Math.ceil(2 * far + 2);
  arena.depth = number(collection.depth) ?? Math.ceil(2 * high + 2);
  arena.grid = number(collection.grid) ?? arena.grid;
  if (typeof collection.notes === 'string') arena.notes = collection.notes;
  return arena;
}

const DEFAULTS: Record<string, object> = {
  walls: { height: 3 },
  ground: { kind: '' },
  zones: { by: 'party', flag: 'entered' },
  points: { radius: 0.5, height: 1 },
  spawnPoints: { scatter: 0, facing: 0 },
};

const number = (value: unknown) => (typeof value === 'number' && Number.isFinite(value) ? value : undefined);

function cornerOf(position: unknown, at: string): Corner {
  const [x, y] = Array.isArray(position) ? (position as unknown[]) : [];
  if (number(x) === undefined || number(y) === undefined)
    throw new GeoJsonError(`${at}: a position must be two finite numbers: it is ${JSON.stringify(position)}`);
  return { x: x as number, y: y as number };
}
