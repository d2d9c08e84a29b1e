/** Roaming and following: directions that are kept for a time, bands that are kept to a friend. */
import { describe, expect, test } from '@jest/globals';
import { SECOND } from '../../record/time';
import { compiled, dummy, type FightSketch, unit } from '../../testing/builders';
import type { Loose } from '../../testing/duels';
import { run } from '../run';

const STEPS = [0.1, 0.05, 0.01];
const still = { walk: 0, run: 0 };
const blind = { temper: { manner: 'passive' } };
/** Keeps nothing from its way: it leads nowhere near. */
const party = [dummy('warden', 100)];

interface Seen {
  time: number;
  x: number[];
  y: number[];
}

/** Where everybody is at each step. */
function watched(sketch: FightSketch, step = 0.05, seed = 1): Seen[] {
  const seen: Seen[] = [];
  run(compiled(sketch, step), seed, (fight, time) =>
    seen.push({ time: time / SECOND, x: Array.from(fight.x.slice(0, fight.count)), y: Array.from(fight.y.slice(0, fight.count)) }),
  );
  return seen;
}

const roamer = (roams: Loose, more: Loose = {}) =>
  unit({
    id: 'mite',
    ...blind,
    movement: { walk: 2, run: 2 },
    states: [{ id: 's', name: 's', does: 'wander', radius: 200, roams, ...more }],
  });

const alone = (enemy: Loose, more: Partial<FightSketch> = {}): FightSketch => ({
  party,
  partyAt: { x: -300, y: 0 },
  enemies: [{ unit: enemy, x: 50, y: 0, group: { alerted: false } }],
  limit: 20,
  ...more,
});

/** Its way in each whole second: where it went, m. */
function legs(seen: Seen[], seconds = 1): { dx: number; dy: number }[] {
  const at = seen.filter(({ time }) => Math.abs(time / seconds - Math.round(time / seconds)) < 1e-9);
  return at.slice(1).map(({ x, y }, i) => ({ dx: x[1] - at[i].x[1], dy: y[1] - at[i].y[1] }));
}

