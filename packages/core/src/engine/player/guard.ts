/** The windows in which a dodge or a block stops what comes. */
import type { Fight } from '../fight';

/** @param window µs */
export function openDodge(fight: Fight, unit: number, window: number): void {
  fight.dodgeFrom[unit] = fight.now;
  fight.dodgeUntil[unit] = fight.now + window;
}

/** @param window µs @param share what it takes off a hit */
export function openBlock(fight: Fight, unit: number, window: number, share: number): void {
  fight.blockUntil[unit] = fight.now + window;
  fight.blockShare[unit] = share;
}

export function dropGuard(fight: Fight, unit: number): void {
  fight.dodgeUntil[unit] = fight.blockUntil[unit] = 0;
}
