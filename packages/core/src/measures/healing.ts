import { EVENT } from '../record/log';
import { type Stream, isParty, typeOf, typesOf } from './stream';

/** Of one type in a run, hp. */
export interface Healing {
  done: number;
  received: number;
  /** Given beyond full health. */
  wasted: number;
  revives: number;
  /** Shields lent. */
  lent: number;
  /**
   * Effective health added: healing that was not wasted, shields as lent, and health that revived units came back with,
   * by whoever gave it.
   */
  added: number;
}

/** By type. What a unit heals of itself by items, or at home, counts to itself. */
export function healing(stream: Stream): Healing[] {
  const { log } = stream.run;
  const table = typesOf(stream.compiled).map((): Healing => ({ done: 0, received: 0, wasted: 0, revives: 0, lent: 0, added: 0 }));
  for (let i = 0; i < log.length; i++) {
    const kind = log.kind[i];
    if (kind !== EVENT.heal && kind !== EVENT.revive && kind !== EVENT.shielded) continue;
    const giver = table[typeOf(stream, log.actor[i])];
    const taker = table[typeOf(stream, log.other[i])];
    giver.added += log.a[i];
    if (kind === EVENT.heal) {
      giver.done += log.a[i];
      giver.wasted += log.b[i];
      taker.received += log.a[i];
    } else if (kind === EVENT.revive) giver.revives++;
    else giver.lent += log.a[i];
  }
  return table;
}

/** Enemies that were brought back after they had died, each time counted. */
export function raised(stream: Stream): number {
  const { log } = stream.run;
  let count = 0;
  for (let i = 0; i < log.length; i++) if (log.kind[i] === EVENT.revive && !isParty(stream, log.other[i])) count++;
  return count;
}

/** Energy spent, by type: what the attacks that were begun cost. */
export function energySpent(stream: Stream): number[] {
  const { compiled, run } = stream;
  const { log } = run;
  const spent = typesOf(compiled).map(() => 0);
  for (let i = 0; i < log.length; i++) {
    if (log.kind[i] !== EVENT.start) continue;
    spent[typeOf(stream, log.actor[i])] += compiled.kinds[run.kinds[log.actor[i]]].attacks[log.what[i]].energy;
  }
  return spent;
}
