/** What a search has run, point by point, and how each stands to what is wanted. */
import type { Scenario } from '../../analysis/scenario';
import type { AskedRuns } from '../asking';
import { type Measured, spread } from './model';
import type { DialPoint, FindProblem } from './problem';
import { type Reading, type Response, edgeReadings, outside, wholeReading } from './response';

export interface Tried {
  at: number[];
  /** By goal, all values of this point. */
  values: number[][];
}

/** By the values of a point: what they came to when there were so many of them. */
type Responses = Map<readonly number[], { runs: number; response: Response | undefined }>;

/** Log odds from which a quantile is far from an edge: eleven runs in twelve on the wrong side. */
const FAR = 2.4;

/** Standard errors of a proof on each side. */
export const Z = 1.96;

/** Scales outside from which the logarithm counts. */
const NEAR = 2;

/** How much it counts to be so far outside. */
export const farness = (scales: number): number => (scales <= NEAR ? scales : NEAR + Math.log1p(scales - NEAR));

export class Tries {
  /** By goal: as it is, and by its edges. */
  private readonly wholes: Reading[];
  private readonly edges: Reading[][];
  private readonly known = new Map<string, Tried>();
  private readonly responses = { exact: new Map<Reading, Responses>(), smooth: new Map<Reading, Responses>() };

  /**
   * @param runs of a point that is tried by itself, by which goals without both edges are scaled; and of a proof
   */
  constructor(
    private readonly problem: FindProblem,
    private readonly runs: { try: number; proof: number },
  ) {
    this.wholes = problem.goals.map(wholeReading);
    this.edges = problem.goals.map(edgeReadings);
  }

  of(at: DialPoint): Tried | undefined {
    return this.known.get(at.join(' '));
  }

  all(): Tried[] {
    return [...this.known.values()];
  }

  keep(point: DialPoint, answers: readonly AskedRuns[]): void {
    this.keepValues(
      point,
      this.problem.goals.map((_, g) => this.valuesOf(g, answers)),
    );
  }

  /** @param values by goal */
  keepValues(point: DialPoint, values: readonly (readonly number[])[]): void {
    const key = point.join(' ');
    const known = this.known.get(key) ?? { at: [...point], values: this.problem.goals.map(() => []) };
    values.forEach((own, g) => known.values[g].push(...own));
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

  measured(reading: Reading): Measured[] {
    return [...this.known.values()].flatMap(({ at, values }) => {
      const response = this.response(reading, values[reading.goal], false);
      return response ? [{ at, response }] : [];
    });
  }

  /** What a point's runs come to; looked at again only once there are more of them. */
  private response(reading: Reading, values: readonly number[], exact: boolean): Response | undefined {
    const known = this.responses[exact ? 'exact' : 'smooth'];
    const own = known.get(reading) ?? (new Map() as Responses);
    known.set(reading, own);
    const before = own.get(values);
    if (before?.runs === values.length) return before.response;
    const response = reading.of(values, exact);
    own.set(values, { runs: values.length, response });
    return response;
  }

  /** By its edges; @param near of a quantile: what lies there, for one that lies far from what is wanted is read as it is */
  readings(goal: number, near?: Tried): readonly Reading[] {
    const own = this.edges[goal];
    const far =
      near !== undefined && own.some((reading) => outside(reading, this.response(reading, near.values[goal], true)?.y ?? 0) > FAR);
    return far ? [this.wholes[goal]] : own;
  }

  /** Whether a point's runs have a goal, by itself. */
  has(goal: number, { values }: Tried): boolean {
    return this.edges[goal].every((reading) => {
      const response = reading.of(values[goal], true);
      return response !== undefined && outside(reading, response.y) === 0;
    });
  }

  /** Of the points that were run the one nearest to a place. */
  nearest(middle: DialPoint): Tried | undefined {
    let best: { tried: Tried; far: number } | undefined;
    for (const tried of this.known.values()) {
      const far = spread(tried.at, middle);
      if (!best || far < best.far) best = { tried, far };
    }
    return best?.tried;
  }

  /** How far outside of what is wanted a point lies, in what its runs may err by; what has no value lies far outside. */
  outsideOf({ values }: Tried): number {
    // Far off by the logarithm: a goal that tells no way back (always won) does not drown the others. Near by, one for one: else what
    // is inside already would bar the way of what is not.
    // Quantiles in both ways: far away all runs lie on one side of an edge, and nothing would tell which point is nearer.
    const quantiles = this.wholes.filter(({ goal }) => !['share', 'mean'].includes(this.problem.goals[goal].statistic));
    return [...this.edges.flat(), ...quantiles].reduce((sum, reading) => {
      const response = this.response(reading, values[reading.goal], true);
      return sum + (response ? farness(outside(reading, response.y) / this.scaleOf(reading, response)) : 2);
    }, 0);
  }

  /** The least room of any goal to an edge, in errors of a proof. */
  roomOf({ values }: Tried): number {
    return Math.min(
      ...this.edges.flat().map((reading) => {
        const response = this.response(reading, values[reading.goal], true);
        if (!response) return -Infinity;
        const { low, high } = reading;
        const luck = Z * response.error * Math.sqrt(response.runs / this.runs.proof);
        return Math.min(response.y - low, high - response.y) / Math.min(luck, this.mostRoom(reading, { values }));
      }),
    );
  }

  /** A goal so narrow that no proof has room in it asks for no more than there is: a third of it. */
  mostRoom({ goal, low, high }: Reading, { values }: Pick<Tried, 'values'>): number {
    if (Number.isFinite(high - low)) return (high - low) / 3;
    const [below, above] = this.edges[goal].map((each) => this.response(each, values[goal], true));
    return below && above && this.edges[goal].length === 2 ? Math.max(1e-6, (above.y - below.y) / 3) : Infinity;
  }

  scaleOf({ low, high }: Reading, { error, runs }: Response): number {
    const own = error * Math.sqrt(runs / this.runs.try);
    return Number.isFinite(high - low) ? Math.max((high - low) / 2, own, 1e-6) : Math.max(2 * own, 1e-6);
  }
}
