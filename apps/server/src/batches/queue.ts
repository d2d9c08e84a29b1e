/** Takes shards from the queue in PostgreSQL and runs them in worker threads: here, and in as many other processes as like. */
import { type Compiled, scenarioOf } from '@insidia/core';
import { MikroORM } from '@mikro-orm/postgresql';
import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { EntityManager } from '@mikro-orm/postgresql';
import PgBoss from 'pg-boss';
import { documentAt } from '../projects/store';
import { settings } from '../settings';
import { paced } from '../threads/pace';
import { poolOf } from '../threads/pool';
import type { ShardResult, ShardTask } from '../threads/tasks';
import { Workers } from '../threads/workers';
import { SHARD_RUNS, type ShardName, Shards } from './shards';

/** What is soon over has a queue of its own, and a thread that takes nothing else. */
const QUEUE = 'shards';
const LONG_QUEUE = 'long-shards';
/** Steps of units from which a shard takes long: some minutes. */
const LONG_WORK = 200_000_000;
/** ms between looks into an empty queue, and between sweeps for shards that nobody has queued. */
const IDLE_MS = 250;
const SWEEP_MS = 1000;
/** Compiled encounters kept at hand. */
const KEPT = 12;

const nameOf = ({ batch, number }: ShardName) => `${batch} ${number}`;

@Injectable()
export class ShardQueue implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly log = new Logger(ShardQueue.name);
  private readonly boss = new PgBoss({ connectionString: settings().databaseUrl, max: 3, schedule: false });
  private readonly threads = settings().threads;
  private readonly pool = poolOf<ShardTask, ShardResult>('tasks', this.threads + 1);
  private readonly compiled = new Map<string, Promise<Compiled>>();
  /** What is being run here, by its name, and how to stop it. */
  private readonly running = new Map<string, AbortController>();
  private stopping = false;
  private sweeper: NodeJS.Timeout | undefined;
  private loops: Promise<void>[] = [];
  private wakers: (() => void)[] = [];

  constructor(
    @Inject(MikroORM) private readonly orm: MikroORM,
    @Inject(Shards) private readonly shards: Shards,
    @Inject(Workers) private readonly workers: Workers,
  ) {
    this.boss.on('error', (error) => this.log.error(error));
  }

  async onApplicationBootstrap(): Promise<void> {
    await this.boss.start();
    for (const name of [QUEUE, LONG_QUEUE]) await this.boss.createQueue(name, { name, retryLimit: 0 });
    // What the queue held when this process, or all of them, ended may have been lost on the way: it is put in again.
    await this.shards.forgetQueued();
    await this.sweep();
    this.sweeper = setInterval(() => void this.tend(), SWEEP_MS);
    this.loops = [this.loop([QUEUE]), ...Array.from({ length: this.threads }, () => this.loop([QUEUE, LONG_QUEUE]))];
  }

  async onApplicationShutdown(): Promise<void> {
    this.stopping = true;
    clearInterval(this.sweeper);
    this.wake();
    // What is being run is let go of: whoever is next runs it again, and comes to the same.
    await this.pool.destroy();
    await Promise.all(this.loops);
    await this.shards.release().catch(() => undefined);
    await this.boss.stop({ graceful: false });
  }

  /** Puts into the queue what is not in it, and looks into it at once. */
  async sweep(): Promise<void> {
    for (let found = await this.shards.takeUnqueued(); found.length; found = await this.shards.takeUnqueued()) {
      // The first seeds first, of every batch: each has something to show soon, and what is done has no gaps. Projects take turns.
      await this.boss.insert(
        found.map(({ batch, number, rank, work }) => ({
          name: work * SHARD_RUNS > LONG_WORK ? LONG_QUEUE : QUEUE,
          data: { batch, number },
          priority: -rank,
        })),
      );
      this.wake();
    }
  }

  /** Somebody has opened a project and is likely to ask for runs: where there is no thread yet, threads get ready. */
  warm(): void {
    if (this.pool.threads.length || this.stopping) return;
    for (let i = 0; i < this.threads; i++)
      this.pool.run(undefined as never, { name: 'warm' }).catch((error: unknown) => this.stopping || this.log.error(error));
  }

  /** Keeps what is being run, stops what was taken back meanwhile, and puts in what lies about. */
  async tend(): Promise<void> {
    try {
      const began = [...this.running];
      const own = new Set((await this.shards.renew()).map(nameOf));
      for (const [name, stop] of began) if (!own.has(name)) stop.abort();
      await this.sweep();
    } catch (error) {
      if (!this.stopping) this.log.error(error);
    }
  }

  private wake(): void {
    this.wakers.splice(0).forEach((wake) => wake());
  }

  private idle(): Promise<void> {
    return new Promise((done) => {
      const timer = setTimeout(done, IDLE_MS);
      this.wakers.push(() => {
        clearTimeout(timer);
        done();
      });
    });
  }

  private async loop(queues: readonly string[]): Promise<void> {
    while (!this.stopping) {
      try {
        let found = false;
        for (const queue of queues) {
          const [job] = await this.boss.fetch<ShardName>(queue);
          if (!job) continue;
          found = true;
          await this.run(job.data).finally(() => this.boss.complete(queue, job.id));
          break;
        }
        if (!found) await this.idle();
      } catch (error) {
        if (this.stopping) return;
        this.log.error(error);
        await this.idle();
      }
    }
  }

  private async run(shard: ShardName): Promise<void> {
    const source = await this.shards.claim(shard);
    if (!source) return;
    let compiled: Compiled;
    try {
      compiled = await this.compiledOf(shard.batch, source);
    } catch (error) {
      this.log.error(error);
      return this.shards.fail(shard, (error as Error).message);
    }
    const stop = new AbortController();
    this.running.set(nameOf(shard), stop);
    try {
      const task = { compiled, firstSeed: 1 + shard.number * SHARD_RUNS, runs: SHARD_RUNS };
      const result = await this.pool.run(task, { name: 'shard', signal: stop.signal });
      paced(result.work, result.ms);
      await this.shards.finish(shard, result);
      if (await this.shards.lookAt(shard.batch)) await this.sweep();
    } catch (error) {
      // What was taken back is nobody's any more.
      if (stop.signal.aborted) return;
      if (!this.stopping) await this.shards.letGo(shard, (error as Error).message);
      throw error;
    } finally {
      this.running.delete(nameOf(shard));
    }
  }

  private compiledOf(batch: string, { project, revision, cell }: { project: string; revision: number; cell: string }): Promise<Compiled> {
    let found = this.compiled.get(batch);
    if (!found) {
      found = documentAt(this.orm.em.fork() as EntityManager, project, revision).then((document) => {
        if (!document) throw new Error(`there is no revision ${revision} of ${project}`);
        return this.workers.compiledScenario({ document, scenario: scenarioOf(cell) }, project);
      });
      found.catch(() => this.compiled.delete(batch));
      this.compiled.set(batch, found);
      if (this.compiled.size > KEPT) this.compiled.delete(this.compiled.keys().next().value as string);
    }
    return found;
  }
}
