/** One use of an attack in turns of its owner: when it begins, strikes, lets its owner go, and may be begun again. */
import type { Attack } from '../model/attack';

export interface TurnBeat {
  /** The turn in which it strikes, that in which it is begun being the first. */
  strikes: number;
  /** The first turn in which its owner may do something else: with it or in the same turn, where nothing holds it. */
  free: number;
  /** The first turn in which it may be begun again. */
  next: number;
}

/**
 * k turns end at the start of its owner's k-th turn from then: a wind-up of k strikes there, recovery runs from the strike,
 * the cooldown from the beginning. Where nothing else holds it, it comes again as often as there are actions.
 */
export function turnBeat({ rounds }: Pick<Attack, 'rounds'>, actions: number): TurnBeat {
  const { windup = 0, recovery = 0, cooldown = 0 } = rounds ?? {};
  const again = actions > 1 ? 0 : 1;
  const strikes = 1 + windup;
  return {
    strikes,
    free: 1 + Math.max(windup + recovery, windup > 0 ? windup : again),
    next: 1 + Math.max(windup + recovery, cooldown, windup > 0 ? 0 : again),
  };
}
