import { EVENT } from '../record/log';
import { lengthOf, pressureClock, spanOf, takesTurns, told } from './clock';
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
  const clock = pressureClock(stream);
  const at = (time: number) => told(stream, time);
  /** µs: of each its first unit, and its last that fell. */
  const firsts = compiled.waves.map(() => NaN);
  const lasts = compiled.waves.map(() => NaN);
  const spans = compiled.waves.map((_, wave): WaveSpan => {
    const { peakShare, dose } = pressureOf(
      losses.filter((loss) => loss.wave === wave),
      full,
      clock.window,
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
    const time = log.time[i];
    if (kind === EVENT.wave && !(spans[log.what[i]].started >= 0)) spans[log.what[i]].started = at(time);
    const wave = kind === EVENT.revive ? run.waves[log.other[i]] : log.actor[i] >= 0 ? run.waves[log.actor[i]] : -1;
    if (wave < 0) continue;
    if (kind === EVENT.spawn) {
      spans[wave].spawned++;
      if (!(firsts[wave] >= 0)) firsts[wave] = time;
    } else if (kind === EVENT.death || kind === EVENT.gone) {
      spans[wave].defeated++;
      lasts[wave] = time;
    } else if (kind === EVENT.revive) spans[wave].defeated--;
  }
  spans.forEach((wave, i) => {
    wave.first = at(firsts[i]);
    wave.last = at(lasts[i]);
    wave.span = wave.spawned === 0 ? NaN : spanOf(stream, firsts[i], wave.defeated < wave.spawned ? Infinity : lasts[i]);
  });
  const quiet = lulls(losses, lengthOf(stream), LULL_LEVEL * full, clock).lulls;
  spans.forEach((wave, i) => {
    const follows = spans.findIndex(({ first }, j) => j > i && first >= 0);
    if (follows < 0 || !(wave.first >= 0)) return;
    const until = wave.span < Infinity ? lasts[i] : run.length;
    wave.overlap = until > firsts[follows] ? spanOf(stream, firsts[follows], until) : 0;
    // In rounds lulls are told by the ends of rounds, and a unit comes within one.
    const [from, to] = [wave.first, spans[follows].first].map((first) => (clock.rounds ? first - 1 : first));
    wave.rest = quiet.reduce((sum, lull) => sum + Math.max(0, Math.min(lull.to, to) - Math.max(lull.from, from)), 0);
  });
  return spans;
}

/** Kills per 10 s, or 3 rounds, at given times: deaths of enemies in (t − 10, t], or in so many rounds up to t. */
export function tempoAt(stream: Stream, times: ArrayLike<number>): Float64Array {
  const { log, sides } = stream.run;
  const kills: number[] = [];
  const within = takesTurns(stream) ? 3 : 10;
  const at = (time: number) => told(stream, time);
  for (let i = 0; i < log.length; i++) if (log.kind[i] === EVENT.death && sides[log.actor[i]] === 1) kills.push(at(log.time[i]));
  return Float64Array.from(times, (time) => kills.filter((kill) => kill > time - within && kill <= time).length);
}
