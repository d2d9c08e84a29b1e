/** What a search has run, point by point, and how each stands to what is wanted. */
import type { Scenario } from '../../analysis/scenario';
import type { AskedRuns } from '../asking';
import { type Measured } from './model';
import type { DialPoint, FindProblem } from './problem';
import { type Response, outside, responseOf, wantedOn } from './response';

export interface Tried {
  at: number[];
  /** By goal, all values of this point. */
  values: number[][];
}

/** Standard errors of a proof on each side. */
export const Z = 1.96;

export class Tries {
  readonly wanted: { low: number; high: number }[];
  private readonly known = new Map<string, Tried>();

  /**
   * @param runs of a point that is tried by itself, by which goals without both edges are scaled; and of a proof
   */
  constructor(
    private readonly problem: FindProblem,
    private readonly runs: { try: number; proof: number },
  ) {
    this.wanted = problem.goals.map(wantedOn);
  }

  of(at: DialPoint): Tried | undefined {
    return this.known.get(at.join(' '));
  }

  all(): Tried[] {
    return [...this.known.values()];
  }

  keep(point: DialPoint, answers: readonly AskedRuns[]): void {
    const key = point.join(' ');
    const known = this.known.get(key) ?? { at: [...point], values: this.problem.goals.map(() => []) };
    this.problem.goals.forEach((_, g) => known.values[g].push(...this.valuesOf(g, answers)));
    this.known.set(key, known);
  }

  valuesOf(goal: number, answers: readonly AskedRuns[]): number[] {
    const { cell, column } = this.problem.goals[goal];
    const values = answers[this.problem.cells.indexOf(this.cellOf(cell))].columns[column];
    return values ? Array.from(values) : [];
  }

  /** Goals of one fight may each have it as an object of their own. */
  cellOf(cell: Scenario): Scenario {
    return (
      this.problem.cells.find((one) => one === cell) ?? this.problem.cells.find((one) => JSON.stringify(one) === JSON.stringify(cell))!
    );
  }

  responses({ values }: Tried): (Response | undefined)[] {
    return this.problem.goals.map((goal, g) => responseOf(goal, values[g], true));
  }

  measured(goal: number): Measured[] {
    return [...this.known.values()].flatMap(({ at, values }) => {
      const response = responseOf(this.problem.goals[goal], values[goal]);
      return response ? [{ at, response }] : [];
    });
  }

  /** How far outside of what is wanted a point lies, in halves of what is wanted; what has no value lies far outside. */
  outsideOf(tried: Tried): number {
    // By the logarithm: a goal that is so far off that it tells no way back (always won) does not drown the others.
    return this.responses(tried).reduce(
      (sum, response, g) => sum + (response ? Math.log1p(outside(this.wanted[g], response.y) / this.scaleOf(g, response)) : 2),
      0,
    );
  }

  /** The least room of any goal to an edge, in errors of a proof. */
  roomOf(tried: Tried): number {
    return Math.min(
      ...this.responses(tried).map((response, g) => {
        if (!response) return -Infinity;
        const { low, high } = this.wanted[g];
        const luck = Z * response.error * Math.sqrt(response.runs / this.runs.proof);
        // A goal so narrow that no proof has room in it asks for no more than there is.
        const most = Number.isFinite(high - low) ? (high - low) / 3 : Infinity;
        return Math.min(response.y - low, high - response.y) / Math.min(luck, most);
      }),
    );
  }

  scaleOf(goal: number, { error, runs }: Response): number {
    const { low, high } = this.wanted[goal];
    const own = error * Math.sqrt(runs / this.runs.try);
    return Number.isFinite(high - low) ? Math.max((high - low) / 2, own, 1e-6) : Math.max(2 * own, 1e-6);
  }
}
