/** Takes jobs and has them run: one thread thinks, the others fight. What has been answered is kept, so that whoever comes next goes on with it. */
import type { AskedRuns, NoFight } from '@insidia/core';
import { MikroORM } from '@mikro-orm/postgresql';
import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { EntityManager } from '@mikro-orm/postgresql';
import { setMaxListeners } from 'node:events';
import { MessageChannel } from 'node:worker_threads';
import { documentAt } from '../projects/store';
import { settings } from '../settings';
import { poolOf } from '../threads/pool';
import type { Told } from './conduct';
import { type JobProgress, Jobs, type Taken } from './jobs';
import type { JobSource } from './work';

/** Jobs that one process runs at once. */
const AT_ONCE = 2;
/** ms between looks for a job that nobody runs, and between renewals. */
const LOOK_MS = 500;

@Injectable()
export class JobRunner implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly log = new Logger(JobRunner.name);
  private readonly conductors = poolOf('conduct', AT_ONCE);
  private readonly fighters = poolOf('tasks', settings().threads);
  /** What is being run here, and how to stop it. */
  private readonly running = new Map<string, { stop: AbortController; ended: Promise<void> }>();
  private timer: NodeJS.Timeout | undefined;
  private stopping = false;
  private looking: Promise<void> | undefined;

  constructor(
    @Inject(MikroORM) private readonly orm: MikroORM,
    @Inject(Jobs) private readonly jobs: Jobs,
  ) {}

  onApplicationBootstrap(): void {
    this.timer = setInterval(() => void this.look(), LOOK_MS);
    void this.look();
  }

  async onApplicationShutdown(): Promise<void> {
    this.stopping = true;
    clearInterval(this.timer);
    await this.looking;
    const all = [...this.running.values()];
    for (const { stop } of all) stop.abort();
    await Promise.all([this.conductors.destroy(), this.fighters.destroy()]);
    await Promise.all(all.map(({ ended }) => ended));
    // Whoever is next goes on where this process was, and comes to the same.
    await this.jobs.release().catch(() => undefined);
  }

  /** Keeps what is being run, stops what was taken back, and takes what nobody runs. */
  look(): Promise<void> {
    // Two looks at once would take more than may run.
    this.looking ??= this.tend().finally(() => (this.looking = undefined));
    return this.looking;
  }

  private async tend(): Promise<void> {
    try {
      const began = [...this.running];
      const own = new Set(await this.jobs.renew());
      for (const [id, { stop }] of began) if (!own.has(id)) stop.abort();
      while (!this.stopping && this.running.size < AT_ONCE) {
        const taken = await this.jobs.take();
        if (!taken) return;
        const stop = new AbortController();
        // Every part that waits listens to it.
        setMaxListeners(0, stop.signal);
        const ended = this.run(taken, stop.signal).finally(() => {
          this.running.delete(taken.id);
          if (!this.stopping) void this.look();
        });
        this.running.set(taken.id, { stop, ended });
      }
    } catch (error) {
      if (!this.stopping) this.log.error(error);
    }
  }

  private async run(taken: Taken, signal: AbortSignal): Promise<void> {
    try {
      await this.jobs.finish(taken.id, await this.conducted(taken, signal));
    } catch (error) {
      // What was taken back is nobody's any more.
      if (signal.aborted) return;
      if (!this.stopping) await this.jobs.fail(taken.id, (error as Error).message).catch((more: unknown) => this.log.error(more));
    }
  }

  private async conducted(taken: Taken, signal: AbortSignal): Promise<unknown> {
    const { port1, port2 } = new MessageChannel();
    const known = await this.jobs.answers(taken.id);
    let number = 0;
    const broken = new Promise<never>((_, fail) => {
      port1.on('message', (told: Told) => {
        const first = number;
        number += told.parts.length;
        this.step(taken.id, told, first, known, signal).then((came) => port1.postMessage(came), fail);
      });
    });
    const source = await this.source(taken);
    try {
      const work = this.conductors.run({ source, port: port2 }, { name: 'conduct', transferList: [port2], signal });
      return await Promise.race([work, broken]);
    } finally {
      port1.close();
    }
  }

  private async source({ project, revision, request }: Taken): Promise<JobSource> {
    const em = this.orm.em.fork() as EntityManager;
    const [document, before] = await Promise.all(
      [revision, request.before].map((number) => (number === undefined ? undefined : documentAt(em, project, number))),
    );
    if (!document) throw new Error(`there is no revision ${revision} of ${project}`);
    return { document, request, ...(before && { before }) };
  }

  /** What came of the parts of a step: of those that were answered before, what was kept. */
  private async step(
    id: string,
    { parts, ...told }: Told,
    first: number,
    known: Map<number, (AskedRuns | NoFight)[]>,
    signal: AbortSignal,
  ): Promise<(AskedRuns | NoFight)[][]> {
    const runsOf = (part: Told['parts'][number]) => part.reduce((sum, { runs }) => sum + runs, 0);
    let left = parts.reduce((sum, part) => sum + runsOf(part), 0);
    const tell = () => this.jobs.progress(id, { ...told, runs: told.runs - left } satisfies JobProgress);
    await tell();
    return Promise.all(
      parts.map(async (part, i) => {
        const number = first + i;
        const before = known.get(number);
        if (before) {
          known.delete(number);
          left -= runsOf(part);
          return before;
        }
        const answer = (await this.fighters.run(part, { name: 'fights', signal })) as (AskedRuns | NoFight)[];
        await this.jobs.keep(id, number, answer);
        left -= runsOf(part);
        await tell();
        return answer;
      }),
    );
  }
}
