import { describe, expect, test } from '@jest/globals';
import { type FightSketch, compiled, dummy, eventsOf, fought, unit } from '../testing/builders';
import type { Fight } from './fight';
import { DOING } from './log';
import { run } from './run';

type Loose = Record<string, unknown>;

const bite = (more: Loose = {}) => ({
  id: 'bite',
  range: { min: 0, max: 30 },
  delivery: 'hitscan',
  beat: { windup: 0.1, cooldown: 1 },
  effects: { damage: { amount: 1 } },
  ...more,
});
const standing = (id: string, more: Loose = {}) => dummy(id, 1e5, more);
const enemy = (attacks: Loose[], more: Loose = {}) => unit({ id: 'clipper', health: { max: 1e5 }, attacks, ...more });
const duel = (attacker: Loose, more: Partial<FightSketch> = {}): FightSketch => ({
  party: [standing('warden')],
  enemies: [{ unit: attacker, x: 4 }],
  limit: 10,
  ...more,
});
const startsOf = (sketch: FightSketch, actor = 1) =>
  eventsOf(fought(sketch).log, 'start')
    .filter((start) => start.actor === actor)
    .map(({ time, what }) => [time, what]);
function places(sketch: FightSketch, which: number, seed = 1): { time: number; x: number; y: number; fight: Fight }[] {
  const seen: { time: number; x: number; y: number; fight: Fight }[] = [];
  run(compiled(sketch), seed, (fight, time) => seen.push({ time: time / 1e6, x: fight.x[which], y: fight.y[which], fight }));
  return seen;
}

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

describe('choice', () => {
  test('a priority or entry whose condition is false is passed over', () => {
    const attacks = [bite({ id: 'far' }), bite({ id: 'near' }), bite({ id: 'late' })];
    const choice = {
      priorities: [
        { condition: { subject: 'clock', is: 'above', value: 4.5 }, entries: [{ attack: 'late' }] },
        { entries: [{ attack: 'far', condition: { subject: 'distance', is: 'above', value: 10 } }, { attack: 'near' }] },
      ],
    };
    expect(new Set(startsOf(duel(enemy(attacks, { choice }), { limit: 4 })).map(([, what]) => what))).toEqual(new Set([1]));
    expect(
      startsOf(duel(enemy(attacks, { choice }), { limit: 8 }))
        .filter(([time]) => time > 4.5)
        .some(([, what]) => what === 2),
    ).toBe(true);
  });

  test('an entry may be meant for somebody else than the unit’s target', () => {
    const attacks = [bite({ id: 'bite' }), bite({ id: 'spit' })];
    const targeting = { criteria: [{ by: 'lowestHealth' }], reconsider: 0 };
    const choice = { priorities: [{ entries: [{ attack: 'spit', targeting }] }, { entries: [{ attack: 'bite' }] }] };
    const { log } = fought({
      party: [standing('near'), dummy('weak', 50)],
      partyAt: { x: 0, y: 0, facing: 0 },
      enemies: [{ unit: enemy(attacks, { choice }), x: 0, y: -5 }],
      limit: 5,
    });
    for (const { what, other } of eventsOf(log, 'start')) expect(other).toBe(what === 1 ? 1 : 0);
  });

  test('a state allows all, none, or some attacks', () => {
    const attacks = [bite({ id: 'one' }), bite({ id: 'two' })];
    const used = (state: Loose) =>
      new Set(startsOf(duel(enemy(attacks, { states: [{ id: 's', name: 's', does: 'hold', ...state }] }))).map(([, what]) => what));
    expect(used({ attacks: 'all' })).toEqual(new Set([0, 1]));
    expect(used({ attacks: 'none' })).toEqual(new Set());
    expect(used({ attacks: 'some', only: ['two'] })).toEqual(new Set([1]));
  });

  test('an attack owed on entering a state is done once whatever its cooldown, as soon as the one under way is over', () => {
    const attacks = [
      bite({ beat: { windup: 0.6, cooldown: 0.7 } }),
      { id: 'roar', delivery: 'self', weight: 0, beat: { windup: 0.2, cooldown: 99, initialDelay: { min: 50, max: 50 } } },
    ];
    const states = [
      { id: 'a', name: 'a', does: 'hold', leaves: [{ when: { subject: 'clock', is: 'above', value: 1 }, to: 'b' }] },
      { id: 'b', name: 'b', does: 'hold', onEnter: { attack: 'roar' } },
    ];
    const found = startsOf(duel(enemy(attacks, { states, choice: { priorities: [{ entries: [{ attack: 'bite' }] }] } }), { limit: 4 }));
    expect(found.filter(([, what]) => what === 1)).toEqual([[1.3, 1]]); // the bite of 0.7 ends at 1.3
  });
});

