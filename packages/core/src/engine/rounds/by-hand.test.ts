/** Fights in rounds whose course can be worked out by hand. */
import { describe, expect, test } from '@jest/globals';
import { eventsOf, unit } from '../../testing/builders';
import { foughtInTurns } from '../../testing/rounds';

const strike = (amount: number, more = {}) => ({
  id: 'strike',
  effects: { damage: { amount } },
  beat: { cooldown: 1 },
  rounds: {},
  ...more,
});

/** Round, who, whom, health lost: of every hit. */
const hits = (log: Parameters<typeof eventsOf>[0]) =>
  eventsOf(log, 'hit').map(({ time, actor, other, a }) => [Math.floor(time) + 1, actor, other, a]);

describe('7 a round against 40 with armour 2, on both sides', () => {
  const fighter = (id: string, side: string, order = 50) =>
    unit({ id, side, health: { max: 40 }, armour: { flat: 2 }, rounds: { order }, attacks: [strike(7)] });
  const sketch = (first: string, order = 'bySide', [ours, theirs] = [50, 50]) => ({
    party: [fighter('ours', 'party', ours)],
    enemies: [{ unit: fighter('theirs', 'enemy', theirs), x: 1 }],
    encounter: { rounds: { order, first, ground: 'none' } },
  });

  test('whoever begins has struck eight times at the beginning of round 8, and wins', () => {
    const run = foughtInTurns(sketch('ours'));
    expect(run.outcome).toBe('cleared');
    const all = hits(run.log);
    expect(all.filter(([, by]) => by === 0)).toEqual(Array.from({ length: 8 }, (_, i) => [i + 1, 0, 1, 5]));
    expect(all.filter(([, by]) => by === 1)).toEqual(Array.from({ length: 7 }, (_, i) => [i + 1, 1, 0, 5]));
  });

  test('with the order turned the other does', () => {
    const run = foughtInTurns(sketch('theirs'));
    expect(run.outcome).toBe('partyDown');
    expect(hits(run.log)).toHaveLength(15);
    expect(run.partyLeft).toBe(0);
  });

  test('by order over all the higher begins, whoever’s it is', () => {
    expect(foughtInTurns(sketch('ours', 'byOrder', [10, 90])).outcome).toBe('partyDown');
    expect(foughtInTurns(sketch('theirs', 'byOrder', [90, 10])).outcome).toBe('cleared');
  });
});

/** A board of squares, the party's turns first. */
const BOARD = { rounds: { ground: 'squares' } };
const dummy = (id: string, side: string, more = {}) => unit({ id, side, health: { max: 1000 }, attacks: [], rounds: {}, ...more });

