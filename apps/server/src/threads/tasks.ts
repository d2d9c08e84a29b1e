/** What is done in worker threads, so that the thread which answers is always free to. Each export is one kind of task. */
import {
  type AskedFight,
  type AskedRuns,
  Batch,
  type BatchSummary,
  CURVES,
  type Scenario,
  type Compiled,
  Curves,
  InvalidDocument,
  PatchError,
  type PatchOperation,
  type Problem,
  type Project,
  type Sample,
  applyPatch,
  batchIdentity,
  scenarioOf,
  compileScenario,
  difference,
  type NoFight,
  parseProject,
  plannedWork,
  runFights,
  sampleOf,
} from '@insidia/core';
import { setPriority } from 'node:os';
import { type JobSource, jobPlan as planned } from '../jobs/work';
import { calibration, usualFight } from './pace';

/** Runs after which the compiler has seen what there is. */
const WARMING = 100;

/** What makes a thread give way to others: readouts before batches. */
const GIVES_WAY = 10;

/** A refusal crosses threads as data: classes don't. */
export type Checked<T> = { value: T } | { problems: Problem[] } | { patch: string };

function checked<T>(make: () => T): Checked<T> {
  try {
    return { value: make() };
  } catch (error) {
    if (error instanceof InvalidDocument) return { problems: error.problems };
    if (error instanceof PatchError) return { patch: error.message };
    throw error;
  }
}

export function parse(input: unknown): Checked<Project> {
  return checked(() => parseProject(input));
}

/** A document after a patch, and what is different. */
export function change({
  before,
  operations,
  input,
}: {
  before: Project;
  operations?: PatchOperation[];
  input?: unknown;
}): Checked<{ document: Project; patch: PatchOperation[] }> {
  return checked(() => {
    let after = input;
    if (operations) {
      after = structuredClone(before);
      applyPatch(after as Project, operations);
    }
    const document = parseProject(after);
    return { document, patch: difference(before, document) };
  });
}

export interface Setup {
  document: Project;
  scenario: Scenario;
}

/** What one run may cost, in steps of units; why it can't be run. */
export function plan({ document, scenario }: Setup): { work: number } | { trouble: string } {
  try {
    return { work: plannedWork(compileScenario(document, scenario)) };
  } catch (error) {
    return { trouble: (error as Error).message };
  }
}

/** What each of some cells would be run as, and what one run of it may cost; why one can't be run. */
export function identify({
  document,
  cells,
  shardRuns,
}: {
  document: Project;
  cells: readonly string[];
  shardRuns: number;
}): ({ batch: string; work: number } | { trouble: string })[] {
  return cells.map((cell) => {
    try {
      const compiled = compileScenario(document, scenarioOf(cell));
      return { batch: batchIdentity(compiled, 1, shardRuns), work: plannedWork(compiled) };
    } catch (error) {
      return { trouble: (error as Error).message };
    }
  });
}

/** What was run, and how long it took. */
export interface Spent {
  /** Steps of units that were reckoned with: what fights come to is less, about as much less in most. */
  work: number;
  ms: number;
}

export function simulate({ document, scenario, seed, runs }: Setup & { seed: number; runs: number }): { summary: BatchSummary } & Spent {
  const began = performance.now();
  const compiled = compileScenario(document, scenario);
  const batch = new Batch(compiled, seed, runs);
  batch.advance(runs);
  return { summary: batch.summary(), work: plannedWork(compiled) * runs, ms: performance.now() - began };
}

export interface ShardTask {
  compiled: Compiled;
  firstSeed: number;
  runs: number;
}

export interface ShardResult extends Spent {
  sample: Sample;
  /** What is kept over the clock, one curve after the other in the core's order; of each a row a run, of each row a value a bin. */
  curves: Float32Array;
}

export function shard({ compiled, firstSeed, runs }: ShardTask): ShardResult {
  giveWay();
  const began = performance.now();
  const curves = new Curves(compiled);
  const batch = new Batch(compiled, firstSeed, runs, curves.watch, (run) => curves.add(run));
  batch.advance(runs);
  const bins = curves.times.length;
  const all = new Float32Array(CURVES.length * runs * bins);
  CURVES.forEach((name, c) => curves.rows[name].forEach((row, i) => all.set(row, (c * runs + i) * bins)));
  return { sample: sampleOf(compiled, batch.rows), curves: all, work: plannedWork(compiled) * runs, ms: performance.now() - began };
}

/** What a part of a job's step asks for. */
export function fights(asks: readonly AskedFight[]): (AskedRuns | NoFight)[] {
  giveWay();
  return asks.map(runFights);
}

/** What a job may come to; why it can't be begun. */
export function jobPlan(source: JobSource): { runs: number; work: number } | { trouble: string } {
  try {
    return planned(source);
  } catch (error) {
    return { trouble: (error as Error).message };
  }
}

export function compiledScenario({ document, scenario }: Setup): Compiled {
  return compileScenario(document, scenario);
}

/** Runs until the compiler has seen what shards are made of. */
export function warm(): void {
  shard({ compiled: usualFight(), firstSeed: 1, runs: WARMING });
}

export function calibrate(): Spent {
  return calibration();
}

let gaveWay = false;

function giveWay(): void {
  if (gaveWay) return;
  gaveWay = true;
  // Of this thread alone, where the system tells threads apart; where it may not be, nothing is lost.
  try {
    setPriority(0, GIVES_WAY);
  } catch {
    /* as before */
  }
}
