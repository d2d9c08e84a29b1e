/**
 * Which of many numbers move a measure most, from far fewer runs than turning them one at a time: all are turned at once, each a
 * tenth up or down by its own coin, and the measure is regressed on the coins. Points come in folded pairs (all coins turned
 * over) on the same seeds, so that what bends in both directions alike cancels. In the second half of the pairs the numbers that
 * are clear by then stand as they are written, so that they do not drown what is left. The sizes found are biased where numbers
 * act together: it ranks, and what it keeps is then measured by paired runs.
 *
 * Supersaturated and two-level designs: Box & Meyer 1986, Technometrics 28; folding over: Box & Wilson 1951.
 */
import { draw } from '../engine/time/chance';
import type { Project } from '../model/project';
import type { Statistic } from '../measures/measure';
import { quantileOf } from '../measures/quantile';
import type { Scenario } from '../analysis/scenario';
import { type AskedFight, type AskedRuns, runFights, thereOf } from './asking';
import { type Dial, standsAt, stepped, tenthOf, turnTo } from './dial';
import type { Objective } from './goal';
import { least } from './regression';
import type { Turn } from '../model/turn';

/** Points for each number, and pairs at least: fewer tell noise from numbers no more. */
export const POINTS_PER_DIAL = 4;
const LEAST_PAIRS = 16;
/** Runs of what is written, to know where its quantiles lie. */
export const BASE_RUNS = 100;

export interface Design {
  dials: readonly Dial[];
  /** The first pair of points, and how many there are. */
  first: number;
  pairs: number;
  /** Runs of each point. */
  runs: number;
}

/** Runs of each point at most: more points say more than more runs of one. */
const MOST_RUNS = 2;
/** Standard errors of a number from which it is clear that it moves the measure, and about how much. */
const CLEAR = 6;

/** The first half of a screening of so many runs in all, two points a pair: as many points as there is need of, then more runs of each. */
export function designFor(dials: readonly Dial[], runs: number): Design {
  const needed = Math.max(LEAST_PAIRS, Math.ceil((POINTS_PER_DIAL * dials.length) / 2));
  const half = runs / 2;
  const each = Math.max(1, Math.min(MOST_RUNS, Math.floor(half / (2 * needed))));
  return { dials, first: 0, runs: each, pairs: Math.max(needed, Math.floor(half / (2 * each))) };
}

/** The second half: what was clear in the first stands as it is written. */
export function secondDesign(design: Design, found: readonly Screened[]): Design {
  const clear = new Set(found.filter(({ clarity }) => clarity > CLEAR).map(({ dial }) => dial));
  return { ...design, dials: design.dials.filter((dial) => !clear.has(dial)), first: design.first + design.pairs };
}

/** Numbers of its pairs. */
export const pairsOfDesign = ({ first, pairs }: Design): number[] => Array.from({ length: pairs }, (_, i) => first + i);

/** Runs of both halves. */
export const runsOfScreening = ({ pairs, runs }: Design): number => 2 * 2 * pairs * runs;

/** What both halves say: of what was turned in both the mean, each by how sure it is. The clearest first. */
export function ofBoth(first: readonly Screened[], second: readonly Screened[]): Screened[] {
  const later = new Map(second.map((one) => [one.dial, one]));
  return first
    .map((one): Screened => {
      const other = later.get(one.dial);
      if (!other || !(one.error > 0 && other.error > 0)) return one;
      const [a, b] = [1 / one.error ** 2, 1 / other.error ** 2];
      return screened(one.dial, (one.size * a + other.size * b) / (a + b), 1 / Math.sqrt(a + b));
    })
    .sort((a, b) => b.clarity - a.clarity);
}

const screened = (dial: Dial, size: number, error: number): Screened => ({
  dial,
  size,
  error,
  clarity: error > 0 ? Math.abs(size) / error : 0,
});

/** ±1 for each dial in a pair of points; counter-based, so any pair can be made by anybody. */
export function coins({ dials }: Pick<Design, 'dials'>, pair: number): Int8Array {
  return Int8Array.from(dials, (_, dial) => (draw(pair, dial, 0, 0) < 0.5 ? -1 : 1));
}

/** What the two points of a pair came to: sums over their runs of what each aim counts, for each aim. */
export interface PairRan {
  pair: number;
  up: number[];
  down: number[];
}

