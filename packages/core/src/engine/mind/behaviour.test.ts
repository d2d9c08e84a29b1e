import { describe, expect, test } from '@jest/globals';
import { type FightSketch, compiled, dummy, eventsOf, fought, unit } from '../../testing/builders';
import type { Fight } from '../fight';
import { DOING } from '../../record/doing';
import { run } from '../run';

const gun = (more: object = {}) => ({
  id: 'bolt',
  delivery: 'hitscan',
  range: { min: 0, max: 30 },
  beat: { cooldown: 1 },
  effects: { damage: { amount: 1 } },
  ...more,
});
const still = (id: string, more: Record<string, unknown> = {}) => dummy(id, 1e6, more);

/** What a watcher sees of a unit, step by step. */
function watched<T>(sketch: FightSketch, look: (fight: Fight) => T, seed = 1): T[] {
  const seen: T[] = [];
  run(compiled(sketch), seed, (fight) => void seen.push(look(fight)));
  return seen;
}

describe('facing', () => {
  test('a turn rate of 90° a second needs two seconds for a half turn, and attacks wait for it', () => {
    const slow = unit({ id: 'mulcher', movement: { run: 0, walk: 0, turnRate: 90 }, attacks: [gun({ facing: 10 })] });
    // It faces 0°, the target stands at 180°: it must turn by 170°: 1.89 s, seen at the next step.
    const { log } = fought({ party: [still('warden')], enemies: [{ unit: slow, x: 5, facing: 0 }], limit: 4 });
    const first = eventsOf(log, 'start')[0].time;
    expect(first).toBeGreaterThanOrEqual(1.88);
    expect(first).toBeLessThan(1.96);
    expect(eventsOf(log, 'doing').some(({ actor, what }) => actor === 1 && what === DOING.facing)).toBe(true);
  });

  test('aim fixed at the wind-up’s start misses who walks on; aim that turns does not', () => {
    const walker = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e6 },
      movement: { walk: 4, run: 4 },
      states: [{ id: 's', name: 's', does: 'approach', stopAt: 0 }],
      attacks: [],
    });
    const decoy = still('decoy');
    const shooter = (tracking: string) => unit({ id: 'lantern', attacks: [gun({ beat: { windup: 1, cooldown: 9, tracking } })] });
    const hits = (tracking: string) =>
      eventsOf(
        fought({
          party: [walker],
          enemies: [
            { unit: shooter(tracking), x: 10, y: 0 },
            { unit: { ...decoy, id: 'bait', name: 'bait', side: 'enemy' }, x: 0, y: 8 },
          ],
          limit: 1.5,
        }).log,
        'hit',
      ).length;
    expect(hits('turns')).toBe(1);
    expect(hits('fixed')).toBe(0);
  });
});

describe('shots', () => {
  const thrower = (projectile: object, more: object = {}) =>
    unit({
      id: 'thistlejack',
      attacks: [gun({ delivery: 'projectile', projectile: { speed: 10, radius: 0.1, ...projectile }, beat: { cooldown: 9 }, ...more })],
    });
  const runner = unit({
    id: 'warden',
    side: 'party',
    health: { max: 1e6 },
    movement: { walk: 5, run: 5 },
    states: [{ id: 's', name: 's', does: 'flee' }],
  });

  test('a shot that does not lead never meets who runs across; one that leads does', () => {
    // The runner flees from a bait beside it, across the line of fire.
    const bait = { ...still('bait'), side: 'enemy' };
    const hits = (lead: number) =>
      eventsOf(
        fought({
          party: [runner],
          enemies: [
            { unit: bait, x: 0, y: -1.2 },
            { unit: thrower({ lead }, { beat: { initialDelay: { min: 0.5, max: 0.5 }, cooldown: 9 } }), x: 15 },
          ],
          limit: 4,
        }).log,
        'hit',
      ).length;
    expect([hits(0), hits(1)]).toEqual([0, 1]);
  });

  test('a volley leaves within its spread and flies as far as its range', () => {
    const { log } = fought({
      party: [still('warden', { body: { radius: 0.05 } })],
      enemies: [{ unit: thrower({ count: 12, spread: 60 }, { range: { min: 0, max: 12 } }), x: 10 }],
      limit: 3,
    });
    expect(eventsOf(log, 'shot')).toHaveLength(12);
    const [hits, flown] = [eventsOf(log, 'hit').length, eventsOf(log, 'miss').filter(({ a }) => a === 3)];
    expect(hits + flown.length).toBe(12);
    expect(flown.length).toBeGreaterThan(6);
    expect(flown.every(({ time }) => time === 1.2)).toBe(true);
  });

  test('a shot whose aim fails on one flies on to the next behind', () => {
    const front = still('front');
    const { log } = fought({
      party: [front, still('back')],
      enemies: [{ unit: thrower({}, { aim: { near: 0, far: 0 } }), x: 0, y: 12, facing: 270 }],
      partyAt: { x: 0, y: 0, facing: 0 },
      limit: 4,
    });
    expect(eventsOf(log, 'hit')).toHaveLength(0);
    expect(
      eventsOf(log, 'miss')
        .map(({ other }) => other)
        .sort(),
    ).toEqual([0, 1]);
  });
});

