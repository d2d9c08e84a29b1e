/** Runs of versions of a project, by cell: each once, from the first seed on. */
import { Batch } from '../analysis/batch';
import type { Goal } from '../analysis/cells';
import { compileScenario, scenarioKey } from '../analysis/scenario';
import { type Sample, sampleOf } from '../measures/sample';
import type { Project } from '../model/project';
import type { Ran } from '../analysis/effect';

export class VersionRuns {
  private readonly known = new Map<Project, Map<string, Sample | undefined>>();
  private cells = 0;

  /**
   * @param runs of each cell
   * @param report is told how many cells have been run
   */
  constructor(
    private readonly runs: number,
    private readonly report: (cells: number) => void = () => undefined,
  ) {}

  /** What a version's runs of a goal's cell come to; undefined where it has no such fight, or nobody of whom it is measured. */
  ran(project: Project, { cell, column }: Pick<Goal, 'cell' | 'column'>): Ran | undefined {
    const own = this.known.get(project) ?? new Map<string, Sample | undefined>();
    this.known.set(project, own);
    const key = scenarioKey(cell);
    if (!own.has(key)) {
      own.set(key, this.sample(project, cell));
      this.report(++this.cells);
    }
    const sample = own.get(key);
    const values = sample?.columns[column];
    return sample && values && { digests: sample.digests, values };
  }

  private sample(project: Project, cell: Goal['cell']): Sample | undefined {
    let compiled;
    try {
      compiled = compileScenario(project, cell);
    } catch {
      return undefined;
    }
    const batch = new Batch(compiled, 1, this.runs);
    batch.advance(this.runs);
    return sampleOf(compiled, batch.rows);
  }
}
