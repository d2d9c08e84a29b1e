/** What units do on a board besides fighting: dear ground, zones, rounds to walk, straying, senses, lunges, where areas go down. */
import { describe, expect, test } from '@jest/globals';
import { type FightSketch, eventsOf, unit } from '../../testing/builders';
import { turnTables } from '../../testing/rounds';
import { TIME_USES } from '../../record/doing';
import { Runner } from '../run';

const square = (id: string, x: number, y: number, wide: number, deep: number, more = {}) => ({
  id,
  name: id,
  ...more,
  corners: [
    { x, y },
    { x: x + wide, y },
    { x: x + wide, y: y + deep },
    { x, y: y + deep },
  ],
});

/** A board of 11 × 11 squares of 1 m, whose middles lie on whole metres. */
const BOARD = { width: 11, depth: 11 };
const strike = { id: 'strike', effects: { damage: { amount: 1 } }, rounds: {} };
const state = (does: string, more = {}) => [{ id: 'only', name: 'only', does, ...more }];
const post = (more = {}) => unit({ id: 'ours', side: 'party', health: { max: 1000 }, attacks: [], rounds: {}, ...more });

/** Where the first enemy stands at the end of each of its turns. */
function placesOf(sketch: FightSketch, seed = 1): string[] {
  const places: string[] = [];
  new Runner(turnTables({ ...BOARD, ...sketch })).run(seed, (fight, time) => {
    if (time === 0) return;
    const [enemy] = fight.living[1];
    if (enemy !== undefined) places.push(`${fight.x[enemy]} ${fight.y[enemy]}`);
  });
  // A look after each turn of both: the enemy's is the second.
  return places.filter((_, i) => i % 2 === 1);
}

describe('ground that costs more', () => {
  // From x = −4 along y = 0 to somebody at x = 5: seven steps to stand beside it. The mire lies across all but one row.
  const sketch = (cost: number): FightSketch => ({
    party: [post()],
    partyAt: { x: 5, y: 0, facing: 180 },
    enemies: [{ unit: unit({ id: 'theirs', attacks: [strike], states: state('approach'), rounds: { moves: 4 } }), x: -4, y: 0 }],
    arena: { ground: [square('mire', -2.5, -4.5, 2, 9, { kind: 'mire' })] },
    encounter: { rounds: { ground: 'squares', limit: 4, costs: [{ kind: 'mire', cost }] } },
  });

  test('at the price of plain ground it goes straight on, four cells a turn', () => {
    expect(placesOf(sketch(1)).slice(0, 2)).toEqual(['0 0', '4 0']);
  });

  test('at twice the price of it, it comes as far as that pays for', () => {
    // −3 is plain (1), −2 costs 2, −1 costs 2: five, so three of four are spent at −2.
    expect(placesOf(sketch(2))[0]).toBe('-2 0');
  });
});

describe('zones', () => {
  const sketch = (zones: string): FightSketch => ({
    party: [post()],
    partyAt: { x: 5, y: 0, facing: 180 },
    enemies: [{ unit: unit({ id: 'theirs', attacks: [strike], states: state('approach'), rounds: { moves: 8 } }), x: -4, y: 0 }],
    arena: { zones: [square('line', -2.5, -5.5, 2, 11, { by: 'enemies', flag: 'crossed' })] },
    encounter: { rounds: { ground: 'squares', limit: 3, zones } },
  });
  const raised = (zones: string) => eventsOf(new Runner(turnTables({ ...BOARD, ...sketch(zones) })).run(1).log, 'flag').length;

  test('whoever runs through one has entered it only where passing counts', () => {
    expect(raised('end')).toBe(0);
    expect(raised('pass')).toBe(1);
  });
});

test('a round is walked stop by stop, with the turns that each asks for', () => {
  const points = [
    { id: 'a', x: 3, y: 0 },
    { id: 'b', x: 3, y: 2, rounds: { pause: 2 } },
  ];
  const places = placesOf({
    party: [post()],
    partyAt: { x: 5, y: 5, facing: 0 },
    enemies: [
      { unit: unit({ id: 'theirs', attacks: [], states: state('patrol', { patrol: { points } }), rounds: { moves: 3 } }), x: -4, y: 0 },
    ],
    encounter: { rounds: { ground: 'squares', limit: 7 } },
  });
  // At a in the first; on to b, where it arrives, rests two turns from the one in which it finds itself there, and goes back.
  expect(places.slice(0, 6)).toEqual(['-1 0', '-1 2', '-1 2', '-1 2', '-1 0', '-1 2']);
});

