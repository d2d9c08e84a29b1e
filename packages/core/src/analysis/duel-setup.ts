/** How a duel may be set up, and how it is where nobody says. */
import type { Clock } from '../record/clock';

/** From where the enemies come: in front of the party, behind its back, or a spawn point of the arena. */
export type DuelFrom = 'ahead' | 'behind' | `point:${string}`;

export const pointOf = (from: DuelFrom): string | undefined => (from.startsWith('point:') ? from.slice(6) : undefined);

/** Others of a kind beside the enemy of a duel. */
export interface Company {
  unit: string;
  count: number;
}

export interface DuelOptions {
  enemy: string;
  /** A party member, or several that stand together. */
  against: string | readonly string[];
  /** 1 to 12 */
  copies?: number;
  /** Who comes with the enemy: up to 8 kinds of 1 to 12 each. */
  company?: readonly Company[];
  /** m between the edges of the bodies at the start; in turns cells from the nearest of one to the nearest of the other */
  distance?: number;
  /** From where the enemies come. */
  from?: DuelFrom;
  /** m, how high a wall stands between them, on open ground */
  wall?: number;
  /** s, or rounds */
  limit?: number;
  /** In seconds or in turns; absent: as its fights are. */
  clock?: Clock;
  /** An arena to stand in: the party where it starts there. Absent: open ground. */
  arena?: string;
}

/** `distance` in metres, `cells` where it takes turns. */
export const DUEL_DEFAULTS = { copies: 1, distance: 12, cells: 6, from: 'ahead', limit: 60 } as const;
/** How many of a kind may stand in a duel, and how many kinds may come with the enemy. */
export const DUEL_MOST = { copies: 12, kinds: 8 } as const;
