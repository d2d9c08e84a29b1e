/**
 * Waves that hold others back. While one of them lives, the starts, the repeats and the spawns not yet made of every wave
 * that does not hold itself stand still: their delays run on a clock that stops, and go on from where they stood.
 */
import type { Fight } from '../fight';
import { DUE } from '../time/queue';

/** A start or a spawn of a wave that comes due while the clock of the held stands still. */
export interface Held {
  kind: number;
  serial: number;
  detail: number;
  /** µs that are left of its delay */
  left: number;
}

/** Whether starts of a wave must wait. */
export function isHeldBack(fight: Fight, wave: number): boolean {
  return fight.holding && !fight.compiled.waves[wave].holdsBack;
}

/** What a wave that holds has come to has changed: the clock stops, or goes on. */
export function watchHold(fight: Fight): void {
  if (!fight.canHold) return;
  const holds = fight.compiled.waves.some(({ holdsBack }, wave) => {
    const { started, defeated, planned } = fight.waves[wave];
    return holdsBack && started && defeated < planned;
  });
  if (holds === fight.holding) return;
  fight.holding = holds;
  if (holds) {
    fight.heldSince = fight.now;
    return;
  }
  fight.heldFor += fight.now - fight.heldSince;
  for (const { kind, serial, detail, left } of fight.putAside) fight.queue.push(fight.begins(fight.now + left), kind, 0, serial, detail);
  fight.putAside.length = 0;
}

/** µs on the clock of those who can be held. */
function clock(fight: Fight): number {
  return (fight.holding ? fight.heldSince : fight.now) - fight.heldFor;
}

/** A number for each start (coming of a wave) and each spawn. */
const keyOf = (kind: number, serial: number, detail: number) => (serial * 8192 + detail) * 2 + (kind === DUE.spawn ? 1 : 0);

/** Queues a start or a spawn of a wave after a delay on its clock. @param delay µs */
export function queueOfWave(fight: Fight, wave: number, delay: number, kind: number, serial: number, detail: number): void {
  if (fight.canHold && !fight.compiled.waves[wave].holdsBack) fight.dueOnClock.set(keyOf(kind, serial, detail), clock(fight) + delay);
  fight.queue.push(fight.begins(fight.now + delay), kind, 0, serial, detail);
}

/** Whether a start or a spawn that has come due is not due by its wave's clock; then it is put off. */
export function putOff(fight: Fight, kind: number, serial: number, detail: number): boolean {
  const key = keyOf(kind, serial, detail);
  const due = fight.dueOnClock.get(key);
  if (due === undefined) return false;
  const left = due - clock(fight);
  if (fight.holding) fight.putAside.push({ kind, serial, detail, left });
  else if (left > 0) fight.queue.push(fight.begins(fight.now + left), kind, 0, serial, detail);
  else {
    fight.dueOnClock.delete(key);
    return false;
  }
  return true;
}
