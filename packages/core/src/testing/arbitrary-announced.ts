/** Attacks that can be read and answered, of every kind, and who stands still before them. */
import fc from 'fast-check';
import { type FightSketch, unit } from './builders';

type Loose = Record<string, unknown>;

const tenths = (most: number) => fc.integer({ min: 0, max: most * 10 }).map((n) => n / 10);

/** What an attack is, but for its beat; `active`: s of it, where its movement takes time. */
export interface Announced extends Loose {
  kind: 'area' | 'straight' | 'dash' | 'melee';
  active: number;
}

const areas = fc
  .record({
    about: fc.constantFrom('self', 'target', 'mark'),
    delay: fc.oneof(fc.constant(0), tenths(1)),
    radius: fc.integer({ min: 1, max: 4 }),
  })
  .map(({ about, delay, radius }) => ({
    kind: 'area' as const,
    active: 0,
    delivery: 'area',
    area: { about, radius: about === 'self' ? radius + 4 : radius, delay },
  }));
const straight = fc
  .oneof(
    fc.constant({ delivery: 'hitscan' }),
    fc.integer({ min: 3, max: 30 }).map((speed) => ({ delivery: 'projectile', projectile: { speed, lifetime: 30, radius: 0.1 } })),
  )
  .map((more) => ({ kind: 'straight' as const, active: 0, ...more }));
const dashes = fc
  .record({
    hurts: fc.constantFrom('way', 'end'),
    way: fc.constantFrom('target', 'ahead'),
    speed: fc.integer({ min: 4, max: 20 }),
    distance: fc.integer({ min: 2, max: 12 }),
    after: tenths(0.5),
  })
  .map(({ hurts, ...more }) => ({
    kind: 'dash' as const,
    active: 4,
    ...(hurts === 'end' ? { delivery: 'area', area: { about: 'self', radius: 2 } } : { delivery: 'melee' }),
    dash: { hurts, during: 'active', ...more },
  }));
const melee = fc.constant({ kind: 'melee' as const, active: 0, delivery: 'melee', range: { min: 0, max: 3 } });

export const announced: fc.Arbitrary<Announced> = fc.oneof(areas, straight, dashes, melee);

/** Beats of tenths of a second. */
export const beats = fc.record({
  windup: tenths(1.5),
  recovery: tenths(0.5),
  cooldown: fc.constantFrom(0.3, 0.9, 99),
  tracking: fc.constantFrom('turns', 'fixed'),
});

const STILL = { movement: { walk: 0, run: 0 }, senses: { sight: 90, lose: 99 } };

/** A party member that sees everything, mistakes nothing, and reacts after exactly so long. */
export const reader = (reaction: number, answers: Loose[], more: Loose = {}) =>
  unit({
    id: 'warden',
    side: 'party',
    health: { max: 1e6 },
    attacks: [],
    player: { attention: { mean: reaction, spread: 0, angle: 360, follows: 50, mistakes: 0 }, answers },
    ...STILL,
    ...more,
  });

/** A foe that stands where it is, with one attack. */
export const announcer = (attack: Loose, more: Loose = {}) =>
  unit({
    id: 'mulcher',
    health: { max: 1e6 },
    attacks: [{ id: 'blow', range: { min: 0, max: 60 }, arc: 360, effects: { damage: { amount: 1 } }, ...attack }],
    ...STILL,
    ...more,
  });

/** The same from what is generated. */
export const announcerOf = ({ kind: _, active, ...attack }: Announced, beat: Loose) => announcer({ ...attack, beat: { ...beat, active } });

/** The two, so many metres apart from middle to middle, on wide ground. */
export const facingEachOther = (party: Loose, enemy: Loose, x: number, more: Partial<FightSketch> = {}): FightSketch => ({
  party: [party],
  enemies: [{ unit: enemy, x }],
  width: 120,
  depth: 120,
  limit: 3,
  ...more,
});