describe('a wanderer with directions', () => {
  test.each(STEPS)('keeps each for exactly its time, straight and at its pace, at a step of %s s', (step) => {
    const seen = watched(alone(roamer({ min: 1, max: 1 })), step);
    const each = legs(seen);
    expect(each).toHaveLength(19);
    for (const { dx, dy } of each) expect(Math.hypot(dx, dy)).toBeCloseTo(2, 9);
    // Halfway through a second it is halfway along: it has not turned within.
    const halves = legs(seen, 0.5);
    for (let i = 0; i + 1 < halves.length; i += 2) {
      expect(halves[i].dx).toBeCloseTo(halves[i + 1].dx, 9);
      expect(halves[i].dy).toBeCloseTo(halves[i + 1].dy, 9);
    }
  });

  test('draws them all round, and stands for the share of its times that is said', () => {
    const each = [1, 2, 3, 4, 5].flatMap((seed) =>
      legs(watched(alone(roamer({ min: 1, max: 1, stands: 0.25 }), { limit: 400, width: 1000, depth: 1000 }), 0.1, seed)),
    );
    const stood = each.filter(({ dx, dy }) => dx === 0 && dy === 0).length;
    // A quarter of 1,995: three standard errors are 58.
    expect(Math.abs(stood - each.length / 4)).toBeLessThan(58);
    const quarters = [0, 0, 0, 0];
    for (const { dx, dy } of each) if (dx !== 0 || dy !== 0) quarters[(dx < 0 ? 1 : 0) + (dy < 0 ? 2 : 0)]++;
    const expected = (each.length - stood) / 4;
    // Three degrees of freedom: 16.3 is exceeded once in a thousand.
    expect(quarters.reduce((sum, n) => sum + (n - expected) ** 2 / expected, 0)).toBeLessThan(16.3);
  });

  test('draws the time evenly where it is given from and to', () => {
    const seen = watched(alone(roamer({ min: 0.5, max: 1.5 }), { limit: 300, width: 1000, depth: 1000 }), 0.05);
    let turns = 0;
    for (let i = 2; i < seen.length; i++) {
      const [ax, ay] = [seen[i].x[1] - seen[i - 1].x[1], seen[i].y[1] - seen[i - 1].y[1]];
      const [bx, by] = [seen[i - 1].x[1] - seen[i - 2].x[1], seen[i - 1].y[1] - seen[i - 2].y[1]];
      if (Math.hypot(ax - bx, ay - by) > 1e-6) turns++;
    }
    // One each second on average, 300 of them; their standard deviation is 0.29 √300 = 5.
    expect(Math.abs(turns - 300)).toBeLessThan(16);
  });

  test('keeps within what it strays from home, and uses the room', () => {
    for (const seed of [1, 2, 3]) {
      const far = watched(alone(roamer({ min: 0.5, max: 2 }, { radius: 6 }), { limit: 120 }), 0.05, seed).map(({ x, y }) =>
        Math.hypot(x[1] - 50, y[1]),
      );
      expect(Math.max(...far)).toBeLessThanOrEqual(6 + 1e-9);
      expect(Math.max(...far)).toBeGreaterThan(5);
    }
  });

  test('or within a zone, to which it comes from outside; in another arena about its home', () => {
    const corners = [
      { x: 60, y: 10 },
      { x: 72, y: 10 },
      { x: 72, y: 16 },
      { x: 60, y: 16 },
    ];
    const zones = [{ id: 'bed', name: 'Bed', flag: 'f', corners }];
    const keeps = (arena: Loose) => watched(alone(roamer({ min: 0.5, max: 2, zone: 'bed' }, { radius: 3 }), { limit: 90, arena }));
    const within = keeps({ zones }).map(({ time, x, y }) => ({ time, in: x[1] > 60 && x[1] < 72 && y[1] > 10 && y[1] < 16 }));
    // From (50, 0) to the middle (66, 13) the edge y = 10 is met after 20.6 × 10 ÷ 13 = 15.9 m, at 2 m/s after 7.9 s.
    const first = within.find((one) => one.in)!.time;
    expect(first).toBeGreaterThan(7.8);
    expect(first).toBeLessThan(8.1);
    expect(within.filter(({ time }) => time > first).every((one) => one.in)).toBe(true);
    expect(keeps({}).every(({ x, y }) => Math.hypot(x[1] - 50, y[1]) <= 3 + 1e-9)).toBe(true);
  });

  test('slants aside where a wall is in its way, and goes on', () => {
    const wall = (id: string, x: number, y: number, w: number, d: number) => ({
      id,
      name: id,
      height: 3,
      corners: [
        { x, y },
        { x: x + w, y },
        { x: x + w, y: y + d },
        { x, y: y + d },
      ],
    });
    const arena = { walls: [wall('a', 44, -6, 1, 12), wall('b', 55, -6, 1, 12), wall('c', 44, 6, 12, 1), wall('d', 44, -7, 12, 1)] };
    const seen = watched(alone(roamer({ min: 2, max: 4 }), { limit: 120, arena, width: 200, depth: 100, partyAt: { x: -90, y: 0 } }));
    let longest = 0;
    let stands = 0;
    for (let i = 1; i < seen.length; i++) {
      stands = Math.hypot(seen[i].x[1] - seen[i - 1].x[1], seen[i].y[1] - seen[i - 1].y[1]) < 0.01 ? stands + 1 : 0;
      longest = Math.max(longest, stands);
      expect(seen[i].x[1]).toBeGreaterThan(45);
      expect(seen[i].x[1]).toBeLessThan(55);
    }
    expect(longest).toBeLessThan(20); // steps: less than a second
  });
});

