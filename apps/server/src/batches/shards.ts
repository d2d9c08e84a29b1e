/** Shards of batches in the database: who runs which, and what came of it. Every step is one statement, so any number of machines may take part. */
import { CURVES, CURVE_BINS, type CurveName, DIGEST_COLUMN, digestNumber, look, nextLook } from '@insidia/core';
import { MikroORM } from '@mikro-orm/postgresql';
import { Inject, Injectable } from '@nestjs/common';
import { randomUUID } from 'node:crypto';
import { bytesOf, floatsOf, pack } from './packing';
import type { Until } from './request';
import type { ShardResult } from '../threads/tasks';

/** Seeds of one shard: small enough to lose, large enough to be worth a trip. */
export const SHARD_RUNS = 50;
/** s for which a shard belongs to whoever took it; renewed while it is being run. A process that dies lets go of its shards after it. */
const LEASE_SECONDS = 5;

/** Times that a shard is tried whose run breaks down, or takes its process along. */
const MOST_TRIES = 3;

/** Characters of it that are kept. */
const LONGEST_TROUBLE = 300;

export interface ShardName {
  batch: string;
  number: number;
}

/** One that goes into a queue. */
export interface QueuedShard extends ShardName {
  /** Its place among those of its project: projects take turns. */
  rank: number;
  /** Steps of units that a run may come to. */
  work: number;
}

/** What a shard is run from. */
export interface ShardSource {
  project: string;
  revision: number;
  cell: string;
}

/** One value a run in each column; NaN: none, +∞: a survivor. */
export interface ColumnsRead {
  runs: number;
  columns: Record<string, number[]>;
}

export interface Progress {
  done: number;
  wanted: number;
}

@Injectable()
export class Shards {
  /** This process, among all that take shards. */
  private readonly owner = randomUUID();

  constructor(@Inject(MikroORM) private readonly orm: MikroORM) {}

  private query<T>(sql: string, values: unknown[] = []): Promise<T[]> {
    return this.orm.em.fork().getConnection().execute(sql, values, 'all') as Promise<T[]>;
  }

  /**
   * Makes batches, or finds those that are there, and the shards they lack: all at once, so that nobody meets half of them. They are
   * begun in this order: what others are held against comes first.
   */
  async want(batches: readonly { batch: string; runs: number; work: number; until?: Until; source: ShardSource }[]): Promise<void> {
    await this.orm.em.fork().transactional(async (em) => {
      const run = (sql: string, values: unknown[]) => em.getConnection().execute(sql, values, 'run', em.getTransactionContext());
      for (const { batch, runs, work, until, source } of batches) {
        const { project, revision, cell } = source;
        await run(
          `insert into batch (id, project, revision, cell, work, created_at) values (?, ?, ?, ?, ?, clock_timestamp()) on conflict (id) do nothing`,
          [batch, project, revision, cell, work],
        );
        await run(`update batch set until = ?, trouble = null where id = ?`, [until ? JSON.stringify(until) : null, batch]);
        await run(`insert into shard (batch, number) select ?, n from generate_series(0, ?::int - 1) n on conflict do nothing`, [
          batch,
          Math.ceil(runs / SHARD_RUNS),
        ]);
        await run(
          `insert into cell_batch (project, cell, batch, revision, at) values (?, ?, ?, ?, now())
           on conflict (project, cell, batch) do update set at = excluded.at, revision = excluded.revision`,
          [project, cell, batch, revision],
        );
      }
    });
  }

  /** Shards that are in no queue: new ones, and those of a process that died or let go. They count as queued from now on. */
  takeUnqueued(): Promise<QueuedShard[]> {
    return this.query<QueuedShard>(
      `with taken as (
         update shard set queued_at = now(), lease = null, owner = null
         where (batch, number) in (
           select batch, number from shard
           where done_at is null and (queued_at is null or lease < now())
           order by batch, number limit 2000 for update skip locked)
         returning batch, number),
       ranked as (
         select s.batch, s.number, b.work, row_number() over (partition by b.project order by s.number, b.created_at, s.batch)::int as rank
         from shard s join batch b on b.id = s.batch where s.done_at is null)
       select r.batch, r.number, r.work, r.rank from ranked r join taken t on t.batch = r.batch and t.number = r.number`,
    );
  }

