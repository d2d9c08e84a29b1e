import { describe, expect, test } from '@jest/globals';
import { type FightSketch, compiled, eventsOf, fought, unit } from '../../testing/builders';
import { run } from '../run';
import { group, reaper, seedling, stage, starts, wave } from '../../testing/wave-stage';

type Loose = Record<string, unknown>;

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
