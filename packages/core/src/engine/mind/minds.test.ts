import { describe, expect, test } from '@jest/globals';
import { type FightSketch, compiled, dummy, eventsOf, fought, unit } from '../../testing/builders';
import { type Loose, bite, standing, enemy, duel, startsOf } from '../../testing/duels';
import { run } from '../run';

describe('choice', () => {
  test('a priority or entry whose condition is false is passed over', () => {
    const attacks = [bite({ id: 'far' }), bite({ id: 'near' }), bite({ id: 'late' })];
    const choice = {
      priorities: [
        { condition: { subject: 'clock', is: 'above', value: 4.5 }, entries: [{ attack: 'late' }] },
        { entries: [{ attack: 'far', condition: { subject: 'distance', is: 'above', value: 10 } }, { attack: 'near' }] },
      ],
    };
    expect(new Set(startsOf(duel(enemy(attacks, { choice }), { limit: 4 })).map(([, what]) => what))).toEqual(new Set([1]));
    expect(
      startsOf(duel(enemy(attacks, { choice }), { limit: 8 }))
        .filter(([time]) => time > 4.5)
        .some(([, what]) => what === 2),
    ).toBe(true);
  });

  test('an entry may be meant for somebody else than the unit’s target', () => {
    const attacks = [bite({ id: 'bite' }), bite({ id: 'spit' })];
    const targeting = { criteria: [{ by: 'lowestHealth' }], reconsider: 0 };
    const choice = { priorities: [{ entries: [{ attack: 'spit', targeting }] }, { entries: [{ attack: 'bite' }] }] };
    const { log } = fought({
      party: [standing('near'), dummy('weak', 50)],
      partyAt: { x: 0, y: 0, facing: 0 },
      enemies: [{ unit: enemy(attacks, { choice }), x: 0, y: -5 }],
      limit: 5,
    });
    for (const { what, other } of eventsOf(log, 'start')) expect(other).toBe(what === 1 ? 1 : 0);
  });

  test('a state allows all, none, or some attacks', () => {
    const attacks = [bite({ id: 'one' }), bite({ id: 'two' })];
    const used = (state: Loose) =>
      new Set(startsOf(duel(enemy(attacks, { states: [{ id: 's', name: 's', does: 'hold', ...state }] }))).map(([, what]) => what));
    expect(used({ attacks: 'all' })).toEqual(new Set([0, 1]));
    expect(used({ attacks: 'none' })).toEqual(new Set());
    expect(used({ attacks: 'some', only: ['two'] })).toEqual(new Set([1]));
  });

  test('an attack owed on entering a state is done once whatever its cooldown, as soon as the one under way is over', () => {
    const attacks = [
      bite({ beat: { windup: 0.6, cooldown: 0.7 } }),
      { id: 'roar', delivery: 'self', weight: 0, beat: { windup: 0.2, cooldown: 99, initialDelay: { min: 50, max: 50 } } },
    ];
    const states = [
      { id: 'a', name: 'a', does: 'hold', leaves: [{ when: { subject: 'clock', is: 'above', value: 1 }, to: 'b' }] },
      { id: 'b', name: 'b', does: 'hold', onEnter: { attack: 'roar' } },
    ];
    const found = startsOf(duel(enemy(attacks, { states, choice: { priorities: [{ entries: [{ attack: 'bite' }] }] } }), { limit: 4 }));
    expect(found.filter(([, what]) => what === 1)).toEqual([[1.3, 1]]); // the bite of 0.7 ends at 1.3
  });
});

