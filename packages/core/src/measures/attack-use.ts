import { EVENT, MISS } from '../record/log';
import { SECOND } from '../record/time';
import { type Stream, isDamage, isParty, lostIn, typeOf, typesOf } from './stream';

/** What became of one attack of one type in a run. */
export interface AttackUse {
  starts: number;
  interrupted: number;
  hits: number;
  /** Ticks of damage over time. */
  ticks: number;
  misses: number;
  /** Misses that a dodge or a full block made. */
  dodged: number;
  /** Hits stopped by an invulnerability window or state. */
  blocked: number;
  /** Health and shield taken. */
  damage: number;
  overkill: number;
  /** s spent in its phases, or turns */
  time: number;
}

export const noUse = (): AttackUse => ({
  starts: 0,
  interrupted: 0,
  hits: 0,
  ticks: 0,
  misses: 0,
  dodged: 0,
  blocked: 0,
  damage: 0,
  overkill: 0,
  time: 0,
});

/**
 * By type, then by attack. Damage to one's own side is damage all the same. Completed uses are starts less interrupted; damage
 * per use and shares follow from these.
 */
export function attackUse(stream: Stream): AttackUse[][] {
  const { compiled, run } = stream;
  const { log } = run;
  const table = typesOf(compiled).map(({ attacks }) => attacks.map(noUse));
  for (let i = 0; i < log.length; i++) {
    const kind = log.kind[i];
    if (!isDamage(kind) && (kind < EVENT.start || kind > EVENT.interrupted || kind === EVENT.death || kind === EVENT.shot)) continue;
    const use = table[typeOf(stream, log.actor[i])][log.what[i]];
    if (kind === EVENT.start) {
      const { attacks, turns } = compiled.kinds[run.kinds[log.actor[i]]];
      const { windup, active, recovery } = attacks[log.what[i]];
      use.starts++;
      // In turns the act itself takes its part of one.
      use.time += (windup + active + recovery) / SECOND + (turns ? 1 / turns.actions : 0);
    } else if (kind === EVENT.interrupted) use.interrupted++;
    else if (kind === EVENT.miss) {
      use.misses++;
      if (log.a[i] === MISS.dodged || log.a[i] === MISS.warded) use.dodged++;
    } else if (kind === EVENT.blocked) use.blocked++;
    else {
      if (kind === EVENT.hit) use.hits++;
      else if (kind === EVENT.tick) use.ticks++;
      use.damage += lostIn(stream, i);
      use.overkill += log.b[i];
    }
  }
  return table;
}

/** Damage that each type did to the party, by type: health and shield taken. */
export function partyDamageByType(stream: Stream): number[] {
  const { log } = stream.run;
  const sums = typesOf(stream.compiled).map(() => 0);
  for (let i = 0; i < log.length; i++) {
    if (!isDamage(log.kind[i])) continue;
    if (!isParty(stream, log.actor[i]) && isParty(stream, log.other[i])) sums[typeOf(stream, log.actor[i])] += lostIn(stream, i);
  }
  return sums;
}
