/** Generated fights in which nobody moves and nothing is left to chance: what the second opinion can work out. */
import * as fc from 'fast-check';
import { type FightSketch, unit } from './builders';

type Loose = Record<string, unknown>;

const part = (digits: number) => (min: number, max: number) =>
  fc.integer({ min: Math.round(min * 10 ** digits), max: Math.round(max * 10 ** digits) }).map((n) => n / 10 ** digits);
const tenths = part(1);
const hundredths = part(2);
const sometimes = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: undefined, freq: 2 });
const without = (object: Loose): Loose => Object.fromEntries(Object.entries(object).filter(([, value]) => value !== undefined));

/** Numbers that meet at the same instants as often as not, and some that don't. */
const times = (min: number, max: number) => {
  const round = [0, 0.5, 1].filter((n) => n >= min && n <= max);
  return fc.oneof(tenths(min, max), hundredths(min, max), ...(round.length ? [fc.constantFrom(...round)] : []));
};

const beat = (several: boolean) =>
  fc
    .record({
      windup: times(0, 1),
      active: several ? times(0, 1) : fc.constant(0),
      every: sometimes(times(0.05, 0.4)),
      recovery: times(0.01, 0.6),
      cooldown: times(0.1, 2),
      cooldownFrom: fc.constantFrom('start', 'end'),
      initialDelay: times(0, 1).map((s) => ({ min: s, max: s })),
    })
    .map(without);

const type = fc.constantFrom('spore', 'light', 'thorn');
const cost = {
  energy: sometimes(tenths(0.1, 5)),
  charges: sometimes(fc.record({ count: fc.integer({ min: 1, max: 3 }), reload: times(0.2, 3) })),
};

/** Strikes its foe. @param several hits in one use */
const strike = (id: string, several: boolean) =>
  fc
    .record({
      beat: beat(several),
      damage: sometimes(fc.record({ amount: hundredths(0, 14), type })),
      overTime: sometimes(
        fc.record({
          amount: hundredths(0, 4),
          every: times(0.1, 1),
          for: times(0, 3),
          stacking: fc.constantFrom('refresh', 'stack', 'ignore'),
          type,
        }),
      ),
      drain: sometimes(fc.record({ amount: tenths(0, 4) })),
      perTarget: fc.constantFrom('once', 'every'),
      ...cost,
    })
    .map(({ damage, overTime, drain, perTarget, ...rest }) =>
      without({
        id,
        delivery: 'melee',
        range: { min: 0, max: 60 },
        arc: 360,
        hits: { perTarget },
        effects: without({ damage, overTime, drain }),
        ...rest,
      }),
    );

/** Helps whoever does it. */
const aid = (id: string) =>
  fc
    .record({
      beat: beat(true),
      heal: sometimes(fc.record({ amount: tenths(0, 20), share: fc.constantFrom(0, 0.1) })),
      shield: sometimes(fc.record({ amount: tenths(0, 12), for: times(0.1, 4) })),
      boost: sometimes(
        fc.record({
          tweaks: fc.subarray(
            [
              { path: '/attacks/*/beat/cooldown', op: '×', value: 0.5 },
              { path: '/attacks/*/effects/damage/amount', op: '×', value: 1.5 },
              { path: '/attacks/*/effects/damage/amount', op: '+', value: 2 },
            ],
            { minLength: 1 },
          ),
          for: times(0, 3),
        }),
      ),
      ...cost,
    })
    .map(({ heal, shield, boost, ...rest }) =>
      without({ id, delivery: 'self', range: { min: 0, max: 1 }, effects: without({ heal, shield, boost }), ...rest }),
    );

const body = {
  max: tenths(1, 120),
  regen: fc.oneof(fc.constant(0), tenths(0, 6)),
  regenDelay: times(0, 1),
  regenUpTo: fc.constantFrom(1, 1, 0.6),
  gates: fc.constantFrom<Loose[]>(
    [],
    [],
    [{ id: 'g', share: 0.5, state: 'b', holds: true }],
    [
      { id: 'g', share: 0.7, state: 'b', holds: true },
      { id: 'h', share: 0.3, state: 'c', holds: true },
    ],
    [{ id: 'g', share: 0.4, state: 'b', holds: false }],
  ),
  turns: fc.tuple(times(0.1, 4), times(0.1, 4)),
  shield: sometimes(fc.record({ max: tenths(1, 30), regen: tenths(0, 5), regenDelay: times(0, 2) })),
  armour: fc.record({
    flat: tenths(0, 3),
    minimumDamage: tenths(0, 2),
    resist: fc.subarray([
      { id: 'spore', share: 0.4 },
      { id: 'light', share: -0.5 },
      { id: 'thorn', share: 1 },
    ]),
  }),
  invulnerability: fc.record({ duration: fc.oneof(fc.constant(0), times(0.01, 1)), scope: fc.constantFrom('any', 'attacker', 'attack') }),
  energy: sometimes(
    fc
      .tuple(tenths(1, 12), tenths(0, 1), tenths(0, 4))
      .map(([max, share, regen]) => ({ max, start: Math.round(max * share * 100) / 100, regen })),
  ),
};

const fighter = (id: string, side: 'party' | 'enemy', several: boolean) =>
  fc
    .record({
      ...body,
      attacks: fc.tuple(strike('one', several), strike('two', several), aid('three'), aid('four')),
      order: fc.shuffledSubarray(['one', 'two', 'three', 'four'], { minLength: 1 }),
    })
    .map(({ max, regen, regenDelay, regenUpTo, gates, turns: [b, c], attacks, order, ...rest }) =>
      unit(
        without({
          id,
          side,
          health: { max, regen, regenDelay, regenUpTo, gates },
          targeting: { only: { units: [side === 'party' ? 'clipper' : 'warden'] } },
          states: [
            { id: 'a', name: 'A', does: 'hold', leaves: [{ when: { subject: 'timeInState', is: 'above', value: b }, to: 'b' }] },
            { id: 'b', name: 'B', does: 'hold', leaves: [{ when: { subject: 'timeInState', is: 'above', value: c }, to: 'c' }] },
            { id: 'c', name: 'C', does: 'hold' },
          ],
          attacks,
          choice: { priorities: order.map((attack) => ({ entries: [{ attack }] })) },
          ...rest,
        }) as { id: string },
      ),
    );

/** One who stands against one to four. The first of them is the one that is struck back. */
export const arbitraryStanding: fc.Arbitrary<FightSketch & { limit: number }> = fc
  .record({
    warden: fighter('warden', 'party', false),
    enemies: fc.tuple(fighter('clipper', 'enemy', true), fighter('mulcher', 'enemy', true), fighter('stalk', 'enemy', true)),
    count: fc.integer({ min: 1, max: 3 }),
    again: fc.boolean(),
  })
  .map(({ warden, enemies, count, again }) => ({
    party: [warden],
    enemies: enemies.slice(0, count).map((enemy, i) => ({ unit: enemy, x: 5, y: 3 * i, count: again && i > 0 ? 2 : 1 })),
    limit: 10,
  }));
