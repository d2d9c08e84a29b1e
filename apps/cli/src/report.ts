/** insidia report: runs what a report shows, in this process, and writes the page. */
import {
  Batch,
  type CellRuns,
  Curves,
  type Project,
  type ReportCurves,
  scenarioOf,
  compileScenario,
  report,
  reportCells,
  reportCurves,
  sampleOf,
  usualSkill,
} from '@insidia/core';
import { readFileSync } from 'node:fs';
import { asUsage } from './simulate';

export interface ReportRunOptions {
  runs: number;
  skill?: string;
  style?: string;
  players?: number;
}

const PORTION = 50;

const font = (file: string) => readFileSync(require.resolve(file)).toString('base64');

/** @param say is told how far it is @throws Exit for a skill or style that is not there */
export function reportOf(
  project: Project,
  { runs, skill, style, players }: ReportRunOptions,
  at: string,
  say: (text: string) => void,
): string {
  const lens = { skill: skill ?? usualSkill(project), style, players };
  const asked = reportCells(project, lens);
  const drawn = new Set(reportCurves(project, lens));
  const read = new Map<string, CellRuns>();
  const curves = new Map<string, ReportCurves>();
  asked.forEach(({ cell, columns }, i) => {
    const compiled = asUsage(() => compileScenario(project, scenarioOf(cell)));
    const own = drawn.has(cell) ? new Curves(compiled) : undefined;
    const batch = asUsage(() => new Batch(compiled, 1, runs, own?.watch, (run) => own?.add(run)));
    while (!batch.done) {
      batch.advance(PORTION);
      say(`cell ${i + 1} of ${asked.length}: ${batch.rows.length} of ${runs} runs`);
    }
    const sample = sampleOf(compiled, batch.rows);
    const values = Object.fromEntries(columns.map((name) => [name, Array.from(sample.columns[name] ?? [])]));
    read.set(cell, { runs: sample.runs, values });
    if (own) curves.set(cell, { pressure: own.curve('pressure'), quiet: own.curve('quiet') });
  });
  return report({ project, lens, read, curves, at, font });
}
