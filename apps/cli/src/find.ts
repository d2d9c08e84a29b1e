/** insidia tune --find: values of numbers with which all that is wanted holds, each proved on seeds that the search has not seen. */
import {
  type Ask,
  type AskedRuns,
  type Dial,
  FindSearch,
  type Preferred,
  type Project,
  type Proposal,
  Runner,
  bestIn,
  compileScenario,
  csvRow,
  dialText,
  dialValue,
  dialWords,
  findProblem,
  numberOf,
  objectivesOf,
  runSearch,
  sampleOf,
  scenarioKey,
  turnTo,
  turnedProject,
  unitOf,
  wantedWords,
  whyNot,
  rowOf,
  GOAL_MEASURES,
} from '@insidia/core';
import { stringify } from 'csv-stringify/sync';
import { writeFileSync } from 'node:fs';
import { type AskedOptions, askedOf } from './asked';
import { json } from './effect-text';
import { EXIT, Exit } from './exit';
import { junit } from './junit';
import { asUsage } from './simulate';
import { textTable } from './text-table';

export interface FindOptions extends AskedOptions {
  prefer?: Preferred;
  budget?: number;
  write?: string;
  format: 'text' | 'json' | 'csv' | 'junit';
}

/** @returns what is printed, and whether something was found @throws Exit for what is not there */
export function find(project: Project, options: FindOptions, report: (text: string) => void): { text: string; found: boolean } {
  const { cells, goals, dials, question } = askedOf(project, options);
  if (!dials) throw new Exit(EXIT.usage, '--find needs numbers to turn: give --dial, or a question that has some');
  const objectives = cells.flatMap((cell) => objectivesOf(project, cell, goals));
  const problem = asUsage(() =>
    findProblem(project, objectives, dials, {
      prefer: options.prefer ?? question?.prefer ?? 'change',
      ...(options.budget !== undefined && { budget: options.budget }),
    }),
  );
  const search = new FindSearch(problem);
  runSearch(
    search,
    (ask) => runsOf(project, ask),
    ({ runs, best }) => {
      report(`${runs} of ${problem.budget} runs, ${search.proposals.length} found${best ? `, ${best.outside.toFixed(2)} outside` : ''}`);
      return true;
    },
  );
  const [first] = search.proposals;
  if (first && options.write !== undefined) writeFileSync(options.write, JSON.stringify(written(project, first), null, 2) + '\n');
  return { text: FORMATS[options.format](search, project), found: first !== undefined };
}

function runsOf(project: Project, { cell, firstSeed, runs }: Ask): AskedRuns {
  const compiled = asUsage(() => compileScenario(project, cell));
  const runner = new Runner(compiled);
  return sampleOf(
    compiled,
    Array.from({ length: runs }, (_, i) => rowOf({ compiled, run: runner.run(firstSeed + i) })),
  );
}

const written = (project: Project, { put }: Proposal): Project =>
  turnedProject(
    project,
    put.map(({ knob, value }) => turnTo(knob.dial, value)),
  );

const was = ({ now, dial }: { now: number; dial: Dial }): number => (dial.op === '×' ? 1 : now);

function named({ goals, cells }: FindSearch['problem'], g: number): string {
  const { measure, statistic, band, cell } = goals[g];
  const { label, usual } = GOAL_MEASURES[measure];
  const at = cells.length > 1 ? ` at ${[cell.tier, cell.skill].filter(Boolean).join(', ') || 'as written'}` : '';
  return `${label}${statistic === usual ? '' : `, ${statistic}`}${at} (${wantedWords(measure, band!)})`;
}

