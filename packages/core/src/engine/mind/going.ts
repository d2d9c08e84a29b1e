/** How far a unit is on the errand of its state: which stop, how long it rests, where it is going, to which side it strafes. */
import type { Fight } from '../fight';
import { NOBODY } from '../numbers';
import { PURPOSE } from '../time/chance';

/** What an errand before left open is forgotten. */
export function beginErrand(fight: Fight, unit: number, startAt: number): void {
  fight.stop[unit] = startAt;
  fight.stopWay[unit] = 1;
  fight.hasGoal[unit] = 0;
  fight.waitUntil[unit] = 0;
  fight.strafeSign[unit] = 0;
  fight.leader[unit] = NOBODY;
  fight.nextLeader[unit] = 0;
}

/** Its rest is over: on to the next of so many stops. */
export function goOn(fight: Fight, unit: number, stops: number, backAndForth: boolean): void {
  fight.waitUntil[unit] = 0;
  const next = fight.stop[unit] + fight.stopWay[unit];
  if (backAndForth && (next < 0 || next >= stops)) fight.stopWay[unit] = 0 - fight.stopWay[unit];
  fight.stop[unit] = backAndForth ? Math.max(0, Math.min(stops - 1, fight.stop[unit] + fight.stopWay[unit])) : next % stops;
}

/** @param until µs */
export function rest(fight: Fight, unit: number, until: number): void {
  fight.waitUntil[unit] = until;
}

export function setGoal(fight: Fight, unit: number, x: number, y: number): void {
  fight.goalX[unit] = x;
  fight.goalY[unit] = y;
}

export function pursueGoal(fight: Fight, unit: number, pursues: boolean): void {
  fight.hasGoal[unit] = pursues ? 1 : 0;
}

/** @param x, y a unit vector; 0, 0: it stands */
export function head(fight: Fight, unit: number, x: number, y: number): void {
  fight.headingX[unit] = x;
  fight.headingY[unit] = y;
}

/** @param until µs: when it looks for a better one */
export function followLeader(fight: Fight, unit: number, leader: number, until: number): void {
  fight.leader[unit] = leader;
  fight.nextLeader[unit] = until;
}

/** Left or right, drawn when first asked for in a state. */
export function strafeSide(fight: Fight, unit: number): number {
  if (fight.strafeSign[unit] === 0) fight.strafeSign[unit] = fight.chance(unit, PURPOSE.strafe) < 0.5 ? -1 : 1;
  return fight.strafeSign[unit];
}

export function turnRound(fight: Fight, unit: number): void {
  fight.strafeSign[unit] = 0 - fight.strafeSign[unit];
}
