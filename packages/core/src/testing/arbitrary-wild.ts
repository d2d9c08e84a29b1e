/** Generated fights with everything in them: every delivery and effect, walls, waves, players. What they have in common is nothing. */
import * as fc from 'fast-check';
import { type FightSketch, unit } from './builders';
import { lastAttack, sometimes, tenths, wildAttack, without } from './arbitrary-wild-attack';

type Loose = Record<string, unknown>;

const condition: fc.Arbitrary<Loose> = fc.oneof(
  fc.record({ subject: fc.constant('distance'), is: fc.constantFrom('below', 'above'), value: tenths(1, 8) }),
  fc.record({ subject: fc.constantFrom('healthShare', 'shieldShare'), is: fc.constantFrom('below', 'above'), value: tenths(0, 1) }),
  fc.record({
    subject: fc.constantFrom('timeInState', 'clock', 'sinceHit', 'sinceAttack'),
    is: fc.constant('above'),
    value: tenths(0.1, 2),
  }),
  fc.record({ subject: fc.constant('chance'), value: tenths(0, 1) }),
  fc.record({ subject: fc.constantFrom('sees', 'line', 'attackReady'), is: fc.constantFrom('yes', 'no') }),
  fc.record({
    subject: fc.constantFrom('friends', 'foes', 'fallen'),
    is: fc.constant('above'),
    value: fc.constant(0),
    within: tenths(1, 8),
  }),
  fc.record({ subject: fc.constant('damageTaken'), is: fc.constant('above'), value: tenths(1, 9), within: tenths(0.5, 2) }),
  fc.record({ subject: fc.constant('flag'), is: fc.constantFrom('yes', 'no'), of: fc.constantFrom('bell', 'gong') }),
  fc.record({
    subject: fc.constant('pointHealthShare'),
    is: fc.constantFrom('below', 'above'),
    value: tenths(0, 1),
    of: fc.constant('well'),
  }),
  fc.record({ subject: fc.constant('counter'), is: fc.constantFrom('below', 'above'), value: tenths(0, 4), of: fc.constant('strokes') }),
);
const tree: fc.Arbitrary<Loose> = fc.oneof(
  { weight: 3, arbitrary: condition },
  {
    weight: 1,
    arbitrary: fc.record({ subject: fc.constantFrom('all', 'any'), parts: fc.array(condition, { minLength: 1, maxLength: 3 }) }),
  },
  { weight: 1, arbitrary: condition.map((part) => ({ subject: 'not', parts: [part] })) },
);

const state = (id: string, others: string[]) =>
  fc
    .record({
      does: fc.constantFrom('hold', 'approach', 'band', 'flee', 'strafe', 'wander', 'patrol', 'home', 'search', 'goTo', 'follow'),
      pace: fc.constantFrom('walk', 'run'),
      near: tenths(0, 4),
      wide: tenths(0, 4),
      onTheWay: fc.constantFrom('ignore', 'clear', 'engage'),
      roams: sometimes(
        fc.record({ least: tenths(0.1, 1), more: tenths(0, 1), stands: tenths(0, 0.5), zone: fc.constantFrom('z', 'none') }),
      ),
      names: fc.boolean(),
      strikes: fc.constantFrom('no', 'it', 'both', 'hinders'),
      picks: sometimes(
        fc.record({ by: fc.constantFrom('nearest', 'lowestShare', 'random'), reconsider: tenths(0, 1), commitment: tenths(0, 0.5) }),
      ),
      invulnerable: fc.constantFrom(false, false, false, true),
      tweaks: fc.constantFrom(
        [],
        [],
        [{ path: '/movement/run', op: '×', value: 1.4 }],
        [{ path: '/attacks/*/beat/tracking', op: '=', value: 'fixed' }],
      ),
      onEnter: sometimes(
        fc.constantFrom(
          { raise: 'bell' },
          { lower: 'bell' },
          { refill: true },
          { attack: 'one' },
          { counts: [{ counter: 'strokes', how: 'add', by: 1 }] },
          { counts: [{ counter: 'strokes', how: 'set', by: 0 }] },
        ),
      ),
      leaves: fc.array(
        fc.record({
          when: sometimes(tree),
          to: fc.constantFrom(...others),
          after: tenths(0, 1),
          weight: sometimes(fc.integer({ min: 0, max: 3 })),
        }),
        { maxLength: 3 },
      ),
      decides: sometimes(tenths(0.1, 1)),
    })
    .map(({ wide, decides, leaves, roams, names, picks, ...s }) =>
      without({
        ...s,
        leaves: leaves.map(without),
        decides: decides === undefined ? undefined : { min: decides, max: 2 * decides },
        id,
        name: id,
        far: s.near + wide,
        to: s.does === 'goTo' ? 'well' : names ? 'mite' : undefined,
        roams: roams && { min: roams.least, max: roams.least + roams.more, stands: roams.stands, zone: roams.zone },
        picks: picks && { criteria: [{ by: picks.by }], reconsider: picks.reconsider, commitment: picks.commitment },
        patrol: {
          points: [
            { id: 'a', x: 0, y: 0, pause: 0.3 },
            { id: 'b', x: 3, y: 1 },
          ],
        },
        radius: 3,
      }),
    );

