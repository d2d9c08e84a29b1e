/** What moves it, as work in steps: of dials that are given, or of the strongest of all, found by a screening and measured by paired runs. */
import { type Scenario, scenarioKey } from '../analysis/scenario';
import { compileScenario } from '../analysis/compile-scenario';
import type { Ran } from '../analysis/effect';
import type { Project } from '../model/project';
import { type AskedFight, type AskedRuns, type Asking, type WorkStep, thereOf } from './asking';
import type { Dial } from './dial';
import { numbersOf } from './dials-of-fight';
import { type Objective, cellsOf } from './goal';
import { type Moves, byStrength, cellsOfMoves, movesOf, nudges } from './moves';
import { PAIRED, type Together, cellsOfPairs, pairsOf, togetherOf } from './pairs';
import {
  BASE_RUNS,
  type Design,
  type Screened,
  Screening,
  designFor,
  ofBoth,
  pairsOfDesign,
  runsOfScreening,
  secondDesign,
} from './screening';

export interface MovesRequest {
  /** The fight whose numbers are screened; what is asked for may be of others too. */
  cell: Scenario;
  objectives: readonly Objective[];
  /** Absent: the strongest of all. */
  dials?: readonly Dial[];
  /** Of each value. */
  runs: number;
  firstSeed: number;
  /** Without dials: how many to name, and runs in which all are turned at once. */
  strongest: number;
  screen: number;
  /** Also what the first ones do by twos. */
  pairs: boolean;
}

export interface MovesFound {
  moved: Moves[];
  stuck: Dial[];
  together: Together[];
  /** Numbers that a screening kept, of which the strongest are told; absent: dials were given. */
  measured?: number;
}

/** Numbers that are measured by paired runs for each that is to be named: the order of a screening is not sure. */
const KEPT = 1.6;
/** Between the first seed that is shown and the first of a screening. */
export const SCREENING_SEEDS = 1_000_000;
/** Runs of a screening that are asked for in one step. */
const STEP_RUNS = 1000;

/** @throws Error for what is not there */
export function* movesWork(project: Project, request: MovesRequest): Asking<MovesFound> {
  const { objectives, runs, firstSeed, strongest, pairs } = request;
  const columns = [...new Set(objectives.map(({ column }) => column))];
  const spent = { runs: 0, of: 0 };
  const step = (phase: string, asks: readonly AskedFight[]): WorkStep => {
    spent.runs += asks.reduce((sum, one) => sum + one.runs, 0);
    return { phase, asks, runs: spent.runs, of: Math.max(spent.of, spent.runs) };
  };
  const fight = (cell: Scenario): AskedFight => ({ project, cell, columns, firstSeed, runs });
  const paired = (kept: number) => (1 + kept + (pairs ? (PAIRED * (PAIRED - 1)) / 2 : 0)) * cellsOf(objectives).length * runs;

  let dials = request.dials;
  if (!dials) {
    const { cell, screen } = request;
    const compiled = compileScenario(project, cell);
    const design = designFor(numbersOf(project, compiled, cell.kind === 'encounter' ? cell.id : undefined), screen);
    const kept = Math.ceil(strongest * KEPT);
    spent.of = BASE_RUNS + runsOfScreening(design) + paired(kept);
    const [base] = yield step('screening', [{ ...fight(cell), runs: BASE_RUNS }]);
    const each = Math.max(1, Math.floor(STEP_RUNS / (2 * design.runs)));
    const half = function* (own: Design): Asking<Screened[]> {
      const screening = new Screening(project, cell, objectives, own, thereOf(base), firstSeed + SCREENING_SEEDS);
      const pairs = pairsOfDesign(own);
      for (let done = 0; done < pairs.length; done += each) {
        const some = pairs.slice(done, done + each);
        const came = yield step(
          'screening',
          some.flatMap((one) => screening.asksOf(one)),
        );
        some.forEach((one, i) => screening.add(screening.ranOf(one, came.slice(2 * i, 2 * i + 2).map(thereOf))));
      }
      return screening.result(0);
    };
    const first = yield* half(design);
    const second = yield* half(secondDesign(design, first));
    dials = ofBoth(first, second)
      .slice(0, kept)
      .map(({ dial }) => dial);
  } else spent.of = paired(dials.length);

  const known = new Map<string, AskedRuns>();
  const ran = (cell: Scenario, { column }: Objective): Ran | undefined => {
    const found = known.get(scenarioKey(cell));
    return found && { digests: found.digests, values: found.columns[column] };
  };
  const take = (cells: readonly Scenario[], came: readonly Parameters<typeof thereOf>[0][]) =>
    cells.forEach((cell, i) => known.set(scenarioKey(cell), thereOf(came[i])));
  const { turned, stuck } = nudges(project, dials);
  const cells = [...new Map(cellsOfMoves(objectives, turned).map((cell) => [scenarioKey(cell), cell])).values()];
  take(cells, yield step('numbers', cells.map(fight)));
  const moved = movesOf(objectives, turned, ran);
  const told = request.dials ? moved : byStrength(moved, 0).slice(0, strongest);
  const twos = pairs ? pairsOf(told.slice(0, PAIRED)) : [];
  if (twos.length) {
    const both = cellsOfPairs(objectives, twos);
    take(both, yield step('pairs', both.map(fight)));
  }
  return {
    moved: told,
    stuck,
    together: togetherOf(objectives, twos, ran),
    ...(!request.dials && { measured: dials.length }),
  };
}
