/** What keeps a unit from following its state: an answer, a place to be at, the way home, standing still. */
import type { Fight } from '../fight';

/** @param urge one of URGE */
export function setUrge(fight: Fight, unit: number, urge: number): void {
  fight.urge[unit] = urge;
}

/**
 * The same with where to.
 * @param x m, or of a direction, where it evades
 * @param speed m/s
 * @param until µs
 */
export function urgeTowards(fight: Fight, unit: number, urge: number, x: number, y: number, speed: number, until: number): void {
  fight.urge[unit] = urge;
  fight.urgeX[unit] = x;
  fight.urgeY[unit] = y;
  fight.urgeSpeed[unit] = speed;
  fight.urgeUntil[unit] = until;
}
