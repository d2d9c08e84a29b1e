/** What a unit's next turn looks like beforehand, against what the engine then does from every cell of the board. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Runner } from '../engine/run';
import { EVENT } from '../record/log';
import { arbitraryRounds } from '../testing/arbitrary-rounds';
import { type FightSketch, unit } from '../testing/builders';
import { turnTables, turnTablesTrusted } from '../testing/rounds';
import { reasonLook } from './reason-look';
import { turnLook } from './turn-look';

type Loose = Record<string, unknown>;

const SIZE = 9;
const middle = (cell: number) => ({ x: (cell % SIZE) - (SIZE - 1) / 2, y: Math.floor(cell / SIZE) - (SIZE - 1) / 2 });
const dummy = unit({ id: 'ours', side: 'party', health: { max: 1e6 }, attacks: [], rounds: { order: 10 } });
const striker = (attack: Loose, rounds: Loose = {}, more: Loose = {}) =>
  unit({
    id: 'theirs',
    health: { max: 100 },
    attacks: [{ id: 'a', needsLine: false, effects: { damage: { amount: 5 } }, ...attack }],
    states: [{ id: 's', name: 's', does: 'approach' }],
    ...more,
    rounds: { order: 50, moves: 2, ...rounds },
  });
const sketch = (enemies: Loose[], at: number[], party: number, more: Loose = {}): FightSketch => ({
  party: [dummy],
  partyAt: middle(party),
  enemies: enemies.map((one, i) => ({ unit: { ...one, id: `theirs${i}`, name: `theirs${i}` }, ...middle(at[i]) })),
  width: SIZE,
  depth: SIZE,
  encounter: { rounds: { ground: 'squares', order: 'byOrder', limit: 3, ...(more.rounds as Loose) } },
  arena: (more.arena as Loose) ?? {},
});
/** As it looks before the first turn. */
function lookOf(fight: FightSketch, who: number) {
  let found: ReturnType<typeof turnLook> | undefined;
  let step = 0;
  new Runner(turnTables(fight)).run(1, (state) => {
    if (step++ === 0) found = turnLook(state, who);
  });
  return found!;
}
/** Cells with a number, as rows from north to south. */
const picture = (cells: ArrayLike<number>, sign: (value: number) => string) =>
  Array.from({ length: SIZE }, (_, row) =>
    Array.from({ length: SIZE }, (_, column) => sign(cells[(SIZE - 1 - row) * SIZE + column])).join(''),
  );