describe('targets', () => {
  const target = (criteria: Loose[], more: Loose = {}, seed = 1) => {
    const gun = enemy([bite({ range: { min: 0, max: 100 } })], { targeting: { criteria, commitment: 0, reconsider: 0, ...more } });
    const party = [dummy('near', 80), dummy('weak', 40, { role: 'mender' }), dummy('tough', 500)];
    return eventsOf(
      fought({ party, partyAt: { x: 0, y: 0, facing: 90 }, enemies: [{ unit: gun, x: 9, y: 0 }], limit: 3 }, seed).log,
      'start',
    )[0].other;
  };

  test('by criterion: nearest, lowest health, a role, a unit', () => {
    // The members stand across the way they face, which is 90°: at x = 1.2, 0, −1.2.
    expect(target([{ by: 'nearest' }])).toBe(0);
    expect(target([{ by: 'lowestHealth' }])).toBe(1);
    expect(target([{ by: 'role', of: 'mender' }])).toBe(1);
    expect(target([{ by: 'unit', of: 'tough' }])).toBe(2);
  });

  test('weighed: the heavier criterion decides', () => {
    expect(
      target([
        { by: 'nearest', weight: 1 },
        { by: 'unit', of: 'tough', weight: 5 },
      ]),
    ).toBe(2);
    expect(
      target([
        { by: 'nearest', weight: 50 },
        { by: 'unit', of: 'tough', weight: 1 },
      ]),
    ).toBe(0);
  });

  test('filters: only these, never those', () => {
    expect(target([{ by: 'nearest' }], { only: { units: ['tough'] } })).toBe(2);
    expect(target([{ by: 'lowestHealth' }], { never: { roles: ['mender'] } })).toBe(0);
  });

  test('at random over many seeds everybody has a turn', () => {
    expect(new Set(Array.from({ length: 30 }, (_, seed) => target([{ by: 'random' }], {}, seed)))).toEqual(new Set([0, 1, 2]));
  });

  test('whoever hurt it most, and whoever struck it last', () => {
    const gun = (id: string, amount: number, cooldown: number) =>
      unit({
        id,
        side: 'party',
        health: { max: 1e5 },
        attacks: [bite({ range: { min: 0, max: 100 }, beat: { windup: 0.1, cooldown }, effects: { damage: { amount } } })],
      });
    const after = (by: string) => {
      const boss = enemy([bite({ range: { min: 0, max: 100 }, beat: { windup: 0.1, cooldown: 0.9, initialDelay: { min: 3, max: 3 } } })], {
        targeting: { criteria: [{ by }], commitment: 0, reconsider: 0 },
      });
      return eventsOf(
        fought({ party: [gun('heavy', 50, 2.6), gun('quick', 1, 0.15)], enemies: [{ unit: boss, x: 6 }], limit: 5 }).log,
        'start',
      ).filter(({ actor }) => actor === 2)[0].other;
    };
    expect(after('mostDamageToMe')).toBe(0);
    expect(after('lastAttacker')).toBe(1);
  });
});

