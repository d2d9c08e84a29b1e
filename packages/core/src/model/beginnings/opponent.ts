/** The ordinary opponent. */
import type { Unit } from '../unit';
import { beginningOf } from './beginning';
import { UNIT_BEGINNINGS, beginUnit } from './units';

/** Whom a new project has to fight; whom a beginning is measured against where there is nobody on the other side. */
export function ordinaryOpponent(): Unit {
  return beginUnit(beginningOf(UNIT_BEGINNINGS, 'ordinary'), {
    id: 'opponent',
    name: 'Opponent',
    role: 'opponent',
    notes: 'Somebody of ordinary reflexes, to have a fight from the start. Change it, or put your own party in its place.',
  });
}
