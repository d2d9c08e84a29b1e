/** Whom a unit is after, until when it may not let go, and when it looks for a better one. */
import { EVENT } from '../../record/log';
import { forgetWay } from '../body/route';
import type { Fight } from '../fight';
import { NOBODY } from '../numbers';

export function setTarget(fight: Fight, unit: number, target: number): void {
  fight.target[unit] = target;
  forgetWay(fight, unit);
  if (target !== NOBODY) fight.log.add(fight.now, EVENT.target, unit, target, 0);
}

export function dropTarget(fight: Fight, unit: number): void {
  fight.target[unit] = NOBODY;
}

/** It can't leave its target before then, whatever else. @param until µs; 0: nothing binds it */
export function bind(fight: Fight, unit: number, until: number): void {
  fight.boundUntil[unit] = until;
}

/** @param at µs */
export function reconsiderAt(fight: Fight, unit: number, at: number): void {
  fight.nextTarget[unit] = at;
}
