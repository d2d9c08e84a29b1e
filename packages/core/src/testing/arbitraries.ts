/** Generated projects for property tests: small fights with everything this version carries. */
import * as fc from 'fast-check';
import { type FightSketch, unit } from './builders';

const tenths = (min: number, max: number) => fc.integer({ min: Math.round(min * 10), max: Math.round(max * 10) }).map((n) => n / 10);
const hundredths = (min: number, max: number) => fc.integer({ min: Math.round(min * 100), max: Math.round(max * 100) }).map((n) => n / 100);

const beat = fc.record({
  windup: hundredths(0, 0.6),
  active: hundredths(0, 0.5),
  every: fc.option(hundredths(0.05, 0.3), { nil: undefined }),
  recovery: hundredths(0, 0.5),
  cooldown: hundredths(0.1, 2),
  cooldownFrom: fc.constantFrom('start', 'end'),
  moving: fc.constantFrom('no', 'slow', 'free'),
  tracking: fc.constantFrom('turns', 'fixed'),
});

const damage = fc.record({ amount: tenths(0, 12), spread: tenths(0, 4), critChance: tenths(0, 0.5), critMultiplier: tenths(1, 3) });
const aim = fc.record({ near: tenths(0, 1), far: tenths(0, 1) });

const attack = (id: string) =>
  fc
    .record({
      delivery: fc.constantFrom('melee', 'hitscan', 'projectile'),
      reach: tenths(0.5, 9),
      from: tenths(0, 1),
      facing: fc.constantFrom(30, 90, 180),
      arc: fc.constantFrom(60, 180, 360),
      beat,
      damage,
      aim,
      perTarget: fc.constantFrom('once', 'every'),
      shots: fc.integer({ min: 1, max: 3 }),
      spread: fc.constantFrom(0, 12),
      lead: fc.constantFrom(0, 1),
      weight: fc.integer({ min: 1, max: 5 }),
      energy: fc.option(tenths(0, 4), { nil: undefined }),
      overTime: fc.option(
        fc.record({
          amount: tenths(0, 4),
          every: tenths(0.2, 1),
          for: tenths(0, 3),
          stacking: fc.constantFrom('refresh', 'stack', 'ignore'),
        }),
        { nil: undefined },
      ),
    })
    .map(
      ({ delivery, reach, from, facing, arc, beat: b, damage: d, aim: a, perTarget, shots, spread, lead, weight, energy, overTime }) => ({
        id,
        weight,
        delivery,
        range: { min: Math.min(from, reach), max: reach },
        facing,
        arc,
        beat: JSON.parse(JSON.stringify(b)) as object,
        ...(energy !== undefined && { energy }),
        effects: { damage: d, ...(overTime && { overTime }) },
        aim: a,
        hits: { perTarget, limit: 2 },
        ...(delivery === 'projectile' && { projectile: { speed: 12, radius: 0.1, count: shots, spread, lead } }),
      }),
    );

const state = fc.oneof(
  fc.constant([{ id: 's', name: 's', does: 'hold' }]),
  fc.constant([{ id: 's', name: 's', does: 'approach' }]),
  fc
    .record({ near: tenths(1, 4), wide: tenths(0, 4) })
    .map(({ near, wide }) => [{ id: 's', name: 's', does: 'band', near, far: near + wide }]),
  fc.constant([
    { id: 's', name: 's', does: 'approach', leaves: [{ when: { subject: 'distance', is: 'below', value: 3 }, to: 'b' }] },
    { id: 'b', name: 'b', does: 'flee', leaves: [{ when: { subject: 'timeInState', is: 'above', value: 0.7 }, to: 's' }] },
  ]),
);

export const arbitraryUnit = (id: string, side: 'party' | 'enemy') =>
  fc
    .record({
      radius: tenths(0.2, 1),
      health: tenths(1, 60),
      regen: tenths(0, 2),
      armour: tenths(0, 2),
      window: fc.constantFrom(0, 0, 0.3),
      scope: fc.constantFrom('any', 'attacker', 'attack'),
      run: tenths(0, 7),
      acceleration: fc.constantFrom(0, 8),
      turnRate: fc.constantFrom(0, 200),
      sight: tenths(4, 30),
      angle: fc.constantFrom(120, 360),
      reaction: tenths(0, 0.5),
      spread: tenths(0, 0.3),
      pause: tenths(0, 0.4),
      attacks: fc.tuple(attack('one'), attack('two')),
      shield: fc.option(fc.record({ max: tenths(1, 20), regen: tenths(0, 3), regenDelay: tenths(0, 1) }), { nil: undefined }),
      energy: fc.record({ max: tenths(1, 10), start: tenths(0, 10), regen: tenths(0, 2) }),
      states: state,
    })
    .map((u) =>
      unit({
        id,
        side,
        body: { radius: u.radius },
        health: { max: u.health, regen: u.regen, regenDelay: 0.5 },
        armour: { flat: u.armour, minimumDamage: 0.2 },
        ...(u.shield && { shield: u.shield }),
        energy: u.energy,
        invulnerability: { duration: u.window, scope: u.scope },
        movement: { walk: u.run / 2, run: u.run, acceleration: u.acceleration, turnRate: u.turnRate },
        senses: {
          sight: u.sight,
          angle: u.angle,
          lose: u.sight + 6,
          memory: 1,
          reaction: { mean: u.reaction, spread: u.spread },
          interval: 0.1,
        },
        targeting: { reconsider: 0.3, commitment: 0.1 },
        attacks: u.attacks,
        states: u.states,
      }),
    );

export const arbitraryFight: fc.Arbitrary<FightSketch> = fc
  .record({
    party: fc.tuple(arbitraryUnit('warden', 'party'), fc.integer({ min: 1, max: 2 })),
    clipper: arbitraryUnit('clipper', 'enemy'),
    mulcher: arbitraryUnit('mulcher', 'enemy'),
    counts: fc.tuple(fc.integer({ min: 0, max: 4 }), fc.integer({ min: 1, max: 2 })),
    x: tenths(2, 9),
    scatter: fc.constantFrom(0, 2),
  })
  .map(({ party: [member, members], clipper, mulcher, counts, x, scatter }) => ({
    party: Array.from({ length: members }, () => member),
    enemies: [
      { unit: clipper, count: counts[0], x, y: 3, scatter },
      { unit: mulcher, count: counts[1], x: -x, y: -3, facing: 0, scatter },
    ],
    limit: 8,
    width: 30,
    depth: 30,
  }));
