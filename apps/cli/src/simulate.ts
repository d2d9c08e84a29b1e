import {
  Batch,
  OUTCOME_NAMES,
  type Scenario,
  companyOf,
  compileScenario,
  type DuelSetup,
  duelScenario,
  outcomeWords,
  type BatchSummary,
  type Clock,
  type Compiled,
  DUEL_DEFAULTS,
  ENCOUNTER_MEASURES,
  type EncounterMeasure,
  MEMBER_MEASURES,
  type Measure,
  type MemberMeasure,
  type Project,
  type Summary,
  TYPE_MEASURES,
  type TypeMeasure,
  WAVE_MEASURES,
  type WaveMeasure,
  csvRow,
  infinityAsText,
  measureIn,
  sampleOf,
  usualDistance,
} from '@insidia/core/running';
import { stringify } from 'csv-stringify/sync';
import { EXIT, Exit } from './exit';
import { textTable } from './text-table';

/** What is run, and through what it is looked at. */
export interface SubjectOptions {
  encounter?: string;
  duel?: string;
  against?: string[];
  arena?: string;
  copies?: number;
  with?: string[];
  distance?: number;
  from?: string;
  wall?: number;
  clock?: string;
  tier?: string;
  skill?: string;
  style?: string;
  players?: number;
  step?: number;
}

export interface SimulateOptions extends SubjectOptions {
  runs: number;
  seed: number;
  format: 'json' | 'csv' | 'rows' | 'table';
}

const PORTION = 100;

/** Runs a batch of an encounter, or of a duel, and renders what it measured. Progress goes to `report`. */
export function simulate(project: Project, options: SimulateOptions, report: (text: string) => void): string {
  const compiled = whatToRun(project, options);
  const batch = asUsage(() => new Batch(compiled, options.seed, options.runs));
  while (!batch.done) {
    batch.advance(PORTION);
    report(`${batch.rows.length} of ${options.runs} runs`);
  }
  if (options.format === 'rows') return stringify(runRows(compiled, batch).map(csvRow), { header: true });
  const summary = batch.summary();
  if (options.format === 'json') return JSON.stringify({ subject: nameOf(options, summary.clock), ...summary }, infinityAsText, 2) + '\n';
  const rows = measureRows(summary);
  return options.format === 'csv'
    ? stringify(
        rows.map((row) => csvRow({ ...row })),
        { header: true },
      )
    : table(rows, summary);
}

/** @throws Exit when it is not said what to run, or it can't be */
export function whatToRun(project: Project, options: SubjectOptions): Compiled {
  return asUsage(() => compileScenario(project, subjectOf(project, options), options.step));
}

/** @throws Exit when it is not said what to run */
export function subjectOf(project: Project, options: SubjectOptions): Scenario {
  const { encounter, duel, against, tier, skill, style, players } = options;
  const lens = { tier, skill, style, players };
  if (encounter && duel) throw new Exit(EXIT.usage, 'give either --encounter or --duel, not both');
  if (!duel) refuseDuelOptions(options);
  if (duel) {
    const first = project.units.find(({ side }) => side === 'party')?.id;
    const members = against ?? (first === undefined ? [] : [first]);
    if (!members.length) throw new Exit(EXIT.usage, `${project.name} has no party member to duel against`);
    return { ...duelScenario(project, lens, { enemy: duel, against: members, ...setupOptions(options) }), ...lens };
  }
  if (!encounter) throw new Exit(EXIT.usage, 'say what to run: --encounter ID or --duel ENEMY');
  return { kind: 'encounter', id: encounter, ...lens };
}

/** How a duel is set up; a spawn point is named by its id alone. */
function setupOptions({ copies, distance, arena, wall, from, clock, with: company }: SubjectOptions): DuelSetup {
  const named = from === undefined || from === 'ahead' || from === 'behind' ? from : (`point:${from}` as const);
  return {
    ...(copies !== undefined && { copies }),
    ...(distance !== undefined && { distance }),
    ...(arena !== undefined && { arena }),
    ...(wall !== undefined && { wall }),
    ...(named && { from: named }),
    ...(clock !== undefined && { clock: clock as Clock }),
    ...(company && { company: companyOf(company.join(',')) }),
  };
}

