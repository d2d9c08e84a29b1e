/** A document in the database: object by object, each kept as it was at every revision. */
import { COLLECTIONS, type PatchOperation, type Project, difference, parseProject, sameJson } from '@insidia/core';
import type { EntityManager } from '@mikro-orm/postgresql';
import { ObjectVersion, type Outline, ProjectRecord, RevisionRecord } from '../database/entities';

type Item = { id: string };

function outlineOf(document: Project): Outline {
  const fields: Record<string, unknown> = {};
  const order: Record<string, string[]> = {};
  for (const [key, value] of Object.entries(document)) {
    if ((COLLECTIONS as readonly string[]).includes(key)) order[key] = (value as Item[]).map(({ id }) => id);
    else fields[key] = value;
  }
  return { fields, order };
}

/** The document as of a revision; undefined when there is no such revision. */
export async function documentAt(em: EntityManager, project: string, revision: number): Promise<Project | undefined> {
  const record = await em.findOne(RevisionRecord, { project, number: revision });
  if (!record) return undefined;
  const versions = await em.find(ObjectVersion, { project, revision: { $lte: revision } }, { orderBy: { revision: 'asc' } });
  const newest = new Map<string, unknown>();
  for (const { collection, objectId, body } of versions) newest.set(`${collection}/${objectId}`, body);
  const document: Record<string, unknown> = { ...record.outline.fields };
  for (const collection of COLLECTIONS)
    document[collection] = (record.outline.order[collection] ?? []).map((id) => newest.get(`${collection}/${id}`));
  // A revision from before the format had all its lists lacks what is filled in by default since.
  const complete = COLLECTIONS.every((collection) => record.outline.order[collection]) && 'accepted' in record.outline.fields;
  return complete ? (document as unknown as Project) : parseProject(document);
}

/** Writes a document as the next revision: only objects that differ from `before` are stored again. */
export function writeRevision(
  em: EntityManager,
  record: ProjectRecord,
  before: Project | undefined,
  document: Project,
  label: string,
): RevisionRecord {
  const now = new Date();
  record.name = document.name;
  record.revision += 1;
  record.updatedAt = now;
  for (const collection of COLLECTIONS) {
    const old = new Map(((before?.[collection] ?? []) as Item[]).map((item) => [item.id, item]));
    const put = (objectId: string, body: unknown) =>
      em.persist(em.create(ObjectVersion, { project: record.id, collection, objectId, revision: record.revision, body } as ObjectVersion));
    for (const item of document[collection] as Item[]) {
      if (!old.has(item.id) || !sameJson(old.get(item.id), item)) put(item.id, item);
      old.delete(item.id);
    }
    for (const id of old.keys()) put(id, null);
  }
  const patch: PatchOperation[] = before ? difference(before, document) : [];
  const revision = em.create(RevisionRecord, {
    project: record.id,
    number: record.revision,
    at: now,
    label,
    outline: outlineOf(document),
    patch,
  } as RevisionRecord);
  em.persist(revision);
  return revision;
}
