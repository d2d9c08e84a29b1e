/** On paper: when and how far the movement of an attack carries its user, at one distance. The engine's own figures. */
import type { Attack } from '../model/attack';

export interface PaperDash {
  /** s from the start of the attack */
  from: number;
  to: number;
  metres: number;
  /** s at which its first hit falls, where its movement hurts */
  hit?: number;
}

/** @param gap m between edges when it begins; absent: the middle of the attack's range */
export function dashOnPaper({ beat, range, dash }: Attack, gap = (range.min + range.max) / 2): PaperDash | undefined {
  if (!dash) return undefined;
  const from = (dash.during === 'active' ? beat.windup : 0) + dash.after;
  const metres = dash.way === 'target' && dash.upToTarget ? Math.min(dash.distance, gap) : dash.distance;
  const to = from + metres / dash.speed;
  if (dash.hurts === 'no') return { from, to, metres };
  return { from, to, metres, hit: dash.hurts === 'end' ? to : from + Math.min(gap, metres) / dash.speed };
}
