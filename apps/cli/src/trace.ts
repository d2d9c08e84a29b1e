import { type Project, reasonSentences, sentenceOf, trace } from '@insidia/core/running';
import { type SubjectOptions, asUsage, whatToRun } from './simulate';

export interface TraceOptions extends SubjectOptions {
  seed: number;
  positions: boolean;
  reasons: boolean;
  /** Both words for a JSON object a line. */
  format: 'json' | 'jsonl' | 'text';
}

/**
 * One run, event by event: a JSON object a line (a head, then events, positions and reasons in order of time), or sentences.
 * The digest in the head is that of the same seed in a batch.
 */
export function traceRun(project: Project, options: TraceOptions): string {
  const compiled = whatToRun(project, options);
  if (!Number.isInteger(options.seed) || options.seed < 0 || options.seed >= 2 ** 31) asUsage(() => fail(options.seed));
  const run = trace(compiled, options.seed, { positionsEvery: options.positions ? 1 : 0, reasons: options.reasons });
  if (options.format === 'text') return text(run, options.reasons);
  const { seed, digest, outcome, length, names, units } = run;
  const lines: { time: number; line: object }[] = [
    ...run.events.map((event) => ({ time: event.time, line: { type: 'event', ...event } })),
    ...run.steps.map(({ time, units: living, places }) => ({
      time,
      line: { type: 'positions', time, units: living, places: Array.from(places) },
    })),
    ...run.reasons.map((reasons) => ({ time: reasons.time, line: { type: 'reasons', ...reasons } })),
  ].sort((a, b) => a.time - b.time);
  const head = {
    type: 'run',
    seed,
    digest,
    outcome,
    length,
    units: units.map((unit, number) => ({ number, name: names[number], ...unit })),
  };
  return [head, ...lines.map(({ line }) => line)].map((line) => JSON.stringify(line)).join('\n') + '\n';
}

function fail(seed: number): never {
  throw new Error(`seed must be a whole number from 0 to ${2 ** 31 - 1}: it is ${seed}`);
}

function text(run: ReturnType<typeof trace>, withReasons: boolean): string {
  const lines = run.events.map((event) => ({ time: event.time, text: sentenceOf(event) }));
  if (withReasons) {
    for (const reasons of run.reasons)
      lines.push({
        time: reasons.time,
        text: reasonSentences(reasons)
          .map((line) => `    ${line}`)
          .join('\n'),
      });
  }
  lines.sort((a, b) => a.time - b.time);
  return [`Seed ${run.seed}, digest ${run.digest}`, ...lines.map((line) => line.text), ''].join('\n');
}
