/** Runs fights of a search off the page's thread: a few seeds of one fight at a time. */
import { type Compiled, type Project, type Scenario, Runner, compileScenario, rowOf, sampleOf, scenarioKey } from '@insidia/core';

export type RunnerRequest =
  { project: Project } | { id: number; cell: Scenario; firstSeed: number; runs: number; columns: readonly string[] };

export type RunnerAnswer = { id: number; digests: string[]; columns: Record<string, number[]> } | { failure: string };

/** Fights that are kept compiled: parts of one ask come one after the other. */
const KEPT = 16;

let project: Project | undefined;
const compiled = new Map<string, Compiled>();

function compiledOf(cell: Scenario): Compiled {
  const key = scenarioKey(cell);
  let found = compiled.get(key);
  if (!found) {
    found = compileScenario(project!, cell);
    compiled.set(key, found);
    if (compiled.size > KEPT) compiled.delete(compiled.keys().next().value!);
  }
  return found;
}

onmessage = ({ data }: MessageEvent<RunnerRequest>) => {
  if ('project' in data) {
    project = data.project;
    return;
  }
  const { id, cell, firstSeed, runs, columns } = data;
  try {
    const own = compiledOf(cell);
    const runner = new Runner(own);
    const sample = sampleOf(
      own,
      Array.from({ length: runs }, (_, i) => rowOf({ compiled: own, run: runner.run(firstSeed + i) })),
    );
    const answer: RunnerAnswer = {
      id,
      digests: Array.from(sample.digests, String),
      columns: Object.fromEntries(columns.map((name) => [name, Array.from(sample.columns[name] ?? [])])),
    };
    postMessage(answer);
  } catch (error) {
    const answer: RunnerAnswer = { failure: (error as Error).message };
    postMessage(answer);
  }
};
