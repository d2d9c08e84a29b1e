/**
 * Work that asks for fights and goes on with what came of them: a generator of steps. Whoever runs it (the command line, threads
 * of a server) may run what a step asks for anywhere and in any order; the answers, in the order of the step, are all that comes
 * in. So the same work leads to the same bits on one thread or many, and is gone on with after a crash by handing back what was
 * answered before.
 */
import { Runner } from '../engine/run';
import { rowOf } from '../measures/row';
import { sampleOf } from '../measures/sample';
import type { Scenario } from '../analysis/scenario';
import { compileScenario } from '../analysis/compile-scenario';
import type { Project } from '../model/project';

/** A fight from a seed on. */
export interface Ask {
  cell: Scenario;
  firstSeed: number;
  runs: number;
}

/** The same of a version of a project, and which columns of it are read. */
export interface AskedFight extends Ask {
  project: Project;
  columns: readonly string[];
}

/** What came of an ask, one a run, by column; a column that the fight has not is not there. */
export interface AskedRuns {
  digests: ArrayLike<string | number>;
  columns: Readonly<Record<string, ArrayLike<number>>>;
}

/** Why a fight can't be run: a version may lack it. */
export interface NoFight {
  trouble: string;
}

export interface WorkStep {
  asks: readonly AskedFight[];
  /** Runs of all steps until now, this one among them, and as many as there will be at most. */
  runs: number;
  of: number;
  /** What it is about: of a search also how far it is. */
  phase: string;
  /** How far the best of a search lies outside of what is wanted, in halves of it; and how many proposals it has. */
  outside?: number;
  found?: number;
}

/** Work in steps, that comes to a T. */
export type Asking<T> = Generator<WorkStep, T, readonly (AskedRuns | NoFight)[]>;

/** Runs what is asked, here and now. */
export function runFights({ project, cell, firstSeed, runs, columns }: AskedFight): AskedRuns | NoFight {
  let compiled;
  try {
    compiled = compileScenario(project, cell);
  } catch (error) {
    return { trouble: (error as Error).message };
  }
  const runner = new Runner(compiled);
  const rows = Array.from({ length: runs }, (_, i) => rowOf({ compiled, run: runner.run(firstSeed + i) }));
  const sample = sampleOf(compiled, rows);
  const read = columns.flatMap((name) => (sample.columns[name] ? [[name, Array.from(sample.columns[name])]] : []));
  return { digests: Array.from(sample.digests), columns: Object.fromEntries(read) as Record<string, number[]> };
}

/** Does work from its beginning to its end. @param report told after each fight, with the runs until then */
export function workThrough<T>(work: Asking<T>, report: (step: Omit<WorkStep, 'asks'>) => void = () => undefined): T {
  let step = work.next();
  while (!step.done) {
    const { asks, ...told } = step.value;
    let left = asks.reduce((sum, { runs }) => sum + runs, 0);
    const came = asks.map((ask) => {
      const found = runFights(ask);
      left -= ask.runs;
      report({ ...told, runs: told.runs - left });
      return found;
    });
    step = work.next(came);
  }
  return step.value;
}

/** Seeds of a part: few enough that all who take parts end together, and that little is lost with one. */
export const PART_RUNS = 50;

/** One or more asks to be run in one go, and whose they are parts of. */
export interface Part {
  asks: AskedFight[];
  /** Of each the place of what it is a part of among the asks of its step. */
  of: number[];
}

/** A step in parts of about as many runs: long asks by their seeds, short ones put together. */
export function partsOf(asks: readonly AskedFight[]): Part[] {
  const parts: Part[] = [];
  let open: Part | undefined;
  let left = 0;
  asks.forEach((ask, place) => {
    for (let done = 0; done < ask.runs; done += PART_RUNS) {
      const runs = Math.min(PART_RUNS, ask.runs - done);
      if (!open || runs > left) {
        open = { asks: [], of: [] };
        left = PART_RUNS;
        parts.push(open);
      }
      open.asks.push({ ...ask, firstSeed: ask.firstSeed + done, runs });
      open.of.push(place);
      left -= runs;
    }
  });
  return parts;
}

/** Back: what came of parts, as if each ask had been run in one go. */
export function joined(asks: readonly AskedFight[], parts: readonly Part[], came: readonly (readonly (AskedRuns | NoFight)[])[]) {
  const own = asks.map((): (AskedRuns | NoFight)[] => []);
  parts.forEach(({ of }, p) => of.forEach((place, i) => own[place].push(came[p][i])));
  return own.map((list): AskedRuns | NoFight => {
    const [first] = list;
    if (list.length === 1 || 'trouble' in first) return first;
    const all = list as AskedRuns[];
    return {
      digests: all.flatMap(({ digests }) => Array.from<string | number>(digests)),
      columns: Object.fromEntries(
        Object.keys(first.columns).map((name) => [name, all.flatMap(({ columns }) => Array.from(columns[name]))]),
      ),
    };
  });
}

/** What came of what must be there. @throws Error with why it is not */
export function thereOf(came: AskedRuns | NoFight): AskedRuns {
  if ('trouble' in came) throw new Error(came.trouble);
  return came;
}
