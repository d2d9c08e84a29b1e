import { describe, expect, test } from '@jest/globals';
import { type FightSketch, compiled, dummy, eventsOf, fought, unit } from '../../testing/builders';
import { OUTCOME_NAMES } from '../../record/outcome';
import { EVENT } from '../../record/log';
import { run } from '../run';

type Loose = Record<string, unknown>;

/** Kills whatever comes into its reach, one each 0.5 s, from the middle. */
const reaper = (more: Loose = {}) =>
  unit({
    id: 'warden',
    side: 'party',
    health: { max: 1e6 },
    attacks: [
      { id: 'strike', delivery: 'hitscan', range: { min: 0, max: 200 }, beat: { cooldown: 0.5 }, effects: { damage: { amount: 10 } } },
    ],
    ...more,
  });
/** Stands about and dies of one strike. */
const seedling = (id = 'seedling', more: Loose = {}) => unit({ id, health: { max: 10 }, attacks: [], ...more });
const group = (id: string, enemy: string, count: number, more: Loose = {}) => ({
  id,
  enemy,
  count: { min: count, max: count },
  at: ['p0'],
  alerted: true,
  ...more,
});
const wave = (id: string, more: Loose) => ({ id, name: id, ...more });

function stage(sketch: Partial<FightSketch>): FightSketch {
  return { party: [reaper()], enemies: [{ unit: seedling(), count: 1, x: 20, scatter: 6 }], limit: 60, ...sketch };
}
const starts = (sketch: FightSketch, seed = 1, step?: number) => {
  const { log } = fought(sketch, seed, step);
  return Object.fromEntries(
    eventsOf(log, 'wave')
      .reverse()
      .map(({ what, time }) => [what, time]),
  );
};

describe.each([0.1, 0.05, 0.01])('at a step of %s s', (step) => {
  test('6: three quarters of ten: the next wave starts at the 8th death', () => {
    const sketch = stage({
      enemies: [{ unit: seedling(), count: 10, x: 20, scatter: 6 }],
      waves: [wave('w2', { start: 'defeated', share: 0.75, groups: [group('g', 'seedling', 1)] })],
    });
    const { log } = fought(sketch, 1, step);
    const deaths = eventsOf(log, 'death').map(({ time }) => time);
    const second = eventsOf(log, 'wave').find(({ what }) => what === 1)!;
    expect(second.time).toBe(deaths[7]);
  });

  test('7: a boss with 260 energy and 80 a revive raises three of four, and no more', () => {
    const boss = unit({
      id: 'sapwright',
      health: { max: 1e6 },
      energy: { max: 260, start: 260, regen: 0 },
      attacks: [
        {
          id: 'raise',
          delivery: 'support',
          targets: 'fallen',
          range: { min: 0, max: 200 },
          energy: 80,
          beat: { windup: 0.5, cooldown: 1 },
          effects: { revive: { amount: 10 } },
        },
      ],
    });
    const clipper = seedling('clipper', { onDeath: { revivableFor: 600, revivals: 9 }, health: { max: 10 } });
    // The party strikes four times and no more, so that four lie fallen and those raised stay.
    const party = [
      reaper({
        attacks: [
          {
            id: 'strike',
            name: 'strike',
            delivery: 'hitscan',
            range: { min: 0, max: 200 },
            beat: { cooldown: 0.1 },
            charges: { count: 4, reload: 600 },
            effects: { damage: { amount: 10 } },
          },
        ],
        targeting: { never: { units: ['sapwright'] }, reconsider: 0 },
      }),
    ];
    const { log } = fought(
      {
        party,
        enemies: [
          { unit: boss, x: 30 },
          { unit: clipper, count: 4, x: 20, scatter: 4 },
        ],
        limit: 30,
      },
      1,
      step,
    );
    expect(eventsOf(log, 'death')).toHaveLength(4);
    expect(eventsOf(log, 'revive')).toHaveLength(3);
    expect(eventsOf(log, 'start').filter(({ actor }) => actor === 1)).toHaveLength(3);
  });
});

