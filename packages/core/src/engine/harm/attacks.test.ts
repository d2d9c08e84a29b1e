import { describe, expect, test } from '@jest/globals';
import { type FightSketch, compiled, dummy, eventsOf, fought, unit } from '../../testing/builders';
import { type Loose, bite, standing, enemy, duel, startsOf } from '../../testing/duels';
import { DOING } from '../../record/doing';
import { run } from '../run';

describe('attacks', () => {
  test('a combo follows within its window, before any other choice and without a pause', () => {
    const three = [
      bite({ id: 'one', beat: { windup: 0.2, recovery: 0.1, cooldown: 5 }, next: { attack: 'two', window: 0.5 } }),
      bite({ id: 'two', weight: 0, beat: { windup: 0.1, recovery: 0.1, cooldown: 0.1 }, next: { attack: 'three', window: 0.5 } }),
      bite({ id: 'three', weight: 0, beat: { windup: 0.3, recovery: 0.4, cooldown: 0.1 } }),
    ];
    const found = startsOf(
      duel(enemy(three, { choice: { priorities: [{ entries: [{ attack: 'one' }] }], pause: { min: 1, max: 1 } } }), { limit: 9.9 }),
    );
    expect(found).toEqual([
      [0, 0],
      [0.3, 1],
      [0.5, 2],
      [5, 0],
      [5.3, 1],
      [5.5, 2],
    ]);
  });

  test('charges are used up and grow back one after another', () => {
    const found = startsOf(duel(enemy([bite({ beat: { cooldown: 0.5 }, charges: { count: 2, reload: 3 } })])));
    // Two at once, then one each 3 s from the first use on.
    expect(found.map(([time]) => time)).toEqual([0, 0.5, 3, 6, 9]);
  });

  test('slots: no more under way than the pool holds; the next begins at the instant one is freed', () => {
    const slow = enemy([bite({ beat: { windup: 0.5, recovery: 0.5, cooldown: 1.2 }, slot: { pool: 'close', takes: 1 } })]);
    const sketch = duel(slow, { enemies: [{ unit: slow, count: 3, x: 5, scatter: 3 }], encounter: { slots: [{ id: 'close', size: 2 }] } });
    let most = 0;
    const { log } = run(
      compiled(sketch),
      1,
      (fight) => (most = Math.max(most, fight.alive.filter((one) => fight.phase[one] !== 0).length)),
    );
    expect(most).toBe(2);
    const begun = eventsOf(log, 'start').map(({ time }) => time);
    expect(begun.slice(0, 3)).toEqual([0, 0, 1]);
    expect(eventsOf(log, 'doing').some(({ what }) => what === DOING.slot)).toBe(true);
  });

  test('slots of each target apart, and a gap between starts', () => {
    const gun = enemy([bite({ beat: { cooldown: 0.2 }, slot: { pool: 'close', takes: 1 } })]);
    const found = eventsOf(
      fought(
        duel(gun, {
          enemies: [{ unit: gun, count: 2, x: 5, scatter: 3 }],
          encounter: { slots: [{ id: 'close', size: 9, gap: 0.3 }] },
          limit: 2,
        }),
      ).log,
      'start',
    ).map(({ time }) => time);
    for (let i = 1; i < found.length; i++) expect(found[i] - found[i - 1]).toBeGreaterThanOrEqual(0.3 - 1e-9);
    expect(found.length).toBe(7); // 0, 0.3 … 1.8
  });

  test('an area strikes all within it, a cone those ahead, a mark where its target was', () => {
    const ring = { party: [standing('a'), standing('b'), standing('c')], partyAt: { x: 0, y: 0, facing: 0 } };
    const hit = (area: Loose, x = 4) => {
      const mine = enemy([
        {
          id: 'burst',
          delivery: 'area',
          area,
          range: { min: 0, max: 30 },
          arc: 360,
          beat: { windup: 0.2, cooldown: 60 },
          effects: { damage: { amount: 1 } },
        },
      ]);
      return eventsOf(fought({ ...ring, enemies: [{ unit: mine, x }], limit: 3 }).log, 'hit')
        .map(({ other }) => other)
        .sort();
    };
    // Members stand at y = −1.2, 0 and 1.2 with radius 0.4; the enemy at (4, 0).
    expect(hit({ about: 'self', radius: 3.6 })).toEqual([1]);
    expect(hit({ about: 'self', radius: 3.8 })).toEqual([0, 1, 2]);
    expect(hit({ about: 'self', radius: 3.8, angle: 20 })).toEqual([1]);
    expect(hit({ about: 'target', radius: 0.5 })).toEqual([1]);
    expect(hit({ about: 'mark', radius: 1, delay: 0.5 })).toEqual([0, 1, 2]);
  });

  test('a marked area bursts at the mark: who has walked out of it is safe', () => {
    const walker = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e4 },
      movement: { run: 4, walk: 4 },
      attacks: [],
      states: [{ id: 's', name: 's', does: 'flee' }],
    });
    const mortar = (tracking: string, delay: number) =>
      enemy([
        {
          id: 'burst',
          delivery: 'area',
          area: { about: 'mark', radius: 1, delay },
          range: { min: 0, max: 60 },
          beat: { windup: 0.5, cooldown: 60, tracking },
          effects: { damage: { amount: 1 } },
        },
      ]);
    const hits = (tracking: string, delay: number) =>
      eventsOf(fought(duel(mortar(tracking, delay), { party: [walker], limit: 4 })).log, 'hit').length;
    expect([hits('turns', 0), hits('turns', 0.2), hits('turns', 0.6), hits('fixed', 0)]).toEqual([1, 1, 0, 0]);
  });

  test('contact hurts whoever touches, again after its cooldown, to the instant', () => {
    const spiky = unit({
      id: 'clipper',
      health: { max: 1e5 },
      choice: { priorities: [] },
      attacks: [
        { id: 'thorns', delivery: 'contact', range: { min: 0, max: 0.05 }, beat: { cooldown: 0.33 }, effects: { damage: { amount: 2 } } },
      ],
    });
    const touching = fought(duel(spiky, { enemies: [{ unit: spiky, x: 0.8 }], limit: 2 }));
    expect(eventsOf(touching.log, 'hit').map(({ time }) => time)).toEqual([0, 0.33, 0.66, 0.99, 1.32, 1.65, 1.98]);
    expect(eventsOf(fought(duel(spiky, { limit: 2 })).log, 'hit')).toEqual([]);
  });

  test('a shot that pierces goes through as many as it may; one that homes turns after its target', () => {
    const line = { party: [standing('a')], enemies: [] as FightSketch['enemies'] };
    const gun = (projectile: Loose) =>
      unit({
        id: 'gun',
        side: 'party',
        health: { max: 1e5 },
        attacks: [
          {
            id: 'bolt',
            delivery: 'projectile',
            range: { min: 0, max: 50 },
            projectile: { speed: 20, radius: 0.1, ...projectile },
            beat: { windup: 0.1, cooldown: 60 },
            effects: { damage: { amount: 1 } },
          },
        ],
      });
    const struck = (pierces: number) =>
      eventsOf(
        fought({
          ...line,
          party: [gun({ pierces })],
          enemies: [4, 7, 10].map((x, i) => ({ unit: standing(`e${i}`, { side: 'enemy' }), x })),
          limit: 3,
        }).log,
        'hit',
      ).map(({ other }) => other);
    expect([struck(0), struck(1), struck(9)]).toEqual([[1], [1, 2], [1, 2, 3]]);
    const runner = unit({
      id: 'runner',
      health: { max: 1e5 },
      movement: { run: 6, walk: 6 },
      attacks: [],
      states: [{ id: 's', name: 's', does: 'strafe', near: 11, far: 14 }],
    });
    const meets = (homing: number) =>
      eventsOf(fought({ party: [gun({ speed: 10, homing, lifetime: 4 })], enemies: [{ unit: runner, x: 12 }], limit: 6 }).log, 'hit')
        .length;
    expect([meets(0), meets(240)]).toEqual([0, 1]);
  });

  test('shots of a volley leave their muzzles in turn', () => {
    const twin = enemy([
      {
        id: 'volley',
        delivery: 'projectile',
        range: { min: 0, max: 30 },
        projectile: {
          speed: 10,
          radius: 0.05,
          count: 2,
          muzzles: [
            { id: 'l', ahead: 1, left: 0.5 },
            { id: 'r', ahead: 1, left: -0.5 },
          ],
        },
        beat: { windup: 0.1, cooldown: 60 },
        effects: { damage: { amount: 1 } },
      },
    ]);
    let shots: number[][] = [];
    run(compiled(duel(twin, { enemies: [{ unit: twin, x: 20 }], limit: 0.4 })), 1, (fight) => {
      if (fight.shots.flying.length === 2) shots = fight.shots.flying.map((id) => [fight.shots.all[id].x, fight.shots.all[id].y]);
    });
    expect(shots.map(([x, y]) => [Math.round(x * 10) / 10, Math.round(y * 10) / 10])).toEqual([
      [19, -0.5],
      [19, 0.5],
    ]);
  });

  test('friendly fire strikes friends, who are in the way only then', () => {
    const gun = (friendlyFire: boolean) => unit({ id: 'gun', health: { max: 1e5 }, attacks: [{ ...bite(), hits: { friendlyFire } }] });
    const struck = (friendly: boolean) =>
      eventsOf(
        fought({
          party: [standing('warden')],
          enemies: [
            { unit: gun(friendly), x: 10 },
            { unit: standing('friend', { side: 'enemy' }), x: 5 },
          ],
          limit: 0.5,
        }).log,
        'hit',
      ).map(({ other }) => other);
    expect([struck(false), struck(true)]).toEqual([[0], [2]]);
  });

  test('a summoner never has more than its cap alive, and may call again when one dies', () => {
    const nest = unit({
      id: 'nest',
      health: { max: 1e5 },
      attacks: [
        { id: 'hatch', delivery: 'summon', summon: { unit: 'mite', count: 2, cap: 3, around: 2 }, beat: { windup: 0.1, cooldown: 1 } },
      ],
    });
    const gun = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e5 },
      targeting: { only: { units: ['mite'] }, reconsider: 0 },
      attacks: [bite({ effects: { damage: { amount: 9 } }, range: { min: 0, max: 60 } })],
    });
    const sketch: FightSketch = {
      party: [gun],
      enemies: [{ unit: nest, x: 20 }],
      others: [unit({ id: 'mite', health: { max: 5 }, attacks: [] })],
      limit: 9,
    };
    let most = 0;
    const { log } = run(compiled(sketch), 1, (fight) => (most = Math.max(most, fight.living[1].length - 1)));
    expect(most).toBe(3);
    expect(eventsOf(log, 'spawn').length - 2).toBeGreaterThan(6);
    expect(eventsOf(log, 'capped').every(({ a }) => a === 2)).toBe(true);
  });
});

