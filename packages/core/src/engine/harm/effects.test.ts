import { describe, expect, test } from '@jest/globals';
import { type FightSketch, compiled, dummy, eventsOf, fought, unit } from '../../testing/builders';
import { type Loose, once, against, watched } from '../../testing/duels';
import { run } from '../run';

describe('stagger', () => {
  test('direct: it neither moves nor chooses, its attack is broken off, and it goes on at the instant it is over', () => {
    const striker = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e4 },
      attacks: [{ id: 'blow', range: { min: 0, max: 9 }, beat: { windup: 1, cooldown: 1.1 } }],
    });
    const { log } = fought({
      party: [striker],
      enemies: [
        {
          unit: unit({
            id: 'clipper',
            health: { max: 1e4 },
            attacks: [once('daze', { beat: { windup: 0.5, cooldown: 600 }, effects: { stagger: { for: 1.25 } } })],
          }),
          x: 4,
        },
      ],
      limit: 4,
    });
    expect(eventsOf(log, 'stagger')[0]).toMatchObject({ time: 0.5, other: 0, a: 1_250_000 });
    expect(eventsOf(log, 'interrupted')[0]).toMatchObject({ time: 0.5, actor: 0, a: 1 });
    const begun = eventsOf(log, 'start').filter(({ actor }) => actor === 0);
    expect(begun.slice(0, 3).map(({ time }) => time)).toEqual([0, 1.75, 2.85]); // 0.5 + 1.25: its cooldown of 1.1 is over
  });

  test('by damage: the sum over a window reaches the threshold; then it is steady for a while', () => {
    const target = { health: { max: 1e4 }, stagger: { threshold: 25, window: 2, duration: 0.5, immunity: 3 } };
    const { log } = fought(
      against(once('bolt', { beat: { windup: 0.1, cooldown: 1 }, effects: { damage: { amount: 10 } } }), target, { limit: 9 }),
    );
    // Hits of 10 at 0.1, 1.1, 2.1 …: in (t − 2, t] there are never more than two: 20 < 25.
    expect(eventsOf(log, 'stagger')).toEqual([]);
    const faster = fought(
      against(once('bolt', { beat: { windup: 0.1, cooldown: 0.8 }, effects: { damage: { amount: 10 } } }), target, { limit: 9 }),
    );
    // At 0.1, 0.9, 1.7: 30 at 1.7; steady until 5.2; then hits at 5.7, 6.5 and 4.9 no longer counts before: 7.3 − … at 5.7, 6.5, 7.3.
    expect(eventsOf(faster.log, 'stagger').map(({ time }) => time)).toEqual([1.7, 7.3]);
  });

  test('an attack that can’t be broken off runs on; a single hard hit breaks one that can', () => {
    const slow = (interruptible: Loose) =>
      unit({
        id: 'warden',
        side: 'party',
        health: { max: 1e4 },
        attacks: [{ id: 'blow', range: { min: 0, max: 9 }, beat: { windup: 1, cooldown: 600 }, interruptible }],
      });
    const broken = (interruptible: Loose, effects: Loose) =>
      eventsOf(
        fought({
          party: [slow(interruptible)],
          enemies: [
            {
              unit: unit({ id: 'clipper', health: { max: 1e4 }, attacks: [once('x', { beat: { windup: 0.5, cooldown: 600 }, effects })] }),
              x: 4,
            },
          ],
          limit: 2,
        }).log,
        'interrupted',
      ).map(({ a }) => a);
    expect(broken({ stagger: false }, { stagger: { for: 1 } })).toEqual([]);
    expect(broken({ stagger: true, hit: 12 }, { damage: { amount: 11 } })).toEqual([]);
    expect(broken({ stagger: true, hit: 12 }, { damage: { amount: 12 } })).toEqual([2]);
  });
});

