/** Duels of one attacker and somebody who stands there, as small as a test of one rule needs. */
import type { Fight } from '../engine/fight';
import { run } from '../engine/run';
import { type FightSketch, compiled, dummy, eventsOf, fought, unit } from './builders';

export type Loose = Record<string, unknown>;

/** A bite at any distance, again and again. */
export const bite = (more: Loose = {}) => ({
  id: 'bite',
  range: { min: 0, max: 30 },
  delivery: 'hitscan',
  beat: { windup: 0.1, cooldown: 1 },
  effects: { damage: { amount: 1 } },
  ...more,
});
/** Somebody who can't be killed. */
export const standing = (id: string, more: Loose = {}) => dummy(id, 1e5, more);
export const enemy = (attacks: Loose[], more: Loose = {}) => unit({ id: 'clipper', health: { max: 1e5 }, attacks, ...more });
export const duel = (attacker: Loose, more: Partial<FightSketch> = {}): FightSketch => ({
  party: [standing('warden')],
  enemies: [{ unit: attacker, x: 4 }],
  limit: 10,
  ...more,
});
/** When a unit begins which attack: µs and number. */
export const startsOf = (sketch: FightSketch, actor = 1) =>
  eventsOf(fought(sketch).log, 'start')
    .filter((start) => start.actor === actor)
    .map(({ time, what }) => [time, what]);
/** Where a unit is at every step. */
export function places(sketch: FightSketch, which: number, seed = 1): { time: number; x: number; y: number; fight: Fight }[] {
  const seen: { time: number; x: number; y: number; fight: Fight }[] = [];
  run(compiled(sketch), seed, (fight, time) => seen.push({ time: time / 1e6, x: fight.x[which], y: fight.y[which], fight }));
  return seen;
}

/** An attack that is used but once. */
export const once = (id: string, more: Loose = {}) => ({
  id,
  range: { min: 0, max: 30 },
  delivery: 'hitscan',
  beat: { windup: 0.1, cooldown: 600 },
  ...more,
});
/** One enemy that does one thing once to a dummy of 100. */
export const against = (attack: Loose, target: Loose = {}, more: Partial<FightSketch> = {}): FightSketch => ({
  party: [dummy('warden', 100, target)],
  enemies: [{ unit: unit({ id: 'clipper', attacks: [attack] }), x: 4 }],
  limit: 8,
  ...more,
});
/** What a watcher reads at every step. */
export function watched<T>(sketch: FightSketch, read: (fight: Fight) => T): T[] {
  const seen: T[] = [];
  run(compiled(sketch, 0.1), 1, (fight) => seen.push(read(fight)));
  return seen;
}
