/**
 * Generated fights in rounds: units that move, strike, shoot, burst, help, raise, call others and push, with all that they may
 * have besides, on small boards with walls, or without ground.
 */
import fc from 'fast-check';
import { arbitraryTargeting } from './arbitrary-targeting';
import { type FightSketch, unit } from './builders';

type Loose = Record<string, unknown>;

const whole = (min: number, max: number) => fc.integer({ min, max });
const lasting = (max: number) => fc.record({ for: whole(1, max) });

const effects = fc.record(
  {
    damage: fc.record({ amount: whole(0, 12), spread: fc.constantFrom(0, 0, 2) }),
    overTime: fc.record({
      amount: whole(0, 4),
      stacking: fc.constantFrom('refresh', 'stack', 'ignore'),
      rounds: fc.record({ every: whole(1, 2), for: whole(1, 4) }),
    }),
    slow: fc.record({ share: fc.constantFrom(0.3, 0.5, 1), rounds: lasting(3) }),
    stagger: fc.record({ rounds: lasting(2) }),
    knockback: fc.record({ rounds: fc.record({ cells: whole(0, 3), crush: fc.constantFrom(0, 0, 3) }) }),
    mark: fc.record({ multiplier: fc.constantFrom(1.5, 2), rounds: lasting(3) }),
    boost: fc.record({
      tweaks: fc.constantFrom(
        [{ path: '/armour/flat', op: '+', value: 2 }],
        [{ path: '/rounds/moves', op: '+', value: 2 }],
        [{ path: '/rounds/size', op: '=', value: 2 }],
        [{ path: '/rounds/size', op: '=', value: 1 }],
      ),
      rounds: lasting(3),
    }),
    drain: fc.record({ amount: whole(1, 4) }),
    taunt: fc.record({ rounds: lasting(2) }),
  },
  { requiredKeys: ['damage'] },
);

/** Of ten, so many have it. */
const sometimes = <T>(of: fc.Arbitrary<T>, times = 3) =>
  fc.tuple(whole(1, 10), of).map(([drawn, value]) => (drawn <= times ? value : undefined));

/** What any attack may have besides. */
const besides = {
  charges: sometimes(fc.record({ count: whole(1, 3) })),
  energy: sometimes(whole(0, 4)),
  /** A place in the list, come round: an id is given later. */
  follower: sometimes(whole(0, 2)),
  condition: sometimes(
    fc.oneof(
      fc.record({
        subject: fc.constantFrom(
          'distance',
          'nearestFoe',
          'nearestFriend',
          'homeDistance',
          'sinceHit',
          'sinceAttack',
          'timeInState',
          'clock',
        ),
        is: fc.constantFrom('below', 'above'),
        value: fc.constant(9),
        rounds: fc.record({ value: whole(0, 6) }),
      }),
      fc.record({
        subject: fc.constantFrom('friends', 'foes', 'fallen'),
        is: fc.constant('above'),
        value: fc.constant(0),
        within: fc.constant(9),
        rounds: fc.record({ value: fc.constant(0), within: whole(1, 6) }),
      }),
      fc.record({ subject: fc.constantFrom('line', 'sees'), is: fc.constantFrom('yes', 'no') }),
      fc.record({ subject: fc.constant('energy'), is: fc.constantFrom('below', 'above'), value: whole(0, 6) }),
    ),
    2,
  ),
};

const timing = {
  firstUse: fc.constantFrom(0, 0, 0, 1, 2),
  recharge: whole(1, 3),
  follows: whole(1, 2),
  lunge: fc.constantFrom(0, 0, 0, 2),
  windup: fc.constantFrom(0, 0, 0, 1, 2),
  cooldown: whole(0, 3),
  recovery: fc.constantFrom(0, 0, 1, 2),
  hits: fc.constantFrom(1, 1, 2),
};

