/** Generated attacks with everything in them: every delivery and effect, of numbers that fit each other as little as may be. */
import * as fc from 'fast-check';
import { ANSWER_KINDS } from '../model/answer-kind';
import { DELIVERY_NAMES, traitsOf } from '../model/delivery';
import type { Typical } from '../model/effects/effect';
import { EFFECTS, EFFECT_NAMES } from '../model/effects/list';

type Loose = Record<string, unknown>;

export const tenths = (min: number, max: number) => fc.integer({ min: Math.round(min * 10), max: Math.round(max * 10) }).map((n) => n / 10);
export const sometimes = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: undefined, freq: 2 });
export const without = (object: Loose): Loose => Object.fromEntries(Object.entries(object).filter(([, value]) => value !== undefined));

const beat = fc
  .record({
    windup: tenths(0, 0.8),
    active: tenths(0, 0.6),
    every: sometimes(tenths(0.1, 0.3)),
    recovery: tenths(0, 0.5),
    cooldown: tenths(0.2, 2),
    cooldownFrom: fc.constantFrom('start', 'end'),
    moving: fc.constantFrom('no', 'slow', 'free'),
    tracking: fc.constantFrom('turns', 'fixed'),
    cue: sometimes(tenths(0, 0.4)),
  })
  .map(without);

/** Effects of every kind but raising the fallen, drawn as each says for itself. */
const effects: fc.Arbitrary<Loose> = fc
  .record(
    Object.fromEntries(
      EFFECT_NAMES.filter((name) => EFFECTS[name].isItself !== 'raising').map((name) => [
        name,
        sometimes(typicalOf(EFFECTS[name].typical)),
      ]),
    ),
  )
  .map(without);

function typicalOf(fields: object): fc.Arbitrary<Loose> {
  return fc.record(
    Object.fromEntries(Object.entries(fields as Record<string, Typical<unknown[]>>).map(([field, of]) => [field, drawn(of)])),
  );
}

function drawn(of: Typical<unknown[]>): fc.Arbitrary<unknown> {
  if ('oneOf' in of) return fc.constantFrom(...of.oneOf);
  return 'someOf' in of ? fc.subarray([...of.someOf], { minLength: 1 }) : tenths(of[0], of[1]);
}

export const wildAttack = (id: string) =>
  fc
    .record({
      delivery: fc.constantFrom(...DELIVERY_NAMES),
      targets: fc.constantFrom('friends', 'fallen'),
      reach: tenths(0.3, 12),
      arc: fc.constantFrom(40, 120, 360),
      needsLine: fc.boolean(),
      beat,
      effects,
      friendlyFire: fc.boolean(),
      perTarget: fc.constantFrom('once', 'every'),
      area: fc.record({
        about: fc.constantFrom('self', 'target', 'mark'),
        radius: tenths(0.5, 4),
        angle: fc.constantFrom(60, 360),
        delay: tenths(0, 0.6),
      }),
      projectile: fc.record({
        speed: tenths(4, 25),
        radius: tenths(0, 0.3),
        count: fc.integer({ min: 1, max: 3 }),
        spread: fc.constantFrom(0, 20),
        lead: fc.constantFrom(0, 1),
        pierces: fc.integer({ min: 0, max: 2 }),
        homing: fc.constantFrom(0, 0, 180),
      }),
      charges: sometimes(fc.record({ count: fc.integer({ min: 1, max: 3 }), reload: tenths(0.5, 3) })),
      energy: sometimes(tenths(0, 4)),
      hit: sometimes(tenths(1, 10)),
      stagger: fc.boolean(),
      slot: sometimes(fc.constant({ pool: 'close', takes: 1 })),
      next: sometimes(fc.record({ attack: fc.constantFrom('one', 'two', 'three'), window: tenths(0, 1) })),
      dash: sometimes(
        fc.record({
          way: fc.constantFrom('target', 'away', 'sideways', 'ahead'),
          distance: tenths(0.2, 6),
          speed: tenths(3, 20),
          upToTarget: fc.boolean(),
          during: fc.constantFrom('windup', 'active'),
          after: tenths(0, 0.4),
          hurts: fc.constantFrom('no', 'way', 'end'),
          stops: fc.boolean(),
          reels: fc.constantFrom(0, 0.4),
          over: fc.constantFrom(0, 1),
        }),
      ),
      weak: tenths(0, 1),
      answers: fc.subarray([...ANSWER_KINDS]),
    })
    .map((a) =>
      without({
        id,
        delivery: a.delivery,
        targets: a.delivery === 'support' ? a.targets : 'foes',
        range: { min: 0, max: a.delivery === 'contact' ? 0.1 : a.reach },
        arc: a.arc,
        needsLine: a.needsLine,
        beat: a.beat,
        effects: a.targets === 'fallen' && a.delivery === 'support' ? { ...a.effects, revive: { amount: 3, share: 0.3 } } : a.effects,
        hits: { friendlyFire: a.friendlyFire, perTarget: a.perTarget },
        area: a.delivery === 'area' ? a.area : undefined,
        projectile: a.delivery === 'projectile' ? a.projectile : undefined,
        summon: a.delivery === 'summon' ? { unit: 'mite', count: 2, cap: 3, around: 1 } : undefined,
        dash: a.delivery === 'contact' ? undefined : a.dash && { ...a.dash, hurts: traitsOf(a.delivery).strikes ? a.dash.hurts : 'no' },
        charges: a.charges,
        energy: a.energy,
        interruptible: without({ stagger: a.stagger, hit: a.hit }),
        slot: a.slot,
        next: a.next,
        aim: { near: 0.9, far: 0.6, weakPointShare: a.weak },
        answers: a.answers,
      }),
    );

/** What a unit leaves behind when it dies: it may strike whom nothing was announced to. */
export const lastAttack = fc
  .record({ effects, radius: tenths(0.5, 6), delay: tenths(0, 2), windup: tenths(0, 1), friendlyFire: fc.boolean() })
  .map(({ effects: leaves, radius, delay, windup, friendlyFire }) => ({
    id: 'last',
    delivery: 'area',
    range: { min: 0, max: 1 },
    beat: { windup, recovery: 0.1 },
    area: { about: 'self', radius, delay },
    effects: leaves,
    hits: { friendlyFire },
    answers: ['stepOut', 'dodge'],
  }));
