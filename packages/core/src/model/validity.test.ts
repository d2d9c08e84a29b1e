import { describe, expect, test } from '@jest/globals';
import { dummy, sketched, unit } from '../testing/builders';
import { LIMITS } from './limits';
import { InvalidDocument } from './problem';
import { parseProject } from './validate';

type Loose = Record<string, any>;

/** Two kinds, an arena with something of everything, an encounter of two waves, an event, a variant, a tier. */
function document(): Loose {
  const square = [
    { x: 5, y: 5 },
    { x: 6, y: 5 },
    { x: 6, y: 6 },
    { x: 5, y: 6 },
  ];
  const clipper = unit({
    id: 'clipper',
    attacks: [
      { id: 'bite', beat: { cooldown: 1 } },
      { id: 'quill', delivery: 'projectile', projectile: {}, beat: { cooldown: 2 } },
    ],
    states: [
      { id: 'rush', name: 'Rush', does: 'approach', leaves: [{ to: 'round', when: { subject: 'timeInState', is: 'above', value: 3 } }] },
      { id: 'round', name: 'Round', does: 'patrol', patrol: { points: [{ id: 'a', x: 1, y: 1 }] } },
    ],
  });
  return sketched({
    party: [dummy('warden', 100, { player: { answers: [] } })],
    enemies: [{ unit: clipper }],
    width: 40,
    depth: 40,
    arena: {
      walls: [{ id: 'wall', name: 'Wall', corners: square }],
      zones: [{ id: 'gate', name: 'Gate', flag: 'open', corners: square }],
      points: [{ id: 'seedbank', name: 'Seed bank', x: 1, y: 1, health: 50 }],
    },
    waves: [{ id: 'w2', name: 'Wave 2', start: 'defeated', groups: [{ id: 'more', enemy: 'clipper', at: ['p0'] }] }],
    encounter: {
      ends: { defend: ['seedbank'] },
      events: [
        {
          id: 'alarm',
          name: 'Alarm',
          when: { subject: 'clock', is: 'above', value: 5 },
          then: [{ does: 'startWave', of: 'w2' }],
        },
      ],
    },
    variants: [{ id: 'sharp', name: 'Sharp Clipper', basedOn: 'clipper', tweaks: [{ path: '/health/max', op: '×', value: 2 }] }],
    tiers: [{ id: 'bramble', name: 'Bramble', tweaks: [] }],
  });
}

function problemsOf(change: (document: any) => void): unknown[] {
  const changed = document();
  change(changed);
  try {
    parseProject(changed);
  } catch (error) {
    if (error instanceof InvalidDocument) return error.problems.map(({ path, rule }) => `${rule} at ${path}`);
    throw error;
  }
  return [];
}

const clipperOf = (d: any) => d.units.find(({ id }: Loose) => id === 'clipper');
const wardenOf = (d: any) => d.units.find(({ id }: Loose) => id === 'warden');
const first = (d: any) => d.encounters[0].waves[0];
const group = (d: any) => first(d).groups[0];
/** The document with one trait, which is handed back. */
const stout = (d: any) => {
  d.traits = [{ id: 'stout', name: 'Stout', tweaks: [{ path: '/health/max', op: '×', value: 2 }] }];
  return d.traits[0];
};
const gives = (d: any, act: Loose) => {
  stout(d);
  d.encounters[0].events[0].then = [{ does: 'trait', ...act }];
};
const leave = (d: any) => clipperOf(d).states[0].leaves[0];
const asks = (when: Loose) => (d: any) => {
  leave(d).when = when;
};
const deep = (levels: number): Loose =>
  levels === 0 ? { subject: 'clock', is: 'above', value: 1 } : { subject: 'not', parts: [deep(levels - 1)] };
const WHEN = '/units/clipper/states/rush/leaves/0/when';
const FIGHT = '/encounters/fight';

test('as it stands it is valid', () => {
  expect(problemsOf(() => undefined)).toEqual([]);
});

test('half a weight and half a budget are more than none', () => {
  const pooled = (d: any) => {
    delete group(d).enemy;
    Object.assign(group(d), { pool: [{ enemy: 'clipper', weight: 0.5 }], draws: 'budget', budget: 0.5 });
  };
  expect(problemsOf(pooled)).toEqual([]);
});

