import { DOING } from '../record/doing';
import { EVENT } from '../record/log';
import { SECOND } from '../record/time';
import { type Stream, isParty } from './stream';

export interface Engaged {
  mean: number;
  peak: number;
}

/** One enemy more or one less that attacks the party, µs. */
interface Change {
  time: number;
  by: 1 | -1;
}

/** In order. An attack runs from its start to whatever the unit does next, its interruption or its death. */
function changesOf(stream: Stream): Change[] {
  const { log, units } = stream.run;
  const busy = new Uint8Array(units);
  const changes: Change[] = [];
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
    changes.push({ time: log.time[i], by: starts ? 1 : -1 });
    busy[unit] = starts ? 1 : 0;
  }
  return changes;
}

/** Engaged: how many enemies are in wind-up, active or recovery against the party; the mean over the fight and the peak. */
export function engaged(stream: Stream): Engaged {
  const { length } = stream.run;
  let now = 0;
  let since = 0;
  let sum = 0;
  let peak = 0;
  for (const { time, by } of changesOf(stream)) {
    sum += now * (time - since);
    since = time;
    now += by;
    peak = Math.max(peak, now);
  }
  sum += now * (length - since);
  return { mean: length > 0 ? sum / length : 0, peak };
}

/** How many are engaged at given times, s in ascending order. */
export function engagedAt(stream: Stream, times: ArrayLike<number>): Float64Array {
  const changes = changesOf(stream);
  let now = 0;
  let next = 0;
  return Float64Array.from(times, (time) => {
    for (; next < changes.length && changes[next].time <= time * SECOND; next++) now += changes[next].by;
    return now;
  });
}
