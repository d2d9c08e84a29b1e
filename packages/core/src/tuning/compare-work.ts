/** Two versions, and which edit did it, as work in steps. */
import { scenarioKey } from '../analysis/scenario';
import type { Axes, Goal } from '../analysis/cells';
import type { Ran } from '../analysis/effect';
import type { Project } from '../model/project';
import type { AskedFight, AskedRuns, Asking, NoFight, WorkStep } from './asking';
import { type ComparedGoal, compared, goalsOfBoth, goalsToAsk, inOrder } from './flips';
import { type Edit, editsBetween } from './versions';
import { type EditRow, whichEdit } from './which-edit';

export interface Versions {
  before: Project;
  after: Project;
}

export interface ComparedVersions {
  /** Flips first, then what moved. */
  all: ComparedGoal[];
  /** Goals of which it was asked which edit moved them. */
  asked: Goal[];
  /** Absent: nobody asked. */
  rows?: EditRow[];
}

/** What has been run, by version and cell: each once. */
class VersionRuns {
  private readonly known = new Map<Project, Map<string, AskedRuns | NoFight>>();
  private ran = 0;
  /** Runs that are still expected besides those that are asked for. */
  expected = 0;

  constructor(private readonly runs: number) {}

  /** What is to be run for some goals of some versions that has not been. */
  *run(phase: string, versions: readonly Project[], goals: readonly Goal[]): Asking<void> {
    const columns = new Map<string, Set<string>>();
    for (const { cell, column } of goals) columns.set(scenarioKey(cell), (columns.get(scenarioKey(cell)) ?? new Set()).add(column));
    const cells = [...new Map(goals.map(({ cell }) => [scenarioKey(cell), cell]))];
    const asks = versions.flatMap((project) =>
      cells.flatMap(([key, cell]): AskedFight[] =>
        this.known.get(project)?.has(key) ? [] : [{ project, cell, firstSeed: 1, runs: this.runs, columns: [...columns.get(key)!] }],
      ),
    );
    if (!asks.length) return;
    this.ran += asks.length * this.runs;
    const step: WorkStep = { phase, asks, runs: this.ran, of: Math.max(this.ran, this.expected) };
    const came = yield step;
    asks.forEach(({ project, cell }, i) => {
      const own = this.known.get(project) ?? new Map<string, AskedRuns | NoFight>();
      this.known.set(project, own.set(scenarioKey(cell), came[i]));
    });
  }

  /** What a version's runs of a goal's cell come to; undefined where it has no such fight, or nobody of whom it is measured. */
  readonly of = (project: Project, { cell, column }: Goal): Ran | undefined => {
    const found = this.known.get(project)?.get(scenarioKey(cell));
    const values = found && 'columns' in found ? found.columns[column] : undefined;
    return values && { digests: (found as AskedRuns).digests, values };
  };
}

const cellsIn = (goals: readonly Goal[]): number => new Set(goals.map(({ cell }) => scenarioKey(cell))).size;

/**
 * Every goal of both versions; then, where it is asked, each edit put in alone and taken out alone.
 * @param told of the goals as soon as they are known
 */
export function* compareWork(
  versions: Versions,
  { runs, axes = {}, byEdit = false }: { runs: number; axes?: Axes; byEdit?: boolean },
  told: (all: readonly ComparedGoal[]) => void = () => undefined,
): Asking<ComparedVersions> {
  const { before, after } = versions;
  const goals = goalsOfBoth(before, after, axes);
  const known = new VersionRuns(runs);
  const of = goals.map(({ goal }) => goal);
  known.expected = 2 * cellsIn(of) * runs;
  yield* known.run('goals', [before, after], of);
  const all = inOrder(compared(goals, (version, goal) => known.of(versions[version], goal)));
  told(all);
  const asked = goalsToAsk(all);
  if (!byEdit) return { all, asked };
  const edits: Edit[] = asked.length ? editsBetween(before, after) : [];
  known.expected += 2 * edits.length * cellsIn(asked) * runs;
  // An edit a step: its versions are let go of before the next.
  for (const { putIn, takenOut } of edits) yield* known.run('edits', [putIn, takenOut], asked);
  return { all, asked, rows: whichEdit(versions, edits, asked, known.of) };
}