const player = fc
  .record({
    attention: fc.record({
      mean: tenths(0, 0.5),
      spread: tenths(0, 0.2),
      angle: fc.constantFrom(120, 360),
      follows: fc.integer({ min: 0, max: 4 }),
      mistakes: tenths(0, 0.4),
    }),
    answers: fc.subarray([
      { id: 'd', kind: 'dodge', window: 0.3, distance: 2, cooldown: 1 },
      { id: 'a', kind: 'dodge', window: 0.2, distance: 1.5, cooldown: 0.5, way: 'away', protects: false },
      { id: 'x', kind: 'dodge', window: 0.1, distance: 2, way: 'sideways', protects: false },
      { id: 's', kind: 'stepOut' },
      { id: 'b', kind: 'block', window: 0.4, reduces: 0.6, cooldown: 0.5 },
      { id: 'l', kind: 'breakLine' },
      { id: 'i', kind: 'interrupt' },
    ]),
    aimError: fc.constantFrom(0, 3),
    magazine: sometimes(fc.constant({ attacks: ['one'], rounds: 3, reload: 0.7 })),
    healing: sometimes(fc.constant({ count: 1, below: 0.6, takes: 0.5, heal: { amount: 9, share: 0.1 } })),
    cover: sometimes(fc.constant({ below: 0.7, stays: 1, radius: 6 })),
    runsWithin: sometimes(tenths(1, 6)),
    down: sometimes(fc.constant({ bleedOut: 3, rescue: 0.6, reach: 0.8, health: 0.4, lives: 1 })),
    rescues: sometimes(fc.constant({ within: 12, safe: 0.5 })),
  })
  .map(without);

