/** Who is in the fight: the living in order of their numbers, by side and by type, members that stand, the summoned of each. */
import type { Fight } from '../fight';
import { NOBODY } from '../numbers';
import { comeBack, leaveBoard } from '../rounds/places';

/** A unit is there for the first time. */
export function enter(fight: Fight, unit: number): void {
  stand(fight, unit);
  fight.aliveOfType[fight.kinds[unit].type]++;
}

/** It stands among the living; bodies and shots look anew. */
function stand(fight: Fight, unit: number): void {
  fight.isAlive[unit] = 1;
  insert(fight.alive, unit);
  insert(fight.living[fight.side[unit]], unit);
  look(fight);
}

function look(fight: Fight): void {
  fight.shots.stale = true;
  fight.crowd.clear();
}

/** It lies: dead, gone, or down. */
export function fall(fight: Fight, unit: number): void {
  leaveBoard(fight, unit);
  fight.isAlive[unit] = 0;
  look(fight);
  remove(fight.alive, unit);
  remove(fight.living[fight.side[unit]], unit);
}

/** It is in the fight no more, dead or gone. */
export function leave(fight: Fight, unit: number): void {
  if (fight.summoner[unit] !== NOBODY) fight.helpers[fight.summoner[unit]]--;
  if (fight.isMember[unit]) fight.standing--;
  fight.aliveOfType[fight.kinds[unit].type]--;
}

/** It was dead and is not any more. */
export function rejoin(fight: Fight, unit: number): void {
  fight.revived[unit]++;
  fight.aliveOfType[fight.kinds[unit].type]++;
  if (fight.summoner[unit] !== NOBODY) fight.helpers[fight.summoner[unit]]++;
  if (fight.isMember[unit]) fight.standing++;
}

/** It stands up where it lay. */
export function rise(fight: Fight, unit: number): void {
  comeBack(fight, unit);
  stand(fight, unit);
}

/** It belongs to the party; with the last of them the fight is lost. */
export function join(fight: Fight, unit: number, seat: number): void {
  fight.isMember[unit] = 1;
  fight.seat[unit] = seat;
  fight.standing++;
}

/** Down: somebody may help it up. */
export function goDown(fight: Fight, unit: number): void {
  fight.isDown[unit] = 1;
  fight.standing--;
}

export function getUp(fight: Fight, unit: number): void {
  fight.isDown[unit] = 0;
  fight.standing++;
}

/** Dead for good or to be revived. */
export function die(fight: Fight, unit: number): void {
  fight.isDown[unit] = 0;
  fight.killed[fight.kinds[unit].type]++;
}

/** Summoned by another. */
export function serve(fight: Fight, summoner: number): void {
  fight.helpers[summoner]++;
}

function remove(list: number[], unit: number): void {
  list.splice(list.indexOf(unit), 1);
}

/** Lists of the living are in order of their numbers. */
function insert(list: number[], unit: number): void {
  let at = list.length;
  while (at > 0 && list[at - 1] > unit) at--;
  list.splice(at, 0, unit);
}
