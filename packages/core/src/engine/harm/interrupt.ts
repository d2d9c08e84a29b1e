/** Breaking off what is under way. */
import { DOING } from '../../record/doing';
import { BREAK, EVENT } from '../../record/log';
import type { Fight } from '../fight';
import { PHASE } from '../numbers';
import { callOff } from '../player/called-off';
import { tryAgainAt } from '../time/again';
import { startCooldown } from './readiness';
import { freeSlots } from './slots';

/** Before the first hit instant: at that instant itself the wind-up is over. */
export function windingUp(fight: Fight, unit: number): boolean {
  return fight.phase[unit] === PHASE.windup && fight.now < fight.hitsAt[unit];
}

/** Breaks off an attack. An end-based cooldown starts now; slots are freed. */
export function interrupt(fight: Fight, unit: number, why: number): void {
  const number = fight.attack[unit];
  const attack = fight.attackOf(unit, number);
  fight.log.add(fight.now, EVENT.interrupted, unit, fight.attackTarget[unit], number, why);
  callOff(fight, unit);
  fight.idle(unit);
  freeSlots(fight, unit);
  if (attack.cooldownFromEnd) startCooldown(fight, unit, number, attack);
  fight.setDoing(unit, DOING.noTarget); // the interruption says it
  if (fight.alerted[unit] && why !== BREAK.state) tryAgainAt(fight, unit, fight.now);
}
