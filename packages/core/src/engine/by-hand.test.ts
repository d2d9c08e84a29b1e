import { describe, expect, test } from '@jest/globals';
import { compiled, dummy, eventsOf, fought, unit } from '../testing/builders';
import { run } from './run';

/**
 * Results that can be worked out by hand. At every step length they must come out to the microsecond: a designer whose
 * numbers depend on the step can trust none of them.
 */
describe.each([0.1, 0.05, 0.01])('worked by hand, at a step of %s s', (step) => {
  test('1: health 100, hits of 12 each 0.4 s: nine hits, killed 3.2 s after the first', () => {
    // ⌈100 / 12⌉ = 9 hits; (9 − 1) × 0.4 = 3.2.
    const striker = unit({
      id: 'striker',
      attacks: [{ id: 'blow', beat: { windup: 0.1, active: 0.1, recovery: 0.1, cooldown: 0.4 }, effects: { damage: { amount: 12 } } }],
    });
    const { log, outcome } = fought({ party: [dummy('target', 100)], enemies: [{ unit: striker }] }, 1, step);
    const hits = eventsOf(log, 'hit');
    expect(hits).toHaveLength(9);
    expect(hits.map(({ time }) => time)).toEqual([0.1, 0.5, 0.9, 1.3, 1.7, 2.1, 2.5, 2.9, 3.3]);
    expect(eventsOf(log, 'death')[0].time - hits[0].time).toBeCloseTo(3.2, 12);
    expect(hits[8]).toMatchObject({ a: 4, b: 8, c: 12 }); // 100 − 8 × 12 = 4 left, 8 overkill
    expect(outcome).toBe('partyDown');
  });

  test('2: an interval of 0.12 s with the first at 0 gives 500 shots in [0, 60)', () => {
    const gunner = unit({
      id: 'gunner',
      attacks: [{ id: 'shot', delivery: 'hitscan', beat: { cooldown: 0.12 }, effects: { damage: { amount: 1 } } }],
    });
    const { log } = fought({ party: [dummy('target', 1e6)], enemies: [{ unit: gunner }], limit: 61 }, 1, step);
    const shots = eventsOf(log, 'start').filter(({ time }) => time < 60);
    expect(shots).toHaveLength(500);
    // Repeats fall at start + i × every, never by adding up.
    expect(shots[499].time).toBe(59.88);
  });

  test('3: wind-up 0.4, active 0.9 every 0.15, recovery 0.25, cooldown 0.7 from the end: six hits a cycle of 2.25 s', () => {
    const sweeper = unit({
      id: 'sweeper',
      attacks: [
        {
          id: 'sweep',
          beat: { windup: 0.4, active: 0.9, every: 0.15, recovery: 0.25, cooldown: 0.7, cooldownFrom: 'end' },
          hits: { perTarget: 'every' },
          effects: { damage: { amount: 1 } },
        },
      ],
    });
    const { log } = fought({ party: [dummy('target', 1e6)], enemies: [{ unit: sweeper }], limit: 20 }, 1, step);
    expect(
      eventsOf(log, 'start')
        .slice(0, 4)
        .map(({ time }) => time),
    ).toEqual([0, 2.25, 4.5, 6.75]);
    expect(
      eventsOf(log, 'hit')
        .slice(0, 7)
        .map(({ time }) => time),
    ).toEqual([0.4, 0.55, 0.7, 0.85, 1, 1.15, 2.65]);
  });

  test('8: a window of 0.4 on any hit and attackers hitting for 6 each 0.1 s: one counted hit each 0.4 s', () => {
    const nibbler = unit({
      id: 'nibbler',
      attacks: [{ id: 'nip', range: { min: 0, max: 20 }, beat: { cooldown: 0.1 }, effects: { damage: { amount: 6 } } }],
    });
    const { log } = fought(
      {
        party: [dummy('target', 90, { invulnerability: { duration: 0.4, scope: 'any' } })],
        enemies: [{ unit: nibbler, count: 3, scatter: 3 }],
      },
      1,
      step,
    );
    const hits = eventsOf(log, 'hit');
    // 90 / 6 = 15 hits, 0.4 s apart.
    expect(hits.map(({ time }) => time)).toEqual(Array.from({ length: 15 }, (_, i) => Math.round(i * 400_000) / 1e6));
    expect(eventsOf(log, 'blocked').length).toBeGreaterThan(100);
  });

  test('8b: the same window by attacker lets each of three attackers through', () => {
    const nibbler = unit({
      id: 'nibbler',
      attacks: [{ id: 'nip', range: { min: 0, max: 20 }, beat: { cooldown: 0.1 }, effects: { damage: { amount: 6 } } }],
    });
    const { log } = fought(
      {
        party: [dummy('target', 90, { invulnerability: { duration: 0.4, scope: 'attacker' } })],
        enemies: [{ unit: nibbler, count: 3, scatter: 3 }],
      },
      1,
      step,
    );
    expect(eventsOf(log, 'hit').filter(({ time }) => time === 0)).toHaveLength(3);
    expect(eventsOf(log, 'death')[0].time).toBe(1.6); // five rounds of three hits
  });

  test('4: over time 3 every 0.8 for 4: five ticks, 15; refreshed at 2.0 they go on in phase up to 5.6', () => {
    const spore = (uses: number) =>
      unit({
        id: 'sporecask',
        energy: { max: uses, start: uses },
        attacks: [{ id: 'cloud', energy: 1, beat: { cooldown: 2 }, effects: { overTime: { amount: 3, every: 0.8, for: 4 } } }],
      });
    const ticks = (uses: number) =>
      eventsOf(fought({ party: [dummy('target', 1e6)], enemies: [{ unit: spore(uses) }], limit: 20 }, 1, step).log, 'tick');
    expect(ticks(1).map(({ time }) => time)).toEqual([0.8, 1.6, 2.4, 3.2, 4]);
    expect(ticks(1).reduce((sum, { a }) => sum + a, 0)).toBe(15);
    expect(ticks(2).map(({ time }) => time)).toEqual([0.8, 1.6, 2.4, 3.2, 4, 4.8, 5.6]);
  });

  test('4b: stacked, a second one runs beside the first; ignored, it does nothing', () => {
    const times = (stacking: string) => {
      const spore = unit({
        id: 'sporecask',
        energy: { max: 2, start: 2 },
        attacks: [{ id: 'cloud', energy: 1, beat: { cooldown: 1 }, effects: { overTime: { amount: 3, every: 0.8, for: 1.6, stacking } } }],
      });
      return eventsOf(fought({ party: [dummy('target', 1e6)], enemies: [{ unit: spore }], limit: 20 }, 1, step).log, 'tick').map(
        ({ time }) => time,
      );
    };
    expect(times('stack')).toEqual([0.8, 1.6, 1.8, 2.6]);
    expect(times('ignore')).toEqual([0.8, 1.6]);
  });

  test('5: energy 14 at a cost of 4 pays for three casts; with regeneration each comes when it can be paid', () => {
    const caster = (regen: number) =>
      unit({
        id: 'sapwright',
        energy: { max: 14, start: 14, regen },
        attacks: [{ id: 'cast', energy: 4, beat: { cooldown: 0.1 }, effects: { damage: { amount: 1 } } }],
      });
    const casts = (regen: number) =>
      eventsOf(fought({ party: [dummy('target', 1e6)], enemies: [{ unit: caster(regen) }], limit: 10 }, 1, step).log, 'start').map(
        ({ time }) => time,
      );
    expect(casts(0)).toEqual([0, 0.1, 0.2]);
    // 14 − 12 = 2 left at 0.2 s besides 0.2 × 1.6 regained; 4 are there again when 14 + 1.6 t = 16, at 1.25 s.
    expect(casts(1.6).slice(0, 5)).toEqual([0, 0.1, 0.2, 1.25, 3.75]);
    expect(casts(1.6).length).toBeLessThanOrEqual((14 + 1.6 * 10) / 4);
  });

  test('a shield takes damage first, regains after its delay, and what it takes is not health lost', () => {
    // Shield 10, health 20, hits of 12 at 0, 2, 4 s; shield + 4/s from 1 s after a hit.
    // 0: 10 absorbed, 2 lost. 2: 4 regained and absorbed, 8 lost. 4: 4 absorbed, 8 lost. 6: 4 absorbed, 2 lost, 6 overkill.
    const striker = unit({ id: 'striker', attacks: [{ id: 'blow', beat: { cooldown: 2 }, effects: { damage: { amount: 12 } } }] });
    const target = dummy('target', 20, { shield: { max: 10, regen: 4, regenDelay: 1 } });
    const { log } = fought({ party: [target], enemies: [{ unit: striker }] }, 1, step);
    expect(eventsOf(log, 'hit').map(({ time, d, a, b, c }) => [time, d, a, b, c])).toEqual([
      [0, 10, 2, 0, 12],
      [2, 4, 8, 0, 12],
      [4, 4, 8, 0, 12],
      [6, 4, 2, 6, 12],
    ]);
  });

  test('the first priority with a usable entry decides; a lower one only has its turn when none is', () => {
    const chooser = {
      ...unit({
        id: 'thistlejack',
        attacks: [
          { id: 'kick', beat: { cooldown: 1 }, effects: { damage: { amount: 1 } } },
          { id: 'quill', beat: { cooldown: 0.4 }, effects: { damage: { amount: 1 } } },
        ],
      }),
      choice: { priorities: [{ entries: [{ attack: 'kick' }] }, { entries: [{ attack: 'quill' }] }] },
    };
    const { log } = fought({ party: [dummy('target', 1e6)], enemies: [{ unit: chooser }], limit: 2.1 }, 1, step);
    expect(eventsOf(log, 'start').map(({ time, what }) => [time, what])).toEqual([
      [0, 0],
      [0, 1],
      [0.4, 1],
      [0.8, 1],
      [1, 0],
      [1.2, 1],
      [1.6, 1],
      [2, 0],
      [2, 1],
    ]);
  });

  test('two units may kill each other at one instant', () => {
    const attack = { id: 'blow', beat: { windup: 0.3, cooldown: 1 }, effects: { damage: { amount: 10 } } };
    const one = unit({ id: 'one', side: 'party', health: { max: 10 }, attacks: [attack] });
    const other = unit({ id: 'other', health: { max: 10 }, attacks: [attack] });
    const { log, outcome } = fought({ party: [one], enemies: [{ unit: other }] }, 1, step);
    expect(eventsOf(log, 'death').map(({ time, actor }) => [time, actor])).toEqual([
      [0.3, 0],
      [0.3, 1],
    ]);
    expect(outcome).toBe('partyDown'); // party down beats victory
  });

  test('a shot takes its time: 10 m between edges at 20 m/s, radius 0.5', () => {
    // Contact when the centres are 0.5 + 0.4 apart: the shot has flown 10 − 0.5 m from the shooter's edge: 0.475 s.
    const thrower = unit({
      id: 'thrower',
      attacks: [
        {
          id: 'stone',
          delivery: 'projectile',
          range: { min: 0, max: 20 },
          projectile: { speed: 20, radius: 0.5 },
          beat: { windup: 0.13, cooldown: 5 },
          effects: { damage: { amount: 1 } },
        },
      ],
    });
    const { log } = fought({ party: [dummy('target', 5)], enemies: [{ unit: thrower, x: 10.8 }] }, 1, step);
    expect(eventsOf(log, 'hit')[0].time).toBeCloseTo(0.13 + 0.475, 5);
  });

  test('regeneration grows linearly after its delay and is cut by the next hit', () => {
    // 100 − 60 at 0; from 0.5 s on + 10 hp/s: 40 + 10 × 1.5 = 55 at 2 s, less 60: dead at 2 s with 5 overkill.
    const striker = unit({ id: 'striker', attacks: [{ id: 'blow', beat: { cooldown: 2 }, effects: { damage: { amount: 60 } } }] });
    const { log } = fought(
      {
        party: [dummy('target', 100, {})].map((u) => ({ ...u, health: { max: 100, regen: 10, regenDelay: 0.5 } })),
        enemies: [{ unit: striker }],
      },
      1,
      step,
    );
    expect(eventsOf(log, 'hit').map(({ time, a, b }) => [time, a, b])).toEqual([
      [0, 60, 0],
      [2, 55, 5],
    ]);
  });
});