const wildUnit = (id: string, side: 'party' | 'enemy') =>
  fc
    .record({
      radius: tenths(0.2, 0.9),
      health: fc.oneof(tenths(1, 8), tenths(5, 60)),
      regen: tenths(0, 2),
      shield: sometimes(fc.record({ max: tenths(1, 15), regen: tenths(0, 2), regenDelay: tenths(0, 1) })),
      flat: tenths(0, 2),
      arc: sometimes(fc.constantFrom(90, 180)),
      resist: fc.constantFrom([], [{ id: 'spore', share: 0.4 }], [{ id: 'light', share: -0.5 }]),
      weakPoint: sometimes(
        fc.record({ multiplier: tenths(1, 3), lethal: fc.boolean(), exposed: fc.constantFrom('always', 'unshielded', 'staggered') }),
      ),
      window: fc.record({ duration: fc.constantFrom(0, 0.01, 0.3, 2), scope: fc.constantFrom('any', 'attacker', 'attack') }),
      stagger: sometimes(fc.record({ threshold: tenths(2, 15), window: tenths(0.3, 2), duration: tenths(0.1, 1), immunity: tenths(0, 1) })),
      steadiness: tenths(0, 1),
      energy: sometimes(fc.record({ max: tenths(1, 9), start: tenths(0, 9), regen: tenths(0, 2) })),
      run: tenths(0, 7),
      acceleration: fc.constantFrom(0, 9),
      turnRate: fc.constantFrom(0, 240),
      sight: tenths(3, 25),
      angle: fc.constantFrom(120, 360),
      needsLine: fc.boolean(),
      hearing: fc.constantFrom(0, 8),
      buildUp: fc.constantFrom(0, 0.3),
      temper: fc.record({ manner: fc.constantFrom('hostile', 'hostile', 'retaliates'), alertRadius: fc.constantFrom(0, 6) }),
      leash: sometimes(
        fc.record({
          radius: tenths(2, 9),
          heals: fc.boolean(),
          ignoresDamage: fc.boolean(),
          answersAttack: fc.boolean(),
          gone: fc.boolean(),
        }),
      ),
      by: fc.constantFrom('nearest', 'lowestHealth', 'mostDamageToMe', 'lastAttacker', 'random', 'highestDamage'),
      gates: fc.constantFrom([], [{ id: 'g', share: 0.5, state: 'b', holds: true }], [{ id: 'g', share: 0.5, state: 'b', holds: false }]),
      attacks: fc.tuple(wildAttack('one'), wildAttack('two'), wildAttack('three')),
      lastAttack: sometimes(lastAttack),
      states: fc.tuple(state('a', ['b', 'c']), state('b', ['a', 'c']), state('c', ['a', 'b'])),
      onDeath: fc.record({ revivableFor: fc.constantFrom(0, 3), revivals: fc.integer({ min: 0, max: 2 }) }),
      ground: fc.constantFrom([], ['mud']),
      pause: tenths(0, 0.3),
      player,
    })
    .map((u) => {
      const chosen = u.attacks.filter(({ delivery }) => delivery !== 'contact').map(({ id: attack }) => ({ attack }));
      return unit(
        without({
          id,
          side,
          body: { radius: u.radius },
          health: { max: u.health, regen: u.regen, regenDelay: 0.5, gates: u.gates },
          shield: u.shield,
          armour: without({ flat: u.flat, minimumDamage: 0.2, arc: u.arc, resist: u.resist }),
          weakPoint: u.weakPoint,
          invulnerability: u.window,
          stagger: u.stagger,
          knockback: { resist: u.steadiness },
          energy: u.energy,
          movement: { walk: u.run / 2, run: u.run, acceleration: u.acceleration, turnRate: u.turnRate, never: u.ground },
          senses: {
            sight: u.sight,
            angle: u.angle,
            lose: u.sight + 6,
            memory: 1,
            needsLine: u.needsLine,
            hearing: u.hearing,
            buildUp: u.buildUp,
            interval: 0.1,
            reaction: { mean: 0.2, spread: 0.1 },
          },
          temper: u.temper,
          leash: u.leash,
          targeting: { criteria: [{ by: u.by }, { by: 'nearest', weight: 0.5 }], reconsider: 0.3 },
          attacks: [...u.attacks, ...(u.lastAttack ? [u.lastAttack] : [])] as Loose[],
          choice: { priorities: [{ entries: chosen }], pause: { min: 0, max: u.pause } },
          states: u.states,
          onDeath: { ...u.onDeath, ...(u.lastAttack && { attack: 'last' }) },
          player: side === 'party' ? u.player : undefined,
        }) as { id: string },
      );
    });

const rectangle = fc
  .record({
    x: fc.integer({ min: -9, max: 9 }),
    y: fc.integer({ min: -7, max: 7 }),
    w: fc.integer({ min: 1, max: 5 }),
    d: fc.integer({ min: 1, max: 4 }),
    height: fc.constantFrom(0.9, 3),
  })
  .map(({ x, y, w, d, height }) => ({
    height,
    corners: [
      { x, y },
      { x: x + w, y },
      { x: x + w, y: y + d },
      { x, y: y + d },
    ],
  }));