test('a body exactly on the edge of a cone is within it, however the edge is rounded', () => {
  // On the diagonal of a cone of 90°: products and roots differ in their last bits, in about half of these places downwards.
  for (let tenth = 10; tenth <= 40; tenth++) {
    const blast = {
      id: 'blast',
      delivery: 'area',
      area: { about: 'self', radius: 9, angle: 90 },
      range: { min: 0, max: 90 },
      beat: { windup: 0.1, cooldown: 9, tracking: 'fixed' },
      effects: { damage: { amount: 1 } },
    };
    const { log } = fought({
      party: [dummy('aim', 100, { movement: { walk: 0, run: 0 } })],
      partyAt: { x: 0, y: 0, facing: 0 },
      enemies: [
        {
          unit: unit({
            id: 'clipper',
            attacks: [blast],
            movement: { walk: 0, run: 0 },
            targeting: { never: { roles: ['point'], units: [] } },
          }),
          x: tenth / 5,
        },
      ],
      arena: { points: [{ id: 'post', name: 'Post', x: tenth / 5 - tenth / 10, y: tenth / 10, radius: 0.05, health: 5 }] },
      limit: 0.5,
    });
    expect([tenth, eventsOf(log, 'hit').some(({ other }) => other === 1)]).toEqual([tenth, true]);
  }
});
