import { type PatchOperation, type Project, applyPatch, parseProject } from '@insidia/core';
import { type EntityManager, LockMode, MikroORM, UniqueConstraintViolationException } from '@mikro-orm/postgresql';
import { Inject, Injectable } from '@nestjs/common';
import { ProjectRecord, RevisionRecord } from '../database/entities';
import { exists, idIsFixed, notFound, staleWrite } from '../problem';
import { documentAt, writeRevision } from './store';

export interface Versioned {
  revision: number;
  document: Project;
}

/** A revision as the history lists it. */
export type Listed = Pick<RevisionRecord, 'number' | 'at' | 'label' | 'patch'> & { name?: string };

/** Projects and their revisions. Every write is one transaction: all of it or nothing. */
@Injectable()
export class ProjectsService {
  constructor(@Inject(MikroORM) private readonly orm: MikroORM) {}

  private fork(): EntityManager {
    return this.orm.em.fork() as EntityManager;
  }

  async list(): Promise<{ id: string; name: string; revision: number; updatedAt: Date }[]> {
    const records = await this.fork().find(ProjectRecord, {}, { orderBy: { name: 'asc', id: 'asc' } });
    return records.map(({ id, name, revision, updatedAt }) => ({ id, name, revision, updatedAt }));
  }

  async get(id: string): Promise<Versioned> {
    return this.fork().transactional((em) => this.current(em, id));
  }

  private async current(em: EntityManager, id: string): Promise<Versioned> {
    const record = await em.findOne(ProjectRecord, { id });
    const document = record && (await documentAt(em, id, record.revision));
    if (!record || !document) throw notFound('project', id);
    return { revision: record.revision, document };
  }

  /** @throws ProblemError exists, InvalidDocument */
  async create(input: unknown, label = 'Created'): Promise<Versioned> {
    const document = parseProject(input);
    const now = new Date();
    try {
      return await this.fork().transactional(async (em) => {
        const record = em.create(ProjectRecord, { id: document.id, name: document.name, revision: 0, createdAt: now, updatedAt: now });
        em.persist(record);
        await em.flush();
        writeRevision(em, record, undefined, document, label);
        return { revision: record.revision, document };
      });
    } catch (error) {
      if (error instanceof UniqueConstraintViolationException) throw exists(document.id);
      throw error;
    }
  }

  /** Puts a whole document in place of revision `revision`. */
  replace(id: string, revision: number, input: unknown, label: string): Promise<Versioned> {
    return this.change(id, revision, label, input, () => input);
  }

  /** Applies a JSON Patch (pointers step through lists by id) to revision `revision`. */
  patch(id: string, revision: number, operations: PatchOperation[], label: string): Promise<Versioned> {
    return this.change(id, revision, label, undefined, (before) => {
      const after = structuredClone(before);
      applyPatch(after, operations);
      return after;
    });
  }

  /** Makes an earlier revision the newest one, as a new revision. */
  restore(id: string, revision: number, number: number): Promise<Versioned> {
    return this.change(id, revision, `Restored revision ${number}`, undefined, async (_, em) => {
      const document = await documentAt(em, id, number);
      if (!document) throw notFound('revision', String(number));
      return document;
    });
  }

  private change(
    id: string,
    revision: number,
    label: string,
    yours: unknown,
    make: (before: Project, em: EntityManager) => unknown,
  ): Promise<Versioned> {
    return this.fork().transactional(async (em) => {
      const record = await em.findOne(ProjectRecord, { id }, { lockMode: LockMode.PESSIMISTIC_WRITE });
      if (!record) throw notFound('project', id);
      const before = (await documentAt(em, id, record.revision)) as Project;
      if (record.revision !== revision)
        throw staleWrite(
          { revision: record.revision, document: before },
          { revision, document: yours ?? (await documentAt(em, id, revision)) },
        );
      const document = parseProject(await make(before, em));
      if (document.id !== id) throw idIsFixed(id, document.id);
      writeRevision(em, record, before, document, label);
      return { revision: record.revision, document };
    });
  }

  async remove(id: string, revision: number): Promise<void> {
    await this.fork().transactional(async (em) => {
      const record = await em.findOne(ProjectRecord, { id }, { lockMode: LockMode.PESSIMISTIC_WRITE });
      if (!record) throw notFound('project', id);
      if (record.revision !== revision) throw staleWrite(await this.current(em, id), { revision });
      await em.nativeDelete(ProjectRecord, { id });
    });
  }

  async revisions(id: string): Promise<Listed[]> {
    const em = this.fork();
    if (!(await em.findOne(ProjectRecord, { id }))) throw notFound('project', id);
    const records = await em.find(RevisionRecord, { project: id }, { orderBy: { number: 'desc' }, limit: 500 });
    return records.map(({ number, at, label, name, patch }) => ({ number, at, label, ...(name && { name }), patch }));
  }

  /** Names a revision, so that it can be found again; an empty name takes the name away. */
  async nameRevision(id: string, number: number, name: string): Promise<void> {
    await this.fork().transactional(async (em) => {
      const record = await em.findOne(RevisionRecord, { project: id, number });
      if (!record) throw notFound('revision', `${id}, ${number}`);
      record.name = name || null;
    });
  }

  async revision(id: string, number: number): Promise<Versioned> {
    const document = await documentAt(this.fork(), id, number);
    if (!document) throw notFound('revision', `${id}, ${number}`);
    return { revision: number, document };
  }
}
