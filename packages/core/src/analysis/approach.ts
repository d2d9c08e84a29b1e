/** The path of one run as the approach chart draws it: distance to the target over time, and what happened when. */
import type { Compiled } from '../engine/tables';
import { EVENT } from '../record/log';
import { run } from '../engine/run';
import { type Clock, clockOf } from '../record/clock';
import { SECOND } from '../record/time';
import { NOBODY } from '../engine/numbers';

export type ApproachMark = 'notices' | 'hit' | 'miss' | 'blocked' | 'struck' | 'dies' | 'targetDown';

export interface ApproachLine {
  unit: number;
  /** The id of its kind. */
  kind: string;
  /** s and m between edges, step by step; in turns rounds gone by and cells, turn by turn */
  times: number[];
  gaps: number[];
  /** s */
  windups: { from: number; to: number; attack: number }[];
  actives: { from: number; to: number; attack: number }[];
  marks: { time: number; mark: ApproachMark; amount: number }[];
}

export interface Approach {
  seed: number;
  clock: Clock;
  /** In turns without ground: nobody is nearer than anybody. */
  groundless: boolean;
  /** s, or rounds */
  length: number;
  lines: ApproachLine[];
}

/** Runs a seed once more, watched. */
export function approach(compiled: Compiled, seed: number, most = 12): Approach {
  const lines: ApproachLine[] = [];
  const lineOf = (unit: number) => lines.find((line) => line.unit === unit);
  const { log, length, kinds } = run(compiled, seed, (fight, time) => {
    for (const unit of fight.living[1]) {
      let line = lineOf(unit);
      if (!line && lines.length < most)
        lines.push(
          (line = {
            unit,
            kind: compiled.names.types[fight.kinds[unit].type],
            times: [],
            gaps: [],
            windups: [],
            actives: [],
            marks: [],
          }),
        );
      if (!line) continue;
      const foe = fight.target[unit] !== NOBODY ? fight.target[unit] : fight.living[0][0];
      if (foe === undefined) continue;
      line.times.push(time / SECOND);
      line.gaps.push(fight.gap(unit, foe));
    }
  });
  for (let i = 0; i < log.length; i++) {
    const time = log.time[i] / SECOND;
    const line = lineOf(log.actor[i]);
    const kind = log.kind[i];
    if (kind === EVENT.hit && lineOf(log.other[i])) lineOf(log.other[i])?.marks.push({ time, mark: 'struck', amount: log.a[i] });
    if (kind === EVENT.death && !line) for (const each of lines) each.marks.push({ time, mark: 'targetDown', amount: 0 });
    if (!line) continue;
    if (kind === EVENT.notice) line.marks.push({ time, mark: 'notices', amount: 0 });
    else if (kind === EVENT.hit) line.marks.push({ time, mark: 'hit', amount: log.a[i] });
    else if (kind === EVENT.miss) line.marks.push({ time, mark: 'miss', amount: 0 });
    else if (kind === EVENT.blocked) line.marks.push({ time, mark: 'blocked', amount: 0 });
    else if (kind === EVENT.death) line.marks.push({ time, mark: 'dies', amount: 0 });
    else if (kind === EVENT.start) {
      const attack = compiled.kinds[kinds[line.unit]].attacks[log.what[i]];
      const active = time + attack.windup / SECOND;
      line.windups.push({ from: time, to: active, attack: log.what[i] });
      line.actives.push({ from: active, to: active + attack.active / SECOND, attack: log.what[i] });
    } else if (kind === EVENT.interrupted) {
      const last = line.windups[line.windups.length - 1];
      last.to = time;
      line.actives.pop();
    }
  }
  const groundless = compiled.rounds !== null && compiled.rounds.board === null;
  return { seed, clock: clockOf(compiled), groundless, length: length / SECOND, lines };
}