/** What only a duel has would be passed over without a word. */
function refuseDuelOptions(options: SubjectOptions): void {
  for (const name of ['against', 'arena', 'clock', 'copies', 'distance', 'from', 'wall', 'with'] as const) {
    if (options[name] !== undefined) throw new Exit(EXIT.usage, `--${name} belongs to a duel: give it with --duel, or leave it out`);
  }
}

/** A row a run: its seed, digest and end, then one column a measure; empty where the run has none. */
function runRows(compiled: Compiled, { rows }: Batch): Record<string, string | number>[] {
  const { columns } = sampleOf(compiled, rows);
  const cell = (value: number) => (Number.isNaN(value) ? '' : value === Infinity ? 'Infinity' : value);
  return rows.map(({ seed, digest, outcome }, run) => ({
    seed,
    digest,
    outcome,
    ...Object.fromEntries(Object.entries(columns).map(([name, values]) => [name, cell(values[run])])),
  }));
}

/** What the core refuses of options is a mistake of the command line. */
export function asUsage<T>(act: () => T): T {
  try {
    return act();
  } catch (error) {
    if (error instanceof Exit) throw error;
    throw new Exit(EXIT.usage, (error as Error).message);
  }
}

function nameOf(options: SimulateOptions, clock: Clock) {
  const { encounter, duel, against, tier, skill, style, players } = options;
  const { copies } = DUEL_DEFAULTS;
  const distance = usualDistance(clock);
  const lens = { tier, skill, style, players };
  return duel ? { duel, against, copies, distance, ...setupOptions(options), ...lens } : { encounter, ...lens };
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
  const add = (measure: Measure<never>, of: string, value: Summary | undefined) => {
    const told = measureIn(summary.clock, measure);
    if (!value || !told) return;
    const { n, median, interval, p10, p90, mean } = value;
    // A share per second, or per round, reads better as a percentage.
    const { label, unit } = told;
    const factor = unit.startsWith('/') ? 100 : 1;
    const [m, low, high, a, b] = [median, interval.low, interval.high, p10, p90].map((x) => x * factor);
    const shown = unit.startsWith('/') ? `%${unit}` : unit;
    rows.push({ measure: label, of, unit: shown, n, median: m, low, high, p10: a, p90: b, mean: mean === undefined ? '' : mean * factor });
  };
  for (const id of Object.keys(ENCOUNTER_MEASURES) as EncounterMeasure[]) add(ENCOUNTER_MEASURES[id], 'encounter', summary.encounter[id]);
  summary.members.forEach((member, i) => {
    for (const id of Object.keys(MEMBER_MEASURES) as MemberMeasure[]) add(MEMBER_MEASURES[id], `party member ${i + 1}`, member[id]);
  });
  for (const kind of summary.kinds) {
    if (!kind.spawned) continue;
    for (const id of Object.keys(TYPE_MEASURES) as TypeMeasure[]) add(TYPE_MEASURES[id], kind.name, kind[id]);
  }
  if (summary.waves.length > 1) {
    for (const wave of summary.waves)
      for (const id of Object.keys(WAVE_MEASURES) as WaveMeasure[]) add(WAVE_MEASURES[id], wave.name, wave[id]);
  }
  return rows;
}

/** "cleared 180, party down 20": the ends that came about. */
function ends(outcomes: BatchSummary['outcomes']): string {
  return OUTCOME_NAMES.filter((end) => outcomes[end] > 0)
    .map((end) => `${outcomeWords(end).short} ${outcomes[end]}`)
    .join(', ');
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
  const { cleared, runs, firstSeed, digest, outcomes } = summary;
  const share = (value: number) => `${(100 * value).toFixed(1)} %`;
  return [
    `${runs} runs, seeds ${firstSeed} to ${firstSeed + runs - 1}, digest ${digest}`,
    `won ${share(cleared.value)} (${share(cleared.low)} to ${share(cleared.high)}); ends: ${ends(outcomes)}`,
    '',
    textTable(head, lines, 3),
  ].join('\n');
}
