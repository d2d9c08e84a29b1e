/** What a player is busy with besides fighting, and for whom. */
import type { Fight } from '../fight';
import { setUrge } from '../mind/urges';
import { TASK, URGE } from '../numbers';
import { DUE } from '../time/queue';

/** @param takes µs @param other whom it is for */
export function beginTask(fight: Fight, member: number, task: number, takes: number, other: number): void {
  fight.task[member] = task;
  fight.taskOf[member] = other;
  fight.taskSerial[member]++;
  fight.setMobility(member);
  if (fight.mobility[member] === 0) fight.stand(member);
  fight.queue.push(fight.now + takes, DUE.task, member, fight.taskSerial[member], task);
}

/** On its way to somebody, not yet busy. */
export function intend(fight: Fight, member: number, other: number): void {
  fight.taskOf[member] = other;
}

/** What a player was busy with is left undone. */
export function dropTask(fight: Fight, member: number): void {
  fight.task[member] = TASK.none;
  fight.taskSerial[member]++;
  if (fight.urge[member] === URGE.still) setUrge(fight, member, URGE.none);
  fight.setMobility(member);
}