test('whoever strays keeps within its radius of home, comes to each of its cells, and draws anew each turn', () => {
  const seen = new Set<string>();
  for (let seed = 1; seed <= 40; seed++) {
    const places = placesOf(
      {
        party: [post()],
        partyAt: { x: 5, y: 5, facing: 0 },
        enemies: [
          {
            unit: unit({ id: 'theirs', attacks: [], states: state('wander', { rounds: { radius: 2 } }), rounds: { moves: 4 } }),
            x: -2,
            y: 0,
          },
        ],
        encounter: { rounds: { ground: 'squares', limit: 12 } },
      },
      seed,
    );
    for (const place of places) seen.add(place);
  }
  // On squares without diagonals 13 cells are within 2 of a cell.
  expect(seen.size).toBe(13);
  for (const place of seen) {
    const [x, y] = place.split(' ').map(Number);
    expect(Math.abs(x + 2) + Math.abs(y)).toBeLessThanOrEqual(2);
  }
});

describe('senses', () => {
  const sketch = (senses: object, at = { x: 4, y: 0 }, more = {}, alerted = false): FightSketch => ({
    party: [post(more)],
    partyAt: { ...at, facing: 180 },
    enemies: [
      {
        unit: unit({ id: 'theirs', attacks: [strike], states: state('approach'), rounds: { moves: 1, senses } }),
        x: -4,
        y: 0,
        facing: 0,
        group: { alerted },
      },
    ],
    encounter: { rounds: { ground: 'squares', limit: 6 } },
  });
  const noticed = (given: FightSketch) =>
    eventsOf(new Runner(turnTables({ ...BOARD, ...given })).run(1).log, 'notice').filter(({ actor }) => actor === 1);

  test('it notices whom it sees: within its distance and angle, and past no wall', () => {
    expect(noticed(sketch({ sight: 8 }))).toHaveLength(1);
    expect(noticed(sketch({ sight: 7 }))).toHaveLength(0);
    expect(noticed(sketch({ sight: 12, angle: 90 }))).toHaveLength(1);
    expect(noticed(sketch({ sight: 12, angle: 90 }, { x: -4, y: 4 }))).toHaveLength(0);
    const wall = { walls: [square('wall', -0.5, -5.5, 1, 11, { height: 4 })] };
    expect(noticed({ ...sketch({ sight: 12 }), arena: wall })).toHaveLength(0);
    expect(noticed({ ...sketch({ sight: 12, needsLine: false }), arena: wall })).toHaveLength(1);
  });

  test('whom it has lost it goes after for as many turns as it remembers, then forgets', () => {
    // It knows of the other as the fight begins; that is six cells away, out of its sight, before it has its first turn.
    const flees = { states: state('goTo', { to: 'far' }), rounds: { moves: 3 } };
    const lostIn = (memory: number) => {
      const run = new Runner(
        turnTables({
          ...BOARD,
          ...sketch({ sight: 4, memory }, { x: -1, y: 0 }, flees, true),
          arena: { points: [{ id: 'far', name: 'far', x: 5, y: 0 }] },
        }),
      ).run(1);
      return eventsOf(run.log, 'lose')
        .filter(({ actor }) => actor === 1)
        .map(({ time }) => Math.floor(time) + 1);
    };
    expect([0, 1, 2].map(lostIn)).toEqual([[1], [2], [3]]);
  });
});

describe('a lunge', () => {
  const lunges = (x: number, arena = {}) => {
    const lunge = { ...strike, rounds: { from: 0, to: 6, lunge: 3 }, needsLine: false };
    return placesOf({
      party: [post()],
      partyAt: { x, y: 0, facing: 180 },
      enemies: [{ unit: unit({ id: 'theirs', attacks: [lunge], states: state('hold'), rounds: { moves: 0 } }), x: -4, y: 0 }],
      arena,
      encounter: { rounds: { ground: 'squares', limit: 1 } },
    })[0];
  };

  test('goes as far as it may, or until it stands beside its target', () => {
    expect(lunges(2)).toBe('-1 0');
    expect(lunges(-1)).toBe('-2 0');
  });

  test('ends at a wall', () => {
    expect(lunges(2, { walls: [square('wall', -2.5, -0.5, 1, 1, { height: 0.1 })] })).toBe('-3 0');
  });
});

