import { type PatchOperation, type Project, idFor, nameFor } from '@insidia/core';
import { type EntityManager, LockMode, MikroORM, UniqueConstraintViolationException } from '@mikro-orm/postgresql';
import { Inject, Injectable } from '@nestjs/common';
import { ProjectRecord, RevisionRecord } from '../database/entities';
import { written } from '../database/trouble';
import { exists, idIsFixed, notFound, staleWrite } from '../problem';
import { Workers } from '../threads/workers';
import { type Held, holdings } from './holdings';
import { documentAt, keptAt, writeRevision } from './store';

export interface Versioned {
  revision: number;
  document: Project;
}

/** A revision as the history lists it. */
export type Listed = Pick<RevisionRecord, 'number' | 'at' | 'label'> & { name?: string; author?: string };

/** What is said of a write: in words, and by whom where people sign in. */
export interface Said {
  label: string;
  author?: string;
  /** For whom it is checked, in turns. */
  client?: string;
}

/** A patch of what is there, or a whole document instead. */
type Change = { operations: PatchOperation[] } | { input: unknown };

/** The server's own doing. */
const OWN = 'server';

/** For how long a deleted project can be brought back. */
export const KEPT_DAYS = 30;
const KEPT_MS = KEPT_DAYS * 24 * 3600 * 1000;

/** What is still to be run of a project's batches, but for what another project wants as well. */
const CANCEL = `delete from shard where done_at is null and batch in (
  select batch from cell_batch where project = ? and batch not in (
    select c.batch from cell_batch c join project p on p.id = c.project where p.deleted_at is null and p.id <> ?))`;

/** Its jobs, which say so when it is brought back. */
const CANCEL_JOBS = `update job set state = 'cancelled', ended_at = now(), owner = null, lease = null where project = ? and ended_at is null`;

/** Projects and their revisions. Every write is one transaction: all of it or nothing. */
@Injectable()
export class ProjectsService {
  constructor(
    @Inject(MikroORM) private readonly orm: MikroORM,
    @Inject(Workers) private readonly workers: Workers,
  ) {}

  private fork(): EntityManager {
    return this.orm.em.fork() as EntityManager;
  }

  /** All that are not deleted, with what each holds and what was last done to it. */
  async list(): Promise<(Pick<ProjectRecord, 'id' | 'name' | 'revision' | 'updatedAt'> & Held)[]> {
    return this.fork().transactional(async (em) => {
      const records = await em.find(ProjectRecord, { deletedAt: null }, { orderBy: { name: 'asc', id: 'asc' } });
      const held = await holdings(em);
      return records.map(({ id, name, revision, updatedAt }) => ({ id, name, revision, updatedAt, ...held.get(id)! }));
    });
  }

  /** A document as a project of its own beside all there are and were: under an id and a name that nobody has. */
  async createBeside(input: Project, said: Said): Promise<Versioned> {
    const records = await this.fork().find(ProjectRecord, {});
    const name = nameFor(
      input.name,
      records.map((one) => one.name),
    );
    const id = idFor(
      input.id,
      records.map((one) => one.id),
    );
    return this.create({ ...input, id, name }, said);
  }

  async get(id: string): Promise<Versioned> {
    return this.fork().transactional((em) => this.current(em, id));
  }

  private async current(em: EntityManager, id: string): Promise<Versioned> {
    const record = await em.findOne(ProjectRecord, { id, deletedAt: null });
    const document = record && (await documentAt(em, id, record.revision));
    if (!record || !document) throw notFound('project', id);
    return { revision: record.revision, document };
  }

  /** @throws ProblemError exists, InvalidDocument */
  async create(input: unknown, said: Said = { label: 'Created' }): Promise<Versioned> {
    const document = await this.workers.parse(input, said.client ?? OWN);
    const now = new Date();
    try {
      return await this.fork().transactional(async (em) => {
        const record = em.create(ProjectRecord, { id: document.id, name: document.name, revision: 0, createdAt: now, updatedAt: now });
        em.persist(record);
        await em.flush();
        writeRevision(em, record, undefined, document, [], said);
        return { revision: record.revision, document };
      });
    } catch (error) {
      if (error instanceof UniqueConstraintViolationException) {
        const gone = await this.fork().count(ProjectRecord, { id: document.id, deletedAt: { $ne: null } });
        throw exists(document.id, gone > 0);
      }
      throw error;
    }
  }

  /** Puts a whole document in place of revision `revision`. */
  replace(id: string, revision: number, input: unknown, said: Said): Promise<Versioned> {
    return this.change(id, revision, said, input, () => ({ input }));
  }

  /** Applies a JSON Patch (pointers step through lists by id) to revision `revision`. */
  patch(id: string, revision: number, operations: PatchOperation[], said: Said): Promise<Versioned> {
    return this.change(id, revision, said, undefined, () => ({ operations }));
  }

