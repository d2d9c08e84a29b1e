import { describe, expect, test } from '@jest/globals';
import { dummy, eventsOf, fought, unit } from '../../testing/builders';
import { OUTCOME_NAMES } from '../../record/outcome';
import { EVENT } from '../../record/log';
import { group, reaper, seedling, stage, wave } from '../../testing/wave-stage';

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