/** One number as a screening found it. */
export interface Screened {
  dial: Dial;
  /** What turning it by a tenth up adds to what the aim counts: of a quantile the share of runs above today's. */
  size: number;
  /** Standard error of the size. */
  error: number;
  /** Its size in standard errors: what it is ranked by. */
  clarity: number;
}

/** A screening in the making: pairs may be run anywhere, in any order. */
export class Screening {
  private readonly edges: number[];
  /** Of each dial: where it stands, and what is a tenth of it. */
  private readonly stands: ({ now: number; by: number } | undefined)[];
  private readonly done = new Map<number, PairRan>();

  /**
   * @param aims of one cell
   * @param base runs of what is written, of the cell
   * @throws Error for what is not there
   */
  constructor(
    private readonly project: Project,
    private readonly scenario: Scenario,
    private readonly aims: readonly Objective[],
    readonly design: Design,
    base: Pick<AskedRuns, 'columns'>,
    private readonly firstSeed: number,
  ) {
    this.stands = design.dials.map((dial) => {
      const now = standsAt(project, dial);
      return now === undefined ? undefined : { now, by: Math.max(dial.step ?? 0, tenthOf(dial, now)) };
    });
    this.edges = aims.map(({ column, statistic }) => edgeOf(base.columns[column], statistic));
  }

  get left(): number {
    return this.design.pairs - this.done.size;
  }

  /** The two sides of a pair, to be run. */
  asksOf(pair: number): AskedFight[] {
    const { design, project, scenario, firstSeed } = this;
    return ([1, -1] as const).map((side) => ({
      project,
      cell: { ...scenario, turned: this.turnsAt(pair, side) },
      firstSeed: firstSeed + pair * design.runs,
      runs: design.runs,
      columns: this.aims.map(({ column }) => column),
    }));
  }

  /** What a pair came to, of what came of its two sides. */
  ranOf(pair: number, came: readonly AskedRuns[]): PairRan {
    const [up, down] = came.map(({ columns }) =>
      this.aims.map(({ column, statistic }, a) => {
        let sum = 0;
        for (const value of Array.from(columns[column] ?? [])) sum += counted(value, statistic, this.edges[a]);
        return sum / this.design.runs;
      }),
    );
    return { pair, up, down };
  }

  /** Runs one pair. */
  run(pair: number): PairRan {
    return this.ranOf(
      pair,
      this.asksOf(pair).map((ask) => thereOf(runFights(ask))),
    );
  }

  /** The turns of one side of a pair. */
  private turnsAt(pair: number, side: 1 | -1): Turn[] {
    const signs = coins(this.design, pair);
    return this.design.dials.flatMap((dial, i) => {
      const at = this.stands[i];
      if (!at) return [];
      const to = stepped(dial, at.now + side * signs[i] * at.by);
      return to === at.now ? [] : [turnTo(dial, to)];
    });
  }

  /** Takes in a pair that was run here or elsewhere. */
  add(ran: PairRan): void {
    this.done.set(ran.pair, ran);
  }

  /** What moves an objective, the clearest first; of as many pairs as have been run. */
  result(objective: number): Screened[] {
    return byClarity(this.design, [...this.done.values()], objective);
  }
}

/** Dials by how clearly they move an objective, of pairs in any order. */
export function byClarity(design: Pick<Design, 'dials'>, pairs: readonly PairRan[], objective: number): Screened[] {
  const ordered = [...pairs].sort((a, b) => a.pair - b.pair);
  const rows = ordered.map(({ pair }) => coins(design, pair));
  const values = ordered.map(({ up, down }) => (up[objective] - down[objective]) / 2);
  const { coefficients, errors } = least(rows, values);
  return design.dials.map((dial, i) => screened(dial, coefficients[i], errors[i])).sort((a, b) => b.clarity - a.clarity);
}

/** Where a quantile lies today: runs above it are counted, so that survivors count like any other and nothing jumps. */
function edgeOf(values: ArrayLike<number>, statistic: Statistic): number {
  if (statistic === 'share' || statistic === 'mean') return NaN;
  const own = Array.from(values)
    .filter((value) => value === value)
    .sort((a, b) => a - b);
  return own.length ? quantileOf(own, { median: 0.5, p10: 0.1, p90: 0.9 }[statistic]) : NaN;
}

function counted(value: number, statistic: Statistic, edge: number): number {
  if (value !== value) return 0;
  if (statistic === 'share') return value > 0 ? 1 : 0;
  if (statistic === 'mean') return Number.isFinite(value) ? value : 0;
  return value > edge ? 1 : value === edge ? 0.5 : 0;
}