const FORMATS: Record<FindOptions['format'], (search: FindSearch, project: Project) => string> = {
  text: asText,
  json: (search, project) =>
    json({
      cells: search.problem.cells.map(scenarioKey),
      runs: search.progress.runs,
      budget: search.problem.budget,
      goals: search.problem.goals.map(({ measure, statistic, band, of }) => ({ measure, statistic, of, ...band })),
      proposals: search.proposals.map(({ prefer, put, distance, proof, seeds, after }) => ({
        prefer,
        distance,
        put: put.map(({ knob, value }) => ({ dial: dialText(project, knob.dial), from: was(knob), to: value })),
        proof: proof.map(({ estimate, verdict }) => ({ value: estimate.value, low: estimate.low, high: estimate.high, verdict })),
        seeds,
        after,
      })),
      ...(search.proposals.length === 0 && { why: whyOf(search, project) }),
    }),
  csv: (search, project) =>
    stringify(
      search.proposals.flatMap(({ prefer, put, distance }, i) =>
        put.map(({ knob, value }) =>
          csvRow({ proposal: i + 1, prefer, distance, ...dialWords(project, knob.dial), path: knob.dial.path, from: was(knob), to: value }),
        ),
      ),
      { header: true },
    ),
  junit: (search, project) =>
    junit(
      project.name,
      'find',
      search.problem.goals.map((goal, g) => {
        const proof = search.proposals[0]?.proof[g];
        return {
          classname: goal.measure,
          name: named(search.problem, g),
          message: proof
            ? `${valued(goal.measure, proof)} at the first proposal`
            : whyOf(search, project).join('; ') || 'nothing was found',
          outcome: proof?.verdict === 'met' ? 'passed' : proof ? 'skipped' : 'failed',
        };
      }),
    ),
};

const BEST = { change: 'least change', numbers: 'fewest numbers', margin: 'most margin', other: 'another way' } as const;

type Measure = FindSearch['problem']['goals'][number]['measure'];

const valued = (measure: Measure, { estimate: { value, low, high } }: Proposal['proof'][number]): string =>
  `${numberOf(measure, value)} (${numberOf(measure, low)} to ${numberOf(measure, high)}) ${unitOf(measure)}`.trim();

function asText(search: FindSearch, project: Project): string {
  const { problem, proposals, progress } = search;
  const head = `${progress.runs.toLocaleString('en')} runs in ${progress.rounds} rounds of at most ${problem.budget.toLocaleString('en')}`;
  if (!proposals.length) {
    const why = whyOf(search, project);
    return [`nothing was found: ${head}`, '', ...why, ...(why.length ? [''] : [])].join('\n');
  }
  const best = bestIn(problem, proposals);
  const parts = proposals.map(({ put, distance, proof, seeds }, i) => {
    const rows = put.map(({ knob, value }) => {
      const { whose, name } = dialWords(project, knob.dial);
      return [whose, name, `${dialValue(project, knob.dial, was(knob))} → ${dialValue(project, knob.dial, value)}`];
    });
    const goals = problem.goals.map((goal, g) => [named(problem, g), valued(goal.measure, proof[g]), proof[g].verdict]);
    const what = put.length ? textTable(['of', 'number', 'turned'], rows, 2) : 'nothing: it holds as it is written\n';
    return [
      `${'ABCD'[i]}: ${BEST[best[i]]}, ${(100 * distance).toFixed(0)} % of a range away`,
      '',
      what,
      textTable(['goal', `on ${seeds.runs} fresh seeds`, ''], goals, 1),
    ].join('\n');
  });
  return [head, '', ...parts].join('\n');
}

/** Why nothing was found, as far as the search can promise: never that there is nothing. */
function whyOf(search: FindSearch, project: Project): string[] {
  const { alone, pulling } = whyNot(search);
  const index = (goal: FindSearch['problem']['goals'][number]) => search.problem.goals.indexOf(goal);
  return [
    ...pulling.map(
      ([a, b]) => `${named(search.problem, index(a))} and ${named(search.problem, index(b))} pull against each other within these ranges`,
    ),
    ...alone.map(({ goal, ends }) => {
      const at = ends.map(({ knob, end }) => {
        const { whose, name } = dialWords(project, knob.dial);
        return `${whose} ${name} is at its ${end === 'low' ? 'lowest' : 'highest'}, ${dialValue(project, knob.dial, knob.dial[end])}`;
      });
      return `${named(search.problem, index(goal))} is promised nowhere in these ranges${at.length ? `: ${at.join('; ')}` : ''}`;
    }),
  ];
}