describe('targets', () => {
  const target = (criteria: Loose[], more: Loose = {}, seed = 1) => {
    const gun = enemy([bite({ range: { min: 0, max: 100 } })], { targeting: { criteria, commitment: 0, reconsider: 0, ...more } });
    const party = [dummy('near', 80), dummy('weak', 40, { role: 'mender' }), dummy('tough', 500)];
    return eventsOf(
      fought({ party, partyAt: { x: 0, y: 0, facing: 90 }, enemies: [{ unit: gun, x: 9, y: 0 }], limit: 3 }, seed).log,
      'start',
    )[0].other;
  };

  test('by criterion: nearest, lowest health, a role, a unit', () => {
    // The members stand across the way they face, which is 90°: at x = 1.2, 0, −1.2.
    expect(target([{ by: 'nearest' }])).toBe(0);
    expect(target([{ by: 'lowestHealth' }])).toBe(1);
    expect(target([{ by: 'role', of: 'mender' }])).toBe(1);
    expect(target([{ by: 'unit', of: 'tough' }])).toBe(2);
  });

  test('whoever has an attack of a name; whoever has the most charges left, until they are spent', () => {
    const throws = (count: number) => bite({ id: 'throw', name: 'Throw', charges: { count, reload: 60 }, range: { min: 0, max: 100 } });
    const first = (criteria: Loose[], party = [dummy('near', 80), dummy('one', 80, { attacks: [throws(1)] }), dummy('two', 80)]) => {
      const gun = enemy([bite({ range: { min: 0, max: 100 } })], { targeting: { criteria, commitment: 0, reconsider: 0 } });
      return eventsOf(fought({ party, partyAt: { x: 0, y: 0, facing: 90 }, enemies: [{ unit: gun, x: 9, y: 0 }], limit: 3 }).log, 'start')
        .filter(({ actor }) => actor === party.length)
        .map(({ other }) => other);
    };
    expect(first([{ by: 'carries', of: 'Throw' }])[0]).toBe(1);
    // A name that nobody has speaks of nobody: the first of them all.
    expect(first([{ by: 'carries', of: 'throw' }])[0]).toBe(0);
    const party = [dummy('near', 80), dummy('few', 80, { attacks: [throws(1)] }), dummy('many', 80, { attacks: [throws(2)] })];
    expect(first([{ by: 'mostCharges' }], party)[0]).toBe(2);
    // Who throws at once and reloads for longer than the fight has none left when the next is picked, and the nearest counts.
    const once = dummy('once', 80, {
      attacks: [{ ...throws(1), beat: { windup: 0.05 } }],
      choice: { priorities: [{ entries: [{ attack: 'throw' }] }] },
    });
    const seen = first([{ by: 'mostCharges' }, { by: 'nearest', weight: 0.1 }], [dummy('near', 80), once, dummy('idle', 80)]);
    expect(seen[seen.length - 1]).toBe(0);
  });

  test('weighed: the heavier criterion decides', () => {
    expect(
      target([
        { by: 'nearest', weight: 1 },
        { by: 'unit', of: 'tough', weight: 5 },
      ]),
    ).toBe(2);
    expect(
      target([
        { by: 'nearest', weight: 50 },
        { by: 'unit', of: 'tough', weight: 1 },
      ]),
    ).toBe(0);
  });

  test('filters: only these, never those', () => {
    expect(target([{ by: 'nearest' }], { only: { units: ['tough'] } })).toBe(2);
    expect(target([{ by: 'lowestHealth' }], { never: { roles: ['mender'] } })).toBe(0);
  });

  test('at random over many seeds everybody has a turn', () => {
    expect(new Set(Array.from({ length: 30 }, (_, seed) => target([{ by: 'random' }], {}, seed)))).toEqual(new Set([0, 1, 2]));
  });

  test('whoever hurt it most, and whoever struck it last', () => {
    const gun = (id: string, amount: number, cooldown: number) =>
      unit({
        id,
        side: 'party',
        health: { max: 1e5 },
        attacks: [bite({ range: { min: 0, max: 100 }, beat: { windup: 0.1, cooldown }, effects: { damage: { amount } } })],
      });
    const after = (by: string) => {
      const boss = enemy([bite({ range: { min: 0, max: 100 }, beat: { windup: 0.1, cooldown: 0.9, initialDelay: { min: 3, max: 3 } } })], {
        targeting: { criteria: [{ by }], commitment: 0, reconsider: 0 },
      });
      return eventsOf(
        fought({ party: [gun('heavy', 50, 2.6), gun('quick', 1, 0.15)], enemies: [{ unit: boss, x: 6 }], limit: 5 }).log,
        'start',
      ).filter(({ actor }) => actor === 2)[0].other;
    };
    expect(after('mostDamageToMe')).toBe(0);
    expect(after('lastAttacker')).toBe(1);
  });
});