describe('by hand', () => {
  test('harm in each cell: as far as it comes and reaches, twice where two do', () => {
    // One in the west and one in the east of the middle row, each two steps and one reach: within three by way.
    const { ground } = lookOf(sketch([striker({}), striker({})], [4 * SIZE, 4 * SIZE + 8], 0), 0);
    expect(picture(ground!.harm, (value) => (Number.isNaN(value) ? '#' : value === 0 ? '.' : String(value)))).toEqual([
      '.........',
      '5.......5',
      '55.....55',
      '555...555',
      '#555.555#',
      '555...555',
      '55.....55',
      '5.......5',
      '.........',
    ]);
  });

  test('where it can go and strike: goes two, strikes three, and not through a wall', () => {
    const wall = {
      id: 'w',
      name: 'w',
      height: 3,
      corners: [middle(13), middle(14), middle(68), middle(67)].map(({ x, y }, i) => ({
        x: x + (i === 0 || i === 3 ? -0.5 : 0.5) * 1 - (i === 1 || i === 2 ? 1 : 0),
        y: y + (i < 2 ? -0.5 : 0.5),
      })),
    };
    const { ground } = lookOf(sketch([striker({})], [4 * SIZE + 3], 8, { arena: { walls: [wall] } }), 1);
    expect(picture(ground!.goes, (value) => (value < 0 ? '.' : String(value)))).toEqual([
      '.........',
      '.........',
      '...2.....',
      '..21.....',
      '.210.....',
      '..21.....',
      '...2.....',
      '.........',
      '.........',
    ]);
    expect(picture(ground!.strikes, (value) => (value ? 'x' : '.'))).toEqual([
      '.........',
      '...x.....',
      '..xx.....',
      '.xxx.....',
      'xxxx.....',
      '.xxx.....',
      '..xx.....',
      '...x.....',
      '.........',
    ]);
  });

  test('who comes next: each one’s next turn, as they come', () => {
    const { order } = lookOf(sketch([striker({}, { order: 50 }), striker({}, { order: 70 })], [0, 8], 40), 0);
    expect(order).toEqual([
      { unit: 2, round: 1 },
      { unit: 1, round: 1 },
      { unit: 0, round: 1 },
    ]);
    // After the dummy's turn, the last of round 1, everybody's next is in round 2.
    const look = reasonLook(new Runner(turnTables(sketch([striker({}, { order: 50 }), striker({}, { order: 70 })], [0, 8], 40))), 1, 0, 3)!;
    expect(look.turn!.order.map(({ unit: who, round }) => [who, round])).toEqual([
      [2, 2],
      [1, 2],
      [0, 2],
    ]);
  });

  test('only those who come before it count, and only what strikes in that turn', () => {
    const most = (enemy: Loose, step = 0) => {
      const fight = new Runner(turnTables(sketch([enemy], [4 * SIZE + 4], 0, { rounds: { limit: 5 } })));
      return Math.max(...Array.from(reasonLook(fight, 1, 0, step)!.turn!.ground!.harm).filter((value) => value === value));
    };
    expect(most(striker({}))).toBe(5);
    // It comes after the dummy.
    expect(most(striker({}, { order: 1 }))).toBe(0);
    // A wind-up strikes in a later turn; it is not begun on somebody out of reach.
    expect(most(striker({ rounds: { windup: 1 } }))).toBe(0);
    expect(most(striker({ rounds: { firstUse: 2 } }))).toBe(0);
    // Two acts with one attack that may come again at once, or with two of which one is recovered from.
    expect(most(striker({ rounds: { cooldown: 0 } }, { actions: 2 }))).toBe(10);
    expect(most(striker({}, { actions: 2 }))).toBe(5);
    expect(most(striker({ rounds: { hits: 3 } }))).toBe(5);
    expect(most(striker({ hits: { perTarget: 'every' }, rounds: { hits: 3 } }))).toBe(15);
    expect(most(striker({ rounds: { hits: 3, perTarget: 'every' } }))).toBe(15);
    expect(most(striker({ delivery: 'projectile', projectile: { count: 3 }, rounds: { hits: 2 } }))).toBe(30);
    expect(most(striker({ delivery: 'projectile', projectile: { count: 3 }, aim: { near: 0.5, far: 0.5 } }))).toBe(7.5);
  });

  test('a wind-up that comes due strikes from where it stands', () => {
    // Beside the dummy; begun in its first turn, it strikes in its second.
    const fight = new Runner(
      turnTables(sketch([striker({ rounds: { windup: 1, to: 2, cooldown: 9 } })], [4 * SIZE + 4], 4 * SIZE + 5, { rounds: { limit: 5 } })),
    );
    const { harm } = reasonLook(fight, 1, 0, 2)!.turn!.ground!;
    expect(picture(harm, (value) => (Number.isNaN(value) ? '#' : value === 0 ? '.' : String(value))).slice(2, 7)).toEqual([
      '....5....',
      '...555...',
      '..55#55..',
      '...555...',
      '....5....',
    ]);
  });

  test('whoever holds stays, whoever strikes before it goes too; without ground there is an order alone', () => {
    const reach = (enemy: Loose) => {
      const { harm } = lookOf(sketch([enemy], [4 * SIZE + 4], 0), 0).ground!;
      return Array.from(harm).filter((value) => value > 0).length;
    };
    expect(reach(striker({}))).toBe(24);
    expect(reach(striker({}, { moving: 'after' }))).toBe(4);
    expect(reach(striker({}, {}, { states: [{ id: 's', name: 's', does: 'hold' }] }))).toBe(4);
    expect(reach(striker({}, { plays: { best: 1, ends: 'state' } }, { states: [{ id: 's', name: 's', does: 'hold' }] }))).toBe(24);
    expect(lookOf(sketch([striker({})], [0], 40, { rounds: { ground: 'none' } }), 0).ground).toBeUndefined();
  });
});