describe('counting down', () => {
  const one = (attack: object, more = {}, foe = {}) =>
    foughtInTurns({
      party: [unit({ id: 'ours', side: 'party', health: { max: 1000 }, attacks: [attack as never], rounds: {}, ...more })],
      enemies: [{ unit: dummy('theirs', 'enemy', foe), x: 1 }],
      encounter: { rounds: { ground: 'none', limit: 8 } },
    });
  const struckIn = (attack: object, more = {}) => hits(one(attack, more).log).map(([round]) => round);

  test('an attack with a cooldown of k may be used every k-th turn; with charges as often as they come back', () => {
    expect(struckIn(strike(1))).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
    expect(struckIn(strike(1, { rounds: { cooldown: 3 } }))).toEqual([1, 4, 7]);
    expect(struckIn(strike(1, { rounds: { cooldown: 0 } }), { rounds: { actions: 3 } })).toEqual(
      [1, 1, 1, 2, 2, 2, 3, 3, 3].concat([4, 4, 4, 5, 5, 5, 6, 6, 6, 7, 7, 7, 8, 8, 8]),
    );
    expect(struckIn(strike(1), { rounds: { actions: 3 } })).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
    expect(struckIn(strike(1, { charges: { count: 2 }, rounds: { recharge: 3 } }))).toEqual([1, 2, 4, 7]);
    expect(struckIn(strike(1, { rounds: { firstUse: 3 } }))).toEqual([3, 4, 5, 6, 7, 8]);
  });

  test('a wind-up of k strikes at its owner’s k-th turn from then, and that turn goes on', () => {
    expect(struckIn(strike(1, { rounds: { windup: 1 } }))).toEqual([2, 3, 4, 5, 6, 7, 8]);
    expect(struckIn(strike(1, { rounds: { windup: 2 } }))).toEqual([3, 5, 7]);
    expect(struckIn(strike(1, { rounds: { windup: 1, recovery: 2 } }))).toEqual([2, 5, 8]);
    expect(struckIn(strike(1, { rounds: { hits: 3, cooldown: 4 }, hits: { perTarget: 'every' } }))).toEqual([1, 1, 1, 5, 5, 5]);
  });

  test('damage over time ticks at the bearer’s turns', () => {
    const ticks = (rounds: object, stacking = 'refresh') =>
      eventsOf(one(strike(1, { effects: { overTime: { amount: 2, stacking, rounds } }, rounds: { cooldown: 5 } })).log, 'tick').map(
        ({ time }) => Math.floor(time) + 1,
      );
    // Struck in rounds 1 and 6, before its own turn of that round.
    expect(ticks({ every: 1, for: 3 })).toEqual([1, 2, 3, 6, 7, 8]);
    expect(ticks({ every: 2, for: 4 })).toEqual([2, 4, 7]);
  });

  test('what grows back does so at the start of its turns, after the delay', () => {
    const health = (rounds: object) => {
      const run = one(strike(100, { rounds: { cooldown: 4 } }), {}, { rounds });
      return eventsOf(run.log, 'hit')
        .map(({ a }) => a)
        .concat(run.units);
    };
    expect(health({ regen: 30 })).toEqual([100, 100, 2]);
    const { digest } = one(strike(100, { rounds: { cooldown: 9 } }), {}, { rounds: { regen: 10, regenDelay: 2 } });
    expect(digest).not.toBe(one(strike(100, { rounds: { cooldown: 9 } }), {}, { rounds: { regen: 10, regenDelay: 3 } }).digest);
  });
});

test('a stagger of one turn loses that turn, and counts down while it does', () => {
  const run = foughtInTurns({
    party: [
      unit({
        id: 'ours',
        side: 'party',
        health: { max: 1000 },
        rounds: {},
        attacks: [strike(1, { effects: { damage: { amount: 1 }, stagger: { rounds: { for: 1 } } }, rounds: { cooldown: 4 } })],
      }),
    ],
    enemies: [{ unit: unit({ id: 'theirs', health: { max: 1000 }, rounds: {}, attacks: [strike(3, { rounds: { cooldown: 2 } })] }), x: 1 }],
    encounter: { rounds: { ground: 'none', limit: 8 } },
  });
  // It would strike in rounds 1, 3, 5, 7: it reels in 1 and 5.
  expect(hits(run.log).filter(([, by]) => by === 1)).toEqual([
    [2, 1, 0, 3],
    [4, 1, 0, 3],
    [6, 1, 0, 3],
    [8, 1, 0, 3],
  ]);
});