describe('melee', () => {
  const striker = (more: object) =>
    unit({
      id: 'clipper',
      attacks: [
        {
          id: 'bite',
          range: { min: 0, max: 3 },
          beat: { active: 0.4, every: 0.1, cooldown: 5 },
          effects: { damage: { amount: 1 } },
          ...more,
        },
      ],
    });
  const trio = [still('a'), still('b'), still('c')];
  const hits = (more: object) => eventsOf(fought({ party: trio, enemies: [{ unit: striker(more), x: 2 }], limit: 1 }).log, 'hit');

  test('strikes as many as its limit allows, each once a use or at every hit, as set', () => {
    expect(hits({ hits: { limit: 1, perTarget: 'once' } })).toHaveLength(3); // another one at each hit instant
    expect(hits({ hits: { limit: 3, perTarget: 'once' } }).map(({ time }) => time)).toEqual([0, 0, 0]);
    expect(hits({ hits: { limit: 3, perTarget: 'every' } })).toHaveLength(12);
  });

  test('strikes nobody outside its arc', () => {
    // Beside one another across its way at 1.3 m, 2 m away: those at the sides stand at 33°.
    expect(hits({ arc: 40, hits: { limit: 3 } }).map(({ other }) => other)).toEqual([1]);
    expect(hits({ arc: 90, hits: { limit: 3 } })).toHaveLength(3);
  });
});

describe('minds', () => {
  test('transitions are taken in their order, not before their time, one a step', () => {
    const states = [
      {
        id: 'a',
        name: 'a',
        does: 'hold',
        leaves: [
          { when: { subject: 'timeInState', is: 'above', value: 0 }, to: 'b', after: 0.5 },
          { when: { subject: 'distance', is: 'below', value: 100 }, to: 'c' },
        ],
      },
      { id: 'b', name: 'b', does: 'hold' },
      { id: 'c', name: 'c', does: 'hold', leaves: [{ when: { subject: 'timeInState', is: 'above', value: 0.2 }, to: 'a' }] },
    ];
    const { log } = fought({
      party: [still('warden')],
      enemies: [{ unit: unit({ id: 'clipper', states, senses: { sight: 50, lose: 60 } }), x: 5 }],
      limit: 1,
    });
    // The target is chosen after the transitions of the first step, so a → c comes with the second; then c → a after 0.2 s.
    expect(
      eventsOf(log, 'state')
        .filter(({ actor }) => actor === 1)
        .slice(0, 3)
        .map(({ time, what }) => [time, what]),
    ).toEqual([
      [0.05, 2],
      [0.3, 0],
      [0.35, 2],
    ]);
  });

  test('the nearest is chosen, and kept unless another is nearer by the commitment’s share', () => {
    // The one at 5.1 m is nearest at first; the other walks up to 3 m, which is nearer by 41 %.
    const walker = still('walker', {
      senses: { sight: 400, lose: 500 },
      movement: { walk: 2, run: 2 },
      states: [{ id: 's', name: 's', does: 'approach', stopAt: 3 }],
    });
    const chooser = (commitment: number) => unit({ id: 'clipper', targeting: { reconsider: 0.1, commitment } });
    const targets = (commitment: number) =>
      eventsOf(fought({ party: [walker, still('near')], enemies: [{ unit: chooser(commitment), x: 6, y: 1 }], limit: 4 }).log, 'target')
        .filter(({ actor }) => actor === 2)
        .map(({ other }) => other);
    expect(targets(0.1)).toEqual([1, 0]);
    expect(targets(0.5)).toEqual([1]);
  });

  test('a lost foe is pursued for as long as the memory lasts', () => {
    const runner = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e6 },
      movement: { walk: 10, run: 10 },
      states: [{ id: 's', name: 's', does: 'flee' }],
    });
    const seeker = unit({
      id: 'hound',
      senses: { sight: 9, lose: 15, memory: 2, interval: 0 },
      movement: { walk: 1, run: 1 },
      states: [{ id: 's', name: 's', does: 'approach' }],
    });
    const { log } = fought({ party: [runner], enemies: [{ unit: seeker, x: 8 }], limit: 10 });
    // The gap grows by 9 to 10 m/s from 8 m: beyond 15 m after about 0.75 s; forgotten two seconds later.
    const lost = eventsOf(log, 'lose').filter(({ actor }) => actor === 1)[0].time;
    expect(lost).toBeGreaterThan(2.6);
    expect(lost).toBeLessThan(2.95);
  });

  test('11: alerted at the first look at sight, lost at the first beyond lose, not before', () => {
    const runner = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e6 },
      movement: { walk: 4, run: 4 },
      senses: { sight: 400, lose: 500 },
      states: [{ id: 's', name: 's', does: 'flee' }],
    });
    const seeker = unit({ id: 'hound', senses: { sight: 9, lose: 15, memory: 0, interval: 0 } });
    const seen = watched({ party: [runner], enemies: [{ unit: seeker, x: 8.9 }], limit: 4 }, (fight) => ({
      distance: Math.hypot(fight.x[1] - fight.x[0], fight.y[1] - fight.y[0]),
      alerted: fight.alerted[1] === 1,
    }));
    // A unit alerted on spawn: the property speaks of when it is lost.
    for (const { distance, alerted } of seen) if (distance > 15.001) expect(alerted).toBe(false);
    for (const { distance, alerted } of seen) if (distance < 14.999) expect(alerted).toBe(true);
  });
});

