/** insidia tune: what moves a fight, and how it goes along one number. */
import {
  BASE_RUNS,
  Batch,
  type Dial,
  GOAL_MEASURES,
  type Moves,
  type Objective,
  type Project,
  type Ran,
  PAIRED,
  type Sample,
  type Scenario,
  Screening,
  type Together,
  alongPoint,
  byStrength,
  compileScenario,
  crossingsOf,
  csvRow,
  designFor,
  dialText,
  dialValue,
  dialWords,
  gridOf,
  judge,
  movesOf,
  nudges,
  numberOf,
  numbersOf,
  objectivesOf,
  pairsOf,
  putWords,
  readOf,
  sampleOf,
  scenarioKey,
  standsAt,
  togetherOf,
  turnedCell,
  unitOf,
  wantedWords,
} from '@insidia/core';
import { stringify } from 'csv-stringify/sync';
import { effectText, json } from './effect-text';
import { type AskedOptions, askedOf, dialOf } from './asked';
import { EXIT, Exit } from './exit';
import { junit } from './junit';
import { asUsage } from './simulate';
import { textTable } from './text-table';

export interface TuneOptions extends AskedOptions {
  along?: string;
  strongest: number;
  screen: number;
  seed: number;
  pairs?: boolean;
  format: 'text' | 'json' | 'csv' | 'junit';
}

/** Numbers that are measured by paired runs for each that is to be named: the order of a screening is not sure. */
const KEPT = 1.6;

/** What is told of: the fight, what is asked of it, and what has been run. */
interface Told {
  project: Project;
  cell: Scenario;
  objectives: Objective[];
  options: TuneOptions;
  runs: number;
  samples: Samples;
}

/** @throws Exit for what is not there */
export function tune(project: Project, options: TuneOptions, report: (text: string) => void): string {
  const { cells, goals, dials, runs } = askedOf(project, options);
  const [cell] = cells;
  const objectives = objectivesOf(project, cell, goals);
  const samples = new Samples(project, options.seed, runs, report);
  const told: Told = { project, cell, objectives, options, runs, samples };
  if (options.format === 'junit') return junitOf(told);
  if (options.along !== undefined) return along(told);
  const asked = dials ?? screened(told, report);
  const { turned, stuck } = nudges(project, asked);
  const moved = movesOf(objectives, turned, (one, objective) => samples.ran(one, objective));
  const ordered = dials ? moved : byStrength(moved, 0).slice(0, options.strongest);
  const pairs = options.pairs ? pairsOf(ordered.slice(0, PAIRED)) : [];
  const together = togetherOf(objectives, pairs, (one, objective) => samples.ran(one, objective));
  return movesText(told, ordered, stuck, together, dials ? undefined : asked.length);
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

function screened(
  { project, cell, objectives, options: { screen, strongest, seed }, samples }: Told,
  report: (text: string) => void,
): Dial[] {
  const compiled = asUsage(() => compileScenario(project, cell));
  const all = numbersOf(project, compiled, cell.kind === 'encounter' ? cell.id : undefined);
  const design = designFor(all, screen);
  const screening = new Screening(project, cell, objectives, design, samples.of(cell, BASE_RUNS), seed + 1_000_000);
  for (let pair = 0; pair < design.pairs; pair++) {
    screening.add(screening.run(pair));
    report(`${all.length} numbers at once: ${pair + 1} of ${design.pairs} pairs`);
  }
  return screening
    .result(0)
    .slice(0, Math.ceil(strongest * KEPT))
    .map(({ dial }) => dial);
}

function along({ project, cell, objectives, options, runs, samples }: Told): string {
  const dial = dialOf(project, options.along as string);
  const now = standsAt(project, dial);
  if (dial.to !== undefined || now === undefined)
    throw new Exit(EXIT.usage, `"${options.along}" has no values between: it is a word or a yes-or-no`);
  const grid = gridOf(dial, now);
  const curves = objectives.map((objective) =>
    grid.map((at) => alongPoint(at, objective, samples.ran(at === now ? cell : turnedCell(cell, dial, at), objective).values)),
  );
  const { name, whose } = dialWords(project, dial);
  const crossings = objectives.map(({ band }, i) => (band ? crossingsOf(curves[i], band) : []));
  if (options.format === 'json')
    return json({
      dial: { path: dial.path, name, whose, now },
      runs,
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
    `${whose}, ${name}: ${runs} runs a value`,
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

/** A case a goal as the fight is written: failed where it is missed, skipped where that is undecided or nothing is wanted. */
function junitOf({ project, cell, objectives, runs, samples }: Told): string {
  const cases = objectives.map((objective) => {
    const { estimate, verdict } = judge(samples.ran(cell, objective).values, objective.statistic, objective.band ?? {});
    const { measure } = objective;
    const told = `${numberOf(measure, estimate.value)} (${numberOf(measure, estimate.low)} to ${numberOf(measure, estimate.high)}) ${unitOf(measure)}`;
    return { name: headOf(objective), measure, message: told.trim(), verdict: objective.band ? verdict : undefined };
  });
  return junit(
    project.name,
    `${scenarioKey(cell)}, ${runs} runs`,
    cases.map(({ name, measure, message, verdict }) => ({
      classname: measure,
      name,
      message: verdict === undefined ? `${message}, nothing is wanted of it` : `${message}, ${VERDICTS[verdict]}`,
      outcome: verdict === 'met' ? 'passed' : verdict?.startsWith('missed') ? 'failed' : 'skipped',
    })),
  );
}

function movesText(
  { project, cell, objectives, options: { format }, runs }: Told,
  moved: readonly Moves[],
  stuck: readonly Dial[],
  together: readonly Together[],
  measured: number | undefined,
): string {
  const rows = moved.map(({ dial, from, to, effects }) => ({ dial, from, to, words: dialWords(project, dial), effects }));
  if (format === 'json')
    return json({
      subject: scenarioKey(cell),
      runs,
      objectives: objectives.map(named),
      dials: rows.map(({ dial, from, to, words, effects }) => ({
        path: dial.path,
        ...(dial.role !== undefined && { role: dial.role }),
        ...words,
        from,
        to,
        effects,
      })),
      stuck: stuck.map(({ path }) => path),
      ...(together.length && {
        together: together.map(({ first, second, effects }) => ({
          dials: [first.dial, second.dial].map((dial) => dialText(project, dial)),
          effects,
        })),
      }),
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
    ...togetherText(project, objectives, together),
    'never: not one of the fights went otherwise; ≈: the interval holds 0\n',
  ].join('\n');
}

/** What pairs do beyond the sum of what each does alone. */
function togetherText(project: Project, objectives: readonly Objective[], together: readonly Together[]): string[] {
  if (!together.length) return [];
  const lines = together.map(({ first, second, effects }) => [
    [first, second].map(({ dial, to }) => putWords(project, dial, to)).join(' and '),
    ...effects.map((effect, i) => (effect ? effectText(objectives[i].measure, effect) : '')),
  ]);
  return ['by twos, beyond the sum of what each does alone', '', textTable(['numbers', ...objectives.map(headOf)], lines, 1)];
}