describe('a wave starts', () => {
  const two = (more: Loose) => stage({ waves: [wave('w2', { groups: [group('g', 'seedling', 1)], ...more })] });

  test('at a time on the clock, after its delay', () => {
    expect(starts(two({ start: 'clock', at: 7, delay: 1.5 }))[1]).toBe(8.5);
  });

  test('with another, or when a share of it is defeated, then waits its delay', () => {
    expect(starts(two({ start: 'with', delay: 3 }))[1]).toBe(3);
    const { log } = fought(two({ start: 'defeated', delay: 4 }));
    expect(eventsOf(log, 'wave')[1].time).toBeCloseTo(eventsOf(log, 'death')[0].time + 4, 9);
  });

  test('when a condition holds, at the first step at which it does', () => {
    const when = {
      subject: 'all',
      parts: [
        { subject: 'clock', is: 'above', value: 3.01 },
        { subject: 'enemiesAlive', is: 'below', value: 1 },
      ],
    };
    expect(starts(two({ start: 'condition', when }))[1]).toBe(3.05);
  });

  test('by its timeout, though its condition never comes true', () => {
    const never = { subject: 'flag', is: 'yes', of: 'moonrise' };
    expect(starts(two({ start: 'condition', when: never, timeout: 5 }))[1]).toBe(5);
    const idle = stage({
      party: [reaper({ attacks: [] })],
      waves: [wave('w2', { start: 'defeated', timeout: 6, groups: [group('g', 'seedling', 1)] })],
    });
    expect(starts(idle)[1]).toBe(6);
  });

  test('never, where its condition can’t be met: the fight runs to its limit and says so', () => {
    const never = { subject: 'flag', is: 'yes', of: 'moonrise' };
    const { outcome, length } = fought({ ...two({ start: 'condition', when: never }), limit: 20 });
    expect([outcome, length]).toEqual(['timeOut', 20_000_000]);
    expect(fought({ ...two({ start: 'condition', when: never, optional: true }), limit: 20 }).outcome).toBe('cleared');
  });

  test('not while another holds it back', () => {
    const held = stage({
      enemies: [{ unit: seedling('oak', { health: { max: 35 } }), x: 20 }],
      wave: { holdsBack: true },
      waves: [wave('w2', { start: 'clock', at: 0.6, groups: [{ ...group('g', 'oak', 1) }] })],
    });
    const { log } = fought(held);
    expect(eventsOf(log, 'wave')[1].time).toBe(eventsOf(log, 'death')[0].time);
  });

  test('again and again, its counts grown: 2, 3, 5 at × 1.5', () => {
    const { log, outcome } = fought(
      stage({ enemies: [{ unit: seedling(), count: 2, x: 20, scatter: 6 }], wave: { repeat: { times: 3, when: 'defeated', count: 1.5 } } }),
    );
    expect(eventsOf(log, 'wave').map(({ a }) => a)).toEqual([0, 1, 2]);
    expect(eventsOf(log, 'spawn')).toHaveLength(1 + 2 + 3 + 5); // 2 × 1.5² = 4.5, half up
    expect(outcome).toBe('cleared');
  });

  test('each so many seconds after the last, whatever lives; its units grow by their tweaks', () => {
    const sketch = stage({
      party: [reaper({ attacks: [] })],
      wave: { repeat: { times: 3, when: 'every', every: 8, tweaks: [{ path: '/health/max', op: '×', value: 2 }] } },
      limit: 30,
    });
    const tables = compiled(sketch);
    const { log, kinds } = run(tables, 1);
    expect(eventsOf(log, 'wave').map(({ time }) => time)).toEqual([0, 8, 16]);
    expect([1, 2, 3].map((one) => tables.kinds[kinds[one]].maxHealth)).toEqual([10, 20, 40]);
  });
});