/** Attacks by their place in the list: ids are given later. */
const attack: fc.Arbitrary<Loose> = fc.oneof(
  fc.record({
    delivery: fc.constant('melee'),
    effects,
    arc: fc.constantFrom(360, 120),
    hits: fc.record({ limit: whole(1, 3) }),
    ...besides,
    rounds: fc.record({ to: whole(1, 4), ...timing }),
  }),
  fc.record({
    delivery: fc.constantFrom('hitscan', 'projectile'),
    effects,
    aim: fc.record({ near: fc.constantFrom(1, 0.7), far: fc.constantFrom(1, 0.5) }),
    ...besides,
    rounds: fc.record({ from: whole(0, 1), to: whole(2, 8), ...timing }),
  }),
  fc.record({
    delivery: fc.constant('area'),
    effects,
    area: fc.record({ about: fc.constantFrom('self', 'target', 'mark'), angle: fc.constantFrom(360, 90) }),
    ...besides,
    rounds: fc.record({ to: whole(1, 6), radius: whole(1, 2), delay: fc.constantFrom(0, 1), ...timing }),
  }),
  fc.record({
    delivery: fc.constant('support'),
    targets: fc.constant('friends'),
    effects: fc.record({ heal: fc.record({ amount: whole(1, 10) }) }),
    ...besides,
    rounds: fc.record({ to: whole(1, 6), ...timing }),
  }),
  fc.record({
    delivery: fc.constantFrom('support'),
    targets: fc.constant('fallen'),
    effects: fc.record({ revive: fc.record({ share: fc.constantFrom(0.3, 1) }) }),
    ...besides,
    rounds: fc.record({ to: whole(1, 6), ...timing }),
  }),
  fc.record({
    delivery: fc.constantFrom('self'),
    effects: fc.record({ shield: fc.record({ amount: whole(1, 8), rounds: lasting(3) }) }),
    ...besides,
    rounds: fc.record(timing),
  }),
  fc.record({
    delivery: fc.constant('summon'),
    summon: fc.record({ unit: fc.constant('mite'), count: whole(1, 2), cap: whole(1, 3) }),
    ...besides,
    rounds: fc.record({ around: whole(1, 3), ...timing }),
  }),
);

/** Who is called. */
const MITE = unit({
  id: 'mite',
  health: { max: 4 },
  attacks: [{ id: 'a0', rounds: { to: 1 } }],
  states: [{ id: 's0', name: 's0', does: 'approach' }],
  rounds: { order: 50, moves: 3 },
});

const state: fc.Arbitrary<Loose> = fc.oneof(
  fc.record({ does: fc.constantFrom('approach', 'search', 'hold', 'flee', 'home') }),
  fc.record({
    does: fc.constantFrom('approach', 'search'),
    rounds: fc.record({ moves: whole(0, 4), stopAt: whole(1, 5) }),
  }),
  fc.record({
    does: fc.constant('follow'),
    near: fc.constant(1),
    far: fc.constant(2),
    rounds: fc.record({ near: whole(0, 1), far: whole(2, 4) }),
  }),
  fc.record({
    does: fc.constantFrom('band', 'strafe'),
    near: fc.constant(1),
    far: fc.constant(2),
    rounds: fc.record({ near: whole(0, 3), far: whole(3, 6) }),
  }),
  fc.record({ does: fc.constant('wander'), rounds: fc.record({ radius: whole(1, 4) }) }),
  fc.record({
    does: fc.constant('patrol'),
    patrol: fc.record({
      order: fc.constantFrom('loop', 'backAndForth'),
      points: fc.array(fc.record({ x: whole(-3, 3), y: whole(-3, 3), rounds: fc.record({ pause: whole(0, 2) }) }), {
        minLength: 1,
        maxLength: 3,
      }),
    }),
  }),
);

/** What is there of it. */
const said = (one: Loose): Loose => Object.fromEntries(Object.entries(one).filter(([, value]) => value !== undefined));

/** Ids by place. */
const withStops = (one: Loose): Loose => {
  const patrol = one.patrol as { points: Loose[] } | undefined;
  return patrol ? { ...one, patrol: { ...patrol, points: patrol.points.map((point, i) => ({ id: `p${i}`, ...point })) } } : one;
};