describe('bodies', () => {
  test('nobody stands in anybody after a while of pushing to the same place', () => {
    const crowd = unit({
      id: 'clipper',
      body: { radius: 0.4 },
      movement: { walk: 3, run: 5 },
      states: [{ id: 's', name: 's', does: 'approach', stopAt: 0 }],
    });
    const deepest = watched({ party: [still('warden')], enemies: [{ unit: crowd, count: 10, x: 8, scatter: 3 }], limit: 8 }, (fight) => {
      let worst = 0;
      for (const a of fight.alive)
        for (const b of fight.alive)
          if (a < b)
            worst = Math.max(worst, fight.radius[a] + fight.radius[b] - Math.hypot(fight.x[a] - fight.x[b], fight.y[a] - fight.y[b]));
      return worst;
    });
    expect(Math.max(...deepest.slice(-40))).toBeLessThan(0.4 * 0.5);
  });

  test('spawning finds places within the scatter, clear of each other', () => {
    const { log } = fought({
      party: [still('warden')],
      enemies: [{ unit: unit({ id: 'clipper' }), count: 12, x: 20, scatter: 3 }],
      limit: 0.1,
    });
    const places = eventsOf(log, 'spawn').filter(({ actor }) => actor > 0);
    expect(places).toHaveLength(12);
    for (const { a, b } of places) expect(Math.hypot(a - 20, b)).toBeLessThanOrEqual(3 + 8 * 0.4);
    for (const one of places)
      for (const two of places) if (one.actor < two.actor) expect(Math.hypot(one.a - two.a, one.b - two.b)).toBeGreaterThanOrEqual(0.8);
  });

  test('who finds no place is reported and tried again each second', () => {
    const { log } = fought({
      party: [still('warden', { body: { radius: 5 } })],
      enemies: [{ unit: unit({ id: 'clipper' }), x: 0 }],
      limit: 2.5,
    });
    expect(eventsOf(log, 'noPlace').map(({ time }) => time)).toEqual([0, 1, 2]);
  });
});

test('10: on open ground a faster unit that outranges its foe is never touched', () => {
  const kiter = unit({
    id: 'warden',
    side: 'party',
    movement: { walk: 6, run: 6 },
    states: [{ id: 's', name: 's', does: 'band', near: 6, far: 9 }],
    attacks: [gun({ beat: { windup: 0.2, cooldown: 0.5, moving: 'free' } })],
  });
  const chaser = unit({
    id: 'mulcher',
    health: { max: 30 },
    movement: { walk: 4, run: 4 },
    states: [{ id: 's', name: 's', does: 'approach' }],
    attacks: [{ id: 'slam', range: { min: 0, max: 5 }, beat: { cooldown: 0.2 }, effects: { damage: { amount: 5 } } }],
  });
  const { log, outcome } = fought({ party: [kiter], enemies: [{ unit: chaser, x: 12 }], limit: 60 });
  expect(eventsOf(log, 'hit').filter(({ other }) => other === 0)).toEqual([]);
  expect(outcome).toBe('cleared');
});