describe('refused: what the parts of a unit say of one another', () => {
  test.each<[string, (d: any) => void, string]>([
    [
      'foes for support',
      (d) => Object.assign(clipperOf(d).attacks[0], { delivery: 'support' }),
      'applies at /units/clipper/attacks/bite/targets',
    ],
    ['friends for a bite', (d) => (clipperOf(d).attacks[0].targets = 'friends'), 'applies at /units/clipper/attacks/bite/targets'],
    ['a projectile on a bite', (d) => (clipperOf(d).attacks[0].projectile = {}), 'applies at /units/clipper/attacks/bite/projectile'],
    ['an area without one', (d) => (clipperOf(d).attacks[0].delivery = 'area'), 'required at /units/clipper/attacks/bite/area'],
    [
      'a summon of nobody',
      (d) => Object.assign(clipperOf(d).attacks[0], { delivery: 'summon', summon: { unit: 'moth', cap: 3 } }),
      'reference at /units/clipper/attacks/bite/summon/unit',
    ],
    [
      'a combo into nothing',
      (d) => (clipperOf(d).attacks[0].next = { attack: 'sting' }),
      'reference at /units/clipper/attacks/bite/next/attack',
    ],
    [
      'contact among the choices',
      (d) => (clipperOf(d).attacks[0].delivery = 'contact'),
      'applies at /units/clipper/choice/priorities/0/entries/0/attack',
    ],
    [
      'a boost of nothing',
      (d) => (clipperOf(d).attacks[0].effects = { boost: { tweaks: [{ path: '/wings', op: '×', value: 2 }] } }),
      'reference at /units/clipper/attacks/bite/effects/boost/tweaks/0/path',
    ],
    [
      'a patrol without points',
      (d) => (clipperOf(d).states[1].patrol.points = []),
      'required at /units/clipper/states/round/patrol/points',
    ],
    ['a patrol without a beat', (d) => delete clipperOf(d).states[1].patrol, 'required at /units/clipper/states/round/patrol'],
    ['going nowhere', (d) => (clipperOf(d).states[0].does = 'goTo'), 'required at /units/clipper/states/rush/to'],
    ['some attacks, none named', (d) => (clipperOf(d).states[0].attacks = 'some'), 'required at /units/clipper/states/rush/only'],
    [
      'some attacks, one unknown',
      (d) => Object.assign(clipperOf(d).states[0], { attacks: 'some', only: ['sting'] }),
      'reference at /units/clipper/states/rush/only/0',
    ],
    [
      'an unknown attack on entering',
      (d) => (clipperOf(d).states[0].onEnter = { attack: 'sting' }),
      'reference at /units/clipper/states/rush/onEnter/attack',
    ],
    ['a start in no state', (d) => (clipperOf(d).startsIn = 'sleep'), 'reference at /units/clipper/startsIn'],
    ['a weak point in no state', (d) => (clipperOf(d).weakPoint = { states: ['sleep'] }), 'reference at /units/clipper/weakPoint/states/0'],
    [
      'a gate to no state',
      (d) => (clipperOf(d).health = { gates: [{ id: 'half', share: 0.5, state: 'sleep' }] }),
      'reference at /units/clipper/health/gates/half/state',
    ],
    ['an unknown death attack', (d) => (clipperOf(d).onDeath = { attack: 'burst' }), 'reference at /units/clipper/onDeath/attack'],
    ['an enemy that plays', (d) => (clipperOf(d).player = {}), 'applies at /units/clipper/player'],
    [
      'a magazine of no attack',
      (d) => (wardenOf(d).player.magazine = { rounds: 6, attacks: ['bolt'] }),
      'reference at /units/warden/player/magazine/attacks/0',
    ],
    [
      'more attacks than a unit may have',
      (d) =>
        (clipperOf(d).attacks = Array.from({ length: LIMITS.attacks + 1 }, (_, i) => ({
          ...clipperOf(d).attacks[0],
          id: `a${i}`,
          name: `a${i}`,
        }))),
      'limit at /units/clipper/attacks',
    ],
    [
      'more kinds than a project may have',
      (d) => (d.units = Array.from({ length: LIMITS.units + 1 }, (_, i) => ({ id: `u${i}`, name: `u${i}`, side: 'enemy' }))),
      'limit at /units',
    ],
    ['two states of one id', (d) => (clipperOf(d).states[1].id = 'rush'), 'unique at /units/clipper/states/rush/id'],
  ])('%s', (_, change, problem) => {
    expect(problemsOf(change)).toContainEqual(problem);
  });
});