describe('a pool', () => {
  const pooled = (more: Loose) =>
    stage({
      party: [reaper({ attacks: [] })],
      enemies: [{ unit: seedling(), x: 20, scatter: 30 }],
      others: [seedling('thorn', { onDeath: { worth: 3 } })],
      wave: {
        groups: [
          {
            id: 'g',
            pool: [
              { enemy: 'seedling', weight: 3 },
              { enemy: 'thorn', weight: 1 },
            ],
            at: ['p0'],
            ...more,
          },
        ],
      },
      limit: 1,
    });
  const drawn = (more: Loose, seed: number) => {
    const tables = compiled(pooled(more));
    const { kinds, units } = run(tables, seed);
    return Array.from({ length: units - 1 }, (_, i) => tables.kinds[kinds[i + 1]].id);
  };

  test('with replacement draws by weight: three quarters of one kind', () => {
    let seedlings = 0;
    for (let seed = 0; seed < 100; seed++)
      seedlings += drawn({ count: { min: 20, max: 20 } }, seed).filter((id) => id === 'seedling').length;
    expect(seedlings / 2000).toBeCloseTo(0.75, 1);
  });

  test('without replacement holds each as often as its weight says', () => {
    for (let seed = 0; seed < 20; seed++) {
      expect(drawn({ draws: 'once', count: { min: 4, max: 4 } }, seed).sort()).toEqual(['seedling', 'seedling', 'seedling', 'thorn']);
    }
  });

  test('by budget spends its worth and no more', () => {
    for (let seed = 0; seed < 20; seed++) {
      const worth = drawn({ draws: 'budget', budget: 8, count: { min: 0, max: 50 } }, seed).reduce(
        (sum, id) => sum + (id === 'thorn' ? 3 : 1),
        0,
      );
      expect(worth).toBe(8);
    }
  });
});

describe('caps on the living', () => {
  const crowd = (alive: Loose, more: Loose = {}) =>
    stage({
      enemies: [{ unit: seedling('seedling', { health: { max: 20 }, ...more }), count: 6, x: 20, scatter: 8 }],
      encounter: { alive },
    });
  const most = (sketch: FightSketch) => {
    let alive = 0;
    const result = run(compiled(sketch), 1, (fight) => (alive = Math.max(alive, fight.living[1].length)));
    return { alive, ...result };
  };

  test('one more waits in line, and comes at the instant somebody dies', () => {
    const { alive, log, outcome } = most(crowd({ most: 2, full: 'wait' }));
    expect([alive, outcome]).toEqual([2, 'cleared']);
    expect(eventsOf(log, 'spawn')).toHaveLength(7);
    const deaths = eventsOf(log, 'death').map(({ time }) => time);
    expect(
      eventsOf(log, 'spawn')
        .slice(3)
        .map(({ time }) => time),
    ).toEqual(deaths.slice(0, 4));
  });

  test('or is left out, and its wave is over without it', () => {
    const { alive, log, outcome } = most(crowd({ most: 2, full: 'skip' }));
    expect([alive, outcome]).toEqual([2, 'cleared']);
    expect(eventsOf(log, 'spawn')).toHaveLength(3);
    expect(eventsOf(log, 'capped').map(({ a }) => a)).toEqual([1, 1, 1, 1]);
  });

  test('or takes the place of the one that has lived longest', () => {
    const { alive, log } = most(crowd({ most: 2, full: 'replace' }));
    expect(alive).toBe(2);
    expect(eventsOf(log, 'gone').map(({ actor }) => actor)).toEqual([1, 2, 3, 4]);
  });

  test('a type has a cap of its own', () => {
    const { alive } = most(crowd({ most: 50, perType: [{ unit: 'seedling', most: 3 }], full: 'wait' }));
    expect(alive).toBe(3);
  });
});

