import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { type FightSketch, compiled, compiledTrusted, dummy, eventsOf, fought, unit } from '../../testing/builders';
import { casesOf } from '../../testing/cases';
import { CROSSING, blocked } from './lines';
import { run } from '../run';
import { Ground } from './ground';
import { evenly } from '../../testing/evenly';

type Loose = Record<string, unknown>;

const box = (id: string, x: number, y: number, width: number, depth: number, height = 3) => ({
  id,
  name: id,
  height,
  corners: [
    { x: x - width / 2, y: y - depth / 2 },
    { x: x + width / 2, y: y - depth / 2 },
    { x: x + width / 2, y: y + depth / 2 },
    { x: x - width / 2, y: y + depth / 2 },
  ],
});
const walled = (...walls: Loose[]): Partial<FightSketch> => ({ arena: { walls }, width: 40, depth: 40 });
const standing = (id: string, more: Loose = {}) => dummy(id, 1e5, more);

describe('a body in a wall', () => {
  // Four metres by four about the origin.
  const ground = new Ground(compiled({ party: [standing('a')], enemies: [], ...walled(box('block', 0, 0, 4, 4)) }));
  const out = (x: number, y: number): [number, number] => {
    ground.slide(0, x, y, x, y, 0.5);
    return [ground.x, ground.y];
  };

  test('is put out on the nearest side, with its edge on the wall: from within, from the very edge, from half outside', () => {
    for (const [x, y, toX, toY] of [
      [1.5, 0, 2.5, 0],
      [-1.5, 0.3, -2.5, 0.3],
      [0.2, 1.9, 0.2, 2.5],
      [0.2, -1.9, 0.2, -2.5],
      // Its middle exactly on an edge: straight out, on the outer side.
      [2, 1, 2.5, 1],
      [-2, 1, -2.5, 1],
      [1, 2, 1, 2.5],
      [1, -2, 1, -2.5],
      [2.2, 1, 2.5, 1],
    ]) {
      const [isX, isY] = out(x, y);
      expect([x, y, Number(isX.toFixed(9)), Number(isY.toFixed(9))]).toEqual([x, y, toX, toY]);
    }
  });
});

describe('lines', () => {
  const { walls } = compiled({
    party: [standing('a')],
    enemies: [{ unit: standing('b', { side: 'enemy' }) }],
    ...walled(box('planter', 5, 0, 2, 4, 1)),
  });

  test('a line is blocked where it passes below the wall’s height, and only there', () => {
    // From height 2 at x = 0 to height 0.8 at x = 12: at the planter's far edge (x = 6) it is 1.4 high: over it.
    expect(blocked(walls, 0, 0, 2, 12, 0, 0.8)).toBe(false);
    // To height 0 at x = 8: at x = 6 it is 0.5 high.
    expect(blocked(walls, 0, 0, 2, 8, 0, 0)).toBe(true);
    expect(CROSSING).toMatchObject({ wall: 0, at: 0.5 }); // met at x = 4
    expect(CROSSING.excess).toBeCloseTo(0.5, 12);
    expect(blocked(walls, 0, 2.01, 0.5, 12, 2.01, 0.5)).toBe(false); // past its side
    expect(blocked(walls, 0, 0, 0.5, 3.99, 0, 0.5)).toBe(false); // short of it
  });

  test('from either end it is the same', () => {
    const place = evenly(-10, 10);
    const height = evenly(0, 2);
    fc.assert(
      fc.property(place, place, height, place, place, height, (x0, y0, h0, x1, y1, h1) => {
        const there = blocked(walls, x0, y0, h0, x1, y1, h1);
        const margin = there ? CROSSING.excess : 1;
        if (margin > 1e-9) expect(blocked(walls, x1, y1, h1, x0, y0, h0)).toBe(there);
      }),
    );
  });

  const shooter = (delivery: string, muzzleHeight: number, needsLine = true) =>
    unit({
      id: 'gun',
      body: { height: 2, eyeHeight: 1.9, muzzleHeight },
      health: { max: 1e5 },
      attacks: [
        {
          id: 'bolt',
          delivery,
          needsLine,
          range: { min: 0, max: 30 },
          beat: { windup: 0.1, cooldown: 60 },
          effects: { damage: { amount: 1 } },
          ...(delivery === 'projectile' && { projectile: { speed: 20, radius: 0.05 } }),
        },
      ],
    });
  const cover = (height: number, gun: Loose) =>
    fought({
      party: [standing('warden', { body: { height: 1.6, eyeHeight: 1.5 } })],
      enemies: [{ unit: gun, x: 10 }],
      ...walled(box('planter', 5, 0, 1, 6, height)),
      limit: 2,
    });

  test.each(['hitscan', 'projectile'])('low cover stops a %s where it is higher than the line from muzzle to half height', (delivery) => {
    // From 1.2 at x = 10 to 0.8 at x = 0: at the planter's near edge to the target (x = 4.5) it is 0.98 high.
    expect(eventsOf(cover(0.95, shooter(delivery, 1.2)).log, 'hit')).toHaveLength(1);
    const stopped = cover(1.0, shooter(delivery, 1.2)).log;
    expect(eventsOf(stopped, 'start')).toEqual([]); // it knows that it has no line
    expect(eventsOf(stopped, 'doing').at(-1)?.what).toBe(16);
    const blind = cover(1.0, shooter(delivery, 1.2, false)).log;
    expect(eventsOf(blind, 'hit')).toEqual([]); // it shoots all the same, and the wall takes it
    expect(eventsOf(blind, 'miss')).toMatchObject([{ a: 5 }]);
  });

  test('a shot into a wall ends there, at its instant', () => {
    const { log } = cover(3, shooter('projectile', 1.2, false));
    // From the body's edge (10 − 0.4) to the wall's face (5.5): 4.1 m at 20 m/s after 0.1 s.
    expect(eventsOf(log, 'miss')[0].time).toBeCloseTo(0.1 + 4.1 / 20, 5);
  });
});

