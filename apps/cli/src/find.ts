/** insidia tune --find: values of numbers with which all that is wanted holds, each proved on seeds that the search has not seen. */
import {
  type FindSearch,
  type Preferred,
  type Project,
  type Proposal,
  bestIn,
  csvRow,
  dialValue,
  dialWords,
  findProblem,
  findReport,
  findWork,
  goalOfSearch,
  numberOf,
  objectivesOf,
  standing,
  turnTo,
  turnedProject,
  unitOf,
  whyWords,
  workThrough,
} from '@insidia/core';
import { stringify } from 'csv-stringify/sync';
import { writeFileSync } from 'node:fs';
import { type AskedOptions, askedByOptions } from './asked';
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
  const { cells, goals, dials, question } = askedByOptions(project, options);
  if (!dials) throw new Exit(EXIT.usage, '--find needs numbers to turn: give --dial, or a question that has some');
  const objectives = cells.flatMap((cell) => objectivesOf(project, cell, goals));
  const problem = asUsage(() =>
    findProblem(project, objectives, dials, {
      prefer: options.prefer ?? question?.prefer ?? 'change',
      ...(options.budget !== undefined && { budget: options.budget }),
    }),
  );
  const search = asUsage(() =>
    workThrough(findWork(problem), ({ runs, outside, found }) =>
      report(`${runs} of ${problem.budget} runs, ${found} found${outside === undefined ? '' : `, ${outside.toFixed(2)} outside`}`),
    ),
  );
  const [first] = search.proposals;
  if (first && options.write !== undefined) writeFileSync(options.write, JSON.stringify(written(project, first), null, 2) + '\n');
  return { text: FORMATS[options.format](search, project), found: first !== undefined };
}

const written = (project: Project, { put }: Proposal): Project =>
  turnedProject(
    project,
    put.map(({ knob, value }) => turnTo(knob.dial, value)),
  );

const FORMATS: Record<FindOptions['format'], (search: FindSearch, project: Project) => string> = {
  text: asText,
  json: (search, project) => json(findReport(project, search)),
  csv: (search, project) =>
    stringify(
      search.proposals.flatMap(({ prefer, put, distance }, i) =>
        put.map(({ knob, value }) =>
          csvRow({
            proposal: i + 1,
            prefer,
            distance,
            ...dialWords(project, knob.dial),
            path: knob.dial.path,
            from: standing(knob),
            to: value,
          }),
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
          name: goalOfSearch(search.problem, g),
          message: proof ? `${valued(goal, proof)} at the first proposal` : whyWords(project, search).join('; ') || 'nothing was found',
          outcome: proof?.verdict === 'met' ? 'passed' : proof ? 'skipped' : 'failed',
        };
      }),
    ),
};

const BEST = { change: 'least change', numbers: 'fewest numbers', margin: 'most margin', other: 'another way' } as const;

type Wanted = Pick<FindSearch['problem']['goals'][number], 'measure' | 'clock'>;

const valued = ({ measure, clock }: Wanted, { estimate: { value, low, high } }: Proposal['proof'][number]): string =>
  `${numberOf(measure, value, clock)} (${numberOf(measure, low, clock)} to ${numberOf(measure, high, clock)}) ${unitOf(measure, clock)}`.trim();

function asText(search: FindSearch, project: Project): string {
  const { problem, proposals, progress } = search;
  const head = `${progress.runs.toLocaleString('en')} runs in ${progress.rounds} rounds of at most ${problem.budget.toLocaleString('en')}`;
  if (!proposals.length) {
    const why = whyWords(project, search);
    return [`nothing was found: ${head}`, '', ...why, ...(why.length ? [''] : [])].join('\n');
  }
  const best = bestIn(problem, proposals);
  const parts = proposals.map(({ put, distance, proof, seeds }, i) => {
    const rows = put.map(({ knob, value }) => {
      const { whose, name } = dialWords(project, knob.dial);
      return [whose, name, `${dialValue(project, knob.dial, standing(knob))} → ${dialValue(project, knob.dial, value)}`];
    });
    const goals = problem.goals.map((goal, g) => [goalOfSearch(problem, g), valued(goal, proof[g]), proof[g].verdict]);
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