describe('where they appear', () => {
  const points = (rule: string, more: Loose = {}) =>
    fought(
      stage({
        party: [reaper({ attacks: [] })],
        enemies: [
          { unit: seedling(), x: 20 },
          { unit: seedling('b'), x: -60 },
          { unit: seedling('c'), x: 5 },
        ],
        wave: { groups: [{ ...group('g', 'seedling', 3), at: ['p0', 'p1', 'p2'], rule, ...more }] },
        limit: 0.5,
      }),
    );
  const xs = (rule: string, more?: Loose) =>
    eventsOf(points(rule, more).log, 'spawn')
      .slice(1)
      .map(({ a }) => Math.round(a / 5) * 5);

  test('in turn, at each, nearest, farthest; not too near the party', () => {
    expect(xs('inTurn')).toEqual([20, -60, 5]);
    expect(xs('each')).toHaveLength(9);
    expect(new Set(xs('nearest'))).toEqual(new Set([5]));
    expect(new Set(xs('farthest'))).toEqual(new Set([-60]));
    expect(new Set(xs('nearest', { leastDistance: 10 }))).toEqual(new Set([20]));
  });

  test('of points as near as one another the first that the group lists', () => {
    const first = (rule: string) => {
      const { log } = fought(
        stage({
          party: [reaper({ attacks: [] })],
          enemies: [12, -12].map((x, i) => ({ unit: seedling(`s${i}`), x })),
          wave: { groups: [{ ...group('g', 's0', 1), at: ['p1', 'p0'], rule }] },
          limit: 0.5,
        }),
      );
      return eventsOf(log, 'spawn')[1].a;
    };
    expect([first('nearest'), first('farthest')]).toEqual([-12, -12]);
  });

  test('drawn: every point has its turn over many seeds', () => {
    const seen = new Set<number>();
    const tables = compiled(
      stage({
        party: [reaper({ attacks: [] })],
        enemies: [20, -60, 5].map((x, i) => ({ unit: seedling(`s${i}`), x })),
        wave: { groups: [{ ...group('g', 's0', 1), at: ['p0', 'p1', 'p2'], rule: 'random' }] },
        limit: 0.5,
      }),
    );
    for (let seed = 0; seed < 40; seed++) seen.add(eventsOf(run(tables, seed).log, 'spawn')[1].a);
    expect(seen).toEqual(new Set([20, -60, 5]));
  });

  test('out of view: behind the party where it looks ahead', () => {
    const seen = fought(
      stage({
        party: [reaper({ attacks: [], senses: { sight: 200, angle: 120 } })],
        enemies: [
          { unit: seedling(), x: 20 },
          { unit: seedling('b'), x: -20 },
        ],
        wave: { groups: [{ ...group('g', 'seedling', 2), at: ['p0', 'p1'], outOfView: true }] },
        limit: 0.5,
      }),
    );
    expect(
      eventsOf(seen.log, 'spawn')
        .slice(1)
        .every(({ a }) => a < 0),
    ).toBe(true);
  });

  test('whoever strays too far from the party leaves the fight', () => {
    const runner = seedling('seedling', { movement: { run: 8, walk: 8 }, states: [{ id: 's', name: 's', does: 'flee' }] });
    const { log, outcome } = fought(
      stage({ party: [reaper({ attacks: [] })], enemies: [{ unit: runner, x: 5, group: { leavesBeyond: 30 } }] }),
    );
    expect(eventsOf(log, 'gone')).toHaveLength(1);
    expect(outcome).toBe('cleared');
  });

  test('a trait of a share of a group is drawn for each by its chance and carries its tweaks', () => {
    const tables = compiled(
      stage({
        party: [reaper({ attacks: [] })],
        enemies: [
          {
            unit: seedling(),
            count: 40,
            x: 30,
            scatter: 25,
            group: { traits: [{ trait: 'stout', share: 0.25 }] },
          },
        ],
        traits: [{ id: 'stout', name: 'Stout', tweaks: [{ path: '/health/max', op: '×', value: 3 }] }],
        limit: 0.2,
      }),
    );
    let stout = 0;
    for (let seed = 0; seed < 25; seed++) {
      const { kinds, units } = run(tables, seed);
      for (let one = 1; one < units; one++) if (tables.kinds[kinds[one]].maxHealth === 30) stout++;
    }
    expect(stout / 1000).toBeCloseTo(0.25, 1);
  });

  test('a forced target is gone for, though another is nearer', () => {
    const { log } = fought({
      party: [dummy('warden', 100), dummy('tender', 100, { role: 'mender' })],
      partyAt: { x: 0, y: 0, facing: 0 },
      enemies: [
        { unit: unit({ id: 'clipper', attacks: [{ id: 'bite', range: { min: 0, max: 50 } }] }), x: 0, y: -9, group: { target: 'mender' } },
      ],
      limit: 2,
    });
    expect(eventsOf(log, 'start').every(({ other }) => other === 1)).toBe(true);
  });
});