describe('refused: conditions that say too much, too little, or speak of nothing', () => {
  test.each<[string, Loose, string]>([
    ['no comparison', { subject: 'distance', value: 3 }, `oneOf at ${WHEN}/is`],
    ['yes of a number', { subject: 'distance', is: 'yes', value: 3 }, `oneOf at ${WHEN}/is`],
    ['below of a yes', { subject: 'sees', is: 'below' }, `oneOf at ${WHEN}/is`],
    ['no number', { subject: 'distance', is: 'below' }, `required at ${WHEN}/value`],
    ['a number for a yes', { subject: 'sees', is: 'yes', value: 1 }, `applies at ${WHEN}/value`],
    ['no reach', { subject: 'friends', is: 'above', value: 1 }, `required at ${WHEN}/within`],
    ['a needless reach', { subject: 'distance', is: 'below', value: 1, within: 2 }, `applies at ${WHEN}/within`],
    ['nobody meant', { subject: 'killed', is: 'above', value: 1 }, `required at ${WHEN}/of`],
    ['an unknown attack', { subject: 'attackReady', is: 'yes', of: 'sting' }, `reference at ${WHEN}/of`],
    ['an unknown unit', { subject: 'killed', is: 'above', value: 1, of: 'moth' }, `reference at ${WHEN}/of`],
    ['an unknown doing', { subject: 'targetDoes', is: 'yes', of: 'dreaming' }, `oneOf at ${WHEN}/of`],
    ['a chance above one', { subject: 'chance', value: 1.5 }, `max at ${WHEN}/value`],
    ['not of two', { subject: 'not', parts: [deep(0), deep(0)] }, `limit at ${WHEN}/parts`],
    ['all of nothing', { subject: 'all', parts: [] }, `required at ${WHEN}/parts`],
    ['too deep', deep(LIMITS.conditionDepth), `limit at ${WHEN}${'/parts/0'.repeat(LIMITS.conditionDepth)}`],
  ])('%s', (_, when, problem) => {
    expect(problemsOf(asks(when))).toContainEqual(problem);
  });

  test('an encounter cannot ask what only a unit can tell, nor of a wave it lacks', () => {
    const of = (when: Loose) => problemsOf((d) => (d.encounters[0].events[0].when = when));
    expect(of({ subject: 'distance', is: 'below', value: 3 })).toContainEqual(`applies at ${FIGHT}/events/alarm/when/subject`);
    expect(of({ subject: 'waveStarted', is: 'yes', of: 'w9' })).toContainEqual(`reference at ${FIGHT}/events/alarm/when/of`);
    expect(of(deep(LIMITS.conditionDepth - 1))).toEqual([]);
  });
});

