/** insidia tune: what moves a fight, and how it goes along one number. */
import {
  BASE_RUNS,
  type BandMeasure,
  Batch,
  type Dial,
  GOAL_MEASURES,
  type Moves,
  type Objective,
  type Project,
  type Ran,
  STATISTICS,
  type Sample,
  type Scenario,
  Screening,
  type Statistic,
  aimOf,
  alongPoint,
  byStrength,
  compileScenario,
  crossingsOf,
  csvRow,
  designFor,
  dialFor,
  dialValue,
  dialWords,
  goalsOf,
  gridOf,
  lookAt,
  movesOf,
  nudges,
  numberOf,
  numbersOf,
  readOf,
  sampleOf,
  scenarioKey,
  standsAt,
  turnedCell,
  unitOf,
  wantedWords,
} from '@insidia/core';
import { stringify } from 'csv-stringify/sync';
import { effectText, json } from './effect-text';
import { EXIT, Exit } from './exit';
import { type SubjectOptions, asUsage, subjectOf } from './simulate';
import { textTable } from './text-table';

export interface TuneOptions extends SubjectOptions {
  goal?: string[];
  dial?: string[];
  along?: string;
  strongest: number;
  runs: number;
  screen: number;
  seed: number;
  format: 'text' | 'json' | 'csv';
}

/** Measures of a fight that no brief speaks of. */
const USUAL: Record<Scenario['kind'], readonly BandMeasure[]> = {
  duel: ['won', 'timeToKill', 'timeToDown', 'peakPressureShare'],
  encounter: ['won', 'length', 'peakPressureShare', 'longestWithoutLull'],
};
/** Numbers that are measured by paired runs for each that is to be named: the order of a screening is not sure. */
const KEPT = 1.6;

/** @throws Exit for what is not there */
export function tune(project: Project, options: TuneOptions, report: (text: string) => void): string {
  const cell = subjectOf(project, options);
  const objectives = objectivesOf(project, cell, options.goal);
  const runner = new Samples(project, options.seed, options.runs, report);
  if (options.along !== undefined) return along(project, cell, objectives, options, runner);
  const given = options.dial?.map((text) => dialOf(project, text));
  const asked = given ?? screened(project, cell, objectives, options, runner, report);
  const { turned, stuck } = nudges(
    project,
    asked.map(({ dial }) => dial),
  );
  const moved = movesOf(objectives, turned, (one, objective) => runner.ran(one, objective));
  const ordered = given ? moved : byStrength(moved, 0).slice(0, options.strongest);
  return movesText(project, cell, objectives, ordered, stuck, options, given ? undefined : asked.length);
}

/** Runs scenarios once each and keeps what they came to. */
class Samples {
  private readonly known = new Map<string, Sample>();

  constructor(
    private readonly project: Project,
    private readonly seed: number,
    private readonly runs: number,
    private readonly report: (text: string) => void,
  ) {}

  of(cell: Scenario, runs = this.runs): Sample {
    const key = `${runs} ${scenarioKey(cell)}`;
    const found = this.known.get(key);
    if (found) return found;
    const compiled = asUsage(() => compileScenario(this.project, cell));
    const batch = asUsage(() => new Batch(compiled, this.seed, runs));
    batch.advance(runs);
    const sample = sampleOf(compiled, batch.rows);
    this.known.set(key, sample);
    this.report(`${this.known.size} × ${runs} runs`);
    return sample;
  }

  ran(cell: Scenario, objective: Objective): Ran {
    return readOf(this.of(cell), objective);
  }
}

/** `measure` or `measure:statistic`; absent: what the brief wants of this fight, or what is usual. */
function objectivesOf(project: Project, cell: Scenario, asked: string[] | undefined): Objective[] {
  if (asked) return asked.map((text) => objectiveOf(cell, text));
  const key = scenarioKey(cell);
  const own = goalsOf(project, { tiers: [cell.tier], skills: [cell.skill] }).filter((goal) => scenarioKey(goal.cell) === key);
  return own.length ? own.map(aimOf) : USUAL[cell.kind].map((measure) => lookAt(cell, measure));
}

function objectiveOf(cell: Scenario, text: string): Objective {
  const [measure, statistic] = text.split(':');
  if (!(measure in GOAL_MEASURES)) throw new Exit(EXIT.usage, `there is no measure "${measure}": ${Object.keys(GOAL_MEASURES).join(', ')}`);
  if (statistic !== undefined && !(STATISTICS as readonly string[]).includes(statistic))
    throw new Exit(EXIT.usage, `there is no statistic "${statistic}": ${STATISTICS.join(', ')}`);
  return lookAt(cell, measure as BandMeasure, statistic as Statistic | undefined);
}

/** `/units/clipper/health/max` or the same with `=16..28`. */
function dialOf(project: Project, text: string): { dial: Dial } {
  const [path, range] = text.split('=');
  const dial = asUsage(() => dialFor(project, path));
  if (!dial) throw new Exit(EXIT.usage, `"${path}" leads to no number of the document`);
  if (range === undefined) return { dial };
  const ends = range.split('..').map(Number);
  if (ends.length !== 2 || !ends.every(Number.isFinite) || ends[0] >= ends[1])
    throw new Exit(EXIT.usage, `"${range}" must be LOW..HIGH, such as 16..28`);
  return { dial: { ...dial, low: ends[0], high: ends[1] } };
}