test('armour takes its part of every hit, down to the least damage', () => {
  const striker = unit({ id: 'striker', attacks: [{ id: 'blow', beat: { cooldown: 1 }, effects: { damage: { amount: 6 } } }] });
  const armoured = (armour: object) => fought({ party: [dummy('target', 100, { armour })], enemies: [{ unit: striker }], limit: 0.5 });
  expect(eventsOf(armoured({ flat: 2 }).log, 'hit')[0].c).toBe(4);
  expect(eventsOf(armoured({ flat: 9, minimumDamage: 1.5 }).log, 'hit')[0].c).toBe(1.5);
  expect(eventsOf(armoured({ flat: 9, minimumDamage: 50 }).log, 'hit')[0].c).toBe(6);
});

test('nothing acts on a stale world: a blow whose target stepped out of reach misses', () => {
  const striker = unit({
    id: 'striker',
    attacks: [{ id: 'blow', range: { min: 0, max: 2 }, beat: { windup: 1, cooldown: 9 }, effects: { damage: { amount: 6 } } }],
  });
  const runner = unit({ id: 'runner', side: 'party', movement: { run: 8, walk: 2 }, states: [{ id: 'away', name: 'Away', does: 'flee' }] });
  const { log } = fought({ party: [runner], enemies: [{ unit: striker }], limit: 2 });
  expect(eventsOf(log, 'start')).toHaveLength(1);
  expect(eventsOf(log, 'hit')).toHaveLength(0);
  expect(eventsOf(log, 'miss')).toMatchObject([{ time: 1, a: 0 }]);
});

