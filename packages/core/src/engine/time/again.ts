/** The next try of a unit that can’t begin an attack yet. */
import type { Fight } from '../fight';
import { DUE } from './queue';

/** One choice at a time is queued for a unit, for the earliest instant at which it could go otherwise. */
export function tryAgainAt(fight: Fight, unit: number, time: number): void {
  // In rounds it tries in its turns, and at no other time.
  if (fight.inTurns) return;
  if (fight.choiceAt[unit] === time) return; // it is queued already
  fight.awaitChoice(unit, time);
  fight.queue.push(time, DUE.choice, unit, fight.serial[unit], 0);
}
