/** Breaking off what is under way: an attack, a task. */
import { DOING } from '../../record/doing';
import { BREAK, EVENT } from '../../record/log';
import type { Fight } from '../fight';
import { PHASE, TASK, URGE } from '../numbers';
import type { CompiledAttack } from '../tables';
import { tryAgainAt } from '../time/again';
import { freeSlots } from './slots';

export function startCooldown(fight: Fight, unit: number, number: number, attack: CompiledAttack): void {
  const room = fight.compiled.attackRoom;
  fight.readyAt[unit * room + number] = fight.now + attack.cooldown;
  let next = Infinity;
  const { choice } = fight.kinds[unit];
  for (let p = 0; p < choice.length; p++) {
    for (let e = 0; e < choice[p].attacks.length; e++) next = Math.min(next, fight.readyAt[unit * room + choice[p].attacks[e]]);
  }
  fight.nextReady[unit] = next;
}

/** Before the first hit instant: at that instant itself the wind-up is over. */
export function windingUp(fight: Fight, unit: number): boolean {
  return fight.phase[unit] === PHASE.windup && fight.now < fight.attackStart[unit] + fight.attackOf(unit, fight.attack[unit]).windup;
}

/** Breaks off an attack. An end-based cooldown starts now; slots are freed. */
export function interrupt(fight: Fight, unit: number, why: number): void {
  const number = fight.attack[unit];
  const attack = fight.attackOf(unit, number);
  fight.log.add(fight.now, EVENT.interrupted, unit, fight.attackTarget[unit], number, why);
  fight.idle(unit);
  freeSlots(fight, unit);
  if (attack.cooldownFromEnd) startCooldown(fight, unit, number, attack);
  fight.doing[unit] = DOING.noTarget; // the interruption says it
  if (fight.alerted[unit] && why !== BREAK.state) tryAgainAt(fight, unit, fight.now);
}

/** What a player was busy with is left undone. */
export function dropTask(fight: Fight, member: number): void {
  fight.task[member] = TASK.none;
  fight.taskSerial[member]++;
  if (fight.urge[member] === URGE.still) fight.urge[member] = URGE.none;
  fight.setMobility(member);
}