  /** Takes a shard for this process; undefined when it is done, gone, somebody else's, or given up. */
  async claim(shard: ShardName): Promise<ShardSource | undefined> {
    // A try counts from its beginning: one that takes its process along can't count itself.
    const [found] = await this.query<ShardSource & { tries: number }>(
      `update shard s set owner = ?, lease = now() + interval '${LEASE_SECONDS} seconds', tries = tries + 1 from batch b
       where s.batch = ? and s.number = ? and b.id = s.batch and s.done_at is null and (s.lease is null or s.lease < now())
       returning b.project, b.revision, b.cell, s.tries`,
      [this.owner, shard.batch, shard.number],
    );
    if (!found || found.tries <= MOST_TRIES) return found;
    await this.fail(shard, `given up after ${MOST_TRIES} tries, at each of which the process that ran it ended`);
    return undefined;
  }

  /** Keeps what this process is running; what is its own still. */
  async renew(): Promise<ShardName[]> {
    return this.query<ShardName>(
      `update shard set lease = now() + interval '${LEASE_SECONDS} seconds' where owner = ? and done_at is null returning batch, number`,
      [this.owner],
    );
  }

  /** Lets go of what is not finished, for others to take at once; these tries don't count. */
  async release(): Promise<void> {
    await this.query(
      `update shard set owner = null, lease = null, queued_at = null, tries = greatest(tries - 1, 0) where owner = ? and done_at is null`,
      [this.owner],
    );
  }

  /** Keeps a result. One that is there already stays: it is the same. */
  async finish({ batch, number }: ShardName, { sample, curves }: ShardResult): Promise<void> {
    const { digests, columns, values } = pack(sample);
    await this.query(
      `update shard set done_at = now(), lease = null, digests = ?, columns = ?, "values" = ?, curves = ?
       where batch = ? and number = ? and done_at is null`,
      [JSON.stringify(digests), JSON.stringify(columns), values, bytesOf(curves), batch, number],
    );
  }

  /** Where all that was wanted of a batch is done and it is to go on until something is clear: looks, and wants more while it is not. True: more is wanted. */
  async lookAt(batch: string): Promise<boolean> {
    const [found] = await this.query<{ until: Until | null; left: number }>(
      `select b.until, count(*) filter (where s.done_at is null)::int as left
       from batch b join shard s on s.batch = b.id where b.id = ? group by b.id`,
      [batch],
    );
    if (!found?.until || found.left > 0) return false;
    const { until } = found;
    const values = (await this.columns(new Map([[batch, [until.column]]]))).get(batch)?.columns[until.column];
    if (!values || look(values, until).enough) {
      await this.query(`update batch set until = null where id = ?`, [batch]);
      return false;
    }
    const more = Math.min(nextLook(values.length), until.cap);
    await this.query(`insert into shard (batch, number) select ?, n from generate_series(0, ?::int - 1) n on conflict do nothing`, [
      batch,
      Math.ceil(more / SHARD_RUNS),
    ]);
    return true;
  }

  /** A shard whose run broke down: somebody tries again, until it is clear that it can't be run. */
  async letGo(shard: ShardName, why: string): Promise<void> {
    const [left] = await this.query<{ tries: number }>(
      `update shard set owner = null, lease = null, queued_at = null
       where batch = ? and number = ? and done_at is null returning tries`,
      [shard.batch, shard.number],
    );
    if (left && left.tries >= MOST_TRIES) await this.fail(shard, `given up after ${MOST_TRIES} tries: ${why}`);
  }

  /** Whatever the queue held is to be put into it again. */
  async forgetQueued(): Promise<void> {
    await this.query(`update shard set queued_at = null where done_at is null and lease is null`);
  }