const kind = (id: string, side: string): fc.Arbitrary<Loose> =>
  fc
    .record({
      health: whole(5, 60),
      armour: whole(0, 3),
      shield: sometimes(fc.record({ max: whole(1, 12) })),
      energy: sometimes(fc.record({ max: whole(1, 8) }), 4),
      stagger: sometimes(fc.record({ threshold: whole(4, 20) })),
      attacks: fc.array(attack, { minLength: 1, maxLength: 3 }),
      targeting: sometimes(arbitraryTargeting(['ours0', 'ours1', 'theirs0', 'theirs1', 'theirs2'], ['a0', 'a1', 'a2'])),
      first: state,
      second: state,
      below: fc.constantFrom(0.3, 0.6),
      rounds: fc.record({
        order: whole(0, 100),
        spread: fc.constantFrom(0, 0, 30),
        actions: whole(1, 2),
        size: fc.constantFrom(1, 1, 1, 2),
        moves: whole(0, 6),
        moving: fc.constantFrom('before', 'after', 'split'),
        regen: fc.constantFrom(0, 0, 2),
        regenDelay: whole(0, 2),
        shieldRegen: fc.constantFrom(0, 2),
        shieldDelay: whole(0, 2),
        energyRegen: whole(0, 2),
        shielded: fc.constantFrom(0, 0, 0, 1),
        staggerWindow: whole(1, 2),
        staggers: whole(1, 2),
        steady: whole(0, 2),
        revivableFor: fc.constantFrom(0, 3, 12),
        row: fc.constantFrom('front', 'back'),
        reactions: fc.array(
          fc.oneof(
            fc.record({ does: fc.constant('dodge'), uses: whole(1, 2) }),
            fc.record({ does: fc.constant('guard'), uses: whole(1, 2), reduces: fc.constantFrom(0.5, 1) }),
            fc.record({ does: fc.constant('counter'), uses: whole(1, 2), attack: fc.constant('a0') }),
          ),
          { maxLength: 2 },
        ),
        senses: fc.option(
          fc.record({ sight: whole(2, 8), angle: fc.constantFrom(360, 360, 180), needsLine: fc.boolean(), memory: whole(0, 2) }),
          { nil: undefined, freq: 3 },
        ),
        plays: fc.option(fc.record({ best: fc.constantFrom(0.5, 1), ends: fc.constantFrom('state', 'careful', 'forward', 'still') }), {
          nil: undefined,
          freq: 2,
        }),
      }),
    })
    .map(({ health, armour, shield, energy, stagger, attacks, targeting, first, second, below, rounds }) =>
      unit({
        id,
        side,
        health: { max: health },
        armour: { flat: armour },
        ...(shield && { shield }),
        ...(energy && { energy: { ...energy, start: energy.max } }),
        ...(stagger && { stagger }),
        ...(targeting && { targeting }),
        onDeath: { revivals: rounds.revivableFor > 0 ? 2 : 0 },
        attacks: attacks.map(({ follower, ...one }, i) => ({
          id: `a${i}`,
          needsLine: one.delivery !== 'melee',
          ...said(one),
          ...(one.delivery === 'projectile' && { projectile: {} }),
          ...(follower !== undefined && { next: { attack: `a${(follower as number) % attacks.length}` } }),
        })),
        states: [
          {
            id: 's0',
            name: 's0',
            ...withStops(first),
            leaves: [{ to: 's1', when: { subject: 'healthShare', is: 'below', value: below } }],
          },
          { id: 's1', name: 's1', ...withStops(second) },
        ],
        rounds: { ...rounds, reactions: rounds.reactions.map((one, i) => ({ id: `r${i}`, ...one })) },
      }),
    );

/** The middle of a cell of a board of so many cells, 1 m each. */
const place = (size: number) => whole(0, size - 1).map((cell) => cell - (size - 1) / 2);

const SIZE = 10;

/** A wall over whole cells. */
const walls = fc.array(
  fc.record({ x: whole(0, SIZE - 2), y: whole(0, SIZE - 2), wide: whole(1, 3), deep: whole(1, 3) }).map(({ x, y, wide, deep }) => {
    const [left, low] = [x - SIZE / 2, y - SIZE / 2];
    const [right, high] = [Math.min(SIZE / 2, left + wide), Math.min(SIZE / 2, low + deep)];
    return [
      { x: left, y: low },
      { x: right, y: low },
      { x: right, y: high },
      { x: left, y: high },
    ];
  }),
  { maxLength: 3 },
);

export const arbitraryRounds: fc.Arbitrary<FightSketch> = fc
  .record({
    ours: fc.array(kind('ours', 'party'), { minLength: 1, maxLength: 2 }),
    theirs: fc.array(kind('theirs', 'enemy'), { minLength: 1, maxLength: 3 }),
    counts: fc.array(whole(1, 3), { minLength: 3, maxLength: 3 }),
    places: fc.array(fc.record({ x: place(SIZE), y: place(SIZE) }), { minLength: 4, maxLength: 4 }),
    facing: fc.constantFrom(0, 90, 180, 270),
    walls,
    mire: walls,
    rounds: fc.record({
      order: fc.constantFrom('bySide', 'byOrder'),
      first: fc.constantFrom('ours', 'theirs'),
      drawn: fc.constantFrom('fight', 'round'),
      ground: fc.constantFrom('squares', 'squares', 'diagonals', 'none'),
      rows: fc.boolean(),
      costs: fc.constant([{ kind: 'mire', cost: 2 }]),
    }),
  })
  .map(({ ours, theirs, counts, places, facing, walls: corners, mire, rounds }) => ({
    party: ours.map((one, i) => ({ ...one, id: `ours${i}`, name: `ours${i}` })),
    enemies: theirs.map((one, i) => ({ unit: { ...one, id: `theirs${i}`, name: `theirs${i}` }, count: counts[i], ...places[i], facing })),
    others: [MITE],
    partyAt: { ...places[3], facing: (facing + 180) % 360 },
    width: SIZE,
    depth: SIZE,
    arena: {
      walls: corners.map((one, i) => ({ id: `wall${i}`, name: `wall${i}`, height: 3, corners: one })),
      ground: mire.map((one, i) => ({ id: `mire${i}`, name: `mire${i}`, kind: 'mire', corners: one })),
    },
    encounter: { rounds: { ...rounds, limit: 12 } },
  }));
