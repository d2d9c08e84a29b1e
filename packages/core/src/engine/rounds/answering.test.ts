/** Dodges, guards and counters, by hand. */
import { expect, test } from '@jest/globals';
import { eventsOf, unit } from '../../testing/builders';
import { foughtInTurns } from '../../testing/rounds';

type Loose = Record<string, unknown>;

const strike = (more: Loose = {}) => ({ id: 'strike', effects: { damage: { amount: 10 } }, rounds: {}, ...more });
const fight = (ours: Loose, theirs: Loose, rounds: Loose = {}) =>
  foughtInTurns({
    party: [unit({ id: 'ours', side: 'party', health: { max: 1000 }, rounds: {}, attacks: [strike()], ...ours })],
    enemies: [{ unit: unit({ id: 'theirs', health: { max: 1000 }, rounds: {}, attacks: [], ...theirs }), x: 1 }],
    encounter: { rounds: { ground: 'none', limit: 3, ...rounds } },
  }).log;

/** Round, who, whom, health lost. */
const hits = (log: Parameters<typeof eventsOf>[0]) =>
  eventsOf(log, 'hit').map(({ time, actor, other, a }) => [Math.floor(time) + 1, actor, other, a]);

test('a guard with one use a round lets the second hit through', () => {
  const guards = { rounds: { reactions: [{ id: 'guard', does: 'guard', uses: 1, reduces: 0.5 }] } };
  const twice = { rounds: { actions: 2 }, attacks: [strike({ rounds: { cooldown: 0 } })] };
  expect(hits(fight(twice, guards)).map(([round, , , lost]) => [round, lost])).toEqual([
    [1, 5],
    [1, 10],
    [2, 5],
    [2, 10],
    [3, 5],
    [3, 10],
  ]);
});

test('a dodge keeps a hit off, where the attack lets itself be dodged; then the guard is tried', () => {
  const both = {
    rounds: {
      reactions: [
        { id: 'dodge', does: 'dodge', uses: 1 },
        { id: 'guard', does: 'guard', uses: 1, reduces: 0.2 },
      ],
    },
  };
  const thrice = (answers: string[]) => ({ rounds: { actions: 3 }, attacks: [strike({ rounds: { cooldown: 0 }, answers })] });
  const log = fight(thrice(['dodge', 'block']), both, { limit: 1 });
  expect(hits(log).map(([, , , lost]) => lost)).toEqual([8, 10]);
  expect(eventsOf(log, 'miss')).toHaveLength(1);
  expect(hits(fight(thrice(['block']), both, { limit: 1 })).map(([, , , lost]) => lost)).toEqual([8, 10, 10]);
  expect(hits(fight(thrice([]), both, { limit: 1 })).map(([, , , lost]) => lost)).toEqual([10, 10, 10]);
});

test('a counter strikes back at once, in its range, whatever its cooldown; and provokes no counter', () => {
  const counters = (reach = 1) => ({
    rounds: { reactions: [{ id: 'back', does: 'counter', uses: 5, attack: 'back' }] },
    attacks: [strike(), { id: 'back', weight: 0, effects: { damage: { amount: 3 } }, rounds: { to: reach, cooldown: 9 } }],
  });
  // Each strikes once a round, and each hit but the counters' is struck back.
  expect(hits(fight(counters(), counters(), { limit: 2 })).map(([round, by, , lost]) => [round, by, lost])).toEqual([
    [1, 0, 10],
    [1, 1, 3],
    [1, 1, 10],
    [1, 0, 3],
    [2, 0, 10],
    [2, 1, 3],
    [2, 1, 10],
    [2, 0, 3],
  ]);
});

test('the dead strike nobody back, and who reels neither', () => {
  const back = {
    rounds: { reactions: [{ id: 'back', does: 'counter', uses: 5, attack: 'back' }] },
    attacks: [{ id: 'back', weight: 0, effects: { damage: { amount: 3 } }, rounds: {} }],
  };
  expect(hits(fight({}, { ...back, health: { max: 10 } }))).toHaveLength(1);
  const staggers = { attacks: [strike({ effects: { damage: { amount: 10 }, stagger: { rounds: { for: 3 } } } })] };
  expect(
    hits(fight(staggers, back))
      .filter(([, by]) => by === 1)
      .map(([round]) => round),
  ).toEqual([1]);
});

test('a charged strike of two turns can be answered until it comes', () => {
  const charged = { attacks: [strike({ rounds: { windup: 2, cooldown: 9 } })] };
  const dodges = { rounds: { reactions: [{ id: 'dodge', does: 'dodge', uses: 1 }] } };
  const log = fight(charged, dodges, { limit: 4 });
  expect(hits(log)).toEqual([]);
  expect(eventsOf(log, 'miss').map(({ time }) => Math.floor(time) + 1)).toEqual([3]);
});