describe('temper and senses', () => {
  const quiet = { group: { alerted: false } };

  test('on sight; only once attacked; never', () => {
    const gun = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e5 },
      attacks: [bite({ beat: { windup: 0.1, cooldown: 3, initialDelay: { min: 2, max: 2 } } })],
    });
    const noticed = (manner: string) =>
      eventsOf(
        fought({ party: [gun], enemies: [{ unit: enemy([bite()], { temper: { manner } }), x: 6, ...quiet }], limit: 5 }).log,
        'notice',
      )
        .filter(({ actor }) => actor === 1)
        .map(({ time }) => time);
    expect([noticed('hostile'), noticed('retaliates'), noticed('passive')]).toEqual([[0], [2.1], []]);
  });

  test('calls its friends within the alert radius', () => {
    const caller = enemy([bite()], { id: 'caller', name: 'caller', temper: { alertRadius: 10 } });
    const sleeper = enemy([bite()], { id: 'sleeper', name: 'sleeper', senses: { sight: 1, lose: 400 } });
    const woken = (x: number) =>
      eventsOf(
        fought({
          party: [standing('warden')],
          enemies: [
            { unit: caller, x: 12, ...quiet },
            { unit: sleeper, x, ...quiet },
          ],
          limit: 3,
        }).log,
        'notice',
      ).some(({ actor }) => actor === 2);
    expect([woken(21), woken(23)]).toEqual([true, false]);
  });

  test('hears who runs or attacks, past walls and behind it', () => {
    const deaf = (hearing: number) => enemy([], { senses: { sight: 3, lose: 400, hearing } });
    const runner = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e5 },
      movement: { walk: 2, run: 6 },
      attacks: [],
      senses: { sight: 400, lose: 500 },
      states: [{ id: 's', name: 's', does: 'flee', pace: 'run' }],
    });
    const heard = (hearing: number, pace: string) => {
      const mover = { ...runner, states: [{ id: 's', name: 's', does: 'flee', pace }] };
      return eventsOf(fought({ party: [mover], enemies: [{ unit: deaf(hearing), x: 8, ...quiet }], limit: 0.4 }).log, 'notice').some(
        ({ actor }) => actor === 1,
      );
    };
    expect([heard(12, 'run'), heard(12, 'walk'), heard(0, 'run')]).toEqual([true, false, false]);
  });

  test('a foe must be in sight for the build-up before the reaction begins', () => {
    const slow = enemy([], { senses: { sight: 20, lose: 400, buildUp: 1, interval: 0.2, reaction: { mean: 0.5, spread: 0 } } });
    const [notice] = eventsOf(fought(duel(slow, { enemies: [{ unit: slow, x: 8, ...quiet }], limit: 4 })).log, 'notice').filter(
      ({ actor }) => actor === 1,
    );
    expect(notice.time).toBeCloseTo(0.8 + 0.5, 9); // five looks of 0.2 s make 1 s: the fifth falls at 0.8
  });

  test('sees nobody behind a wall, and loses who goes behind one once its memory is over', () => {
    const wall = {
      walls: [
        {
          id: 'w',
          name: 'w',
          height: 3,
          corners: [
            { x: 3, y: -4 },
            { x: 4, y: -4 },
            { x: 4, y: 4 },
            { x: 3, y: 4 },
          ],
        },
      ],
    };
    const watcher = (needsLine: boolean) => enemy([], { senses: { sight: 30, lose: 40, needsLine, memory: 1 } });
    const noticed = (needsLine: boolean, height = 3) => {
      const arena = { walls: [{ ...wall.walls[0], height }] };
      return eventsOf(
        fought(duel(watcher(needsLine), { enemies: [{ unit: watcher(needsLine), x: 8, ...quiet }], arena, width: 60, depth: 60, limit: 2 }))
          .log,
        'notice',
      ).some(({ actor }) => actor === 1);
    };
    expect([noticed(true), noticed(false), noticed(true, 0.8)]).toEqual([false, true, true]);
    const alerted = eventsOf(
      fought(duel(watcher(true), { enemies: [{ unit: watcher(true), x: 8 }], arena: wall, width: 60, depth: 60, limit: 4 })).log,
      'lose',
    ).map(({ time }) => time);
    expect(alerted).toEqual([1]);
  });
});

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

