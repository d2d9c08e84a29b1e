import { describe, expect, test } from '@jest/globals';
import { compiledTrusted, dummy, eventsOf, unit } from '../../testing/builders';
import { type Loose, once } from '../../testing/duels';
import { compares, farEnough, inRange, inReach, squareInReach } from './reach';
import { run } from '../run';

const round = (value: number) => Math.round(value * 100) / 100;

test('a reach may be overstepped by a billionth of a metre, and a comparison must be passed by as much', () => {
  expect([inReach(1.2 + 2e-16, 1.2), inReach(1.2 + 9e-10, 1.2), inReach(1.2 + 2e-9, 1.2)]).toEqual([true, true, false]);
  expect([farEnough(2 - 9e-10, 2), farEnough(2 - 2e-9, 2)]).toEqual([true, false]);
  expect([inRange(2, 2, 2), inRange(1.9, 2, 3), inRange(3.1, 2, 3)]).toEqual([true, false, false]);
  expect([squareInReach(1.2 * 1.2 + 1e-15, 1.2), squareInReach(1.21 * 1.21, 1.2)]).toEqual([true, false]);
  expect([compares(0.3 - 1e-16, false, 0.3), compares(0.3 + 1e-16, true, 0.3)]).toEqual([false, false]); // equal up to rounding
  expect([compares(0.29, false, 0.3), compares(0.31, true, 0.3), compares(NaN, true, 0), compares(NaN, false, 0)]).toEqual([
    true,
    true,
    false,
    false,
  ]);
});

/** Radii, range and place on two decimals, so that the gap is exactly the range, on a grid of what designers type. */
function placements(): { radius: number; own: number; range: number; x: number; y: number }[] {
  const all: { radius: number; own: number; range: number; x: number; y: number }[] = [];
  for (let own = 20; own <= 90; own += 14)
    for (let radius = 25; radius <= 85; radius += 12)
      for (let range = 60; range <= 420; range += 24)
        for (const [x, y, whole] of [
          [1, 0, 1],
          [0, -1, 1],
          [0.6, 0.8, 1],
          [-0.28, 0.96, 1],
        ]) {
          const centres = (own + radius + range) / 100 / whole;
          all.push({ own: own / 100, radius: radius / 100, range: range / 100, x: centres * x, y: centres * y });
        }
  return all;
}

describe('what stands at exactly its reach is reached', () => {
  const kinds: [string, (range: number) => Loose][] = [
    ['melee', (max) => ({ delivery: 'melee', arc: 360, range: { min: 0, max } })],
    ['instant line', (max) => ({ delivery: 'hitscan', range: { min: 0, max } })],
    ['least distance', (min) => ({ delivery: 'hitscan', range: { min, max: 30 } })],
    ['area about itself', (max) => ({ delivery: 'area', range: { min: 0, max }, area: { about: 'self', radius: 30 } })],
  ];
  test.each(kinds)('%s: at every placement on two decimals', (_, attack) => {
    const missed: unknown[] = [];
    for (const [i, { own, radius, range, x, y }] of placements().entries()) {
      if (i % kinds.length !== kinds.findIndex(([, one]) => one === attack)) continue; // a quarter for each
      const biter = unit({
        id: 'clipper',
        body: { radius: own },
        attacks: [once('bite', { ...attack(range), effects: { damage: { amount: 1 } } })],
      });
      const tables = compiledTrusted({
        party: [dummy('warden', 100, { body: { radius } })],
        enemies: [{ unit: biter, x: round(x), y: round(y) }],
        limit: 0.3,
      });
      // Only placements whose coordinates fall on two decimals are at exactly the range.
      if (Math.abs(round(x) - x) + Math.abs(round(y) - y) > 1e-9) continue;
      if (eventsOf(run(tables, 1).log, 'hit').length === 0) missed.push({ own, radius, range, x, y });
    }
    expect(missed).toEqual([]);
  });

  test('the edge of an area, touch, a friend to help, sight: the same', () => {
    const at = { partyAt: { x: 0, y: 0 }, limit: 0.3 };
    const hits = (attack: Loose, x: number, more: Loose = {}) =>
      eventsOf(
        run(
          compiledTrusted({
            ...at,
            party: [dummy('warden', 100, { body: { radius: 0.4 } })],
            enemies: [{ unit: unit({ id: 'clipper', body: { radius: 0.5 }, attacks: [attack], ...more }), x }],
          }),
          1,
        ).log,
        'hit',
      ).length;
    const damage = { effects: { damage: { amount: 1 } } };
    // 1.7 − 0.4 = 1.2999999999999998; 2.1 − 0.5 − 0.4 = 1.2000000000000002
    expect(hits(once('burst', { ...damage, delivery: 'area', area: { about: 'self', radius: 1.7 } }), 2.1)).toBe(1);
    expect(hits(once('touch', { ...damage, delivery: 'contact', range: { min: 0, max: 1.2 } }), 2.1, { choice: { priorities: [] } })).toBe(
      1,
    ); // touch is not chosen
    const seen = (sight: number, x: number) =>
      eventsOf(
        run(
          compiledTrusted({
            ...at,
            party: [dummy('warden', 100)],
            enemies: [
              {
                unit: unit({ id: 'clipper', senses: { sight, lose: 40 } }),
                x,
                y: 0.1,
                group: { alerted: false },
              },
            ],
          }),
          1,
        ).log,
        'notice',
      ).filter(({ actor }) => actor === 1).length;
    for (let i = 10; i < 60; i++) {
      const x = i / 10;
      expect([i, seen(Math.sqrt(x * x + 0.1 * 0.1), x)]).toEqual([i, 1]);
    }
  });
});

test('an approach whose stop is its range always strikes, wherever it comes from', () => {
  const silent: unknown[] = [];
  for (let radius = 30; radius <= 80; radius += 10)
    for (let range = 70; range <= 190; range += 30)
      for (const [x, y] of [
        [9.3, 0],
        [7.1, 3.7],
        [-6.2, 5.9],
        [0.3, -8.8],
      ]) {
        const walker = unit({
          id: 'clipper',
          body: { radius: radius / 100 },
          movement: { walk: 3.3, run: 6.1 },
          states: [{ id: 'close', name: 'Close', does: 'approach', stopAt: range / 100 }],
          attacks: [once('bite', { delivery: 'melee', arc: 360, range: { min: 0, max: range / 100 }, effects: { damage: { amount: 1 } } })],
        });
        const tables = compiledTrusted({
          party: [dummy('warden', 100, { body: { radius: 0.4 } })],
          enemies: [{ unit: walker, x, y }],
          limit: 5,
        });
        if (eventsOf(run(tables, 1).log, 'hit').length === 0) silent.push({ radius, range, x, y });
      }
  expect(silent).toEqual([]);
});