/** What is summoned may summon, but one at a time: else a fight of seconds has hundreds of units. */
function frugal(mite: Loose): Loose {
  const attacks = mite.attacks as Loose[];
  return { ...mite, attacks: attacks.map((a) => (a.summon ? { ...a, summon: { ...(a.summon as Loose), count: 1, cap: 1 } } : a)) };
}

/** Small enough to be run by the thousand. */
/** Two traits, and who has them: an enemy of itself, a wave, a group or a share of it, whom an event gives one. */
const traits = fc.record({
  stout: fc.record({
    id: fc.constant('stout'),
    name: fc.constant('Stout'),
    tweaks: fc.subarray([
      { path: '/health/max', op: '×', value: 1.5 },
      { path: '/shield/max', op: '+', value: 2 },
      { path: '/body/radius', op: '×', value: 1.2 },
      { path: '/attacks/*/needsLine', op: '=', value: true },
    ]),
  }),
  swift: fc.record({
    id: fc.constant('swift'),
    name: fc.constant('Swift'),
    tweaks: fc.subarray([
      { path: '/movement/run', op: '×', value: 1.5 },
      { path: '/attacks/*/beat/cooldown', op: '×', value: 0.5 },
      { path: '/health/max', op: '+', value: 3 },
      { path: '/states/*/pace', op: '=', value: 'run' },
    ]),
  }),
  own: sometimes(fc.shuffledSubarray(['stout', 'swift'])),
  wave: sometimes(fc.constantFrom('stout', 'swift')),
  group: fc.array(fc.record({ trait: fc.constantFrom('stout', 'swift'), share: fc.constantFrom(0, 0.3, 0.7, 1) }), { maxLength: 3 }),
  given: sometimes(
    fc.oneof(
      fc.record({ of: fc.constantFrom('stout', 'swift'), to: fc.constantFrom('enemies', 'party') }),
      fc.record({ of: fc.constantFrom('stout', 'swift'), to: fc.constant('unit'), whom: fc.constantFrom('clipper', 'mite', 'warden') }),
    ),
  ),
});