describe('refused: in arenas and encounters', () => {
  test.each<[string, (d: any) => void, string]>([
    ['two corners', (d) => d.arenas[0].walls[0].corners.splice(2), 'required at /arenas/ground/walls/wall/corners'],
    ['a dent', (d) => d.arenas[0].walls[0].corners.splice(2, 1, { x: 5.2, y: 5.2 }), 'convex at /arenas/ground/walls/wall/corners'],
    ['three in line', (d) => d.arenas[0].zones[0].corners.splice(1, 0, { x: 5.5, y: 5 }), 'convex at /arenas/ground/zones/gate/corners'],
    ['a grid too fine', (d) => (d.arenas[0].grid = 0.05), 'limit at /arenas/ground/grid'],
    ['nobody to fight', (d) => (d.encounters[0].party = []), `required at ${FIGHT}/party`],
    [
      'nobody but groups that come when called',
      (d) =>
        Object.assign(
          d.encounters[0],
          { party: [] },
          { waves: [{ ...first(d), start: 'called', groups: [{ ...group(d), side: 'ours' }] }, d.encounters[0].waves[1]] },
        ),
      `required at ${FIGHT}/party`,
    ],
    ['a member that is no unit', (d) => (d.encounters[0].party[0].unit = 'moth'), `reference at ${FIGHT}/party/m0/unit`],
    ['an ally that is no unit', (d) => (d.encounters[0].allies = [{ id: 'x', unit: 'moth' }]), `reference at ${FIGHT}/allies/x/unit`],
    ['a point that cannot fall', (d) => delete d.arenas[0].points[0].health, `reference at ${FIGHT}/ends/defend/0`],
    ['after itself', (d) => Object.assign(first(d), { start: 'with', after: 'w1' }), `reference at ${FIGHT}/waves/w1/after`],
    ['after the one before the first', (d) => (first(d).start = 'with'), `required at ${FIGHT}/waves/w1/after`],
    [
      'two waves that wait for one another',
      (d) => Object.assign(first(d), { start: 'with', after: 'w2' }),
      `circular at ${FIGHT}/waves/w1/after`,
    ],
    ['a condition left out', (d) => (first(d).start = 'condition'), `required at ${FIGHT}/waves/w1/when`],
    [
      'growth of nothing',
      (d) => (first(d).repeat = { times: 2, tweaks: [{ path: '/x', op: '+', value: 1 }] }),
      `reference at ${FIGHT}/waves/w1/repeat/tweaks/0/path`,
    ],
    ['an enemy and a pool', (d) => (group(d).pool = [{ enemy: 'clipper' }]), `required at ${FIGHT}/waves/w1/groups/g0/enemy`],
    ['neither', (d) => delete group(d).enemy, `required at ${FIGHT}/waves/w1/groups/g0/enemy`],
    [
      'a pool of weight 0',
      (d) => Object.assign(group(d), { enemy: undefined, pool: [{ enemy: 'clipper', weight: 0 }] }),
      `required at ${FIGHT}/waves/w1/groups/g0/pool`,
    ],
    ['no budget', (d) => (group(d).draws = 'budget'), `required at ${FIGHT}/waves/w1/groups/g0/budget`],
    ['counts the wrong way round', (d) => (group(d).count = { min: 3, max: 2 }), `order at ${FIGHT}/waves/w1/groups/g0/count/min`],
    ['a wave that never ends', (d) => (first(d).repeat = { times: 1e9 }), `max at ${FIGHT}/waves/w1/repeat/times`],
    [
      'a summon that never ends',
      (d) => Object.assign(clipperOf(d).attacks[0], { delivery: 'summon', summon: { unit: 'clipper', cap: 1e9 } }),
      'max at /units/clipper/attacks/bite/summon/cap',
    ],
    [
      'a summon without a cap',
      (d) => Object.assign(clipperOf(d).attacks[0], { delivery: 'summon', summon: { unit: 'clipper' } }),
      'whole at /units/clipper/attacks/bite/summon/cap',
    ],
    ['two hours', (d) => (d.encounters[0].limit = 7200), `max at ${FIGHT}/limit`],
    [
      'units over its whole length',
      (d) => Object.assign(first(d), { repeat: { times: 50 }, groups: [{ ...group(d), count: { min: 100, max: 100 } }] }),
      `limit at ${FIGHT}/waves`,
    ],
    ['a cap too high', (d) => (d.encounters[0].alive = { most: 500 }), `limit at ${FIGHT}/alive/most`],
    [
      'a cap of no unit',
      (d) => (d.encounters[0].alive = { most: 5, perType: [{ unit: 'moth', most: 1 }] }),
      `reference at ${FIGHT}/alive/perType/0/unit`,
    ],
    ['a trait that is none', (d) => (clipperOf(d).traits = ['stout']), 'reference at /units/clipper/traits/0'],
    ['a trait of a wave that is none', (d) => (first(d).traits = ['stout']), `reference at ${FIGHT}/waves/w1/traits/0`],
    [
      'a trait of a group that is none',
      (d) => (group(d).traits = [{ trait: 'stout', share: 0.5 }]),
      `reference at ${FIGHT}/waves/w1/groups/g0/traits/0/trait`,
    ],
    [
      'a share above one',
      (d) => void [stout(d), (group(d).traits = [{ trait: 'stout', share: 1.5 }])],
      `max at ${FIGHT}/waves/w1/groups/g0/traits/0/share`,
    ],
    [
      'more traits of a group than it may have',
      (d) => void [stout(d), (group(d).traits = Array(LIMITS.groupTraits + 1).fill({ trait: 'stout' }))],
      `limit at ${FIGHT}/waves/w1/groups/g0/traits`,
    ],
    [
      'more traits than a project may have',
      (d) => (d.traits = Array.from({ length: LIMITS.traits + 1 }, (_, i) => ({ id: `t${i}`, name: `t${i}`, tweaks: [] }))),
      'limit at /traits',
    ],
    ['a trait that changes nothing there is', (d) => (stout(d).tweaks[0].path = '/wings'), 'reference at /traits/stout/tweaks/0/path'],
    ['a trait by the id of a unit', (d) => (stout(d).id = 'clipper'), 'unique at /traits/clipper/id'],
    ['a trait of a tier that is none', (d) => (d.tiers[0].traits = [{ trait: 'stout' }]), 'reference at /tiers/bramble/traits/0/trait'],
    [
      'a trait of a tier for a unit not said',
      (d) => void [stout(d), (d.tiers[0].traits = [{ trait: 'stout', scope: 'unit' }])],
      'required at /tiers/bramble/traits/0/of',
    ],
    [
      'a trait of a tier for all, and a role',
      (d) => void [stout(d), (d.tiers[0].traits = [{ trait: 'stout', scope: 'enemies', of: 'cutter' }])],
      'applies at /tiers/bramble/traits/0/of',
    ],
    ['a trait to nobody', (d) => gives(d, { of: 'stout' }), `required at ${FIGHT}/events/alarm/then/0/to`],
    ['no trait to give', (d) => gives(d, { to: 'enemies' }), `required at ${FIGHT}/events/alarm/then/0/of`],
    ['a trait to give that is none', (d) => gives(d, { of: 'thin', to: 'enemies' }), `reference at ${FIGHT}/events/alarm/then/0/of`],
    ['a trait to a role not said', (d) => gives(d, { of: 'stout', to: 'role' }), `required at ${FIGHT}/events/alarm/then/0/whom`],
    [
      'a trait to a unit that is none',
      (d) => gives(d, { of: 'stout', to: 'unit', whom: 'moth' }),
      `reference at ${FIGHT}/events/alarm/then/0/whom`,
    ],
    [
      'whom, where a wave is started',
      (d) => (d.encounters[0].events[0].then = [{ does: 'startWave', of: 'w2', to: 'enemies' }]),
      `applies at ${FIGHT}/events/alarm/then/0/to`,
    ],
    ['no wave to start', (d) => (d.encounters[0].events[0].then[0].of = 'w9'), `reference at ${FIGHT}/events/alarm/then/0/of`],
    ['no flag to raise', (d) => (d.encounters[0].events[0].then = [{ does: 'raise' }]), `required at ${FIGHT}/events/alarm/then/0/of`],
  ])('%s', (_, change, problem) => {
    expect(problemsOf(change)).toContainEqual(problem);
  });

  test('what only a tier, or a size of the party, makes too much', () => {
    const grow = (value: number) => ({ scope: 'encounter', path: '/waves/*/groups/*/count/max', op: '×', value });
    expect(problemsOf((d) => d.tiers[0].tweaks.push(grow(400)))).toEqual([`limit at ${FIGHT}/waves`]);
    expect(problemsOf((d) => (d.encounters[0].bySize = [{ members: 1, tweaks: [grow(400)] }]))).toEqual([`limit at ${FIGHT}/waves`]);
    expect(problemsOf((d) => d.tiers[0].tweaks.push(grow(0)))).toEqual([
      `order at ${FIGHT}/waves/w1/groups/g0/count/min`,
      `order at ${FIGHT}/waves/w2/groups/more/count/min`,
    ]);
  });
});