describe('events, zones and ends', () => {
  test('an event raises a flag, changes units and calls a wave, once', () => {
    const sketch = stage({
      enemies: [{ unit: seedling('seedling', { health: { max: 40 } }), x: 20 }],
      waves: [wave('called', { start: 'called', groups: [group('g', 'seedling', 1)] })],
      encounter: {
        events: [
          {
            id: 'stir',
            name: 'Stir',
            when: { subject: 'kindHealthShare', is: 'below', value: 0.6, of: 'seedling' },
            then: [
              { does: 'raise', of: 'stirred' },
              { does: 'tweak', tweaks: [{ scope: 'unit', of: 'warden', path: '/attacks/*/effects/damage/amount', op: '×', value: 4 }] },
              { does: 'startWave', of: 'called' },
            ],
          },
        ],
      },
    });
    const { log } = fought(sketch);
    const [stirred] = eventsOf(log, 'happening');
    expect(eventsOf(log, 'happening')).toHaveLength(1);
    expect(eventsOf(log, 'flag')).toMatchObject([{ time: stirred.time, a: 1 }]);
    expect(eventsOf(log, 'wave')[1].time).toBe(stirred.time);
    const dealt = eventsOf(log, 'hit').map(({ time, c }) => [time > stirred.time, c]);
    expect(new Set(dealt.map(([after, c]) => `${after} ${c}`))).toEqual(new Set(['false 10', 'true 40']));
  });

  test('a zone raises its flag when the side it watches for enters it', () => {
    const walker = unit({
      id: 'warden',
      side: 'party',
      movement: { run: 4, walk: 4 },
      health: { max: 1e6 },
      attacks: [],
      states: [{ id: 's', name: 's', does: 'approach', stopAt: 0 }],
    });
    const zone = {
      id: 'z',
      name: 'z',
      by: 'party',
      flag: 'inside',
      corners: [
        { x: 8, y: -5 },
        { x: 12, y: -5 },
        { x: 12, y: 5 },
        { x: 8, y: 5 },
      ],
    };
    const { log } = fought(stage({ party: [walker], enemies: [{ unit: seedling(), x: 40 }], arena: { zones: [zone] }, limit: 6 }));
    const [flag] = eventsOf(log, 'flag');
    expect(flag.time).toBeGreaterThanOrEqual(2); // 8 m at 4 m/s, once it has noticed
    expect(flag.time).toBeLessThan(2.3);
  });

  test.each([
    ['cleared', { does: 'end', as: 'cleared' }],
    ['lost', { does: 'end', as: 'lost' }],
    ['ended', { does: 'end' }],
  ])('an event may end the fight: %s', (outcome, act) => {
    const result = fought(
      stage({
        party: [reaper({ attacks: [] })],
        encounter: { events: [{ id: 'e', name: 'e', when: { subject: 'clock', is: 'above', value: 1.99 }, then: [act] }] },
      }),
    );
    expect([result.outcome, result.length]).toEqual([outcome, 2_000_000]);
  });

  test('standing to the limit wins where that is what it is about', () => {
    const ends = { cleared: false, survive: true, defend: [] };
    expect(fought(stage({ limit: 5, encounter: { ends } })).outcome).toBe('survived');
  });

  test('what is to be defended is attacked, and lost with its health', () => {
    const arena = { points: [{ id: 'vault', name: 'Vault', x: 10, y: 0, radius: 1, health: 30 }] };
    const biter = unit({
      id: 'clipper',
      attacks: [{ id: 'bite', range: { min: 0, max: 3 }, beat: { cooldown: 1 }, effects: { damage: { amount: 10 } } }],
    });
    const { log, outcome, length } = fought({
      party: [dummy('warden', 100)],
      enemies: [{ unit: biter, x: 13 }],
      arena,
      encounter: { ends: { defend: ['vault'] } },
      limit: 20,
    });
    expect(eventsOf(log, 'hit').map(({ other }) => other)).toEqual([1, 1, 1]);
    expect([outcome, length]).toEqual(['lost', 2_000_000]);
    expect(fought({ party: [dummy('warden', 100)], enemies: [{ unit: biter, x: 13 }], arena, limit: 9 }).outcome).toBe('timeOut');
  });

  test('at one instant party down beats victory', () => {
    const killer = (id: string, side: string) =>
      unit({
        id,
        side,
        health: { max: 5 },
        attacks: [{ id: 'blow', beat: { windup: 0.2, cooldown: 1 }, effects: { damage: { amount: 5 } } }],
      });
    expect(fought({ party: [killer('warden', 'party')], enemies: [{ unit: killer('clipper', 'enemy') }] }).outcome).toBe('partyDown');
  });

  test('summoned units belong to the wave where it counts them', () => {
    const nest = unit({
      id: 'nest',
      health: { max: 25 },
      attacks: [
        {
          id: 'hatch',
          delivery: 'summon',
          summon: { unit: 'seedling', count: 2, cap: 2, around: 3 },
          beat: { windup: 0.1, cooldown: 100 },
        },
      ],
    });
    const sketch = (countsSummoned: boolean) =>
      stage({
        enemies: [{ unit: nest, x: 20 }],
        others: [seedling('seedling', { health: { max: 40 } })],
        wave: { countsSummoned },
        waves: [wave('w2', { start: 'defeated', groups: [group('g', 'seedling', 1)] })],
        encounter: {},
      });
    const next = (counts: boolean) => {
      const { log } = fought(sketch(counts));
      const deaths = eventsOf(log, 'death').map(({ time }) => time);
      return deaths.indexOf(eventsOf(log, 'wave')[1].time) + 1;
    };
    expect([next(false), next(true)]).toEqual([expect.any(Number), 3]);
    expect(next(false)).toBeLessThan(3);
  });
});

