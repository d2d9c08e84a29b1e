import { EVENT } from '../record/log';
import { SECOND } from '../record/time';
import { LULL_LEVEL, type Loss, lulls, pressureOf } from './pressure';
import { type Stream, partyHealth } from './stream';

/** One wave of a run; NaN for what it does not have. */
export interface WaveSpan {
  /** s: start, first unit, last death */
  started: number;
  first: number;
  last: number;
  /** s: first spawn → last death; +∞ while one of it lives */
  span: number;
  /** s for which the next wave ran before this one was over; 0: not at all */
  overlap: number;
  /** s of lull between its first unit and the next wave's */
  rest: number;
  spawned: number;
  defeated: number;
  /** Pressure done by its units: peak as a share of full health per second, and dose. */
  peakShare: number;
  dose: number;
  score: number;
}

/** By wave. Units it summoned belong to it only where the wave counts them. */
export function waveSpans(stream: Stream, losses: readonly Loss[], scores: readonly number[]): WaveSpan[] {
  const { compiled, run } = stream;
  const { log } = run;
  const full = partyHealth(stream);
  const spans = compiled.waves.map((_, wave): WaveSpan => {
    const { peakShare, dose } = pressureOf(
      losses.filter((loss) => loss.wave === wave),
      full,
    );
    return {
      started: NaN,
      first: NaN,
      last: NaN,
      span: NaN,
      overlap: 0,
      rest: NaN,
      spawned: 0,
      defeated: 0,
      peakShare,
      dose,
      score: scores[wave],
    };
  });
  for (let i = 0; i < log.length; i++) {
    const kind = log.kind[i];
    const time = log.time[i] / SECOND;
    if (kind === EVENT.wave && !(spans[log.what[i]].started >= 0)) spans[log.what[i]].started = time;
    const wave = kind === EVENT.revive ? run.waves[log.other[i]] : log.actor[i] >= 0 ? run.waves[log.actor[i]] : -1;
    if (wave < 0) continue;
    if (kind === EVENT.spawn) {
      spans[wave].spawned++;
      if (!(spans[wave].first >= 0)) spans[wave].first = time;
    } else if (kind === EVENT.death || kind === EVENT.gone) {
      spans[wave].defeated++;
      spans[wave].last = time;
    } else if (kind === EVENT.revive) spans[wave].defeated--;
  }
  spans.forEach((wave) => (wave.span = wave.spawned === 0 ? NaN : wave.defeated < wave.spawned ? Infinity : wave.last - wave.first));
  const quiet = lulls(losses, run.length / SECOND, LULL_LEVEL * full).lulls;
  spans.forEach((wave, i) => {
    const next = spans.slice(i + 1).find(({ first }) => first >= 0);
    if (!next || !(wave.first >= 0)) return;
    wave.overlap = wave.span < Infinity ? Math.max(0, wave.last - next.first) : run.length / SECOND - next.first;
    wave.rest = quiet.reduce((sum, { from, to }) => sum + Math.max(0, Math.min(to, next.first) - Math.max(from, wave.first)), 0);
  });
  return spans;
}

/** Kills per 10 s at given times, s: deaths of enemies in (t − 10, t]. */
export function tempoAt(stream: Stream, times: ArrayLike<number>): Float64Array {
  const { log, sides } = stream.run;
  const kills: number[] = [];
  for (let i = 0; i < log.length; i++) if (log.kind[i] === EVENT.death && sides[log.actor[i]] === 1) kills.push(log.time[i] / SECOND);
  return Float64Array.from(times, (time) => kills.filter((kill) => kill > time - 10 && kill <= time).length);
}