describe('temper and senses', () => {
  const quiet = { group: { alerted: false } };

  test('on sight; only once attacked; never', () => {
    const gun = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e5 },
      attacks: [bite({ beat: { windup: 0.1, cooldown: 3, initialDelay: { min: 2, max: 2 } } })],
    });
    const noticed = (manner: string) =>
      eventsOf(
        fought({ party: [gun], enemies: [{ unit: enemy([bite()], { temper: { manner } }), x: 6, ...quiet }], limit: 5 }).log,
        'notice',
      )
        .filter(({ actor }) => actor === 1)
        .map(({ time }) => time);
    expect([noticed('hostile'), noticed('retaliates'), noticed('passive')]).toEqual([[0], [2.1], []]);
  });

  test('calls its friends within the alert radius', () => {
    const caller = enemy([bite()], { id: 'caller', name: 'caller', temper: { alertRadius: 10 } });
    const sleeper = enemy([bite()], { id: 'sleeper', name: 'sleeper', senses: { sight: 1, lose: 400 } });
    const woken = (x: number) =>
      eventsOf(
        fought({
          party: [standing('warden')],
          enemies: [
            { unit: caller, x: 12, ...quiet },
            { unit: sleeper, x, ...quiet },
          ],
          limit: 3,
        }).log,
        'notice',
      ).some(({ actor }) => actor === 2);
    expect([woken(21), woken(23)]).toEqual([true, false]);
  });

  test('hears who runs or attacks, past walls and behind it', () => {
    const deaf = (hearing: number) => enemy([], { senses: { sight: 3, lose: 400, hearing } });
    const runner = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e5 },
      movement: { walk: 2, run: 6 },
      attacks: [],
      senses: { sight: 400, lose: 500 },
      states: [{ id: 's', name: 's', does: 'flee', pace: 'run' }],
    });
    const heard = (hearing: number, pace: string) => {
      const mover = { ...runner, states: [{ id: 's', name: 's', does: 'flee', pace }] };
      return eventsOf(fought({ party: [mover], enemies: [{ unit: deaf(hearing), x: 8, ...quiet }], limit: 0.4 }).log, 'notice').some(
        ({ actor }) => actor === 1,
      );
    };
    expect([heard(12, 'run'), heard(12, 'walk'), heard(0, 'run')]).toEqual([true, false, false]);
  });

  test('a foe must be in sight for the build-up before the reaction begins', () => {
    const slow = enemy([], { senses: { sight: 20, lose: 400, buildUp: 1, interval: 0.2, reaction: { mean: 0.5, spread: 0 } } });
    const [notice] = eventsOf(fought(duel(slow, { enemies: [{ unit: slow, x: 8, ...quiet }], limit: 4 })).log, 'notice').filter(
      ({ actor }) => actor === 1,
    );
    expect(notice.time).toBeCloseTo(0.8 + 0.5, 9); // five looks of 0.2 s make 1 s: the fifth falls at 0.8
  });

  test('sees nobody behind a wall, and loses who goes behind one once its memory is over', () => {
    const wall = {
      walls: [
        {
          id: 'w',
          name: 'w',
          height: 3,
          corners: [
            { x: 3, y: -4 },
            { x: 4, y: -4 },
            { x: 4, y: 4 },
            { x: 3, y: 4 },
          ],
        },
      ],
    };
    const watcher = (needsLine: boolean) => enemy([], { senses: { sight: 30, lose: 40, needsLine, memory: 1 } });
    const noticed = (needsLine: boolean, height = 3) => {
      const arena = { walls: [{ ...wall.walls[0], height }] };
      return eventsOf(
        fought(duel(watcher(needsLine), { enemies: [{ unit: watcher(needsLine), x: 8, ...quiet }], arena, width: 60, depth: 60, limit: 2 }))
          .log,
        'notice',
      ).some(({ actor }) => actor === 1);
    };
    expect([noticed(true), noticed(false), noticed(true, 0.8)]).toEqual([false, true, true]);
    const alerted = eventsOf(
      fought(duel(watcher(true), { enemies: [{ unit: watcher(true), x: 8 }], arena: wall, width: 60, depth: 60, limit: 4 })).log,
      'lose',
    ).map(({ time }) => time);
    expect(alerted).toEqual([1]);
  });
});

