/** Jobs in the database: what is asked, who runs it, what has been answered, what came of it. Every step is one statement. */
import { MikroORM } from '@mikro-orm/postgresql';
import { Inject, Injectable } from '@nestjs/common';
import { randomUUID } from 'node:crypto';
import { deserialize, serialize } from 'node:v8';
import type { AskedRuns, NoFight } from '@insidia/core';
import type { JobRequest } from './request';

/** s for which a job belongs to whoever took it; renewed while it is being run. */
const LEASE_SECONDS = 5;
/** Times that a job is taken whose process ends before it does. */
const MOST_TRIES = 3;
/** Jobs of a project that are kept after their end. */
const KEPT = 50;
const LONGEST_TROUBLE = 500;

export const JOB_STATES = ['waiting', 'running', 'done', 'failed', 'cancelled'] as const;
export type JobState = (typeof JOB_STATES)[number];

/** How far a job is: runs of at most so many, and in which phase. */
export interface JobProgress {
  phase: string;
  runs: number;
  of: number;
  /** Of a search: how far outside of what is wanted its best is, in halves of it; and proposals so far. */
  outside?: number;
  found?: number;
}

export interface JobListed {
  id: string;
  kind: JobRequest['kind'];
  state: JobState;
  revision: number;
  at: Date;
  ended?: Date;
  progress?: JobProgress;
  trouble?: string;
}

export interface JobRead extends JobListed {
  request: JobRequest;
  result?: unknown;
}

/** What is run. */
export interface Taken {
  id: string;
  project: string;
  revision: number;
  request: JobRequest;
}

type Row = { id: string; request: JobRequest; state: JobState; revision: number; created_at: Date; ended_at: Date | null } & {
  progress: JobProgress | null;
  trouble: string | null;
  result?: unknown;
};

const listed = ({ id, request, state, revision, created_at, ended_at, progress, trouble }: Row): JobListed => ({
  id,
  kind: request.kind,
  state,
  revision,
  at: created_at,
  ...(ended_at && { ended: ended_at }),
  ...(progress && { progress }),
  ...(trouble && { trouble }),
});

const LISTED = 'id, request, state, revision, created_at, ended_at, progress, trouble';

@Injectable()
export class Jobs {
  /** This process, among all that take jobs. */
  private readonly owner = randomUUID();

  constructor(@Inject(MikroORM) private readonly orm: MikroORM) {}

  private query<T>(sql: string, values: unknown[] = []): Promise<T[]> {
    return this.orm.em.fork().getConnection().execute(sql, values, 'all') as Promise<T[]>;
  }

  /** One more, unless as many as may wait or run already: then undefined. Of those that have ended the oldest are let go of. */
  async make(project: string, revision: number, request: JobRequest, most: number): Promise<JobListed | undefined> {
    await this.query(
      `delete from job where project = ? and ended_at is not null and id not in (
         select id from job where project = ? and ended_at is not null order by ended_at desc limit ${KEPT - 1})`,
      [project, project],
    );
    const [made] = await this.query<Row>(
      `insert into job (id, project, revision, request, state, created_at)
       select ?, ?, ?, ?::json, 'waiting', now() where (select count(*) from job where project = ? and ended_at is null) < ?
       returning ${LISTED}`,
      [randomUUID(), project, revision, JSON.stringify(request), project, most],
    );
    return made && listed(made);
  }

  async list(project: string): Promise<JobListed[]> {
    const rows = await this.query<Row>(`select ${LISTED} from job where project = ? order by created_at desc, id`, [project]);
    return rows.map(listed);
  }

  async read(project: string, id: string): Promise<JobRead | undefined> {
    const [row] = await this.query<Row>(
      `select ${LISTED}, result from job where project = ? and id = ? and exists (select 1 from project p where p.id = project and p.deleted_at is null)`,
      [project, id],
    );
    return row && { ...listed(row), request: row.request, ...(row.result !== null && { result: row.result }) };
  }

