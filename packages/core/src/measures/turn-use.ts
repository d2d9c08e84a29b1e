/** What the turns of a fight that takes turns went into, as the engine notes each when it is over. */
import { EVENT } from '../record/log';
import { TIME_USES, type TimeUse } from '../record/doing';
import { type Stream, typeOf, typesOf } from './stream';

/** Of one type in a run. All 0 in a fight that goes on by itself. */
export interface TurnUse {
  /** Turns that it had. */
  had: number;
  /** Of these: those in which it knew of a foe. */
  aware: number;
  /** Of these: those in which it neither struck nor prepared to, nor recovered from it. */
  idle: number;
  /** Turns in which it was free to act. */
  free: number;
  /** Of these: those in which somebody could be struck with an attack that was ready. */
  reached: number;
  /** What the ways cost that it went, in cells of plain ground. */
  moved: number;
  /** Attacks begun. */
  acts: number;
  /** Dodges, guards and counters. */
  reactions: number[];
}

/** What a unit may do about a hit, in the order in which the record counts them. */
export const REACTIONS = ['dodge', 'guard', 'counter'] as const;

const noTurns = (): TurnUse => ({ had: 0, aware: 0, idle: 0, free: 0, reached: 0, moved: 0, acts: 0, reactions: REACTIONS.map(() => 0) });

const BUSY: readonly TimeUse[] = ['windup', 'active', 'recovery'];

/** By type. */
export function turnUse(stream: Stream): TurnUse[] {
  const { compiled, run } = stream;
  const { log } = run;
  const table = typesOf(compiled).map(noTurns);
  if (compiled.rounds === null) return table;
  for (let i = 0; i < log.length; i++) {
    const kind = log.kind[i];
    if (kind !== EVENT.turn && kind !== EVENT.start && kind !== EVENT.reaction) continue;
    const own = table[typeOf(stream, log.actor[i])];
    if (kind === EVENT.start) own.acts++;
    else if (kind === EVENT.reaction) own.reactions[log.a[i]]++;
    else {
      own.had++;
      own.moved += log.a[i];
      if (log.what[i] >= 0) own.aware++;
      if (log.what[i] >= 0 && !BUSY.includes(TIME_USES[log.what[i]])) own.idle++;
      if (log.b[i] >= 0) own.free++;
      if (log.b[i] > 0) own.reached++;
    }
  }
  return table;
}