test('an area that is marked goes down where it strikes most foes, and fewest friends where it would strike them', () => {
  const blast = (friendly: boolean) => ({
    id: 'blast',
    delivery: 'area',
    area: { about: 'mark' },
    effects: { damage: { amount: 1 } },
    hits: { friendlyFire: friendly },
    rounds: { to: 20, radius: 1 },
    needsLine: false,
  });
  const struck = (friendly: boolean) => {
    const run = new Runner(
      turnTables({
        ...BOARD,
        party: [post(), post({ id: 'second' }), post({ id: 'third' })],
        partyAt: { x: -3, y: 0, facing: 0 },
        enemies: [
          { unit: unit({ id: 'theirs', attacks: [blast(friendly)], states: state('hold'), rounds: {} }), x: 5, y: 0 },
          { unit: unit({ id: 'near', attacks: [], states: state('hold'), rounds: {} }), x: -4, y: 0 },
        ],
        encounter: { rounds: { ground: 'squares', limit: 1 } },
      }),
    ).run(1);
    return eventsOf(run.log, 'hit').map(({ other }) => run.sides[other]);
  };
  const [alone, careful] = [struck(false), struck(true)];
  expect(alone.length).toBeGreaterThanOrEqual(2);
  expect(alone.every((side) => side === 0)).toBe(true);
  expect(careful.filter((side) => side === 0).length - careful.filter((side) => side === 1).length).toBeGreaterThanOrEqual(1);
});

test('a turn that comes to nothing went into coming to its band, or, once it is there, was out of range', () => {
  // From ten cells away with three moves to a band of 4 to 5, with a reach of 1: at 7, at 5, and there it stays.
  const keeper = unit({
    id: 'theirs',
    attacks: [strike],
    states: state('band', { near: 1, far: 2, rounds: { near: 4, far: 5 } }),
    rounds: { moves: 3 },
  });
  const { log } = new Runner(
    turnTables({
      party: [post()],
      partyAt: { x: 5, y: 0, facing: 180 },
      enemies: [{ unit: keeper, x: -5, y: 0 }],
      ...BOARD,
      encounter: { rounds: { ground: 'squares', limit: 4 } },
    }),
  ).run(1);
  const turns = eventsOf(log, 'turn').filter(({ actor }) => actor === 1);
  expect(turns.map(({ what, a }) => [TIME_USES[what], a])).toEqual([
    ['toBand', 3],
    ['range', 2],
    ['range', 0],
    ['range', 0],
  ]);
});

describe('those that are called', () => {
  /** Cells from the caller at which each appears, over some seeds. @param side m of a cell */
  const apart = (around: number, side: number, rest: Partial<FightSketch> = {}, seeds = 40) => {
    const caller = unit({
      id: 'caller',
      health: { max: 1000 },
      attacks: [
        { id: 'call', delivery: 'summon', summon: { unit: 'mite', count: 2, cap: 2 }, effects: {}, rounds: { around, cooldown: 100 } },
      ],
      rounds: {},
    });
    const tables = turnTables({
      party: [post()],
      partyAt: { x: 5 * side, y: 5 * side },
      enemies: [{ unit: caller, x: 0, y: 0 }],
      others: [unit({ id: 'mite', health: { max: 5 }, attacks: [], rounds: {} })],
      width: 11 * side,
      depth: 11 * side,
      encounter: { rounds: { ground: 'squares', cell: side, limit: 2 } },
      ...rest,
    });
    const found: { x: number; y: number; cells: number }[] = [];
    const runner = new Runner(tables);
    for (let seed = 1; seed <= seeds; seed++) {
      for (const { actor, a, b } of eventsOf(runner.run(seed).log, 'spawn'))
        if (actor > 1) found.push({ x: a / side, y: b / side, cells: Math.abs(a / side) + Math.abs(b / side) });
    }
    return found;
  };

  test.each([1, 2.5])('stand within so many cells of their caller, wherever there is room, on cells of %d m', (side) => {
    const found = apart(2, side);
    expect(found).toHaveLength(80);
    expect(Math.max(...found.map(({ cells }) => cells))).toBe(2);
    // Four cells beside it and eight at two: as often one as another.
    expect(new Set(found.map(({ x, y }) => `${x} ${y}`)).size).toBe(12);
    const near = found.filter(({ cells }) => cells === 1).length;
    // 27 of 80 are meant; three deviations are 13.
    expect(Math.abs(near - 80 / 3)).toBeLessThan(13);
  });

  test('come as near as they can where there is no room so near', () => {
    const walls = [
      square('west', -1.5, -1.5, 1, 3),
      square('east', 0.5, -1.5, 1, 3),
      square('south', -0.5, -1.5, 1, 1),
      square('north', -0.5, 0.5, 1, 1),
    ];
    const found = apart(1, 1, { arena: { walls: walls.map((one) => ({ ...one, height: 3 })) } }, 5);
    expect(found.map(({ cells }) => cells)).toEqual(Array(10).fill(2));
  });
});

