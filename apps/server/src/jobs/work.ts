/** What a job does: the core's work in steps, and what it comes to as data. Runs in a thread of its own; fights are run by others. */
import {
  type Asking,
  PLAY_BUDGET,
  type Project,
  type WorkStep,
  askedQuestion,
  compareWork,
  comparedReport,
  findProblem,
  findReport,
  findWork,
  goalsOfBoth,
  infinityAsText,
  movesReport,
  movesWork,
  objectivesOf,
  playReport,
  playWork,
  scenarioOf,
  compileScenario,
  plannedWork,
} from '@insidia/core';
import type { JobRequest } from './request';

export interface JobSource {
  document: Project;
  /** Of a comparison: the version before. */
  before?: Project;
  request: JobRequest;
}

const USUAL = { strongest: 10, screen: 2000, versionRuns: 200 } as const;

/** @throws Error for what is not there, in words */
function* begun(source: JobSource): Asking<unknown> {
  const { document, request } = source;
  if (request.kind === 'compare') return yield* comparison(source);
  const fight = request.cell === undefined ? undefined : () => scenarioOf(request.cell!);
  const { cells, goals, dials, runs, question } = askedQuestion(document, request, fight);
  // A fight that is not there is told of before anything is run.
  cells.forEach((cell) => compileScenario(document, cell));
  if (request.kind === 'cheapest') {
    const { budget = PLAY_BUDGET.usual } = request;
    return playReport(cells[0], yield* playWork({ project: document, cell: cells[0], budget }));
  }
  if (request.kind === 'find') {
    if (!dials) throw new Error('numbers must be given that may be turned: dials, or a question that has some');
    const objectives = cells.flatMap((cell) => objectivesOf(document, cell, goals));
    const { budget, prefer = question?.prefer } = request;
    const asked = { ...(prefer !== undefined && { prefer }), ...(budget !== undefined && { budget }) };
    return findReport(document, yield* findWork(findProblem(document, objectives, dials, asked)));
  }
  const [cell] = cells;
  const { strongest = USUAL.strongest, screen = USUAL.screen, seed: firstSeed = 1, pairs = false } = request;
  const asked = { cell, objectives: objectivesOf(document, cell, goals), runs, firstSeed, strongest, screen, pairs };
  return movesReport(document, asked, yield* movesWork(document, { ...asked, ...(dials && { dials }) }));
}

function* comparison({ document: after, before, request }: JobSource): Asking<unknown> {
  if (!before) throw new Error('before must be given: the revision that the newest is compared with');
  const { tiers, skills, byEdit = false, runs = USUAL.versionRuns } = request;
  const axes = { ...(tiers && { tiers }), ...(skills && { skills }) };
  if (!goalsOfBoth(before, after, axes).length) throw new Error('neither version has a goal at these tiers and skills');
  const found = yield* compareWork({ before, after }, { runs, axes, byEdit });
  return comparedReport({ before, after, runs }, [], found);
}

/** The same, its end as plain data: no infinity, nothing that JSON has not. */
export function* jobWork(source: JobSource): Asking<unknown> {
  const found = yield* begun(source);
  return JSON.parse(JSON.stringify(found, infinityAsText)) as unknown;
}

/** What a job may come to: runs, and steps of units. @throws Error for what can't be begun, in words */
export function jobPlan(source: JobSource): { runs: number; work: number } {
  const first = jobWork(source).next();
  if (first.done) return { runs: 0, work: 0 };
  const { asks, of } = first.value as WorkStep;
  const most = asks.slice(0, MOST_PLANNED).map(({ project, cell }) => {
    try {
      return plannedWork(compileScenario(project, cell));
    } catch {
      // A version may lack the fight: then it is not run.
      return 0;
    }
  });
  return { runs: of, work: of * Math.max(0, ...most) };
}

/** Fights that are looked at for what a run may cost: the cells of a brief are many. */
const MOST_PLANNED = 100;
