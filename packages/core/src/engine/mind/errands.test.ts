import { describe, expect, test } from '@jest/globals';
import { eventsOf, fought, unit } from '../../testing/builders';
import { type Loose, bite, standing, enemy, places } from '../../testing/duels';

describe('leash and errands', () => {
  const hound = (leash: Loose, more: Loose = {}) =>
    enemy([bite({ range: { min: 0, max: 1 } })], {
      movement: { walk: 2, run: 6 },
      leash: { radius: 8, ...leash },
      states: [{ id: 'hunt', name: 'hunt', does: 'approach' }],
      ...more,
    });
  const prey = unit({
    id: 'warden',
    side: 'party',
    health: { max: 1e5 },
    movement: { walk: 5, run: 5 },
    attacks: [],
    states: [{ id: 's', name: 's', does: 'flee' }],
  });

  test('beyond its leash it goes home, heals if set, and hunts again from there', () => {
    const { log } = fought({ party: [prey], enemies: [{ unit: hound({}), x: 6 }], limit: 12 });
    const [turned] = eventsOf(log, 'leash');
    const [home] = eventsOf(log, 'home');
    expect(turned.a).toBeGreaterThan(8);
    expect(turned.a).toBeLessThan(8.4);
    expect(home.time).toBeGreaterThan(turned.time + 1);
    expect(eventsOf(log, 'heal').filter(({ actor }) => actor === 1)).toHaveLength(eventsOf(log, 'home').length);
    expect(eventsOf(fought({ party: [prey], enemies: [{ unit: hound({ heals: false }), x: 6 }], limit: 12 }).log, 'heal')).toEqual([]);
  });

  test('gone for good where set; and then the wave is over', () => {
    const { log, outcome } = fought({ party: [prey], enemies: [{ unit: hound({ gone: true }), x: 6 }], limit: 30 });
    expect(eventsOf(log, 'gone')).toMatchObject([{ actor: 1, what: 0 }]);
    expect(outcome).toBe('cleared');
  });

  test('on the way home it may be hurt, or not; it may answer, or not', () => {
    const shooter = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e5 },
      movement: { walk: 5, run: 5 },
      states: [{ id: 's', name: 's', does: 'flee' }],
      attacks: [bite({ range: { min: 0, max: 90 }, beat: { windup: 0, cooldown: 0.5, moving: 'free' } })],
    });
    const homing = (leash: Loose) => {
      const { log } = fought({ party: [shooter], enemies: [{ unit: hound({ heals: false, ...leash }), x: 6 }], limit: 8 });
      const [turned] = eventsOf(log, 'leash');
      const [home] = [...eventsOf(log, 'home'), { time: Infinity }];
      const between = (time: number) => time > turned.time && time < home.time;
      return {
        hits: eventsOf(log, 'hit').filter(({ time }) => between(time)).length,
        blocked: eventsOf(log, 'blocked').length,
        turns: eventsOf(log, 'leash').length,
      };
    };
    expect(homing({}).hits).toBeGreaterThan(0);
    expect(homing({ ignoresDamage: true })).toMatchObject({ hits: 0, blocked: expect.any(Number) });
    expect(homing({ ignoresDamage: true }).blocked).toBeGreaterThan(0);
    expect(homing({ answersAttack: true }).turns).toBeGreaterThan(homing({}).turns);
  });

  test('a patrol goes from point to point about its home, rests and looks as told, and back again', () => {
    const patrol = {
      points: [
        { id: 'a', x: 0, y: 0 },
        { id: 'b', x: 6, y: 0, pause: 1, facing: 90 },
        { id: 'c', x: 6, y: 6 },
      ],
      order: 'backAndForth',
      startAt: 1,
    };
    const guard = enemy([], {
      movement: { walk: 3, run: 3 },
      temper: { manner: 'passive' },
      states: [{ id: 'beat', name: 'beat', does: 'patrol', pace: 'walk', patrol }],
    });
    const seen = places({ party: [standing('warden')], enemies: [{ unit: guard, x: 10, y: 10, group: { alerted: false } }], limit: 12 }, 1);
    const at = (time: number) => seen.find((one) => Math.abs(one.time - time) < 1e-6)!;
    expect([at(1).x, at(1).y]).toEqual([expect.closeTo(13, 1), expect.closeTo(10, 6)]);
    expect(Math.hypot(at(2.5).x - 16, at(2.5).y - 10)).toBeLessThan(0.15); // it rests
    expect(Math.hypot(at(5).x - 16, at(5).y - 16)).toBeLessThan(0.6);
    expect(at(8).y).toBeLessThan(14); // on its way back
  });

  test('on its way it ignores foes, strikes whoever is in reach, or leaves it to fight, as set', () => {
    const walker = (onTheWay: string) =>
      enemy([bite({ range: { min: 0, max: 4 } })], {
        movement: { walk: 3, run: 3 },
        states: [{ id: 's', name: 's', does: 'goTo', to: 'gate', onTheWay }],
      });
    const going = (onTheWay: string) => {
      const sketch = {
        party: [standing('warden')],
        enemies: [{ unit: walker(onTheWay), x: 12, y: 3 }],
        arena: { points: [{ id: 'gate', name: 'gate', x: -12, y: 3 }] },
        width: 60,
        depth: 60,
        limit: 10,
      };
      const seen = places(sketch, 1);
      return { attacks: eventsOf(fought(sketch).log, 'start').length, x: Math.round(seen[seen.length - 1].x) };
    };
    expect(going('ignore')).toEqual({ attacks: 0, x: -12 });
    expect(going('clear')).toMatchObject({ x: -12 });
    expect(going('clear').attacks).toBeGreaterThan(0);
    expect(going('engage').x).toBeGreaterThan(0);
  });

  test('it wanders within its radius, follows a friend, circles at its band', () => {
    const about = enemy([], {
      movement: { walk: 3, run: 3 },
      temper: { manner: 'passive' },
      states: [{ id: 's', name: 's', does: 'wander', radius: 5 }],
    });
    const wandered = places({ party: [standing('warden')], enemies: [{ unit: about, x: 20, group: { alerted: false } }], limit: 30 }, 1);
    expect(Math.max(...wandered.map(({ x, y }) => Math.hypot(x - 20, y)))).toBeLessThanOrEqual(5.01);
    expect(new Set(wandered.map(({ x }) => Math.round(x))).size).toBeGreaterThan(3);
    const leader = enemy([], {
      id: 'leader',
      name: 'leader',
      movement: { walk: 2, run: 2 },
      states: [{ id: 's', name: 's', does: 'flee' }],
    });
    const follower = enemy([], {
      id: 'follower',
      name: 'follower',
      movement: { walk: 4, run: 4 },
      states: [{ id: 's', name: 's', does: 'follow', to: 'leader', far: 2 }],
    });
    const followed = places(
      {
        party: [standing('warden')],
        enemies: [
          { unit: leader, x: 10 },
          { unit: follower, x: 30 },
        ],
        limit: 15,
      },
      2,
    );
    const end = followed[followed.length - 1];
    expect(end.fight.gap(1, 2)).toBeLessThanOrEqual(2.3);
    const circler = enemy([], { movement: { walk: 3, run: 3 }, states: [{ id: 's', name: 's', does: 'strafe', near: 5, far: 7 }] });
    const circled = places({ party: [standing('warden')], enemies: [{ unit: circler, x: 7 }], limit: 20 }, 1);
    for (const { x, y } of circled) expect(Math.hypot(x, y)).toBeGreaterThan(5);
    for (const { x, y } of circled) expect(Math.hypot(x, y)).toBeLessThan(8.2);
    expect(new Set(circled.map(({ x, y }) => `${x > 0} ${y > 0}`)).size).toBe(4);
  });
});
