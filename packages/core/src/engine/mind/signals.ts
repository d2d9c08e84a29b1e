/** What a fight keeps in mind for conditions to ask: flags that are raised, counters. */
import { MOST_COUNTED } from '../../model/counter';
import { EVENT } from '../../record/log';
import type { Fight } from '../fight';
import { NOBODY } from '../numbers';
import type { CompiledCount } from '../unit-tables';

/** @param unit who does it; NOBODY: the encounter */
export function setFlag(fight: Fight, unit: number, flag: number, raised: boolean): void {
  if (fight.flags[flag] === raised) return;
  fight.flags[flag] = raised;
  fight.log.add(fight.now, EVENT.flag, unit, NOBODY, flag, raised ? 1 : 0);
}

/** Grows or is set, between nothing and the most that is counted. @param unit who does it; NOBODY: the encounter */
export function count(fight: Fight, unit: number, { counter, sets, by }: CompiledCount): void {
  const next = Math.max(0, Math.min(MOST_COUNTED, sets ? by : fight.counters[counter] + by));
  if (fight.counters[counter] === next) return;
  fight.counters[counter] = next;
  fight.log.add(fight.now, EVENT.counter, unit, NOBODY, counter, next);
}
