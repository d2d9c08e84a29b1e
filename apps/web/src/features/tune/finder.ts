/** A search off the page's thread: what it asks for is shared out to runners; what came of it is put together in its order. */
import {
  type Ask,
  type AskedRuns,
  type Dial,
  FindSearch,
  type FindProgress,
  type Objective,
  type Preferred,
  type Project,
  type Proposal,
  type Why,
  findProblem,
  whyNot,
} from '@insidia/core';
import type { RunnerAnswer, RunnerRequest } from './findRunner';

export type FinderRequest =
  { project: Project; objectives: Objective[]; dials: Dial[]; prefer: Preferred; budget: number; threads: number } | 'pause' | 'goOn';

export type FinderAnswer =
  { progress: FindProgress; proposals: Proposal[]; paused: boolean; unmoving: number[]; why?: Why } | { failure: string };

/** Seeds of a part: small enough that all runners end together. */
const PART = 50;

const send = (answer: FinderAnswer) => postMessage(answer);

let search: FindSearch | undefined;
let runners: Worker[] = [];
let paused = false;
let columns: string[] = [];

/** Parts of a round that are not begun, by whoever is free. */
interface Part {
  id: number;
  ask: Ask;
}
let parts: Part[] = [];
let waiting = 0;
let came: (Extract<RunnerAnswer, { id: number }> | undefined)[] = [];
let asks: readonly Ask[] = [];

const tell = () => {
  if (!search) return;
  const { progress, proposals, unmoving } = search;
  const over = progress.phase === 'done' && proposals.length === 0;
  send({ progress, proposals, paused, unmoving: [...unmoving], ...(over && { why: whyNot(search) }) });
};

function partsOf({ cell, firstSeed, runs }: Ask): Ask[] {
  return Array.from({ length: Math.ceil(runs / PART) }, (_, i) => ({
    cell,
    firstSeed: firstSeed + i * PART,
    runs: Math.min(PART, runs - i * PART),
  }));
}

function round(): void {
  if (!search || paused) return;
  asks = search.asks();
  const all = asks.flatMap(partsOf);
  if (!all.length) {
    for (const runner of runners) runner.terminate();
    return;
  }
  parts = all.map((ask, id) => ({ id, ask }));
  waiting = parts.length;
  came = [];
  for (const runner of runners) feed(runner);
}

function feed(runner: Worker): void {
  const next = parts.shift();
  if (!next) return;
  const request: RunnerRequest = { id: next.id, ...next.ask, columns };
  runner.postMessage(request);
}

function taken(runner: Worker, answer: RunnerAnswer): void {
  if ('failure' in answer) {
    for (const one of runners) one.terminate();
    search = undefined;
    send(answer);
    return;
  }
  came[answer.id] = answer;
  feed(runner);
  if (--waiting > 0 || !search) return;
  let next = 0;
  search.take(
    asks.map((ask): AskedRuns => {
      const own = partsOf(ask).map(() => came[next++]!);
      return {
        digests: own.flatMap(({ digests }) => digests),
        columns: Object.fromEntries(columns.map((name) => [name, own.flatMap((one) => one.columns[name])])),
      };
    }),
  );
  tell();
  round();
}

onmessage = ({ data }: MessageEvent<FinderRequest>) => {
  if (data === 'pause') {
    paused = true;
    tell();
    return;
  }
  if (data === 'goOn') {
    paused = false;
    tell();
    if (waiting === 0) round();
    return;
  }
  try {
    const { project, objectives, dials, prefer, budget, threads } = data;
    search = new FindSearch(findProblem(project, objectives, dials, { prefer, budget }));
    columns = [...new Set(search.problem.goals.map(({ column }) => column))];
    runners = Array.from({ length: threads }, () => {
      const runner = new Worker(new URL('./findRunner.ts', import.meta.url), { type: 'module' });
      runner.onmessage = ({ data: answer }: MessageEvent<RunnerAnswer>) => taken(runner, answer);
      const begin: RunnerRequest = { project };
      runner.postMessage(begin);
      return runner;
    });
    tell();
    round();
  } catch (error) {
    send({ failure: (error as Error).message });
  }
};