test('energy of 260 at 90 a revival, and nothing that grows back: exactly two revivals', () => {
  const raise = {
    id: 'raise',
    delivery: 'support',
    targets: 'fallen',
    energy: 90,
    needsLine: false,
    effects: { revive: { amount: 10, share: 0 } },
    rounds: {},
  };
  const healer = unit({ id: 'healer', health: { max: 400 }, energy: { max: 260, start: 260 }, rounds: {}, attacks: [raise] });
  const lives = dummy('helper', 'enemy', { health: { max: 10 }, onDeath: { revivals: 100 }, rounds: { revivableFor: 50 } });
  const run = foughtInTurns({
    party: [
      unit({
        id: 'ours',
        side: 'party',
        health: { max: 1e6 },
        rounds: {},
        targeting: { only: { units: ['helper'], roles: [] } },
        attacks: [strike(50)],
      }),
    ],
    enemies: [
      { unit: healer, x: 1 },
      { unit: lives, x: 2 },
    ],
    encounter: { rounds: { ground: 'none', limit: 40 } },
  });
  expect(eventsOf(run.log, 'revive').map(({ time }) => Math.floor(time) + 1)).toEqual([1, 2]);
  expect(eventsOf(run.log, 'death')).toHaveLength(3);
});

test('whoever strikes by hand reaches the back row only once nobody stands in the front', () => {
  const row = (id: string, where: string, max: number) => dummy(id, 'enemy', { health: { max }, rounds: { row: where } });
  const sketch = (delivery: string) => ({
    party: [
      unit({
        id: 'ours',
        side: 'party',
        rounds: {},
        targeting: { criteria: [{ by: 'unit', weight: 1, of: 'behind' }] },
        attacks: [strike(10, { delivery, needsLine: false, ...(delivery === 'projectile' && { projectile: {} }) })],
      }),
    ],
    enemies: [
      { unit: row('before', 'front', 20), x: 1 },
      { unit: row('behind', 'back', 20), x: 2 },
    ],
    encounter: { rounds: { ground: 'none', rows: true, limit: 6 } },
  });
  expect(hits(foughtInTurns(sketch('projectile')).log).map(([round, , whom]) => [round, whom])).toEqual([
    [1, 2],
    [2, 2],
    [3, 1],
    [4, 1],
  ]);
  // By hand it is not in reach, and its target is not another.
  expect(hits(foughtInTurns(sketch('melee')).log)).toEqual([]);
});

describe('on a board', () => {
  const approaching = { states: [{ id: 'go', name: 'go', does: 'approach' }] };

  test('five moves and reach 1: eleven cells away it comes in two turns and strikes in the second', () => {
    const run = foughtInTurns({
      party: [unit({ id: 'ours', side: 'party', ...approaching, rounds: { moves: 5 }, attacks: [strike(1)] })],
      partyAt: { x: -8.5, y: 0.5 },
      enemies: [{ unit: dummy('theirs', 'enemy'), x: 2.5, y: 0.5 }],
      encounter: { rounds: { ...BOARD.rounds, limit: 3 } },
    });
    expect(hits(run.log).map(([round]) => round)).toEqual([2, 3]);
  });

  test('moving before, after and around its acts', () => {
    const kiting = { states: [{ id: 'band', name: 'band', does: 'band', near: 0, far: 1, rounds: { near: 4, far: 6 } }] };
    const rounds = (moving: string) =>
      hits(
        foughtInTurns({
          party: [
            unit({
              id: 'ours',
              side: 'party',
              ...kiting,
              rounds: { moves: 2, moving },
              attacks: [strike(1, { delivery: 'hitscan', rounds: { to: 6 } })],
            }),
          ],
          partyAt: { x: -8.5, y: 0.5 },
          enemies: [{ unit: dummy('theirs', 'enemy'), x: -0.5, y: 0.5 }],
          encounter: { rounds: { ...BOARD.rounds, limit: 4 } },
        }).log,
      ).map(([round]) => round);
    // Eight cells away: two nearer and it reaches.
    expect(rounds('before')).toEqual([1, 2, 3, 4]);
    expect(rounds('after')).toEqual([2, 3, 4]);
    expect(rounds('split')).toEqual([1, 2, 3, 4]);
  });

  test('nobody comes through a foe, everybody through a friend, and no two stand on one cell', () => {
    const corridor = { walls: [wall('north', 0, 1, 20, 2), wall('south', 0, -2, 20, -1)] };
    const walker = unit({ id: 'walker', side: 'party', ...approaching, rounds: { moves: 3 }, attacks: [strike(1)] });
    const friend = dummy('friend', 'party');
    const run = (other: object[], enemies: object[]) =>
      foughtInTurns({
        party: [walker, ...other] as never,
        arena: {
          ...corridor,
          points: [
            { id: 'a', name: 'a', x: -8.5, y: 0 },
            { id: 'b', name: 'b', x: -6.5, y: 0 },
          ],
        },
        encounter: {
          rounds: { ...BOARD.rounds, limit: 4 },
          party: [{ id: 'm0', unit: 'walker', at: 'a' }, ...other.map((_, i) => ({ id: `n${i}`, unit: 'friend', at: 'b' }))],
        },
        width: 20,
        depth: 3,
        enemies: enemies as never,
      });
    const foe = { unit: dummy('theirs', 'enemy'), x: -2.5, y: 0 };
    expect(hits(run([], [foe]).log).map(([round]) => round)).toEqual([2, 3, 4]);
    expect(hits(run([friend], [foe]).log).map(([round]) => round)).toEqual([2, 3, 4]);
  });
});