describe('knockback', () => {
  const shove = (distance: number) => once('shove', { delivery: 'melee', arc: 360, effects: { knockback: { distance } } });
  const place = (sketch: FightSketch) => {
    let at = { x: 0, y: 0 };
    run(compiled(sketch), 1, (fight) => (at = { x: fight.x[0], y: fight.y[0] }));
    return at;
  };

  test('pushes away from where the hit came from, less the steadiness', () => {
    expect(place(against(shove(3)))).toEqual({ x: expect.closeTo(-3, 9), y: expect.closeTo(0, 9) });
    expect(place(against(shove(3), { knockback: { resist: 0.5 } })).x).toBeCloseTo(-1.5, 9);
  });

  test('stops at a wall, and slides along one that stands askew', () => {
    const wall = (corners: number[][]) => ({
      arena: { walls: [{ id: 'w', name: 'w', corners: corners.map(([x, y]) => ({ x, y })) }] },
      width: 40,
      depth: 40,
    });
    const straight = place(
      against(
        shove(5),
        {},
        wall([
          [-3, -5],
          [-2, -5],
          [-2, 5],
          [-3, 5],
        ]),
      ),
    );
    expect(straight.x).toBeCloseTo(-2 + 0.4, 6); // its radius from the wall
    const askew = place(
      against(
        shove(5),
        {},
        wall([
          [-8, -6],
          [-1, 1],
          [-2, 2],
          [-9, -5],
        ]),
      ),
    );
    expect(askew.y).toBeLessThan(-0.5); // it slid off to the side
    const { log } = fought(
      against(
        shove(5),
        {},
        wall([
          [-3, -5],
          [-2, -5],
          [-2, 5],
          [-3, 5],
        ]),
      ),
    );
    expect(eventsOf(log, 'knock')[0].a).toBeCloseTo(1.6, 6);
  });

  test('where the two coincide it goes the way the attacker faces', () => {
    const mine = unit({
      id: 'clipper',
      attacks: [
        {
          id: 'burst',
          delivery: 'area',
          area: { about: 'target', radius: 1 },
          range: { min: 0, max: 30 },
          beat: { windup: 0.1, cooldown: 600 },
          effects: { knockback: { distance: 2 } },
        },
      ],
    });
    // About the target, so the blast comes from its own middle; the attacker faces 180°.
    expect(place({ party: [dummy('warden', 100)], enemies: [{ unit: mine, x: 4 }], limit: 2 }).x).toBeCloseTo(-2, 9);
  });
});