describe('whoever is pushed against what it cannot pass', () => {
  // Ours at x = 2 strikes who stands beside it at x = 3, three cells away; the edge of the board is behind x = 5.
  const shove = { id: 'shove', effects: { damage: { amount: 5 }, knockback: { distance: 9, rounds: { cells: 3, crush: 4 } } }, rounds: {} };
  const fight = (theirs = {}, more: Partial<FightSketch> = {}, push = shove) =>
    new Runner(
      turnTables({
        ...BOARD,
        party: [post({ attacks: [push], states: state('hold') })],
        partyAt: { x: 2, y: 0, facing: 0 },
        enemies: [
          { unit: unit({ id: 'theirs', health: { max: 20 }, armour: { flat: 3 }, attacks: [], rounds: {}, ...theirs }), x: 3, y: 0 },
        ],
        encounter: { rounds: { ground: 'squares', limit: 1, first: 'ours' } },
        ...more,
      }),
    ).run(1);
  const told = (run: ReturnType<typeof fight>) => [
    eventsOf(run.log, 'knock').map(({ a }) => a),
    eventsOf(run.log, 'crush').map(({ a, b, c, d }) => [a, b, c, d]),
  ];

  test('is hurt for each cell that is left, past armour', () => {
    expect(told(fight())).toEqual([[2], [[4, 0, 4, 0]]]);
    expect(told(fight({}, { arena: { walls: [square('wall', 3.5, -1.5, 1, 3, { height: 3 })] } }))).toEqual([[0], [[12, 0, 12, 0]]]);
    expect(
      told(fight({}, {}, { ...shove, effects: { ...shove.effects, knockback: { distance: 9, rounds: { cells: 2, crush: 4 } } } })),
    ).toEqual([[2], []]);
  });

  test('not past shields, nor for what its steadiness takes off; it may die of it, and that is a kill of the attack', () => {
    expect(told(fight({ shield: { max: 5 } }))).toEqual([[2], [[1, 0, 4, 3]]]);
    expect(told(fight({ knockback: { resist: 0.5 } }))).toEqual([[1], []]);
    const deadly = fight({ health: { max: 5 } });
    expect(told(deadly)).toEqual([[2], [[3, 1, 4, 0]]]);
    expect(eventsOf(deadly.log, 'death').map(({ other, what }) => [other, what])).toEqual([[0, 0]]);
  });
});