describe('ways around', () => {
  const chaser = (more: Loose = {}) =>
    unit({
      id: 'clipper',
      body: { radius: 0.4 },
      health: { max: 1e5 },
      movement: { walk: 5, run: 5 },
      attacks: [{ id: 'bite', range: { min: 0, max: 1 } }],
      states: [{ id: 's', name: 's', does: 'approach' }],
      ...more,
    });
  const end = (sketch: FightSketch, seed = 1) => {
    let gap = Infinity;
    run(compiled(sketch), seed, (fight) => (gap = Math.min(gap, fight.gap(0, 1))));
    return gap;
  };

  test.each([
    ['a long wall', [box('w', 5, 0, 1, 16)]],
    ['a pocket it stands in', [box('a', 5, 0, 1, 12), box('b', 8, 5.5, 7, 1), box('c', 8, -5.5, 7, 1)]],
    ['a doorway of one body and a bit', [box('n', 5, 10.6, 1, 20), box('s', 5, -10.6, 1, 20)]],
  ])('round %s', (_, walls) => {
    expect(end({ party: [standing('warden')], enemies: [{ unit: chaser(), x: 10 }], ...walled(...walls), limit: 20 })).toBeLessThanOrEqual(
      1,
    );
  });

  test('where there is no way it stays on its side, and the fight ends by its limit', () => {
    const walls = [box('w', 5, 0, 1, 40)];
    expect(end({ party: [standing('warden')], enemies: [{ unit: chaser(), x: 10 }], ...walled(...walls), limit: 10 })).toBeGreaterThan(4);
  });

  test('ground it may never enter is gone around; what it may only enter holds it', () => {
    const pond = [
      {
        id: 'pond',
        name: 'Pond',
        kind: 'water',
        corners: [
          { x: 3, y: -6 },
          { x: 7, y: -6 },
          { x: 7, y: 6 },
          { x: 3, y: 6 },
        ],
      },
    ];
    const track = (movement: Loose, x: number) => {
      const inside: boolean[] = [];
      run(
        compiled({
          party: [standing('warden')],
          enemies: [{ unit: chaser({ movement: { walk: 5, run: 5, ...movement } }), x }],
          arena: { ground: pond },
          width: 40,
          depth: 40,
          limit: 12,
        }),
        1,
        (fight) => inside.push(fight.x[1] > 3 && fight.x[1] < 7 && Math.abs(fight.y[1]) < 6),
      );
      return inside;
    };
    expect(track({ never: ['water'] }, 12).some(Boolean)).toBe(false);
    expect(track({}, 12).some(Boolean)).toBe(true);
    const road = [
      {
        id: 'road',
        name: 'Road',
        kind: 'road',
        corners: [
          { x: 0, y: -2 },
          { x: 9, y: -2 },
          { x: 9, y: 2 },
          { x: 0, y: 2 },
        ],
      },
    ];
    const free = compiled({
      party: [standing('warden')],
      enemies: [{ unit: chaser({ movement: { walk: 5, run: 5, only: ['water'] } }), x: 12 }],
      arena: { ground: [...road, ...pond] },
      width: 40,
      depth: 40,
      limit: 1,
    });
    expect(free.closed[free.kinds[1].ground]).toHaveLength(1); // the road; bare ground is of no kind
  });

  test('a wall thinner than a step is not passed through, at any speed', () => {
    for (const speed of [6, 30, 100]) {
      const walls = [box('w', 5, 0, 0.05, 40)];
      const fast = chaser({ movement: { walk: speed, run: speed } });
      expect(end({ party: [standing('warden')], enemies: [{ unit: fast, x: 10 }], ...walled(...walls), limit: 4 })).toBeGreaterThan(4);
    }
  });

  test('nobody who backs away stays in a corner', () => {
    const kiter = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e5 },
      movement: { walk: 6, run: 6 },
      attacks: [],
      states: [{ id: 's', name: 's', does: 'flee' }],
    });
    for (let seed = 1; seed <= 8; seed++) {
      const sketch: FightSketch = {
        party: [kiter],
        partyAt: { x: 7, y: 7 },
        enemies: [{ unit: chaser({ movement: { walk: 4, run: 4 } }), x: 0, scatter: 4 }],
        width: 20,
        depth: 20,
        limit: 25,
      };
      let cornered = 0;
      let longest = 0;
      run(compiled(sketch), seed, (fight) => {
        cornered = 10 - Math.abs(fight.x[0]) < 1 && 10 - Math.abs(fight.y[0]) < 1 && fight.gap(0, 1) < 1.2 ? cornered + 1 : 0;
        longest = Math.max(longest, cornered);
      });
      expect(longest).toBeLessThan(20); // less than a second
    }
  });

  test('spawns find a legal place in a crowded, walled disc, or it is reported', () => {
    const sketch: FightSketch = {
      party: [standing('warden')],
      enemies: [{ unit: chaser({ attacks: [], states: [] }), count: 12, x: 8, scatter: 2.5 }],
      ...walled(box('w', 8, 1, 1, 3)),
      limit: 0.5,
    };
    const tables = compiled(sketch);
    const ground = new Ground(tables);
    for (let seed = 0; seed < 20; seed++) {
      const { log } = run(tables, seed);
      const placed = eventsOf(log, 'spawn').slice(1);
      expect(placed.length + eventsOf(log, 'noPlace').length).toBe(12);
      placed.forEach((one, i) => {
        expect(ground.isFree(0, one.a, one.b, 0.4)).toBe(true);
        placed.slice(i + 1).forEach((other) => expect(Math.hypot(one.a - other.a, one.b - other.b)).toBeGreaterThanOrEqual(0.8 - 1e-9));
      });
    }
  });
});

test('sliding never ends in a wall or outside, whatever the walls and the push', () => {
  const shape = fc.record({
    x: fc.integer({ min: -8, max: 8 }),
    y: fc.integer({ min: -8, max: 8 }),
    w: fc.integer({ min: 1, max: 6 }),
    d: fc.integer({ min: 1, max: 6 }),
  });
  const place = evenly(-10, 10);
  fc.assert(
    fc.property(fc.array(shape, { maxLength: 6 }), place, place, place, place, evenly(0.1, 1.5), (shapes, x0, y0, x1, y1, radius) => {
      const walls = shapes.map(({ x, y, w, d }, i) => box(`w${i}`, x, y, w, d));
      const ground = new Ground(
        compiledTrusted({
          party: [standing('a')],
          enemies: [{ unit: standing('b', { side: 'enemy' }) }],
          arena: { walls },
          width: 20,
          depth: 20,
        }),
      );
      fc.pre(ground.isFree(0, x0, y0, radius));
      ground.slide(0, x0, y0, x1, y1, radius);
      expect(ground.isFree(0, ground.x, ground.y, radius * (1 - 1e-6))).toBe(true);
    }),
    { numRuns: casesOf(300) },
  );
});