describe('conditions', () => {
  const holds = (when: Loose, more: Partial<FightSketch> = {}, rest: Loose = {}) => {
    const states = [
      { id: 'a', name: 'a', does: 'hold', leaves: [{ when, to: 'b' }] },
      { id: 'b', name: 'b', does: 'hold' },
    ];
    const watcher = enemy([bite({ weight: 0 })], { states, ...rest });
    return eventsOf(fought(duel(watcher, { enemies: [{ unit: watcher, x: 4 }], limit: 3, ...more })).log, 'state').map(({ time }) => time);
  };

  test.each<[string, Loose, number[]]>([
    // A unit takes its target after its transitions of the first step: what asks of a target is true from the second on.
    ['distance', { subject: 'distance', is: 'below', value: 3.3 }, [0.05]],
    ['home', { subject: 'homeDistance', is: 'above', value: 0.1 }, []],
    ['the clock', { subject: 'clock', is: 'above', value: 1.02 }, [1.05]],
    ['own health', { subject: 'healthShare', is: 'below', value: 1 }, []],
    ['target’s health', { subject: 'targetHealthShare', is: 'above', value: 0.99 }, [0.05]],
    ['a shield that is not there', { subject: 'shieldShare', is: 'below', value: 1 }, []],
    ['foes near', { subject: 'foes', is: 'above', value: 0, within: 4 }, [0]],
    ['friends near', { subject: 'friends', is: 'above', value: 0, within: 40 }, []],
    ['never hit', { subject: 'sinceHit', is: 'above', value: 100 }, [0]],
    [
      'all of',
      {
        subject: 'all',
        parts: [
          { subject: 'sees', is: 'yes' },
          { subject: 'line', is: 'yes' },
        ],
      },
      [0.05],
    ],
    [
      'any of',
      {
        subject: 'any',
        parts: [
          { subject: 'flag', is: 'yes', of: 'alarm' },
          { subject: 'clock', is: 'above', value: 0.5 },
        ],
      },
      [0.55],
    ],
    ['not', { subject: 'not', parts: [{ subject: 'clock', is: 'below', value: 2 }] }, [2]],
    ['a ready attack', { subject: 'attackReady', is: 'yes', of: 'bite' }, [0]],
    ['a target’s role', { subject: 'targetRole', is: 'yes', of: 'mender' }, []],
    ['what a target does', { subject: 'targetDoes', is: 'yes', of: 'idle' }, [0.05]],
    ['a flag nobody raises', { subject: 'flag', is: 'no', of: 'alarm' }, [0]],
    ['a wave', { subject: 'waveShare', is: 'above', value: 0.99, of: 'w1' }, [0]],
  ])('%s', (_, when, expected) => {
    expect(holds(when)).toEqual(expected);
  });

  test('damage taken within a time, and time since', () => {
    const gun = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e5 },
      attacks: [bite({ beat: { windup: 0, cooldown: 0.4 }, effects: { damage: { amount: 10 } } })],
    });
    expect(holds({ subject: 'damageTaken', is: 'above', value: 25, within: 1 }, { party: [gun] })).toEqual([0.8]); // at 0, 0.4, 0.8
    expect(holds({ subject: 'sinceHit', is: 'below', value: 0.01 }, { party: [gun] })).toEqual([0.4]); // the hit at 0.4 comes before the step at 0.4
  });

  test('a chance is drawn once on entering: it comes true as often as it says, and at once or never', () => {
    let came = 0;
    const states = [
      { id: 'a', name: 'a', does: 'hold', leaves: [{ when: { subject: 'chance', value: 0.3 }, to: 'b' }] },
      { id: 'b', name: 'b', does: 'hold' },
    ];
    const tables = compiled(duel(enemy([], { states }), { limit: 2 }));
    for (let seed = 0; seed < 400; seed++) {
      const times = eventsOf(run(tables, seed).log, 'state').map(({ time }) => time);
      came += times.length;
      if (times.length) expect(times).toEqual([0]);
    }
    expect(came / 400).toBeGreaterThan(0.23);
    expect(came / 400).toBeLessThan(0.37);
  });
});

test('of foes equally near the one who was there first is the nearest', () => {
  const mite = (id: string) => dummy(id, 100, { side: 'enemy', movement: { walk: 0, run: 0 } });
  const { log } = fought({
    party: [unit({ id: 'warden', side: 'party', attacks: [{ id: 'bite', range: { min: 0, max: 50 } }], movement: { walk: 0, run: 0 } })],
    // Five metres from it each, which a double holds exactly.
    enemies: [
      { unit: mite('a'), x: 3, y: 4 },
      { unit: mite('b'), x: 3, y: -4 },
    ],
    limit: 1,
  });
  expect(
    eventsOf(log, 'target')
      .filter(({ actor }) => actor === 0)
      .map(({ other }) => other),
  ).toEqual([1]);
});