const walls = fc
  .array(
    fc.record({
      x: fc.integer({ min: 0, max: SIZE - 2 }),
      y: fc.integer({ min: 0, max: SIZE - 2 }),
      wide: fc.integer({ min: 1, max: 3 }),
      deep: fc.integer({ min: 1, max: 2 }),
    }),
    { maxLength: 3 },
  )
  .map((list) =>
    list.map(({ x, y, wide, deep }, i) => {
      const [left, low] = [x - SIZE / 2, y - SIZE / 2];
      const [right, high] = [Math.min(SIZE / 2, left + wide), Math.min(SIZE / 2, low + deep)];
      return {
        id: `w${i}`,
        name: `w${i}`,
        height: 3,
        corners: [
          { x: left, y: low },
          { x: right, y: low },
          { x: right, y: high },
          { x: left, y: high },
        ],
      };
    }),
  );
const cases = fc.record({
  walls,
  at: fc.integer({ min: 0, max: SIZE * SIZE - 1 }),
  ground: fc.constantFrom('squares', 'squares', 'diagonals', 'hexagons'),
  delivery: fc.constantFrom('melee', 'hitscan', 'projectile'),
  moves: fc.integer({ min: 0, max: 5 }),
  to: fc.integer({ min: 1, max: 4 }),
  size: fc.constantFrom(1, 1, 2),
  hits: fc.integer({ min: 1, max: 2 }),
  perTarget: fc.constantFrom('once', 'every', undefined),
  count: fc.integer({ min: 1, max: 3 }),
});

test('of generated boards: it is what the engine does when the other stands on each cell', () => {
  fc.assert(
    fc.property(cases, ({ walls: list, at, ground, delivery, moves, to, size, hits, perTarget, count }) => {
      const enemy = striker(
        {
          delivery,
          needsLine: delivery !== 'melee',
          ...(delivery === 'projectile' && { projectile: { count } }),
          rounds: { to, hits, ...(perTarget && { perTarget }) },
        },
        { moves, size },
        // It comes within its reach, and to a clear line where it needs one.
        { states: [{ id: 's', name: 's', does: 'approach', ...(delivery === 'melee' && { stopAt: to, rounds: { stopAt: to } }) }] },
      );
      const fight = (party: number) => turnTables(sketch([enemy], [at], party, { rounds: { ground, limit: 1 }, arena: { walls: list } }));
      const tables = fight(at === 0 ? SIZE * SIZE - 1 : 0);
      const { x, y } = tables.rounds!.board!;
      let start: [number, number] | undefined;
      let ours: ReturnType<typeof turnLook> | undefined;
      let theirs: ReturnType<typeof turnLook> | undefined;
      new Runner(tables).run(1, (state, time) => {
        if (time > 0) return;
        start = [state.onCell[1], state.onCell[0]];
        ours = turnLook(state, 0);
        theirs = turnLook(state, 1);
      });
      for (let cell = 0; cell < x.length; cell += 1) {
        if (Number.isNaN(ours!.ground!.harm[cell]) || cell === start![1]) continue;
        const other = turnTables({
          ...sketch([enemy], [at], 0, { rounds: { ground, limit: 1 }, arena: { walls: list } }),
          partyAt: { x: x[cell], y: y[cell] },
        });
        let placed: number[] = [];
        const { log } = new Runner(other).run(1, (state, time) => {
          if (time === 0) placed = [state.onCell[1], state.onCell[0]];
        });
        // The board may have put one of them elsewhere than was asked.
        if (placed[0] !== start![0] || placed[1] !== cell) continue;
        let dealt = 0;
        let reached = -1;
        for (let i = 0; i < log.length; i++) {
          if (log.kind[i] === EVENT.hit) dealt += 5;
          if (log.kind[i] === EVENT.turn && log.actor[i] === 1) reached = log.b[i];
        }
        expect([cell, ours!.ground!.harm[cell]]).toEqual([cell, dealt]);
        expect([cell, theirs!.ground!.strikes[cell]]).toEqual([cell, reached]);
      }
    }),
    { numRuns: 12 },
  );
});

test('of generated fights: looking changes nothing', () => {
  fc.assert(
    fc.property(arbitraryRounds, fc.integer({ min: 1, max: 50 }), (fight, seed) => {
      const tables = turnTablesTrusted(fight);
      const { digest } = new Runner(tables).run(seed);
      const looked = new Runner(tables).run(seed, (state) => {
        for (const who of [...state.alive]) turnLook(state, who);
      });
      expect(looked.digest).toBe(digest);
    }),
    { numRuns: 15 },
  );
});