describe('who grows', () => {
  // One that doubles its own body as it acts first; two cells of the board are left to it beside the other.
  const grows = {
    id: 'grow',
    delivery: 'self',
    effects: { boost: { tweaks: [{ path: '/rounds/size', op: '=', value: 2 }], rounds: { for: 1 } } },
  };
  const sizes = (width: number, depth: number) => {
    const seen: string[] = [];
    new Runner(
      turnTables({
        width,
        depth,
        party: [post({ attacks: [{ ...grows, rounds: { cooldown: 3 } }], choice: { priorities: [{ entries: [{ attack: 'grow' }] }] } })],
        partyAt: { x: 0, y: 0, facing: 0 },
        enemies: [{ unit: unit({ id: 'theirs', attacks: [], rounds: {} }), x: width / 2, y: 0 }],
        encounter: { rounds: { ground: 'squares', cell: 2, limit: 3, first: 'ours' } },
      }),
    ).run(1, (fight, time) => {
      const board = fight.board!;
      if (time > 0) seen.push(`${fight.kinds[0].turns!.size} on ${board.standing.filter((one) => one === 0).length}`);
    });
    return seen;
  };

  test('takes up the cells of its body while that lasts', () => {
    expect(sizes(10, 10)).toEqual(['2 on 4', '2 on 4', '1 on 1', '1 on 1', '1 on 1', '1 on 1']);
  });

  test('is at home where it stood with the body that it came with, whichever way the board lies', () => {
    // A body of 2 × 2 about the middle of the board shrinks; then it goes home: onto a cell that the larger one covered.
    const shrinks = { ...grows, effects: { boost: { tweaks: [{ path: '/rounds/size', op: '=', value: 1 }], rounds: { for: 9 } } } };
    const ends = [0, 90, 180, 270].map((facing) => {
      let place = '';
      new Runner(
        turnTables({
          width: 6,
          depth: 6,
          party: [
            post({
              attacks: [{ ...shrinks, rounds: { cooldown: 9 } }],
              choice: { priorities: [{ entries: [{ attack: 'grow' }] }] },
              states: state('home'),
              rounds: { size: 2, moving: 'after' },
            }),
          ],
          partyAt: { x: 0, y: 0, facing },
          enemies: [{ unit: unit({ id: 'theirs', attacks: [], rounds: {} }), x: 2.5, y: 2.5 }],
          encounter: { rounds: { ground: 'squares', limit: 4, first: 'ours' } },
        }),
      ).run(1, ({ x, y }) => (place = `${x[0]} ${y[0]}`));
      const turn = (facing * Math.PI) / 180;
      const [x, y] = place.split(' ').map(Number);
      return [x * Math.cos(turn) + y * Math.sin(turn), y * Math.cos(turn) - x * Math.sin(turn)].map((one) => Math.round(one * 2) / 2);
    });
    expect(ends[0].map(Math.abs)).toEqual([0.5, 0.5]);
    for (const end of ends) expect(end).toEqual(ends[0]);
  });

  test('keeps the body that it has where there is no room for more', () => {
    expect(sizes(6, 2)).toEqual(Array.from({ length: 6 }, () => '1 on 1'));
  });
});

test('who is to be raised lies on while its board is full, and that is told', () => {
  const raise = { id: 'raise', delivery: 'support', targets: 'fallen', effects: { revive: { share: 1 } }, rounds: { to: 9, firstUse: 2 } };
  const lies = unit({
    id: 'lies',
    health: { max: 1 },
    attacks: [],
    onDeath: { revivals: 3 },
    rounds: { revivableFor: 9, moves: 0, order: 0 },
  });
  const fight = (cells: number) =>
    new Runner(
      turnTables({
        width: 2 * cells,
        depth: 2,
        party: [post({ attacks: [{ ...strike, range: { min: 0, max: 20 }, rounds: { to: 20 } }] })],
        partyAt: { x: -2, y: 0, facing: 0 },
        // The second comes where the first fell.
        enemies: [
          { unit: lies, x: 0, y: 0 },
          { unit: unit({ id: 'raiser', health: { max: 99 }, attacks: [raise], rounds: { moves: 0 } }), x: 2, y: 0 },
        ],
        waves: [
          {
            id: 'w2',
            name: 'Next',
            start: 'clock',
            rounds: { at: 2 },
            groups: [{ id: 'g', enemy: 'raiser', count: { min: 1, max: 1 }, at: ['p0'] }],
          },
        ],
        encounter: { rounds: { ground: 'squares', cell: 2, limit: 4, first: 'ours' } },
      }),
    ).run(1);
  const told = (run: ReturnType<typeof fight>) => ['revive', 'noPlace'].map((kind) => eventsOf(run.log, kind as 'revive').length);
  const [raised, found] = [told(fight(7)), told(fight(3))];
  expect(raised[0]).toBeGreaterThan(0);
  expect(raised[1]).toBe(0);
  expect(found[0]).toBe(0);
  expect(found[1]).toBeGreaterThan(0);
});