describe('conditions', () => {
  const holds = (when: Loose, more: Partial<FightSketch> = {}, rest: Loose = {}) => {
    const states = [
      { id: 'a', name: 'a', does: 'hold', leaves: [{ when, to: 'b' }] },
      { id: 'b', name: 'b', does: 'hold' },
    ];
    const watcher = enemy([bite({ weight: 0 })], { states, ...rest });
    return eventsOf(fought(duel(watcher, { enemies: [{ unit: watcher, x: 4 }], limit: 3, ...more })).log, 'state').map(({ time }) => time);
  };

  test.each<[string, Loose, number[]]>([
    // A unit takes its target after its transitions of the first step: what asks of a target is true from the second on.
    ['distance', { subject: 'distance', is: 'below', value: 3.3 }, [0.05]],
    ['home', { subject: 'homeDistance', is: 'above', value: 0.1 }, []],
    ['the clock', { subject: 'clock', is: 'above', value: 1.02 }, [1.05]],
    ['own health', { subject: 'healthShare', is: 'below', value: 1 }, []],
    ['target’s health', { subject: 'targetHealthShare', is: 'above', value: 0.99 }, [0.05]],
    ['a shield that is not there', { subject: 'shieldShare', is: 'below', value: 1 }, []],
    ['foes near', { subject: 'foes', is: 'above', value: 0, within: 4 }, [0]],
    ['friends near', { subject: 'friends', is: 'above', value: 0, within: 40 }, []],
    ['never hit', { subject: 'sinceHit', is: 'above', value: 100 }, [0]],
    [
      'all of',
      {
        subject: 'all',
        parts: [
          { subject: 'sees', is: 'yes' },
          { subject: 'line', is: 'yes' },
        ],
      },
      [0.05],
    ],
    [
      'any of',
      {
        subject: 'any',
        parts: [
          { subject: 'flag', is: 'yes', of: 'alarm' },
          { subject: 'clock', is: 'above', value: 0.5 },
        ],
      },
      [0.55],
    ],
    ['not', { subject: 'not', parts: [{ subject: 'clock', is: 'below', value: 2 }] }, [2]],
    ['a ready attack', { subject: 'attackReady', is: 'yes', of: 'bite' }, [0]],
    ['a target’s role', { subject: 'targetRole', is: 'yes', of: 'mender' }, []],
    ['what a target does', { subject: 'targetDoes', is: 'yes', of: 'idle' }, [0.05]],
    ['a flag nobody raises', { subject: 'flag', is: 'no', of: 'alarm' }, [0]],
    ['a wave', { subject: 'waveShare', is: 'above', value: 0.99, of: 'w1' }, [0]],
  ])('%s', (_, when, expected) => {
    expect(holds(when)).toEqual(expected);
  });

  test('damage taken within a time, and time since', () => {
    const gun = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e5 },
      attacks: [bite({ beat: { windup: 0, cooldown: 0.4 }, effects: { damage: { amount: 10 } } })],
    });
    expect(holds({ subject: 'damageTaken', is: 'above', value: 25, within: 1 }, { party: [gun] })).toEqual([0.8]); // at 0, 0.4, 0.8
    expect(holds({ subject: 'sinceHit', is: 'below', value: 0.01 }, { party: [gun] })).toEqual([0.4]); // the hit at 0.4 comes before the step at 0.4
  });

  test('a chance is drawn once on entering: it comes true as often as it says, and at once or never', () => {
    let came = 0;
    const states = [
      { id: 'a', name: 'a', does: 'hold', leaves: [{ when: { subject: 'chance', value: 0.3 }, to: 'b' }] },
      { id: 'b', name: 'b', does: 'hold' },
    ];
    const tables = compiled(duel(enemy([], { states }), { limit: 2 }));
    for (let seed = 0; seed < 400; seed++) {
      const times = eventsOf(run(tables, seed).log, 'state').map(({ time }) => time);
      came += times.length;
      if (times.length) expect(times).toEqual([0]);
    }
    expect(came / 400).toBeGreaterThan(0.23);
    expect(came / 400).toBeLessThan(0.37);
  });
});