test('what is nested too deep is named by its ids where it has some, else by its places', () => {
  const nested = (levels: number): unknown => (levels === 0 ? [] : [nested(levels - 1)]);
  const [problem] = problemsOf((d) => (clipperOf(d).attacks[1].extra = nested(LIMITS.depth)));
  expect(problem).toMatch(/^limit at \/units\/clipper\/attacks\/quill\/extra(\/0)+$/);
  const [named] = problemsOf((d) => (clipperOf(d).attacks[1].extra = { id: 'deep', list: nested(LIMITS.depth) }));
  expect(named).toMatch(/^limit at \/units\/clipper\/attacks\/quill\/extra\/list(\/0)+$/);
});

test('without a party a group of its side will do', () => {
  expect(
    problemsOf((d) =>
      Object.assign(
        d.encounters[0],
        { party: [] },
        { waves: [{ ...first(d), groups: [group(d), { ...group(d), id: 'o', side: 'ours' }] }, d.encounters[0].waves[1]] },
      ),
    ),
  ).toEqual([]);
});

describe('traits, judged by what they come to', () => {
  const low = { id: 'low', name: 'Low', tweaks: [{ path: '/body/height', op: '×', value: 0.1 }] };
  test('on a unit, and at a tier alone', () => {
    expect(problemsOf((d) => Object.assign(d, { traits: [low] }))).toEqual([]);
    const eyes = (id: string) => `atMostHeight at /units/${id}/body/eyeHeight`;
    expect(problemsOf((d) => void [(d.traits = [low]), (clipperOf(d).traits = ['low'])])).toContain(eyes('clipper'));
    const atTier = (scope: Loose) =>
      problemsOf((d) => Object.assign(d, { traits: [low] }).tiers.forEach((tier: Loose) => (tier.traits = [scope])));
    expect(atTier({ trait: 'low', scope: 'unit', of: 'clipper' })).toContain(eyes('clipper'));
    expect(atTier({ trait: 'low', scope: 'party' })).toContain(eyes('warden'));
  });
});