test('every outcome has a name, and every event a number of its own', () => {
  expect(new Set(OUTCOME_NAMES).size).toBe(OUTCOME_NAMES.length);
  expect(Object.values(EVENT)).toEqual(Object.values(EVENT).map((_, i) => i));
});

describe('who stands where at first', () => {
  const eight = ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'].map((id) => dummy(id, 100));
  const post = { id: 'post', name: 'Post', x: 30, y: -7 };

  test('a party of eight stands in line; who is given a point stands there, the others close up', () => {
    const places = (party: Loose[]) =>
      eventsOf(
        fought(
          stage({
            party: eight,
            partyAt: { x: 0, y: 0, facing: 0 },
            enemies: [{ unit: seedling('seedling', { temper: { manner: 'passive' } }), x: 100 }],
            arena: { points: [post] },
            encounter: { party },
            limit: 0.2,
          }),
        ).log,
        'spawn',
      )
        .slice(0, 8)
        .map(({ a, b }) => [a, Number(b.toFixed(9))]);
    const members = eight.map(({ id }, i) => ({ id: `m${i}`, unit: id }));
    // Radii of 0.4 and 0.4 between edges: 1.2 m from middle to middle, eight of them about the start.
    expect(places(members)).toEqual(eight.map((_, i) => [0, Number((-4.2 + 1.2 * i).toFixed(9))]));
    const one = members.map((member, i) => (i === 2 ? { ...member, at: 'post' } : member));
    expect(places(one)).toEqual(
      [0, 1, 2, 3, 4, 5, 6, 7].map((i) => (i === 2 ? [30, -7] : [0, Number((-3.6 + 1.2 * (i > 2 ? i - 1 : i)).toFixed(9)) + 0])),
    );
  });

  test('a ninth member is refused, and a point that is not there', () => {
    const nine = [...eight, dummy('i', 100)];
    expect(() => compiled(stage({ party: nine }))).toThrow('party');
    expect(() => compiled(stage({ encounter: { party: [{ id: 'm0', unit: 'warden', at: 'nowhere' }] } }))).toThrow(
      'must be a point of the arena',
    );
  });
});
