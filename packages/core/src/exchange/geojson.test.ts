import { describe, expect, test } from '@jest/globals';
import { sightFrom } from '../analysis/sight';
import { Arena } from '../model/arena';
import { blank } from '../model/blank';
import { parseProject } from '../model/validate';
import { demoProject } from '../testing/demo';
import { GeoJsonError, PLANE, arenaFromGeoJson, arenaToGeoJson } from './geojson';

describe('an arena as GeoJSON', () => {
  test.each(demoProject().arenas.map((arena) => [arena.name, arena] as const))('%s goes out and comes back the same', (_, arena) => {
    const text = JSON.stringify(arenaToGeoJson(arena));
    expect(JSON.parse(text).coordinates).toBe(PLANE);
    expect(arenaFromGeoJson(JSON.parse(text), { id: arena.id })).toEqual(arena);
  });

  test('rings are closed, and every feature says what it is', () => {
    const { features } = arenaToGeoJson(demoProject().arenas[1]);
    for (const { geometry, properties } of features) {
      expect(properties.kind).toMatch(/^(wall|ground|zone|point|spawn|partyStart)$/);
      if (geometry.type === 'Polygon') expect(geometry.coordinates[0][0]).toEqual(geometry.coordinates[0].at(-1));
    }
  });

  test('what somebody else has drawn is taken: polygons as walls, points as spawn points, as large as they reach; the project stays sound', () => {
    const square = [
      [
        [2, 2],
        [6, 2],
        [6, 4],
        [2, 4],
        [2, 2],
      ],
    ];
    const drawn = {
      type: 'FeatureCollection',
      features: [
        { type: 'Feature', geometry: { type: 'Polygon', coordinates: square }, properties: {} },
        { type: 'Feature', geometry: { type: 'Point', coordinates: [-9, 0] }, properties: { name: 'West door' } },
      ],
    };
    const arena = arenaFromGeoJson(drawn, { id: 'drawn', name: 'Drawn' });
    expect(arena).toMatchObject({
      width: 20,
      depth: 10,
      walls: [{ id: 'item', height: 3 }],
      spawnPoints: [{ id: 'west-door', name: 'West door', x: -9 }],
    });
    const project = demoProject();
    project.arenas.push(arena);
    parseProject(project);
  });

  test.each([
    [{}, 'FeatureCollection'],
    [
      { type: 'FeatureCollection', features: [{ type: 'Feature', geometry: { type: 'LineString', coordinates: [] }, properties: {} }] },
      'feature 1: its geometry must be a Polygon or a Point, not “LineString”',
    ],
    [
      { type: 'FeatureCollection', features: [{ type: 'Feature', geometry: { type: 'Point', coordinates: ['a', 1] }, properties: {} }] },
      'feature 1: a position must be two finite numbers: it is ["a",1]',
    ],
    [
      {
        type: 'FeatureCollection',
        features: [{ type: 'Feature', geometry: { type: 'Polygon', coordinates: [[[0, 0]]] }, properties: {} }],
      },
      'at least four positions',
    ],
    [
      {
        type: 'FeatureCollection',
        features: [{ type: 'Feature', geometry: { type: 'Point', coordinates: [0, 0] }, properties: { kind: 'tree' } }],
      },
      '“tree”',
    ],
  ])('what can’t be taken says where and why', (input, words) => {
    expect(() => arenaFromGeoJson(input, { id: 'x' })).toThrow(GeoJsonError);
    expect(() => arenaFromGeoJson(input, { id: 'x' })).toThrow(words);
  });
});

describe('what can be seen from a place', () => {
  const arena = (height: number): Arena => ({
    ...blank(Arena),
    id: 'a',
    name: 'a',
    walls: [
      {
        id: 'w',
        name: 'w',
        height,
        corners: [
          { x: 4, y: -2 },
          { x: 5, y: -2 },
          { x: 5, y: 2 },
          { x: 4, y: 2 },
        ],
      },
    ],
  });
  const ray = (height: number, eye = 1.6, number = 0, far = 12) => sightFrom(arena(height), 0, 0, eye, far, 0.9)[number].seen;

  test('a wall ends sight, the open does not, and the arena does', () => {
    expect(ray(3)).toEqual([[0, 4]]);
    const west = 120;
    expect(ray(3, 1.6, west)).toEqual([[0, 12]]);
    expect(ray(3, 1.6, west, 40)).toEqual([[0, 20]]);
  });

  test('low cover is looked over; what stands close behind it is hidden from the lower eye for longer', () => {
    expect(ray(0.5)).toEqual([[0, 12]]);
    // From 1.6 m to a place d away at 0.9 m the line is at 1.6 − 0.7 × 5 ÷ d over the far edge of a wall at 5 m: above 1 m from
    // d = 5.83 on; from an eye at 4 m, at 4 − 3.1 × 5 ÷ d, from 5.17 on.
    expect(ray(1)).toEqual([
      [0, 4],
      [6, 12],
    ]);
    expect(ray(1, 4)).toEqual([
      [0, 4],
      [5.25, 12],
    ]);
  });
});