describe('what lasts', () => {
  const walker = (more: Loose = {}) =>
    unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e4 },
      movement: { run: 4, walk: 4 },
      attacks: [],
      states: [{ id: 's', name: 's', does: 'flee' }],
      ...more,
    });

  test('the strongest slow counts, each for its own time', () => {
    const slower = (id: string, share: number, lasts: number) => ({
      unit: unit({
        id,
        attacks: [
          once('web', { range: { min: 0, max: 150 }, beat: { windup: 0.05, cooldown: 600 }, effects: { slow: { share, for: lasts } } }),
        ],
      }),
      x: 6,
    });
    const speeds = watched(
      { party: [walker()], enemies: [slower('a', 0.5, 1), slower('b', 0.25, 2)], limit: 3 },
      (fight) => Math.round(10 * Math.hypot(fight.vx[0], fight.vy[0])) / 10,
    );
    expect(speeds.slice(2, 10).every((speed) => speed === 2)).toBe(true);
    expect(speeds.slice(12, 20).every((speed) => speed === 3)).toBe(true);
    expect(speeds.slice(22).every((speed) => speed === 4)).toBe(true);
  });

  test('a boost changes numbers for a time; the same again moves its end; a changed maximum keeps the share', () => {
    const booster = unit({
      id: 'clipper',
      attacks: [
        once('hex', {
          range: { min: 0, max: 150 },
          beat: { windup: 0.05, cooldown: 600 },
          effects: {
            boost: {
              for: 1,
              tweaks: [
                { path: '/movement/run', op: '×', value: 0.5 },
                { path: '/health/max', op: '×', value: 2 },
              ],
            },
          },
        }),
      ],
    });
    const seen = watched({ party: [walker({ health: { max: 80 } })], enemies: [{ unit: booster, x: 6 }], limit: 2 }, (fight) => [
      Math.round(Math.hypot(fight.vx[0], fight.vy[0])),
      fight.healthNow(0),
    ]);
    expect(seen.slice(2, 10).every(([speed, health]) => speed === 2 && health === 160)).toBe(true);
    expect(seen.slice(12).every(([speed, health]) => speed === 4 && health === 80)).toBe(true);
  });

  test('a self boost without an end lasts to the end', () => {
    const rager = unit({
      id: 'clipper',
      attacks: [
        {
          id: 'rage',
          delivery: 'self',
          beat: { windup: 0.5, cooldown: 600 },
          effects: { boost: { for: 0, tweaks: [{ path: '/attacks/bite/effects/damage/amount', op: '+', value: 5 }] } },
        },
        {
          id: 'bite',
          range: { min: 0, max: 9 },
          beat: { windup: 0.1, cooldown: 1, initialDelay: { min: 1, max: 1 } },
          effects: { damage: { amount: 2 } },
        },
      ],
    });
    const { log } = fought({ party: [dummy('warden', 1e4)], enemies: [{ unit: rager, x: 4 }], limit: 6 });
    expect(new Set(eventsOf(log, 'hit').map(({ c }) => c))).toEqual(new Set([7]));
  });

  test('a state’s tweaks hold while it lasts', () => {
    const states = [
      { id: 'calm', name: 'calm', does: 'hold', leaves: [{ when: { subject: 'timeInState', is: 'above', value: 1 }, to: 'wild' }] },
      {
        id: 'wild',
        name: 'wild',
        does: 'hold',
        tweaks: [{ path: '/attacks/*/effects/damage/amount', op: '×', value: 3 }],
        leaves: [{ when: { subject: 'timeInState', is: 'above', value: 1 }, to: 'calm' }],
      },
    ];
    const { log } = fought({
      party: [dummy('warden', 1e4)],
      enemies: [
        {
          unit: unit({
            id: 'clipper',
            states,
            attacks: [{ id: 'bite', range: { min: 0, max: 9 }, beat: { windup: 0, cooldown: 0.5 }, effects: { damage: { amount: 2 } } }],
          }),
          x: 4,
        },
      ],
      limit: 3,
    });
    const entered = eventsOf(log, 'state').map(({ time }) => time);
    for (const { time, c } of eventsOf(log, 'hit')) expect(c).toBe(time > entered[0] && time <= entered[1] ? 6 : 2);
  });

  test('a taunt binds its victim until it is over', () => {
    const caller = {
      unit: unit({
        id: 'caller',
        health: { max: 1e4 },
        attacks: [once('call', { range: { min: 0, max: 50 }, beat: { windup: 1, cooldown: 600 }, effects: { taunt: { for: 3 } } })],
      }),
      x: 20,
    };
    const near = { unit: dummy('near', 1e4, { side: 'enemy' }), x: 3 };
    const shooter = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e4 },
      targeting: { reconsider: 0, commitment: 0 },
      attacks: [{ id: 'bolt', delivery: 'hitscan', range: { min: 0, max: 60 }, beat: { cooldown: 0.5 } }],
    });
    const { log } = fought({ party: [shooter], enemies: [caller, near], limit: 6 });
    for (const { time, actor, other } of eventsOf(log, 'start')) {
      if (actor === 0) expect(other).toBe(time >= 1 && time <= 4 ? 1 : 2);
    }
  });
});