function screened(
  project: Project,
  cell: Scenario,
  objectives: Objective[],
  { screen, strongest, seed }: TuneOptions,
  runner: Samples,
  report: (text: string) => void,
): { dial: Dial }[] {
  const compiled = asUsage(() => compileScenario(project, cell));
  const all = numbersOf(project, compiled, cell.kind === 'encounter' ? cell.id : undefined);
  const design = designFor(all, screen);
  const screening = new Screening(project, cell, objectives, design, runner.of(cell, BASE_RUNS), seed + 1_000_000);
  for (let pair = 0; pair < design.pairs; pair++) {
    screening.add(screening.run(pair));
    report(`${all.length} numbers at once: ${pair + 1} of ${design.pairs} pairs`);
  }
  return screening.result(0).slice(0, Math.ceil(strongest * KEPT));
}

function along(project: Project, cell: Scenario, objectives: Objective[], options: TuneOptions, runner: Samples): string {
  const { dial } = dialOf(project, options.along as string);
  const now = standsAt(project, dial) as number;
  const grid = gridOf(dial, now);
  const curves = objectives.map((objective) =>
    grid.map((at) => alongPoint(at, objective, runner.ran(at === now ? cell : turnedCell(cell, dial, at), objective).values)),
  );
  const { name, whose } = dialWords(project, dial);
  const crossings = objectives.map(({ band }, i) => (band ? crossingsOf(curves[i], band) : []));
  if (options.format === 'json')
    return json({
      dial: { path: dial.path, name, whose, now },
      runs: options.runs,
      objectives: objectives.map((one, i) => ({ ...named(one), points: curves[i], crossings: crossings[i] })),
    });
  const rows = objectives.flatMap((objective, i) =>
    curves[i].map(({ at, value, low, high, verdict }) => ({
      dial: dial.path,
      value: at,
      ...named(objective),
      estimate: value,
      low,
      high,
      verdict: verdict ?? '',
    })),
  );
  if (options.format === 'csv') return stringify(rows.map(csvRow), { header: true });
  const lines = grid.map((at, k) => [
    `${dialValue(project, dial, at)}${at === now ? ' (as written)' : ''}`,
    ...objectives.map(({ measure }, i) => {
      const { value, low, high, verdict } = curves[i][k];
      return `${numberOf(measure, value)} (${numberOf(measure, low)} to ${numberOf(measure, high)})${verdict ? ` ${VERDICTS[verdict]}` : ''}`;
    }),
  ]);
  const told = crossings.flatMap((list, i) =>
    list.map(
      ({ at, between, goes }) =>
        `${headOf(objectives[i])} goes ${goes} at about ${dialValue(project, dial, at)} (between ${dialValue(project, dial, between.low)} and ${dialValue(project, dial, between.high)})`,
    ),
  );
  return [
    `${whose}, ${name}: ${options.runs} runs a value`,
    '',
    textTable(['value', ...objectives.map(headOf)], lines, 1),
    ...told.map((line) => `${line}\n`),
  ].join('\n');
}

const VERDICTS = { met: 'met', missedLow: 'too low', missedHigh: 'too high', undecided: 'undecided' } as const;

const named = ({ measure, statistic, of, band }: Objective) => ({ measure, statistic, of, wanted: band ? wantedWords(measure, band) : '' });

const headOf = ({ measure, statistic, band }: Objective): string => {
  const { label, usual } = GOAL_MEASURES[measure];
  const unit = unitOf(measure);
  return `${label}${statistic === usual ? '' : `, ${statistic}`}${band ? ` (${wantedWords(measure, band)})` : unit && `, ${unit}`}`;
};

function movesText(
  project: Project,
  cell: Scenario,
  objectives: Objective[],
  moved: readonly Moves[],
  stuck: readonly Dial[],
  { runs, format }: TuneOptions,
  measured: number | undefined,
): string {
  const rows = moved.map(({ dial, from, to, effects }) => ({ dial, from, to, words: dialWords(project, dial), effects }));
  if (format === 'json')
    return json({
      subject: scenarioKey(cell),
      runs,
      objectives: objectives.map(named),
      dials: rows.map(({ dial: { path }, from, to, words, effects }) => ({ path, ...words, from, to, effects })),
      stuck: stuck.map(({ path }) => path),
    });
  if (format === 'csv') {
    const flat = rows.flatMap(({ dial: { path }, from, to, words, effects }) =>
      effects.map((effect, i) => ({ path, whose: words.whose, name: words.name, from, to, ...named(objectives[i]), ...effect })),
    );
    return stringify(
      flat.map((row) => csvRow({ ...row } as Record<string, string | number>)),
      { header: true },
    );
  }
  const lines = rows.map(({ dial, from, to, words, effects }) => [
    words.whose,
    words.name,
    `${dialValue(project, dial, from)} → ${dialValue(project, dial, to)}`,
    ...effects.map((effect, i) => (effect ? effectText(objectives[i].measure, effect) : '')),
  ]);
  const found =
    measured === undefined
      ? ''
      : `; the ${moved.length} that move ${GOAL_MEASURES[objectives[0].measure].label} most, of ${measured} that a screening kept`;
  return [
    `${runs} paired runs a number${found}`,
    '',
    textTable(['of', 'number', 'turned', ...objectives.map(headOf)], lines, 3),
    ...stuck.map((dial) => `${dialWords(project, dial).name} can’t be turned: it has nowhere to go\n`),
    'never: not one of the fights went otherwise; ≈: the interval holds 0\n',
  ].join('\n');
}
