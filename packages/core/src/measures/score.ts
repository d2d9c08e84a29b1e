/** Score: what foes that were killed are worth, and what the encounter's events give. */
import { EVENT } from '../record/log';
import { type Stream, isMember, isParty, membersOf } from './stream';

export interface Score {
  /** Of the run: foes killed, whoever killed them, and what events gave. */
  all: number;
  /** By party member: foes that it killed. */
  members: number[];
  /** By wave: those of its units that were killed. */
  waves: number[];
}

/** A foe that is brought back and killed again counts again. */
export function scored(stream: Stream): Score {
  const { compiled, run } = stream;
  const { log } = run;
  const score: Score = {
    all: 0,
    members: Array.from(membersOf(stream), (unit) => (unit < 0 ? NaN : 0)),
    waves: compiled.waves.map(() => 0),
  };
  for (let i = 0; i < log.length; i++) {
    if (log.kind[i] === EVENT.score) score.all += log.a[i];
    if (log.kind[i] !== EVENT.death || isParty(stream, log.actor[i])) continue;
    const { worth } = compiled.kinds[run.kinds[log.actor[i]]];
    score.all += worth;
    if (isMember(stream, log.other[i])) score.members[run.seats[log.other[i]]] += worth;
    const wave = run.waves[log.actor[i]];
    if (wave >= 0) score.waves[wave] += worth;
  }
  return score;
}
