import { EVENT, VERDICT, VERDICT_NAMES } from '../record/log';
import { SECOND } from '../record/time';
import { type Stream, isDamage, isMember, typeOf, typesOf } from './stream';

/** Of one attack, or of all of an encounter, in a run. */
export interface Fairness {
  /** Attacks announced to a party member. */
  announced: number;
  /** Of these: begun out of its view (or when it had too many in mind). */
  unseen: number;
  /** Of these: every answer that works was on cooldown from another threat. */
  clashes: number;
  /** Hits on a party member that announced themselves. */
  hits: number;
  damage: number;
  /** Damage for which no answer was available: none works against the attack, or none that does was possible in the time. */
  unanswerable: number;
  /** Hits by why they were not answered, in the order of VERDICT. */
  reasons: number[];
  /** s, of each hit that had an answer: from cue to hit, less the mean reaction, less the quickest answer that works. */
  margins: number[];
}

export const noFairness = (): Fairness => ({
  announced: 0,
  unseen: 0,
  clashes: 0,
  hits: 0,
  damage: 0,
  unanswerable: 0,
  reasons: VERDICT_NAMES.map(() => 0),
  margins: [],
});

/** By type, then by attack. */
export function fairness(stream: Stream): Fairness[][] {
  const { log } = stream.run;
  const table = typesOf(stream.compiled).map(({ attacks }) => attacks.map(noFairness));
  for (let i = 0; i < log.length; i++) {
    if (log.kind[i] === EVENT.answer && isMember(stream, log.actor[i])) {
      const own = table[typeOf(stream, log.other[i])][log.what[i]];
      own.announced++;
      if (log.b[i] === VERDICT.notSeen) own.unseen++;
      if (log.b[i] === VERDICT.cooldown) own.clashes++;
    } else if (log.kind[i] === EVENT.exposed && isMember(stream, log.other[i])) {
      const own = table[typeOf(stream, log.actor[i])][log.what[i]];
      const damage = log.d[i];
      own.hits++;
      own.damage += damage;
      own.reasons[log.b[i]]++;
      if (Number.isFinite(log.c[i])) own.margins.push(log.c[i]);
      if (log.c[i] < 0) own.unanswerable += damage;
    }
  }
  return table;
}

/** Several taken together. */
export function joined(all: readonly Fairness[]): Fairness {
  const sum = noFairness();
  for (const one of all) {
    sum.announced += one.announced;
    sum.unseen += one.unseen;
    sum.clashes += one.clashes;
    sum.hits += one.hits;
    sum.damage += one.damage;
    sum.unanswerable += one.unanswerable;
    for (let i = 0; i < one.reasons.length; i++) sum.reasons[i] += one.reasons[i];
    for (let i = 0; i < one.margins.length; i++) sum.margins.push(one.margins[i]);
  }
  return sum;
}

/** s: longest stretch in which one party member was staggered or slowed without a break, or was being knocked about. */
export function longestLossOfControl(stream: Stream): number {
  const { log, length } = stream.run;
  const until = new Float64Array(stream.run.units).fill(-1);
  const since = new Float64Array(stream.run.units);
  let longest = 0;
  for (let i = 0; i < log.length; i++) {
    const kind = log.kind[i];
    const member = log.other[i];
    if ((kind !== EVENT.stagger && kind !== EVENT.slow && kind !== EVENT.knock) || !isMember(stream, member)) continue;
    const lasts = kind === EVENT.stagger ? log.a[i] : kind === EVENT.slow ? log.b[i] : 0;
    if (log.time[i] > until[member]) since[member] = log.time[i];
    until[member] = Math.max(until[member], log.time[i] + lasts);
    longest = Math.max(longest, Math.min(until[member], length) - since[member]);
  }
  return longest / SECOND;
}

/**
 * Downs from above 80 % of health within 1 s: the member's share, followed through its losses and healings, was above it at
 * some instant of the last second. Regeneration between is not counted, so the share is never overstated.
 */
export function suddenDowns(stream: Stream): number {
  const { compiled, run } = stream;
  const { log } = run;
  const track = Array.from({ length: run.units }, (_, unit) => ({ health: compiled.kinds[run.kinds[unit]].maxHealth, highAt: -Infinity }));
  let count = 0;
  for (let i = 0; i < log.length; i++) {
    const kind = log.kind[i];
    const member = kind === EVENT.death || kind === EVENT.down ? log.actor[i] : log.other[i];
    if (!isMember(stream, member)) continue;
    const own = track[member];
    const most = compiled.kinds[run.kinds[member]].maxHealth;
    const isHigh = own.health > 0.8 * most;
    if (isDamage(kind)) {
      if (isHigh) own.highAt = log.time[i];
      own.health -= log.a[i];
    } else if (kind === EVENT.heal) own.health = Math.min(most, own.health + log.a[i]);
    else if (kind === EVENT.revive) own.health = log.a[i];
    else if (kind === EVENT.death || kind === EVENT.down) {
      if (log.time[i] - own.highAt <= SECOND) count++;
      own.health = 0;
      own.highAt = -Infinity;
    }
  }
  return count;
}