  /** A shard that can't be run: its batch wants no more of it. */
  async fail({ batch, number }: ShardName, why: string): Promise<void> {
    const seeds = `seeds ${1 + number * SHARD_RUNS} to ${(number + 1) * SHARD_RUNS} could not be run: ${why}`;
    // One statement: whoever is told why finds nothing waiting any more.
    await this.query(
      `with told as (update batch set until = null, trouble = ? where id = ?)
       delete from shard where batch = ? and number >= ? and done_at is null`,
      [seeds.slice(0, LONGEST_TROUBLE), batch, batch, number],
    );
  }

  /** Shards done and wanted, by batch; of all batches that a project's cells have been run as. */
  async progress(project: string): Promise<(Progress & { batch: string; cell: string })[]> {
    return this.query(
      `select s.batch, c.cell, count(s.done_at)::int * ${SHARD_RUNS} as done, count(*)::int * ${SHARD_RUNS} as wanted
       from cell_batch c join batch b on b.id = c.batch join shard s on s.batch = b.id
       where c.project = ? group by s.batch, c.cell, b.until is null having count(s.done_at) < count(*) or b.until is null = false`,
      [project],
    );
  }

  /** Shards of a project's batches that are done, in all: it grows whatever else is told. */
  async finished(project: string): Promise<number> {
    const [{ done }] = await this.query<{ done: number }>(
      `select count(*)::int as done from shard where done_at is not null and batch in (select batch from cell_batch where project = ?)`,
      [project],
    );
    return done;
  }

  /** Why batches were given up, of those that were. */
  async troubles(batches: readonly string[]): Promise<Map<string, string>> {
    const rows = await this.query<{ id: string; trouble: string }>(
      `select id, trouble from batch where trouble is not null and id in (select json_array_elements_text(?::json))`,
      [JSON.stringify(batches)],
    );
    return new Map(rows.map(({ id, trouble }) => [id, trouble]));
  }

  /** Steps of units that a project's waiting runs may come to. */
  async waitingWork(project: string): Promise<number> {
    const [found] = await this.query<{ work: number | null }>(
      `select sum(b.work) * ${SHARD_RUNS} as work from batch b join shard s on s.batch = b.id
       where s.done_at is null and b.id in (select batch from cell_batch where project = ?)`,
      [project],
    );
    return found.work ?? 0;
  }

  /** Takes back what is not done of a project's batches, or of one cell's; what is being run is stopped. */
  async cancel(project: string, cell?: string): Promise<void> {
    const [own, values] = cell === undefined ? ['project = ?', [project]] : ['project = ? and cell = ?', [project, cell]];
    const batches = `select batch from cell_batch where ${own}`;
    await this.query(`update batch set until = null where id in (${batches})`, values);
    // Runs count from the first on without a gap: what is being run before something that is done is waited for, or that were lost.
    await this.query(
      `delete from shard s where s.done_at is null and s.batch in (${batches}) and not (
         s.lease >= now() and exists (select 1 from shard d where d.batch = s.batch and d.done_at is not null and d.number > s.number))`,
      values,
    );
  }

