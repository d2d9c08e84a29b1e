/** insidia tune: what moves a fight, and how it goes along one number. */
import {
  type MovesFound,
  type Objective,
  type Project,
  type Ran,
  type Scenario,
  type Together,
  GOAL_MEASURES,
  goalIn,
  alongPoint,
  compileScenario,
  crossingsOf,
  csvRow,
  dialValue,
  dialWords,
  gridOf,
  judge,
  movesReport,
  movesWork,
  numberOf,
  objectiveReport,
  objectivesOf,
  putWords,
  runFights,
  scenarioKey,
  standsAt,
  thereOf,
  turnedCell,
  unitOf,
  wantedWords,
  workThrough,
} from '@insidia/core';
import { stringify } from 'csv-stringify/sync';
import { effectText, json } from './effect-text';
import { type AskedOptions, askedByOptions, dialOption } from './asked';
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

/** What is told of: the fight, and what is asked of it. */
interface Told {
  project: Project;
  cell: Scenario;
  objectives: Objective[];
  options: TuneOptions;
  runs: number;
}

/** @throws Exit for what is not there */
export function tune(project: Project, options: TuneOptions, report: (text: string) => void): string {
  const { cells, goals, dials, runs } = askedByOptions(project, options);
  const [cell] = cells;
  const objectives = objectivesOf(project, cell, goals);
  const told: Told = { project, cell, objectives, options, runs };
  // A fight that is not there is told of before anything is run.
  asUsage(() => compileScenario(project, cell));
  const samples = (cellsAsked: readonly Scenario[]) => ranOnce(told, cellsAsked, report);
  if (options.format === 'junit') return junitOf(told, samples([cell]));
  if (options.along !== undefined) return along(told, options.along, samples);
  const { strongest, screen, pairs = false, seed: firstSeed } = options;
  const request = { cell, objectives, ...(dials && { dials }), runs, firstSeed, strongest, screen, pairs };
  const found = asUsage(() => workThrough(movesWork(project, request), ({ runs: done, of }) => report(`${done} of ${of} runs`)));
  return movesText(told, found);
}

type Samples = (cells: readonly Scenario[]) => (cell: Scenario, objective: Objective) => Ran;

/** Runs cells once each. */
function ranOnce({ project, objectives, options, runs }: Told, cells: readonly Scenario[], report: (text: string) => void) {
  const columns = objectives.map(({ column }) => column);
  const known = new Map(
    cells.map((cell, i) => {
      report(`${(i + 1) * runs} of ${cells.length * runs} runs`);
      return [scenarioKey(cell), asUsage(() => thereOf(runFights({ project, cell, columns, firstSeed: options.seed, runs })))];
    }),
  );
  return (cell: Scenario, { column }: Objective): Ran => {
    const { digests, columns: own } = known.get(scenarioKey(cell))!;
    return { digests, values: own[column] };
  };
}

function along({ project, cell, objectives, options, runs }: Told, path: string, samples: Samples): string {
  const dial = dialOption(project, path);
  const now = standsAt(project, dial);
  if (dial.to !== undefined || now === undefined)
    throw new Exit(EXIT.usage, `"${path}" has no values between: it is a word or a yes-or-no`);
  const grid = gridOf(dial, now);
  const cells = grid.map((at) => (at === now ? cell : turnedCell(cell, dial, at)));
  const ran = samples(cells);
  const curves = objectives.map((objective) => grid.map((at, k) => alongPoint(at, objective, ran(cells[k], objective).values)));
  const { name, whose } = dialWords(project, dial);
  const crossings = objectives.map(({ band }, i) => (band ? crossingsOf(curves[i], band) : []));
  if (options.format === 'json')
    return json({
      dial: { path: dial.path, name, whose, now },
      runs,
      objectives: objectives.map((one, i) => ({ ...objectiveReport(one), points: curves[i], crossings: crossings[i] })),
    });
  const rows = objectives.flatMap((objective, i) =>
    curves[i].map(({ at, value, low, high, verdict }) => ({
      dial: dial.path,
      value: at,
      ...objectiveReport(objective),
      estimate: value,
      low,
      high,
      verdict: verdict ?? '',
    })),
  );
  if (options.format === 'csv') return stringify(rows.map(csvRow), { header: true });
  const lines = grid.map((at, k) => [
    `${dialValue(project, dial, at)}${at === now ? ' (as written)' : ''}`,
    ...objectives.map(({ measure, clock }, i) => {
      const { value, low, high, verdict } = curves[i][k];
      return `${numberOf(measure, value, clock)} (${numberOf(measure, low, clock)} to ${numberOf(measure, high, clock)})${verdict ? ` ${VERDICTS[verdict]}` : ''}`;
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

const headOf = ({ measure, statistic, band, clock }: Objective): string => {
  const { usual } = GOAL_MEASURES[measure];
  const { label } = goalIn(measure, clock);
  const unit = unitOf(measure, clock);
  return `${label}${statistic === usual ? '' : `, ${statistic}`}${band ? ` (${wantedWords(measure, band, clock)})` : unit && `, ${unit}`}`;
};

/** A case a goal as the fight is written: failed where it is missed, skipped where that is undecided or nothing is wanted. */
function junitOf({ project, cell, objectives, runs }: Told, ran: ReturnType<Samples>): string {
  const cases = objectives.map((objective) => {
    const { estimate, verdict } = judge(ran(cell, objective).values, objective.statistic, objective.band ?? {});
    const { measure, clock } = objective;
    const told = `${numberOf(measure, estimate.value, clock)} (${numberOf(measure, estimate.low, clock)} to ${numberOf(measure, estimate.high, clock)}) ${unitOf(measure, clock)}`;
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

function movesText(told: Told, found: MovesFound): string {
  const { project, objectives, runs } = told;
  const { format } = told.options;
  const { moved, stuck, together, measured } = found;
  if (format === 'json') return json(movesReport(project, told, found));
  const rows = moved.map(({ dial, from, to, effects }) => ({ dial, from, to, words: dialWords(project, dial), effects }));
  if (format === 'csv') {
    const flat = rows.flatMap(({ dial: { path }, from, to, words, effects }) =>
      effects.map((effect, i) => ({ path, whose: words.whose, name: words.name, from, to, ...objectiveReport(objectives[i]), ...effect })),
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
    ...effects.map((effect, i) => (effect ? effectText(objectives[i].measure, effect, objectives[i].clock) : '')),
  ]);
  const strongest =
    measured === undefined
      ? ''
      : `; the ${moved.length} that move ${GOAL_MEASURES[objectives[0].measure].label} most, of ${measured} that a screening kept`;
  return [
    `${runs} paired runs a number${strongest}`,
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
    ...effects.map((effect, i) => (effect ? effectText(objectives[i].measure, effect, objectives[i].clock) : '')),
  ]);
  return ['by twos, beyond the sum of what each does alone', '', textTable(['numbers', ...objectives.map(headOf)], lines, 1)];
}
