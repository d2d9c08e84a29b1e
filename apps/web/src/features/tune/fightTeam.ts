/** Workers that run what a search asks for: parts of a step, by whoever is free; what came of them in the order of the step. */
import { type AskedFight, type AskedRuns, type NoFight, type Part, type Project, joined, partsOf } from '@insidia/core';
import type { RunnerAnswer, RunnerRequest } from './fightRunner';
import FightRunner from './fightRunner.ts?worker';

export class FightTeam {
  private readonly workers: Worker[];
  private asks: readonly AskedFight[] = [];
  private parts: Part[] = [];
  private next = 0;
  private left = 0;
  private came: (AskedRuns | NoFight)[][] = [];
  private done: (came: (AskedRuns | NoFight)[]) => void = () => undefined;
  private failed: (error: Error) => void = () => undefined;

  constructor(project: Project, threads: number) {
    this.workers = Array.from({ length: threads }, () => {
      const worker = new FightRunner();
      worker.onmessage = ({ data }: MessageEvent<RunnerAnswer>) => this.taken(worker, data);
      const first: RunnerRequest = { project };
      worker.postMessage(first);
      return worker;
    });
  }

  /** One step at a time. */
  run(asks: readonly AskedFight[]): Promise<(AskedRuns | NoFight)[]> {
    this.asks = asks;
    this.parts = partsOf(asks);
    this.next = 0;
    this.left = this.parts.length;
    this.came = [];
    return new Promise((done, failed) => {
      this.done = done;
      this.failed = failed;
      for (const worker of this.workers) this.feed(worker);
    });
  }

  close(): void {
    for (const worker of this.workers) worker.terminate();
  }

  private feed(worker: Worker): void {
    const part = this.next++;
    if (part >= this.parts.length) return;
    const request: RunnerRequest = { part, asks: this.parts[part].asks.map(({ project: _, ...ask }) => ask) };
    worker.postMessage(request);
  }

  private taken(worker: Worker, answer: RunnerAnswer): void {
    if ('failure' in answer) {
      this.close();
      this.failed(new Error(answer.failure));
      return;
    }
    this.came[answer.part] = answer.came;
    this.feed(worker);
    if (--this.left === 0) this.done(joined(this.asks, this.parts, this.came));
  }
}
