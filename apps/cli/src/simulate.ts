import { Batch, type BatchSummary, type CompileOptions, type Project, type Summary, compile, duelOptions } from '@insidia/core';
import { stringify } from 'csv-stringify/sync';
import { EXIT, Exit } from './input';

export interface SimulateOptions {
  encounter?: string;
  duel?: string;
  against?: string;
  copies: number;
  distance: number;
  tier?: string;
  skill?: string;
  runs: number;
  seed: number;
  step?: number;
  format: 'json' | 'csv' | 'table';
}

const PORTION = 100;

/** Runs a batch of an encounter, or of a duel, and renders what it measured. Progress goes to `report`. */
export function simulate(project: Project, options: SimulateOptions, report: (text: string) => void): string {
  const batch = asUsage(() => new Batch(compile(project, whatToRun(project, options)), options.seed, options.runs));
  while (!batch.done) {
    batch.advance(PORTION);
    report(`${batch.rows.length} of ${options.runs} runs`);
  }
  const summary = batch.summary();
  if (options.format === 'json') return JSON.stringify({ ...nameOf(options), ...summary }, infinityAsText, 2) + '\n';
  const rows = measureRows(summary);
  return options.format === 'csv' ? stringify(rows, { header: true }) : table(rows, summary);
}

function whatToRun(project: Project, { encounter, duel, against, copies, distance, tier, skill, step }: SimulateOptions): CompileOptions {
  const lens = { tier, skill };
  if (encounter && duel) throw new Exit(EXIT.usage, 'give either --encounter or --duel, not both');
  if (duel) {
    const member = against ?? project.units.find(({ side }) => side === 'party')?.id;
    if (!member) throw new Exit(EXIT.usage, `${project.name} has no party member to duel against`);
    return { ...duelOptions(project, lens, { enemy: duel, against: member, copies, distance }), stepSeconds: step };
  }
  if (!encounter) throw new Exit(EXIT.usage, 'say what to run: --encounter ID or --duel ENEMY');
  return { encounter, ...lens, stepSeconds: step };
}

function asUsage<T>(act: () => T): T {
  try {
    return act();
  } catch (error) {
    if (error instanceof Exit) throw error;
    throw new Exit(EXIT.usage, (error as Error).message);
  }
}

function nameOf({ encounter, duel, against, copies, distance, tier, skill }: SimulateOptions) {
  return duel ? { duel, against, copies, distance, tier, skill } : { encounter, tier, skill };
}

/** JSON has no infinity: a survivor's time is written as text. */
function infinityAsText(_key: string, value: unknown): unknown {
  return value === Infinity ? 'Infinity' : value === -Infinity ? '-Infinity' : value;
}

interface MeasureRow {
  measure: string;
  of: string;
  unit: string;
  n: number;
  median: number;
  low: number;
  high: number;
  p10: number;
  p90: number;
  mean: number | '';
}

function measureRows(summary: BatchSummary): MeasureRow[] {
  const rows: MeasureRow[] = [];
  const add = (measure: string, of: string, unit: string, value: Summary | undefined, factor = 1) => {
    if (!value) return;
    const { n, median, interval, p10, p90, mean } = value;
    const [m, low, high, a, b] = [median, interval.low, interval.high, p10, p90].map((x) => x * factor);
    rows.push({ measure, of, unit, n, median: m, low, high, p10: a, p90: b, mean: mean === undefined ? '' : mean * factor });
  };
  add('length', 'encounter', 's', summary.length);
  add('peak pressure', 'encounter', 'hp/s', summary.peakPressure);
  add('peak pressure', 'encounter', '%/s', summary.peakPressureShare, 100);
  add('pressure dose', 'encounter', '', summary.dose);
  summary.timeToDown.forEach((value, i) => add('time-to-down', `party member ${i + 1}`, 's', value));
  for (const { name, spawned, timeToKill, lifetime, timeToFirstStrike } of summary.kinds) {
    if (!spawned) continue;
    add('time-to-kill', name, 's', timeToKill);
    add('lifetime', name, 's', lifetime);
    add('time-to-first-strike', name, 's', timeToFirstStrike);
  }
  return rows;
}

function table(rows: MeasureRow[], summary: BatchSummary): string {
  const shown = (value: number | '') => (value === '' ? '' : value === Infinity ? '∞' : value === -Infinity ? '−∞' : value.toFixed(2));
  const head = ['measure', 'of', 'unit', 'n', 'median', '95 % low', '95 % high', 'p10', 'p90', 'mean'];
  const lines = rows.map((r) => [
    r.measure,
    r.of,
    r.unit,
    String(r.n),
    shown(r.median),
    shown(r.low),
    shown(r.high),
    shown(r.p10),
    shown(r.p90),
    shown(r.mean),
  ]);
  const widths = head.map((title, i) => Math.max(title.length, ...lines.map((line) => line[i].length)));
  const write = (line: string[]) =>
    line
      .map((cell, i) => (i < 3 ? cell.padEnd(widths[i]) : cell.padStart(widths[i])))
      .join('  ')
      .trimEnd();
  const { cleared, runs, firstSeed, digest, outcomes } = summary;
  const share = (value: number) => `${(100 * value).toFixed(1)} %`;
  return [
    `${runs} runs, seeds ${firstSeed} to ${firstSeed + runs - 1}, digest ${digest}`,
    `cleared ${share(cleared.value)} (${share(cleared.low)} to ${share(cleared.high)}), party down ${outcomes.partyDown}, time out ${outcomes.timeOut}`,
    '',
    write(head),
    ...lines.map(write),
    '',
  ].join('\n');
}