describe('refused: variants that come to nothing sound', () => {
  test.each<[string, (d: any) => void, string]>([
    ['based on nothing', (d) => (d.variants[0].basedOn = 'moth'), 'reference at /variants/sharp/basedOn'],
    ['based on itself', (d) => (d.variants[0].basedOn = 'sharp'), 'reference at /variants/sharp/basedOn'],
    ['its base’s name', (d) => (d.variants[0].name = 'clipper'), 'unique at /variants/sharp/name'],
    ['a tweak of nothing', (d) => (d.variants[0].tweaks[0].path = '/wings'), 'reference at /variants/sharp/tweaks/0/path'],
    [
      'a change of what is not there',
      (d) => (d.variants[0].changes = [{ op: 'remove', path: '/attacks/sting' }]),
      'patch at /variants/sharp/changes/0',
    ],
    [
      'a change into what no unit may be',
      (d) => (d.variants[0].changes = [{ op: 'replace', path: '/movement/run', value: 'fast' }]),
      'number at /variants/sharp/movement/run',
    ],
    [
      'an attack dropped that its choice needs',
      (d) => (d.variants[0].changes = [{ op: 'remove', path: '/attacks/bite' }]),
      'reference at /variants/sharp/choice/priorities/0/entries/0/attack',
    ],
    [
      'eyes above its head',
      (d) => (d.variants[0].tweaks = [{ path: '/body/height', op: '×', value: 0.1 }]),
      'atMostHeight at /variants/sharp/body/eyeHeight',
    ],
  ])('%s', (_, change, problem) => {
    expect(problemsOf(change)).toContainEqual(problem);
  });
});

test.each<[string, (d: Loose) => void, string]>([
  ['a number', (d) => (d.units[0].health.max = 'many'), '/health/max must be a finite number: it is "many"'],
  ['a group', (d) => (d.units[0].health = 7), '/health must be an object: it is 7'],
  ['a known field', (d) => (d.units[0].wings = 2), '/wings is not a field of the format: it is 2'],
])('a message says what is asked for: %s', (_, change, message) => {
  const spoilt = document();
  change(spoilt);
  expect(() => parseProject(spoilt)).toThrow(message);
});
