import { describe, expect, test } from '@jest/globals';
import { compiled, dummy, eventsOf, fought, unit } from '../../testing/builders';
import { run } from '../run';
import { group, reaper, seedling, stage } from '../../testing/wave-stage';

type Loose = Record<string, unknown>;

describe('where they appear', () => {
  const points = (rule: string, more: Loose = {}) =>
    fought(
      stage({
        party: [reaper({ attacks: [] })],
        enemies: [
          { unit: seedling(), x: 20 },
          { unit: seedling('b'), x: -60 },
          { unit: seedling('c'), x: 5 },
        ],
        wave: { groups: [{ ...group('g', 'seedling', 3), at: ['p0', 'p1', 'p2'], rule, ...more }] },
        limit: 0.5,
      }),
    );
  const xs = (rule: string, more?: Loose) =>
    eventsOf(points(rule, more).log, 'spawn')
      .slice(1)
      .map(({ a }) => Math.round(a / 5) * 5);

  test('in turn, at each, nearest, farthest; not too near the party', () => {
    expect(xs('inTurn')).toEqual([20, -60, 5]);
    expect(xs('each')).toHaveLength(9);
    expect(new Set(xs('nearest'))).toEqual(new Set([5]));
    expect(new Set(xs('farthest'))).toEqual(new Set([-60]));
    expect(new Set(xs('nearest', { leastDistance: 10 }))).toEqual(new Set([20]));
  });

  test('of points as near as one another the first that the group lists', () => {
    const first = (rule: string) => {
      const { log } = fought(
        stage({
          party: [reaper({ attacks: [] })],
          enemies: [12, -12].map((x, i) => ({ unit: seedling(`s${i}`), x })),
          wave: { groups: [{ ...group('g', 's0', 1), at: ['p1', 'p0'], rule }] },
          limit: 0.5,
        }),
      );
      return eventsOf(log, 'spawn')[1].a;
    };
    expect([first('nearest'), first('farthest')]).toEqual([-12, -12]);
  });

  test('drawn: every point has its turn over many seeds', () => {
    const seen = new Set<number>();
    const tables = compiled(
      stage({
        party: [reaper({ attacks: [] })],
        enemies: [20, -60, 5].map((x, i) => ({ unit: seedling(`s${i}`), x })),
        wave: { groups: [{ ...group('g', 's0', 1), at: ['p0', 'p1', 'p2'], rule: 'random' }] },
        limit: 0.5,
      }),
    );
    for (let seed = 0; seed < 40; seed++) seen.add(eventsOf(run(tables, seed).log, 'spawn')[1].a);
    expect(seen).toEqual(new Set([20, -60, 5]));
  });

  test('out of view: behind the party where it looks ahead', () => {
    const seen = fought(
      stage({
        party: [reaper({ attacks: [], senses: { sight: 200, angle: 120 } })],
        enemies: [
          { unit: seedling(), x: 20 },
          { unit: seedling('b'), x: -20 },
        ],
        wave: { groups: [{ ...group('g', 'seedling', 2), at: ['p0', 'p1'], outOfView: true }] },
        limit: 0.5,
      }),
    );
    expect(
      eventsOf(seen.log, 'spawn')
        .slice(1)
        .every(({ a }) => a < 0),
    ).toBe(true);
  });

  test('whoever strays too far from the party leaves the fight', () => {
    const runner = seedling('seedling', { movement: { run: 8, walk: 8 }, states: [{ id: 's', name: 's', does: 'flee' }] });
    const { log, outcome } = fought(
      stage({ party: [reaper({ attacks: [] })], enemies: [{ unit: runner, x: 5, group: { leavesBeyond: 30 } }] }),
    );
    expect(eventsOf(log, 'gone')).toHaveLength(1);
    expect(outcome).toBe('cleared');
  });

  test('a trait of a share of a group is drawn for each by its chance and carries its tweaks', () => {
    const tables = compiled(
      stage({
        party: [reaper({ attacks: [] })],
        enemies: [
          {
            unit: seedling(),
            count: 40,
            x: 30,
            scatter: 25,
            group: { traits: [{ trait: 'stout', share: 0.25 }] },
          },
        ],
        traits: [{ id: 'stout', name: 'Stout', tweaks: [{ path: '/health/max', op: '×', value: 3 }] }],
        limit: 0.2,
      }),
    );
    let stout = 0;
    for (let seed = 0; seed < 25; seed++) {
      const { kinds, units } = run(tables, seed);
      for (let one = 1; one < units; one++) if (tables.kinds[kinds[one]].maxHealth === 30) stout++;
    }
    expect(stout / 1000).toBeCloseTo(0.25, 1);
  });

  test('a forced target is gone for, though another is nearer', () => {
    const { log } = fought({
      party: [dummy('warden', 100), dummy('tender', 100, { role: 'mender' })],
      partyAt: { x: 0, y: 0, facing: 0 },
      enemies: [
        { unit: unit({ id: 'clipper', attacks: [{ id: 'bite', range: { min: 0, max: 50 } }] }), x: 0, y: -9, group: { target: 'mender' } },
      ],
      limit: 2,
    });
    expect(eventsOf(log, 'start').every(({ other }) => other === 1)).toBe(true);
  });
});

describe('who stands where at first', () => {
  const eight = ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'].map((id) => dummy(id, 100));
  const post = { id: 'post', name: 'Post', x: 30, y: -7 };

  test('a party of eight stands in line; who is given a point stands there, the others close up', () => {
    const places = (party: Loose[]) =>
      eventsOf(
        fought(
          stage({
            party: eight,
            partyAt: { x: 0, y: 0, facing: 0 },
            enemies: [{ unit: seedling('seedling', { temper: { manner: 'passive' } }), x: 100 }],
            arena: { points: [post] },
            encounter: { party },
            limit: 0.2,
          }),
        ).log,
        'spawn',
      )
        .slice(0, 8)
        .map(({ a, b }) => [a, Number(b.toFixed(9))]);
    const members = eight.map(({ id }, i) => ({ id: `m${i}`, unit: id }));
    // Radii of 0.4 and 0.4 between edges: 1.2 m from middle to middle, eight of them about the start.
    expect(places(members)).toEqual(eight.map((_, i) => [0, Number((-4.2 + 1.2 * i).toFixed(9))]));
    const one = members.map((member, i) => (i === 2 ? { ...member, at: 'post' } : member));
    expect(places(one)).toEqual(
      [0, 1, 2, 3, 4, 5, 6, 7].map((i) => (i === 2 ? [30, -7] : [0, Number((-3.6 + 1.2 * (i > 2 ? i - 1 : i)).toFixed(9)) + 0])),
    );
  });

  test('a ninth member is refused, and a point that is not there', () => {
    const nine = [...eight, dummy('i', 100)];
    expect(() => compiled(stage({ party: nine }))).toThrow('party');
    expect(() => compiled(stage({ encounter: { party: [{ id: 'm0', unit: 'warden', at: 'nowhere' }] } }))).toThrow(
      'must be a point of the arena',
    );
  });
});
