/** The brief judged in this process: every goal over the same seeds as a board of it. */
import {
  Batch,
  type JudgedGoal,
  type Project,
  type Sample,
  scenarioKey,
  compileScenario,
  goalsOf,
  judgeGoals,
  sampleOf,
} from '@insidia/core';
import { asUsage } from './simulate';

export interface BriefOptions {
  runs: number;
  tier?: string[];
  skill?: string[];
}

const PORTION = 50;

/** @throws Exit for a tier or skill that is not there */
export function judgeBrief(project: Project, { runs, tier, skill }: BriefOptions, report: (text: string) => void): JudgedGoal[] {
  const goals = goalsOf(project, { ...(tier && { tiers: tier }), ...(skill && { skills: skill }) });
  const cells = [...new Map(goals.map(({ cell }) => [scenarioKey(cell), cell])).values()];
  const samples = new Map<string, Sample>();
  cells.forEach((cell, i) => {
    const compiled = asUsage(() => compileScenario(project, cell));
    const batch = asUsage(() => new Batch(compiled, 1, runs));
    while (!batch.done) {
      batch.advance(PORTION);
      report(`cell ${i + 1} of ${cells.length}: ${batch.rows.length} of ${runs} runs`);
    }
    samples.set(scenarioKey(cell), sampleOf(compiled, batch.rows));
  });
  return judgeGoals(goals, (cell) => samples.get(scenarioKey(cell)));
}
