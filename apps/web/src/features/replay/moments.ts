/** Instants of a run that are jumped to. Pure; seconds. */
import type { Replay } from '@insidia/core';

export type Event = Replay['events'][number];

/** Nearer than this is now. */
const NOW = 1e-6;

/** The nearest event that fits, on or back from an instant; undefined where there is none. */
export function nextEvent(events: readonly Event[], time: number, way: -1 | 1, fits: (event: Event) => boolean): Event | undefined {
  return way > 0
    ? events.find((event) => event.time > time + NOW && fits(event))
    : events.findLast((event) => event.time < time - NOW && fits(event));
}

/** So many steps on or back; from between two steps the first leads to the nearest. */
export function stepped(time: number, step: number, by: number): number {
  const from = by > 0 ? Math.floor(time / step + NOW) : Math.ceil(time / step - NOW);
  return (from + by) * step;
}

/** Somebody of the party is hit. */
export const isPartyHit = (replay: Replay) => (event: Event) =>
  event.event === 'hit' && event.other !== undefined && replay.units[event.other]?.side === 'party';

const DECISIONS = ['start', 'doing', 'state', 'target'];

/** A unit decides something. */
export const decides = (unit: number | undefined) => (event: Event) => event.unit === unit && DECISIONS.includes(event.event);

/** The unit that most is to be seen of: the enemy that took most from the party; without any, whoever decided most often. */
export function mostTelling({ units, events }: Pick<Replay, 'units' | 'events'>): number | undefined {
  const taken = new Float64Array(units.length);
  const decided = new Float64Array(units.length);
  for (const event of events) {
    const { unit, other } = event;
    if (unit === undefined || unit >= units.length || units[unit].side !== 'enemy') continue;
    if (other !== undefined && units[other]?.side === 'party') taken[unit] += event.values?.damage ?? 0;
    if (decides(unit)(event)) decided[unit]++;
  }
  const most = (list: Float64Array) => list.reduce((best, value, i) => (value > (best < 0 ? 0 : list[best]) ? i : best), -1);
  const found = most(taken) >= 0 ? most(taken) : most(decided);
  return found >= 0 ? found : undefined;
}
