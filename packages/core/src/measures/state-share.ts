import { EVENT } from '../record/log';
import { SECOND } from '../record/time';
import { takesTurns } from './clock';
import { type Stream, typeOf, typesOf } from './stream';

export interface StateShare {
  /** s of life in each state, or turns */
  time: number[];
  entries: number[];
  /** How often each transition was taken: from × states + to. */
  moves: number[];
}

/** By type. The first state is entered at birth; a revived unit begins in it again. */
export function stateShare(stream: Stream): StateShare[] {
  const { compiled, run } = stream;
  const { log } = run;
  const table = typesOf(compiled).map(({ states: { length } }) => ({
    time: new Array<number>(length).fill(0),
    entries: new Array<number>(length).fill(0),
    moves: new Array<number>(length * length).fill(0),
  }));
  const turns = takesTurns(stream);
  const state = new Int32Array(run.units).fill(-1);
  const since = new Float64Array(run.units);
  const leave = (unit: number, now: number) => {
    if (state[unit] >= 0 && !turns) table[typeOf(stream, unit)].time[state[unit]] += (now - since[unit]) / SECOND;
    since[unit] = now;
  };
  const enter = (unit: number, to: number, now: number) => {
    leave(unit, now);
    state[unit] = to;
    table[typeOf(stream, unit)].entries[to]++;
  };
  for (let i = 0; i < log.length; i++) {
    const unit = log.actor[i];
    switch (log.kind[i]) {
      case EVENT.spawn:
        enter(unit, compiled.kinds[run.kinds[unit]].startsIn, log.time[i]);
        break;
      case EVENT.revive:
        enter(log.other[i], compiled.kinds[run.kinds[log.other[i]]].startsIn, log.time[i]);
        break;
      case EVENT.state: {
        const own = table[typeOf(stream, unit)];
        if (state[unit] >= 0) own.moves[state[unit] * own.time.length + log.what[i]]++;
        enter(unit, log.what[i], log.time[i]);
        break;
      }
      case EVENT.turn:
        if (state[unit] >= 0) table[typeOf(stream, unit)].time[state[unit]]++;
        break;
      case EVENT.death:
      case EVENT.down:
      case EVENT.gone:
        leave(unit, log.time[i]);
        state[unit] = -1;
    }
  }
  for (let unit = 0; unit < run.units; unit++) leave(unit, run.length);
  return table;
}

/**
 * Whether some unit changed its state more often than once a second over any stretch of so many changes: it flickers.
 * @returns by type, the most changes of one unit within any 5 s
 */
export function mostChanges(stream: Stream): number[] {
  const { compiled, run } = stream;
  const { log } = run;
  const most = typesOf(compiled).map(() => 0);
  const recent: number[][] = Array.from({ length: run.units }, () => []);
  for (let i = 0; i < log.length; i++) {
    if (log.kind[i] !== EVENT.state) continue;
    const times = recent[log.actor[i]];
    times.push(log.time[i]);
    while (times[0] <= log.time[i] - 5 * SECOND) times.shift();
    const type = typeOf(stream, log.actor[i]);
    most[type] = Math.max(most[type], times.length);
  }
  return most;
}
