/** Takes shards from the queue in PostgreSQL and runs them in worker threads: here, and in as many other processes as like. */
import { type Compiled, cellOf, compileCell } from '@insidia/core';
import { MikroORM } from '@mikro-orm/postgresql';
import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { EntityManager } from '@mikro-orm/postgresql';
import { join } from 'node:path';
import PgBoss from 'pg-boss';
import { Piscina } from 'piscina';
import { documentAt } from '../projects/store';
import { settings } from '../settings';
import type { ShardResult, ShardTask } from './shard.worker';
import { SHARD_RUNS, type ShardName, Shards } from './shards';

const QUEUE = 'shards';
/** ms between looks into an empty queue, and between sweeps for shards that nobody has queued. */
const IDLE_MS = 250;
const SWEEP_MS = 1000;
/** Compiled encounters kept at hand. */
const KEPT = 12;

@Injectable()
export class ShardQueue implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly log = new Logger(ShardQueue.name);
  private readonly boss = new PgBoss({ connectionString: settings().databaseUrl, max: 3, schedule: false });
  private readonly threads = settings().threads;
  private readonly pool = new Piscina<ShardTask, ShardResult>({
    filename: join(__dirname, 'shard.worker.js'),
    minThreads: 0,
    maxThreads: this.threads,
    idleTimeout: 30_000,
  });
  private readonly compiled = new Map<string, Promise<Compiled>>();
  private stopping = false;
  private sweeper: NodeJS.Timeout | undefined;
  private loops: Promise<void>[] = [];
  private wakers: (() => void)[] = [];

  constructor(
    @Inject(MikroORM) private readonly orm: MikroORM,
    @Inject(Shards) private readonly shards: Shards,
  ) {
    this.boss.on('error', (error) => this.log.error(error));
  }

  async onApplicationBootstrap(): Promise<void> {
    await this.boss.start();
    await this.boss.createQueue(QUEUE, { name: QUEUE, retryLimit: 0 });
    // What the queue held when this process, or all of them, ended may have been lost on the way: it is put in again.
    await this.shards.forgetQueued();
    await this.sweep();
    this.sweeper = setInterval(() => void this.tend(), SWEEP_MS);
    this.loops = Array.from({ length: this.threads }, () => this.loop());
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
      // The first seeds first, of every batch: each has something to show soon, and what is done has no gaps.
      await this.boss.insert(found.map((data) => ({ name: QUEUE, data, priority: -data.number })));
      this.wake();
    }
  }

  private async tend(): Promise<void> {
    try {
      await this.shards.renew();
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

  private async loop(): Promise<void> {
    while (!this.stopping) {
      try {
        const [job] = await this.boss.fetch<ShardName>(QUEUE);
        if (!job) await this.idle();
        else {
          await this.run(job.data).finally(() => this.boss.complete(QUEUE, job.id));
        }
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
      return this.shards.fail(shard);
    }
    try {
      const result = await this.pool.run({ compiled, firstSeed: 1 + shard.number * SHARD_RUNS, runs: SHARD_RUNS });
      await this.shards.finish(shard, result);
      if (await this.shards.lookAt(shard.batch)) await this.sweep();
    } catch (error) {
      if (!this.stopping) await this.shards.letGo(shard);
      throw error;
    }
  }

  private compiledOf(batch: string, { project, revision, cell }: { project: string; revision: number; cell: string }): Promise<Compiled> {
    let found = this.compiled.get(batch);
    if (!found) {
      found = documentAt(this.orm.em.fork() as EntityManager, project, revision).then((document) => {
        if (!document) throw new Error(`there is no revision ${revision} of ${project}`);
        return compileCell(document, cellOf(cell));
      });
      this.compiled.set(batch, found);
      if (this.compiled.size > KEPT) this.compiled.delete(this.compiled.keys().next().value as string);
    }
    return found;
  }
}
