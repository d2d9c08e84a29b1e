import { EVENT } from '../record/log';
import { spanOf } from './clock';
import { type Stream, isParty } from './stream';

/**
 * Time-to-first-strike: noticed its foes → its first hit or missed hit on a party member, s, by unit number; NaN for a
 * unit that never noticed, +∞ for one that never struck. A hit that an invulnerability window stopped is a strike.
 */
export function firstStrikes(stream: Stream): Float64Array {
  const { log, units } = stream.run;
  const noticed = new Float64Array(units).fill(-1);
  const struck = new Float64Array(units).fill(Infinity);
  for (let i = 0; i < log.length; i++) {
    const kind = log.kind[i];
    const unit = log.actor[i];
    if (kind === EVENT.notice && noticed[unit] < 0) noticed[unit] = log.time[i];
    else if (
      (kind === EVENT.hit || kind === EVENT.miss || kind === EVENT.blocked) &&
      struck[unit] === Infinity &&
      isParty(stream, log.other[i])
    ) {
      struck[unit] = log.time[i];
    }
  }
  for (let unit = 0; unit < units; unit++) struck[unit] = noticed[unit] < 0 ? NaN : spanOf(stream, noticed[unit], struck[unit]);
  return struck;
}