const wall = (id: string, x: number, y: number, width: number, height: number) => ({
  id,
  name: id,
  height: 3,
  corners: [
    { x: x - width / 2, y },
    { x: x + width / 2, y },
    { x: x + width / 2, y: y + height },
    { x: x - width / 2, y: y + height },
  ],
});

describe('waves', () => {
  test('come at the beginning of their round, and act from the next; one that waits for a defeat comes in the round after', () => {
    const sketch = {
      party: [unit({ id: 'ours', side: 'party', health: { max: 1000 }, rounds: {}, attacks: [strike(100)] })],
      enemies: [{ unit: unit({ id: 'theirs', health: { max: 10 }, rounds: {}, attacks: [strike(1)] }), x: 1 }],
      wave: { start: 'clock', rounds: { at: 3 } },
      waves: [
        {
          id: 'w2',
          name: 'Wave 2',
          start: 'defeated',
          groups: [{ id: 'h0', enemy: 'theirs', count: { min: 2, max: 2 }, at: ['p0'], alerted: true, rounds: { spacing: 2 } }],
        },
      ],
      encounter: { rounds: { ground: 'none', first: 'theirs', limit: 12 } },
    };
    const run = foughtInTurns(sketch);
    const inRound = (kind: 'spawn' | 'death') => eventsOf(run.log, kind).map(({ time, actor }) => [Math.floor(time) + 1, actor]);
    expect(inRound('spawn')).toEqual([
      [1, 0],
      [3, 1],
      [4, 2],
      [6, 3],
    ]);
    expect(inRound('death')).toEqual([
      [3, 1],
      [4, 2],
      [6, 3],
    ]);
    // None of them lived to have a turn, though theirs come first.
    expect(hits(run.log).filter(([, , whom]) => whom === 0)).toEqual([]);
    expect(run.outcome).toBe('cleared');
  });
});

test('whoever finds no free cell waits for one, and comes at the beginning of the round after', () => {
  const run = foughtInTurns({
    party: [unit({ id: 'ours', side: 'party', health: { max: 1000 }, rounds: { actions: 1 }, attacks: [strike(100)] })],
    partyAt: { x: -0.5, y: -0.5 },
    enemies: [{ unit: dummy('theirs', 'enemy', { health: { max: 10 } }), count: 5, x: 0.5, y: 0.5 }],
    width: 2,
    depth: 2,
    encounter: { rounds: { ground: 'diagonals', limit: 9 } },
  });
  // Four cells: three come at once, each of the others when one has fallen.
  expect(eventsOf(run.log, 'spawn').map(({ time }) => Math.floor(time) + 1)).toEqual([1, 1, 1, 1, 2, 3]);
  expect(eventsOf(run.log, 'noPlace').length).toBeGreaterThan(0);
  expect(run.outcome).toBe('cleared');
});