test('a target that dies cancels the wind-up against it, and the next is chosen at once', () => {
  const quick = unit({ id: 'quick', attacks: [{ id: 'blow', beat: { windup: 0.2, cooldown: 5 }, effects: { damage: { amount: 100 } } }] });
  const slow = unit({
    id: 'slow',
    attacks: [
      {
        id: 'blow',
        range: { min: 0, max: 20 },
        beat: { windup: 0.5, cooldown: 5, cooldownFrom: 'end' },
        effects: { damage: { amount: 1 } },
      },
    ],
  });
  const { log } = fought({
    party: [dummy('near', 10), dummy('far', 1000)],
    enemies: [
      { unit: quick, x: 1, y: -2 },
      { unit: slow, x: 2.5, y: -2 },
    ],
    limit: 1,
  });
  expect(eventsOf(log, 'interrupted')).toMatchObject([{ time: 0.2, actor: 3, other: 0 }]);
});

describe('the simulated player', () => {
  const senses = { sight: 40, lose: 60, interval: 0.1, reaction: { mean: 0.34, spread: 0 } };
  const attacks = [
    {
      id: 'bolt',
      delivery: 'hitscan',
      range: { min: 0, max: 14 },
      beat: { cooldown: 0.5, moving: 'free' },
      aim: { near: 0.9, far: 0.4 },
      effects: { damage: { amount: 1 } },
    },
  ];

  test('acts a reaction time after it first sees a foe', () => {
    const { log } = fought({
      party: [unit({ id: 'warden', side: 'party', senses, attacks })],
      enemies: [{ unit: dummy('clipper', 1e6), x: 8 }],
      limit: 2,
    });
    expect(eventsOf(log, 'notice').filter(({ actor }) => actor === 0)).toMatchObject([{ time: 0.34 }]);
    expect(eventsOf(log, 'start')[0]).toMatchObject({ actor: 0, time: 0.34 });
  });

  test('a foe out of sight is not noticed, and one behind it neither', () => {
    const warden = (angle: number) => unit({ id: 'warden', side: 'party', senses: { ...senses, angle }, attacks });
    const notices = (angle: number, x: number) =>
      eventsOf(fought({ party: [warden(angle)], enemies: [{ unit: dummy('clipper', 1e6), x }], limit: 2 }).log, 'notice').filter(
        ({ actor }) => actor === 0,
      ).length;
    expect([notices(360, 40), notices(360, 41), notices(120, 20), notices(120, -20), notices(360, -20)]).toEqual([1, 0, 1, 0, 1]);
  });

  test('aims as well as its accuracy at that distance: halfway between near and far at half range', () => {
    // 0.9 at 0 m, 0.4 at 14 m: 0.65 at 7 m. 40 shots a run over 100 seeds: sd of the share √(0.65 × 0.35 / 4000) = 0.0075.
    let [hits, shots] = [0, 0];
    for (let seed = 1; seed <= 100; seed++) {
      const { log } = fought(
        { party: [unit({ id: 'warden', side: 'party', senses, attacks })], enemies: [{ unit: dummy('clipper', 1e6), x: 7.8 }], limit: 20 },
        seed,
      );
      hits += eventsOf(log, 'hit').length;
      shots += eventsOf(log, 'start').length;
    }
    expect(Math.abs(hits / shots - 0.65)).toBeLessThan(4 * 0.0075);
  });

  test('keeps its distance from a slower foe: never nearer than a step’s closing below the near edge', () => {
    const warden = unit({
      id: 'warden',
      side: 'party',
      senses,
      attacks,
      movement: { walk: 2, run: 5 },
      states: [{ id: 'away', name: 'Away', does: 'band', near: 5, far: 9 }],
    });
    const chaser = unit({
      id: 'mulcher',
      health: { max: 1e6 },
      movement: { walk: 2, run: 3 },
      states: [{ id: 'on', name: 'On', does: 'approach' }],
      attacks: [{ id: 'slam', range: { min: 0, max: 1 }, effects: { damage: { amount: 5 } } }],
    });
    let nearest = Infinity;
    let farthest = 0;
    run(compiled({ party: [warden], enemies: [{ unit: chaser, x: 12 }], limit: 30 }), 1, (fight, time) => {
      if (time < 4e6) return;
      nearest = Math.min(nearest, fight.gap(0, 1));
      farthest = Math.max(farthest, fight.gap(0, 1));
    });
    expect(nearest).toBeGreaterThan(5 - (3 + 5) * 0.05);
    expect(farthest).toBeLessThan(9 + (3 + 5) * 0.05);
  });
});
