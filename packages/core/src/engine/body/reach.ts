/**
 * Distances against what is asked of them, for the whole engine. A place or a way worked out in doubles is off by some
 * 1e-15 of itself: centres 2.10 m apart with radii of 0.5 and 0.4 come out as 1.2000000000000002 m between edges. So reach
 * and least distances allow a billionth of a metre, and comparisons of conditions stay strict by as much: what is meant to
 * be equal is in reach, and neither below nor above.
 */
import { REACH_SLACK } from '../tuning';

/** Within a reach: ≤. @param distance m */
export function inReach(distance: number, most: number): boolean {
  return distance <= most + REACH_SLACK;
}

/** At a least distance: ≥. @param distance m */
export function farEnough(distance: number, least: number): boolean {
  return distance >= least - REACH_SLACK;
}

/** Between a least and a most distance. @param distance m */
export function inRange(distance: number, least: number, most: number): boolean {
  return farEnough(distance, least) && inReach(distance, most);
}

/** The same as `inReach` for the square of a distance, where a root would be slow. @param square m² */
export function squareInReach(square: number, most: number): boolean {
  const reach = most + REACH_SLACK;
  return square <= reach * reach;
}

/** "Below" and "above" of conditions: < and >. NaN is neither. @param actual of any unit */
export function compares(actual: number, above: boolean, value: number): boolean {
  return above ? actual > value + REACH_SLACK : actual < value - REACH_SLACK;
}
