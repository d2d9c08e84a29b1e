/** insidia tune --cheapest: ways of playing that win far more cheaply than what is written, and how little a player needs to do. */
import {
  PLAY_BUDGET,
  type PlayFound,
  type Project,
  type ProvedPlay,
  acceptanceOf,
  cheapWarning,
  csvRow,
  playReport,
  playWork,
  scenarioKey,
  sentenceOfPlay,
  workThrough,
} from '@insidia/core';
import { stringify } from 'csv-stringify/sync';
import { type AskedOptions, askedByOptions } from './asked';
import { json } from './effect-text';
import { junit } from './junit';
import { asUsage } from './simulate';
import { textTable } from './text-table';

export interface CheapestOptions extends AskedOptions {
  budget?: number;
  format: 'text' | 'json' | 'csv' | 'junit';
}

/** @returns what is printed, and whether there is a way that nobody has accepted @throws Exit for what is not there */
export function cheapest(project: Project, options: CheapestOptions, report: (text: string) => void): { text: string; open: boolean } {
  const [cell] = askedByOptions(project, options).cells;
  const { budget = PLAY_BUDGET.usual } = options;
  const found = asUsage(() =>
    workThrough(playWork({ project, cell, budget }), ({ runs }) =>
      report(`${runs.toLocaleString('en')} of ${budget.toLocaleString('en')} runs`),
    ),
  );
  const warning = cheapWarning(cell, found);
  const open = warning !== undefined && !acceptanceOf(project, warning);
  const formats: Record<CheapestOptions['format'], () => string> = {
    text: () => asText(found, warning !== undefined && !open),
    json: () => json(playReport(cell, found)),
    csv: () => stringify(rowsOf(found).map(csvRow), { header: true }),
    junit: () =>
      junit(project.name, 'cheapest', [
        {
          classname: 'wonCheaply',
          name: scenarioKey(cell),
          message: warning?.message ?? 'no way of playing was found that wins far more cheaply',
          outcome: open ? 'failed' : 'passed',
        },
      ]),
  };
  return { text: formats[options.format](), open };
}

const WRITTEN = 'as written';

function rowsOf({ habits, written, ways, dullest }: PlayFound) {
  const row = (kind: string, says: string, { won, dose }: Pick<ProvedPlay, 'won' | 'dose'>) => ({
    kind,
    says,
    won: won.value,
    wonLow: won.low,
    wonHigh: won.high,
    dose: dose.value,
    doseLow: dose.low,
    doseHigh: dose.high,
  });
  return [
    row(WRITTEN, '', written),
    ...ways.map((way) => row('cheaper', sentenceOfPlay(habits, way.play), way)),
    ...(dullest ? [row('less to do', sentenceOfPlay(habits, dullest.play), dullest)] : []),
  ];
}

function asText(found: PlayFound, accepted: boolean): string {
  const figure = (value: number, low: number, high: number, digits: number, by = 1) =>
    `${(by * value).toFixed(digits)} (${(by * low).toFixed(digits)} to ${(by * high).toFixed(digits)})`;
  const lines = rowsOf(found).map(({ kind, says, won, wonLow, wonHigh, dose, doseLow, doseHigh }) => [
    says ? `${kind}: ${says}` : kind,
    figure(won, wonLow, wonHigh, 0, 100),
    figure(dose, doseLow, doseHigh, 2),
  ]);
  const none = found.ways.length ? [] : ['no way of playing was found that wins far more cheaply\n'];
  return [
    `${found.runs.toLocaleString('en')} runs, ${found.habits.length} habits; ${found.written.runs} fresh seeds, the same for all`,
    '',
    ...none,
    textTable(['played', 'won, %', 'dose'], lines, 1),
    ...(accepted ? ['accepted, as it is\n'] : []),
  ].join('\n');
}
