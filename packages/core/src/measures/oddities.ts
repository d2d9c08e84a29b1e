import { EVENT } from '../record/log';
import { type Stream, typeOf, typesOf } from './stream';

/** What a designer should be told of, by type: gates passed without their state, spawns without a place, spawns beyond a cap; how many others called or raised. */
export function oddities({ compiled, run }: Stream): { gatesSkipped: number; noPlace: number; capped: number; helped: number }[] {
  const { log } = run;
  const table = typesOf(compiled).map(() => ({ gatesSkipped: 0, noPlace: 0, capped: 0, helped: 0 }));
  for (let i = 0; i < log.length; i++) {
    if (log.kind[i] === EVENT.gate && log.a[i] === 1) table[typeOf({ compiled, run }, log.actor[i])].gatesSkipped++;
    else if (log.kind[i] === EVENT.spawn && log.d[i] >= 0) table[typeOf({ compiled, run }, log.actor[i])].helped++;
    else if (log.kind[i] === EVENT.revive) table[typeOf({ compiled, run }, log.other[i])].helped++;
    else if (log.kind[i] === EVENT.noPlace) table[compiled.kinds[log.what[i]].type].noPlace++;
    else if (log.kind[i] === EVENT.capped && log.a[i] > 0) table[compiled.kinds[log.what[i]].type].capped++;
  }
  return table;
}