describe('a follower', () => {
  const leader = (id: string, more: Loose = {}) => unit({ id, ...blind, movement: still, health: { max: 100 }, ...more });
  const follower = (more: Loose) =>
    unit({
      id: 'mite',
      ...blind,
      movement: { walk: 3, run: 3 },
      states: [{ id: 's', name: 's', does: 'follow', near: 3, far: 5, ...more }],
    });
  /** Edge to edge from the follower to others, at the end. */
  const gaps = (follows: Loose, others: { unit: Loose; x: number; y?: number }[], at: number, step = 0.05, limit = 20) => {
    const seen = watched(
      {
        party,
        partyAt: { x: -300, y: 0 },
        enemies: [...others, { unit: follows, x: at }].map((one) => ({ ...one, group: { alerted: false } })),
        limit,
      },
      step,
    );
    const { x, y } = seen[seen.length - 1];
    const own = others.length + 1;
    return others.map((_, i) => Math.hypot(x[i + 1] - x[own], y[i + 1] - y[own]) - 0.8);
  };

  test.each(STEPS)('settles at the edge of its band that it comes from, on open ground, at a step of %s s', (step) => {
    // From 40 m away it comes to 5 m, from touching it backs off to 3, and in between it stays where it is.
    expect(gaps(follower({}), [{ unit: leader('one'), x: 50 }], 90, step)[0]).toBeCloseTo(5, 6);
    expect(gaps(follower({}), [{ unit: leader('one'), x: 50 }], 50.9, step)[0]).toBeCloseTo(3, 6);
    expect(gaps(follower({}), [{ unit: leader('one'), x: 50 }], 54.8, step)[0]).toBeCloseTo(4, 9);
  });

  const two = [
    { unit: leader('near', { role: 'lamp' }), x: 50 },
    { unit: leader('far', { role: 'guard' }), x: 100 },
  ];

  test('follows the nearest friend where nobody is named, or the nearest of a unit or a role', () => {
    expect(gaps(follower({}), two, 60)[0]).toBeCloseTo(5, 6);
    expect(gaps(follower({ to: 'far' }), two, 60)[1]).toBeCloseTo(5, 6);
    expect(gaps(follower({ to: 'guard' }), two, 60)[1]).toBeCloseTo(5, 6);
    expect(gaps(follower({ to: 'nobody' }), two, 60)[0]).toBeCloseTo(60 - 50 - 0.8, 9); // it stays where it is
  });

  test('or whom its criteria pick among them', () => {
    const strong = [two[0], { ...two[1], unit: leader('far', { health: { max: 10 } }) }];
    const picks = (by: string, more: Loose = {}) => ({ picks: { criteria: [{ by, weight: 1, ...more }] } });
    expect(gaps(follower(picks('lowestHealth')), strong, 60)[1]).toBeCloseTo(5, 6);
    expect(gaps(follower(picks('role', { of: 'guard' })), two, 60)[1]).toBeCloseTo(5, 6);
    expect(
      gaps(follower({ picks: { criteria: [{ by: 'nearest', weight: 1 }], never: { roles: ['lamp'], units: [] } } }), two, 60)[1],
    ).toBeCloseTo(5, 6);
    expect(gaps(follower({ to: 'near', ...picks('lowestHealth') }), strong, 60)[0]).toBeCloseTo(5, 6);
  });

  test('stays with the one it has until another is better by its commitment', () => {
    // It goes from 5 m beside the one to the other only where that is nearer by the share: never, with a commitment of 1.
    const walker = leader('walker', {
      movement: { walk: 1, run: 1 },
      states: [{ id: 's', name: 's', does: 'wander', radius: 200, roams: { min: 600, max: 600 } }],
    });
    const follows = (commitment: number) =>
      gaps(
        follower({ picks: { criteria: [{ by: 'nearest', weight: 1 }], reconsider: 0.5, commitment } }),
        [
          { unit: walker, x: 52 },
          { unit: leader('post'), x: 40 },
        ],
        50,
        0.05,
        60,
      );
    expect(follows(1)[0]).toBeLessThan(5.2);
    expect(follows(0)[0]).toBeGreaterThan(20);
    expect(follows(0)[1]).toBeLessThan(20);
  });
});