  /** Makes an earlier revision the newest one, as a new revision. */
  restore(id: string, revision: number, number: number, said: Omit<Said, 'label'>): Promise<Versioned> {
    return this.change(id, revision, { ...said, label: `Restored revision ${number}` }, undefined, async (em) => {
      const document = await documentAt(em, id, number);
      if (!document) throw notFound('revision', String(number));
      return { input: document };
    });
  }

  private async change(
    id: string,
    revision: number,
    said: Said,
    yours: unknown,
    make: (em: EntityManager) => Change | Promise<Change>,
  ): Promise<Versioned> {
    const saved = await this.fork().transactional(async (em) => {
      const record = await em.findOne(ProjectRecord, { id, deletedAt: null }, { lockMode: LockMode.PESSIMISTIC_WRITE });
      if (!record) throw notFound('project', id);
      const kept = (await keptAt(em, id, record.revision))!;
      const before = kept.document;
      if (record.revision !== revision)
        throw staleWrite(
          { revision: record.revision, document: before },
          { revision, document: yours ?? (await documentAt(em, id, revision)) },
        );
      const { document, patch } = await this.workers.change(before, await make(em), said.client ?? OWN);
      if (document.id !== id) throw idIsFixed(id, document.id);
      writeRevision(em, record, kept.asIs ? before : undefined, document, patch, said);
      return { revision: record.revision, document };
    });
    written();
    return saved;
  }

  async remove(id: string, revision: number): Promise<void> {
    await this.fork().transactional(async (em) => {
      const record = await em.findOne(ProjectRecord, { id, deletedAt: null }, { lockMode: LockMode.PESSIMISTIC_WRITE });
      if (!record) throw notFound('project', id);
      if (record.revision !== revision) throw staleWrite(await this.current(em, id), { revision });
      record.deletedAt = new Date();
      // Nobody asks for it any more: what is being run of it is stopped, here and wherever else.
      await em.getConnection().execute(CANCEL, [id, id], 'run', em.getTransactionContext());
      await em.getConnection().execute(CANCEL_JOBS, [id], 'run', em.getTransactionContext());
    });
    this.workers.stopProject(id);
  }

  /** Nothing was ever made here, or nothing is left of it. */
  async isEmpty(): Promise<boolean> {
    return (await this.fork().count(ProjectRecord)) === 0;
  }

  /** Deleted projects that can be brought back still. */
  async deleted(): Promise<{ id: string; name: string; deletedAt: Date; until: Date }[]> {
    const records = await this.fork().find(ProjectRecord, { deletedAt: { $ne: null } }, { orderBy: { deletedAt: 'desc' } });
    return records.map(({ id, name, deletedAt }) => ({ id, name, deletedAt: deletedAt!, until: new Date(deletedAt!.getTime() + KEPT_MS) }));
  }

  /** Brings a deleted project back, with all its revisions. */
  async bringBack(id: string): Promise<Versioned> {
    return this.fork().transactional(async (em) => {
      const record = await em.findOne(ProjectRecord, { id, deletedAt: { $ne: null } }, { lockMode: LockMode.PESSIMISTIC_WRITE });
      if (!record) throw notFound('deleted project', id);
      record.deletedAt = null;
      await em.flush();
      return this.current(em, id);
    });
  }

  /** Lets go of what was deleted too long ago. */
  async forget(): Promise<void> {
    await this.fork().nativeDelete(ProjectRecord, { deletedAt: { $lt: new Date(Date.now() - KEPT_MS) } });
  }

  /** A page of them, the newest first; `before`: those older than that. */
  async revisions(id: string, before: number | undefined, limit: number): Promise<{ revisions: Listed[]; older?: number }> {
    const em = this.fork();
    if (!(await em.findOne(ProjectRecord, { id, deletedAt: null }))) throw notFound('project', id);
    const records = await em.find(
      RevisionRecord,
      { project: id, ...(before !== undefined && { number: { $lt: before } }) },
      { orderBy: { number: 'desc' }, limit: limit + 1, fields: ['number', 'at', 'label', 'name', 'author'] },
    );
    const revisions = records.slice(0, limit).map(({ number, at, label, name, author }) => ({
      number,
      at,
      label,
      ...(name && { name }),
      ...(author && { author }),
    }));
    return { revisions, ...(records.length > limit && { older: revisions[revisions.length - 1].number }) };
  }

  /** Names a revision, so that it can be found again; an empty name takes the name away. */
  async nameRevision(id: string, number: number, name: string): Promise<void> {
    await this.fork().transactional(async (em) => {
      const there = await em.count(ProjectRecord, { id, deletedAt: null });
      const record = there ? await em.findOne(RevisionRecord, { project: id, number }) : null;
      if (!record) throw notFound('revision', `${id}, ${number}`);
      record.name = name || null;
    });
  }

  async revision(id: string, number: number): Promise<Versioned> {
    const em = this.fork();
    const document = (await em.count(ProjectRecord, { id, deletedAt: null })) ? await documentAt(em, id, number) : undefined;
    if (!document) throw notFound('revision', `${id}, ${number}`);
    return { revision: number, document };
  }
}