  /** Stops it if it runs. False: there is none. */
  async cancel(project: string, id: string): Promise<boolean> {
    const rows = await this.query(
      `update job set state = case when ended_at is null then 'cancelled' else state end, ended_at = coalesce(ended_at, now()),
         owner = null, lease = null
       where project = ? and id = ? returning id`,
      [project, id],
    );
    if (rows.length) await this.forget(id);
    return rows.length > 0;
  }

  /** The next that nobody runs, of the project of which the fewest run; undefined: none. */
  async take(): Promise<Taken | undefined> {
    const [found] = await this.query<Taken & { tries: number }>(
      `update job set owner = ?, lease = now() + interval '${LEASE_SECONDS} seconds', tries = tries + 1, state = 'running'
       where id = (
         select j.id from job j join project p on p.id = j.project
         where j.ended_at is null and (j.lease is null or j.lease < now()) and p.deleted_at is null
         order by (select count(*) from job r where r.project = j.project and r.lease >= now()), j.created_at, j.id
         limit 1 for update of j skip locked)
       returning id, project, revision, request, tries`,
      [this.owner],
    );
    if (!found || found.tries <= MOST_TRIES) return found;
    await this.fail(found.id, `given up after ${MOST_TRIES} tries, at each of which the process that ran it ended`);
    return this.take();
  }

  /** Keeps what this process runs; what is its own still. */
  async renew(): Promise<string[]> {
    const rows = await this.query<{ id: string }>(
      `update job j set lease = now() + interval '${LEASE_SECONDS} seconds' from project p
       where j.owner = ? and j.ended_at is null and p.id = j.project and p.deleted_at is null returning j.id`,
      [this.owner],
    );
    return rows.map(({ id }) => id);
  }

  /** Lets go of what is not finished, for others to take at once; these tries don't count. */
  async release(): Promise<void> {
    await this.query(
      `update job set owner = null, lease = null, tries = greatest(tries - 1, 0), state = 'waiting' where owner = ? and ended_at is null`,
      [this.owner],
    );
  }

  async progress(id: string, progress: JobProgress): Promise<void> {
    await this.query(`update job set progress = ? where id = ? and owner = ? and ended_at is null`, [
      JSON.stringify(progress),
      id,
      this.owner,
    ]);
  }

  /** What has been answered, by the number of the part. */
  async answers(id: string): Promise<Map<number, (AskedRuns | NoFight)[]>> {
    const rows = await this.query<{ number: number; answer: Buffer }>(`select number, answer from job_part where job = ?`, [id]);
    return new Map(rows.map(({ number, answer }) => [number, deserialize(answer) as (AskedRuns | NoFight)[]]));
  }

  /** Keeps an answer. One that is there already stays: it is the same. */
  async keep(id: string, number: number, answer: readonly (AskedRuns | NoFight)[]): Promise<void> {
    // Of a job that is gone, or was taken back, nothing is kept.
    await this.query(
      `insert into job_part (job, number, answer) select id, ?, ? from job where id = ? and ended_at is null on conflict do nothing`,
      [number, serialize(answer), id],
    );
  }

  async finish(id: string, result: unknown): Promise<void> {
    await this.end(id, 'done', { result: JSON.stringify(result) });
  }

  async fail(id: string, why: string): Promise<void> {
    await this.end(id, 'failed', { trouble: why.slice(0, LONGEST_TROUBLE) });
  }

  private async end(id: string, state: JobState, { result, trouble }: { result?: string; trouble?: string }): Promise<void> {
    await this.query(
      `update job set state = ?, ended_at = now(), owner = null, lease = null, result = ?::json, trouble = ?
       where id = ? and owner = ? and ended_at is null`,
      [state, result ?? null, trouble ?? null, id, this.owner],
    );
    await this.forget(id);
  }

  /** Answers are of use as long as a job runs. */
  private async forget(id: string): Promise<void> {
    await this.query(`delete from job_part where job = ? and exists (select 1 from job where id = ? and ended_at is not null)`, [id, id]);
  }
}