describe('help', () => {
  test('heals the one that is hurt most, wastes what is too much, and helps nobody who needs none', () => {
    const medic = unit({
      id: 'medic',
      side: 'party',
      attacks: [
        {
          id: 'mend',
          delivery: 'support',
          targets: 'friends',
          range: { min: 0, max: 30 },
          beat: { windup: 0.1, cooldown: 1 },
          effects: { heal: { amount: 15, share: 0.1 } },
        },
      ],
    });
    const biter = unit({
      id: 'clipper',
      attacks: [once('bite', { effects: { damage: { amount: 30 } } })],
      targeting: { only: { units: ['warden'] } },
    });
    const { log } = fought({ party: [dummy('warden', 100), dummy('tender', 100), medic], enemies: [{ unit: biter, x: 6 }], limit: 6 });
    expect(eventsOf(log, 'heal')).toMatchObject([
      { other: 0, a: 25, b: 0 }, // 15 + 10 % of 100
      { other: 0, a: 5, b: 20 },
    ]);
  });

  test('a revived unit has the health it was given, its first state, and nothing that lasted', () => {
    const priest = unit({
      id: 'priest',
      attacks: [
        {
          id: 'raise',
          delivery: 'support',
          targets: 'fallen',
          range: { min: 0, max: 40 },
          beat: { windup: 0.5, cooldown: 600 },
          effects: { revive: { amount: 1, share: 0.5 } },
        },
      ],
    });
    const victim = unit({ id: 'victim', health: { max: 40 }, attacks: [], onDeath: { revivableFor: 5, revivals: 1 } });
    const gun = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e4 },
      targeting: { only: { units: ['victim'] } },
      attacks: [
        {
          ...once('bolt'),
          charges: { count: 1, reload: 600 },
          effects: { damage: { amount: 50 }, overTime: { amount: 1, every: 1, for: 60 }, slow: { share: 0.5, for: 60 } },
        },
      ],
    });
    const { log } = fought({
      party: [gun],
      enemies: [
        { unit: priest, x: 20 },
        { unit: victim, x: 10 },
      ],
      limit: 9,
    });
    expect(eventsOf(log, 'revive')).toMatchObject([{ actor: 1, other: 2, a: 21 }]);
    expect(eventsOf(log, 'tick')).toEqual([]);
  });

  test('nobody is raised after its time, or more often than it may be', () => {
    const priest = (windup: number) =>
      unit({
        id: 'priest',
        attacks: [
          {
            id: 'raise',
            delivery: 'support',
            targets: 'fallen',
            range: { min: 0, max: 40 },
            beat: { windup, cooldown: 0.1 },
            effects: { revive: { amount: 5 } },
          },
        ],
      });
    const victim = unit({ id: 'victim', health: { max: 40 }, attacks: [], onDeath: { revivableFor: 1, revivals: 2 } });
    const gun = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e4 },
      targeting: { only: { units: ['victim'] }, reconsider: 0 },
      attacks: [{ ...once('bolt'), beat: { windup: 0.1, cooldown: 0.2 }, effects: { damage: { amount: 50 } } }],
    });
    const revives = (windup: number) =>
      eventsOf(
        fought({
          party: [gun],
          enemies: [
            { unit: priest(windup), x: 20 },
            { unit: victim, x: 10 },
          ],
          limit: 12,
        }).log,
        'revive',
      ).length;
    expect(revives(0.5)).toBe(2);
    expect(revives(1.5)).toBe(0); // begun in time, due too late
  });

  test('its last attack is done where it fell, credited to it', () => {
    const cask = unit({
      id: 'cask',
      health: { max: 5 },
      onDeath: { attack: 'burst' },
      choice: { priorities: [] },
      attacks: [
        {
          id: 'burst',
          delivery: 'area',
          area: { about: 'self', radius: 3, delay: 0.5 },
          range: { min: 0, max: 3 },
          hits: { friendlyFire: true },
          beat: { cooldown: 1 },
          effects: { damage: { amount: 7 } },
        },
      ],
    });
    const gun = unit({
      id: 'warden',
      side: 'party',
      health: { max: 100 },
      targeting: { only: { units: ['cask'] } },
      attacks: [once('bolt', { effects: { damage: { amount: 50 } } })],
    });
    const { log } = fought({
      party: [gun],
      enemies: [
        { unit: cask, x: 2 },
        { unit: dummy('friend', 100, { side: 'enemy' }), x: 4 },
      ],
      limit: 3,
    });
    const died = eventsOf(log, 'death')[0].time;
    const blasts = eventsOf(log, 'hit').filter(({ actor }) => actor === 1);
    expect(blasts.map(({ time, other }) => [Number((time - died).toFixed(9)), other])).toEqual([
      [0.5, 0],
      [0.5, 2],
    ]);
  });
});