  /**
   * Some columns of many batches, so far as they have been run from the first seed on: two queries, however many cells a board
   * has. A batch of which nothing has been run is left out.
   */
  async columns(asked: ReadonlyMap<string, readonly string[]>): Promise<Map<string, ColumnsRead>> {
    const heads = await this.query<{ batch: string; columns: string[]; shards: number }>(
      `select s.batch, s.columns, (
         select count(*)::int from (
           select number, row_number() over (order by number) - 1 as place from shard d where d.batch = s.batch and d.done_at is not null
         ) own where number = place) as shards
       from shard s where s.number = 0 and s.done_at is not null and s.batch in (select json_array_elements_text(?::json))`,
      [JSON.stringify([...asked.keys()])],
    );
    const bytes = SHARD_RUNS * Float64Array.BYTES_PER_ELEMENT;
    const wanted = heads.flatMap(({ batch, columns }) =>
      (asked.get(batch) ?? []).flatMap((name) => {
        const place = columns.indexOf(name);
        return place < 0 ? [] : [{ batch, name, place: 1 + place * bytes }];
      }),
    );
    const parts = await this.query<{ batch: string; name: string; number: number; part: Buffer }>(
      `select w.batch, w.name, s.number, substring(s."values" from w.place for ${bytes}) as part
       from json_to_recordset(?::json) as w(batch text, name text, place int)
       join shard s on s.batch = w.batch and s.done_at is not null order by w.batch, w.name, s.number`,
      [JSON.stringify(wanted)],
    );
    const found = new Map<string, ColumnsRead>(heads.map(({ batch, shards }) => [batch, { runs: shards * SHARD_RUNS, columns: {} }]));
    const joined = new Map<string, Float64Array[]>();
    for (const { batch, name, number, part } of parts) {
      const key = `${batch} ${name}`;
      const list = joined.get(key) ?? [];
      // What lies behind a seed that is missing is not told yet.
      if (list.length === number) list.push(floatsOf(part, Float64Array));
      joined.set(key, list);
    }
    for (const { batch, name } of wanted) {
      const list = joined.get(`${batch} ${name}`) ?? [];
      const own = found.get(batch) as ColumnsRead;
      own.columns[name] = list.flatMap((values) => Array.from(values));
      own.runs = Math.min(own.runs, list.length * SHARD_RUNS);
    }
    await this.addDigests(
      [...asked].flatMap(([batch, names]) => (names.includes(DIGEST_COLUMN) ? [batch] : [])),
      found,
    );
    return found;
  }

  /** Digests stand beside the columns and are read like one. */
  private async addDigests(batches: readonly string[], found: ReadonlyMap<string, ColumnsRead>): Promise<void> {
    if (!batches.length) return;
    const rows = await this.query<{ batch: string; digests: string[] }>(
      `select batch, digests from shard
       where done_at is not null and batch in (select json_array_elements_text(?::json)) order by batch, number`,
      [JSON.stringify(batches)],
    );
    for (const { batch, digests } of rows) {
      const own = found.get(batch);
      if (!own) continue;
      const list = (own.columns[DIGEST_COLUMN] ??= []);
      if (list.length < own.runs) list.push(...digests.map(digestNumber));
    }
  }

  /** The newest batch of each of these cells of which something has been run. */
  async lastOf(project: string, cells: readonly string[]): Promise<Map<string, { batch: string; at: Date; revision: number }>> {
    const rows = await this.query<{ cell: string; batch: string; at: Date; revision: number }>(
      `select distinct on (c.cell) c.cell, c.batch, c.at, c.revision from cell_batch c
       where c.project = ? and c.cell in (select json_array_elements_text(?::json))
       and exists (select 1 from shard s where s.batch = c.batch and s.number = 0 and s.done_at is not null)
       order by c.cell, c.at desc`,
      [project, JSON.stringify(cells)],
    );
    return new Map(rows.map(({ cell, ...rest }) => [cell, rest]));
  }

  /** One curve over the clock of the same runs, a row a run. */
  async curve(batch: string, name: CurveName): Promise<Float32Array[]> {
    const bytes = SHARD_RUNS * CURVE_BINS * Float32Array.BYTES_PER_ELEMENT;
    const rows = await this.query<{ number: number; curve: Buffer }>(
      `select number, substring(curves from ? for ?) as curve from shard where batch = ? and done_at is not null order by number`,
      [1 + CURVES.indexOf(name) * bytes, bytes, batch],
    );
    return rows
      .filter(({ number }, i) => number === i)
      .flatMap(({ curve }) => {
        const values = floatsOf(curve, Float32Array);
        return Array.from({ length: SHARD_RUNS }, (_, run) => values.subarray(run * CURVE_BINS, (run + 1) * CURVE_BINS));
      });
  }

  /** What a cell has been run as, the newest first. */
  history(project: string, cell: string): Promise<{ batch: string; at: Date; revision: number; runs: number }[]> {
    return this.query(
      `select c.batch, c.at, c.revision, count(s.done_at)::int * ${SHARD_RUNS} as runs
       from cell_batch c left join shard s on s.batch = c.batch
       where c.project = ? and c.cell = ? group by c.batch, c.at, c.revision having count(s.done_at) > 0
       order by c.at desc limit 24`,
      [project, cell],
    );
  }
}
