/**
 * Threads for all that takes time. Checking documents has threads of its own, so have fights that are soon over and fights
 * that are not: however much somebody asks for, what is quick finds a thread. Within each, clients take turns.
 */
import { InvalidDocument, type PatchOperation, type Project } from '@insidia/core';
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import type { Piscina } from 'piscina';
import { badPatch, tooManyAtOnce } from '../problem';
import { settings } from '../settings';
import { paced, secondsFor } from './pace';
import { poolOf } from './pool';
import type * as tasks from './tasks';
import { Turns } from './turns';

type Tasks = typeof tasks;
type Task = {
  [K in keyof Tasks]: Tasks[K] extends (...of: never[]) => unknown ? K : never;
}[keyof Tasks];

/** Steps of units up to which fights count as soon over: some seconds. */
export const QUICK_WORK = 10_000_000;
/** Fights that one client may have waiting or running, quick ones and others. */
export const MOST_AT_ONCE = 24;

/** Why something was stopped before its end: whoever asked has gone, or what it is about. */
export class Stopped extends Error {}

interface Waiting {
  client: string;
  project?: string;
  begin: () => void;
  stop: AbortController;
}

class Lane {
  private readonly turns = new Turns<Waiting>();
  private readonly running = new Set<Waiting>();
  private readonly pool: Piscina;

  constructor(
    private readonly threads: number,
    private readonly most = Infinity,
  ) {
    this.pool = poolOf('tasks', threads);
  }

  /** @throws Stopped, ProblemError */
  run<K extends Task>(
    name: K,
    input: Parameters<Tasks[K]>[0],
    { client, project, signal }: { client: string; project?: string; signal?: AbortSignal },
  ): Promise<ReturnType<Tasks[K]>> {
    const own = [...this.running].filter((one) => one.client === client).length + this.turns.waiting(client);
    if (own >= this.most) throw tooManyAtOnce(`${own} requests of yours wait or run already, which is all that may: wait for one`);
    return new Promise((done, fail) => {
      const waiting: Waiting = {
        client,
        project,
        stop: new AbortController(),
        begin: () => {
          this.running.add(waiting);
          this.pool
            .run(input, { name, signal: waiting.stop.signal })
            .then(done, (error: Error) => fail(waiting.stop.signal.aborted ? new Stopped('stopped') : error))
            .finally(() => {
              this.running.delete(waiting);
              this.next();
            });
        },
      };
      const stop = () => {
        this.turns.drop(waiting);
        waiting.stop.abort();
        fail(new Stopped('stopped'));
      };
      waiting.stop.signal.addEventListener('abort', stop, { once: true });
      if (signal?.aborted) return stop();
      signal?.addEventListener('abort', stop, { once: true });
      this.turns.add(client, waiting);
      this.next();
    });
  }

  private next(): void {
    while (this.running.size < this.threads) {
      const waiting = this.turns.next();
      if (!waiting) return;
      waiting.begin();
    }
  }

  stopProject(project: string): void {
    for (const one of this.running) if (one.project === project) one.stop.abort();
    this.turns.forEach((one) => one.project === project && one.stop.abort());
  }

  close(): Promise<void> {
    return this.pool.destroy();
  }
}

@Injectable()
export class Workers implements OnApplicationShutdown {
  private readonly threads = settings().threads;
  /** Never refused: a save may have to wait, not more. */
  private readonly checks = new Lane(2);
  private readonly quick = new Lane(Math.max(2, this.threads), MOST_AT_ONCE);
  private readonly slow = new Lane(Math.max(2, this.threads), MOST_AT_ONCE);

  /** @throws InvalidDocument */
  async parse(input: unknown, client: string): Promise<Project> {
    return valueOf(await this.checks.run('parse', input, { client }));
  }

  /** @throws InvalidDocument, ProblemError for a patch that does not fit */
  async change(before: Project, to: { operations?: PatchOperation[]; input?: unknown }, client: string) {
    return valueOf(await this.checks.run('change', { before, ...to }, { client }));
  }

  plan(setup: tasks.Setup, client: string) {
    return this.checks.run('plan', setup, { client });
  }

  identify(task: Parameters<Tasks['identify']>[0], client: string) {
    return this.checks.run('identify', task, { client });
  }

  jobPlan(task: Parameters<Tasks['jobPlan']>[0], client: string) {
    return this.quick.run('jobPlan', task, { client });
  }

  compiledScenario(task: Parameters<Tasks['compiledScenario']>[0], client: string) {
    return this.checks.run('compiledScenario', task, { client });
  }

  async simulate(
    task: Parameters<Tasks['simulate']>[0],
    { work, ...from }: { work: number; client: string; project: string; signal: AbortSignal },
  ) {
    const lane = work <= QUICK_WORK ? this.quick : this.slow;
    const { summary, ...spent } = await lane.run('simulate', task, from);
    paced(spent.work, spent.ms);
    return summary;
  }

  /** s that so much takes here, as far as is known. */
  async seconds(work: number): Promise<number> {
    if (secondsFor(work, 1) === undefined) {
      const { work: done, ms } = await this.quick.run('calibrate', undefined as never, { client: 'calibration' });
      paced(done, ms);
    }
    return secondsFor(work, this.threads)!;
  }

  /** Stops what is run or waits for a project that is gone. */
  stopProject(project: string): void {
    for (const lane of [this.quick, this.slow]) lane.stopProject(project);
  }

  async onApplicationShutdown(): Promise<void> {
    await Promise.all([this.checks, this.quick, this.slow].map((lane) => lane.close()));
  }
}

function valueOf<T>(checked: tasks.Checked<T>): T {
  if ('problems' in checked) throw new InvalidDocument(checked.problems);
  if ('patch' in checked) throw badPatch(checked.patch);
  return checked.value;
}
