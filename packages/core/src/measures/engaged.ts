import { DOING, EVENT } from '../engine/log';
import { type Stream, isParty } from './stream';

export interface Engaged {
  mean: number;
  peak: number;
}

/**
 * Engaged: how many enemies are in wind-up, active or recovery against the party; the mean over the fight and the peak.
 * An attack runs from its start to whatever the unit does next, its interruption or its death.
 */
export function engaged(stream: Stream): Engaged {
  const { log, length, units } = stream.run;
  const busy = new Uint8Array(units);
  let now = 0;
  let since = 0;
  let sum = 0;
  let peak = 0;
  for (let i = 0; i < log.length; i++) {
    const kind = log.kind[i];
    const unit = log.actor[i];
    const starts = kind === EVENT.start && isParty(stream, log.other[i]) && !isParty(stream, unit);
    const ends =
      !starts &&
      unit >= 0 &&
      busy[unit] === 1 &&
      (kind === EVENT.doing || kind === EVENT.interrupted || kind === EVENT.death || kind === EVENT.gone || kind === EVENT.start);
    if (!starts && !ends) continue;
    if (starts && busy[unit] === 1) continue;
    if (kind === EVENT.doing && log.what[i] === DOING.attacking) continue;
    sum += now * (log.time[i] - since);
    since = log.time[i];
    now += starts ? 1 : -1;
    busy[unit] = starts ? 1 : 0;
    peak = Math.max(peak, now);
  }
  sum += now * (length - since);
  return { mean: length > 0 ? sum / length : 0, peak };
}
