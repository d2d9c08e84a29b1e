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
