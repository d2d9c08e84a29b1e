/** A stage for waves: one who fells whatever comes, and those who stand about and die of it. */
import { type FightSketch, eventsOf, fought, unit } from './builders';

type Loose = Record<string, unknown>;

/** Kills whatever comes into its reach, one each 0.5 s, from the middle. */
export const reaper = (more: Loose = {}) =>
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
export const seedling = (id = 'seedling', more: Loose = {}) => unit({ id, health: { max: 10 }, attacks: [], ...more });
export const group = (id: string, enemy: string, count: number, more: Loose = {}) => ({
  id,
  enemy,
  count: { min: count, max: count },
  at: ['p0'],
  alerted: true,
  ...more,
});
export const wave = (id: string, more: Loose) => ({ id, name: id, ...more });

export function stage(sketch: Partial<FightSketch>): FightSketch {
  return { party: [reaper()], enemies: [{ unit: seedling(), count: 1, x: 20, scatter: 6 }], limit: 60, ...sketch };
}
export const starts = (sketch: FightSketch, seed = 1, step?: number) => {
  const { log } = fought(sketch, seed, step);
  return Object.fromEntries(
    eventsOf(log, 'wave')
      .reverse()
      .map(({ what, time }) => [what, time]),
  );
};