export const arbitraryWildFight: fc.Arbitrary<FightSketch> = fc
  .record({
    party: fc.tuple(wildUnit('warden', 'party'), wildUnit('tender', 'party')),
    enemies: fc.tuple(wildUnit('clipper', 'enemy'), wildUnit('mulcher', 'enemy')),
    mite: wildUnit('mite', 'enemy'),
    counts: fc.tuple(fc.integer({ min: 0, max: 4 }), fc.integer({ min: 1, max: 2 })),
    close: fc.boolean(),
    walls: fc.array(rectangle, { maxLength: 4 }),
    mud: sometimes(rectangle),
    full: fc.constantFrom('wait', 'skip', 'replace'),
    most: fc.integer({ min: 2, max: 8 }),
    start: fc.constantFrom('clock', 'with', 'defeated', 'condition'),
    repeat: sometimes(
      fc.record({
        times: fc.integer({ min: 1, max: 3 }),
        when: fc.constantFrom('defeated', 'every'),
        every: tenths(0.5, 3),
        count: fc.constantFrom(1, 1.5),
        pause: tenths(0, 1),
      }),
    ),
    holdsBack: fc.tuple(fc.boolean(), fc.boolean()),
    countsSummoned: fc.boolean(),
    countsRevived: fc.boolean(),
    when: condition.filter(({ subject }) => subject === 'flag' || subject === 'clock' || subject === 'counter'),
    stops: sometimes(fc.record({ at: tenths(0, 4), wave: fc.constantFrom('w1', 'w2') })),
    vault: sometimes(tenths(5, 60)),
    whose: fc.constantFrom('kept', 'attacked', 'there', 'nobody’s'),
    traits: sometimes(traits),
    // The enemies' groups alone; a wave beside the party; or no party, and a group in its place.
    sides: fc.oneof({ weight: 4, arbitrary: fc.constant('theirs') }, fc.constantFrom('beside', 'instead')),
  })
  .map((f) => ({
    party: f.sides === 'instead' ? [] : f.party,
    enemies: [
      {
        unit: f.traits?.own ? { ...f.enemies[0], traits: f.traits.own } : f.enemies[0],
        count: f.counts[0],
        ...(f.close ? { x: 3, y: -7 } : { x: 8, y: 6 }),
        scatter: 2,
        ...(f.sides === 'instead' && { group: { side: 'ours' } }),
      },
      { unit: f.enemies[1], count: f.counts[1], ...(f.close ? { x: -2, y: -8 } : { x: -8, y: -6 }), scatter: 2, group: { alerted: false } },
    ],
    others: [frugal(f.mite), ...(f.sides === 'instead' ? f.party : [])],
    partyAt: { x: 0, y: -9 },
    traits: f.traits ? [f.traits.stout, f.traits.swift] : [],
    width: 30,
    depth: 24,
    limit: 6,
    arena: without({
      walls: f.walls.map((wall, i) => ({ id: `w${i}`, name: `w${i}`, ...wall })),
      ground: f.mud ? [{ id: 'mud', name: 'Mud', kind: 'mud', corners: f.mud.corners }] : [],
      points: [without({ id: 'well', name: 'Well', x: 11, y: 8, radius: 0.6, health: f.vault })],
      zones: [
        {
          id: 'z',
          name: 'z',
          by: 'anybody',
          flag: 'gong',
          corners: [
            { x: -3, y: -3 },
            { x: 3, y: -3 },
            { x: 3, y: 3 },
            { x: -3, y: 3 },
          ],
        },
      ],
    }),
    wave: {
      ...(f.traits?.wave && { traits: [f.traits.wave] }),
      holdsBack: f.holdsBack[0],
      countsSummoned: f.countsSummoned,
      countsRevived: f.countsRevived,
    },
    waves: [
      without({
        id: 'w2',
        name: 'w2',
        start: f.start,
        at: 1,
        share: 0.5,
        when: f.start === 'condition' ? f.when : undefined,
        timeout: 2,
        holdsBack: f.holdsBack[1],
        delay: 0.2,
        repeat: f.repeat,
        groups: [
          {
            id: 'g',
            pool: [
              { enemy: 'clipper', weight: 2 },
              { enemy: 'mite', weight: 1 },
            ],
            count: { min: 1, max: 2 },
            at: ['p0', 'p1'],
            rule: 'random',
            spacing: 0.1,
            alerted: true,
            target: 'warden',
            ...(f.sides === 'beside' && { side: 'ours' }),
            ...(f.traits && { traits: f.traits.group }),
          },
        ],
      }),
    ],
    encounter: {
      alive: { most: f.most, full: f.full },
      slots: [{ id: 'close', size: 2, perTarget: true, gap: 0.1 }],
      counters: [{ id: 'strokes', name: 'Strokes', start: 1 }],
      ends: {
        defend: f.vault && f.whose === 'kept' ? ['well'] : [],
        destroy: f.vault && f.whose === 'attacked' ? ['well'] : [],
        ...(f.whose === 'nobody’s' && { also: [] }),
      },
      events: [
        {
          id: 'e',
          name: 'e',
          when: { subject: 'clock', is: 'above', value: 2 },
          then: [
            { does: 'raise', of: 'gong' },
            { does: 'tweak', tweaks: [{ scope: 'enemies', path: '/movement/run', op: '×', value: 1.3 }] },
            { does: 'tweak', tweaks: [{ scope: 'enemies', path: '/attacks/*/beat/moving', op: '=', value: 'no' }] },
            { does: 'count', counts: { counter: 'strokes', how: 'add', by: 2 } },
            { does: 'score', score: 3 },
            ...(f.traits?.given ? [{ does: 'trait', ...f.traits.given }] : []),
          ],
        },
        ...(f.stops
          ? [
              {
                id: 'halt',
                name: 'halt',
                when: { subject: 'clock', is: 'above', value: f.stops.at },
                then: [{ does: 'stopWave', of: f.stops.wave }],
              },
            ]
          : []),
      ],
    },
  }));
