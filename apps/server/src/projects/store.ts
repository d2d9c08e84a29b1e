/** A document in the database: object by object, each kept as it was at every revision. */
import { COLLECTIONS, FORMAT_VERSION, type PatchOperation, type Project, parseProject, sameJson } from '@insidia/core';
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

/** A document as it is kept at a revision. */
export interface Kept {
  document: Project;
  /** Its objects are kept as the format has them now; else they were made into that on the way. */
  asIs: boolean;
}

/** The document as of a revision; undefined when there is no such revision. */
export async function documentAt(em: EntityManager, project: string, revision: number): Promise<Project | undefined> {
  return (await keptAt(em, project, revision))?.document;
}

/** The same, with how it is kept. */
export async function keptAt(em: EntityManager, project: string, revision: number): Promise<Kept | undefined> {
  if (!(await em.count(RevisionRecord, { project, number: revision }))) return undefined;
  const outline = await outlineAt(em, project, revision);
  const objects = Object.entries(outline.order).flatMap(([collection, ids]) => ids.map((id) => ({ collection, id })));
  // One version of each object, by its index, however many there have been.
  const newest = (await em.getConnection().execute(
    `select v.body from rows from (json_to_recordset(?::json) as (collection text, id text)) with ordinality as w(collection, id, place)
     cross join lateral (
       select body from object_version v
       where v.project = ? and v.collection = w.collection and v.object_id = w.id and v.revision <= ?
       order by v.revision desc limit 1) v
     order by w.place`,
    [JSON.stringify(objects), project, revision],
    'all',
    em.getTransactionContext(),
  )) as { body: unknown }[];
  const document: Record<string, unknown> = { ...outline.fields };
  let place = 0;
  for (const collection of COLLECTIONS) document[collection] = [];
  for (const { collection } of objects) (document[collection] as unknown[]).push(newest[place++].body);
  // A revision from before the format was what it is lacks what is filled in by default since.
  const asIs =
    COLLECTIONS.every((collection) => outline.order[collection]) &&
    'accepted' in outline.fields &&
    outline.fields.version === FORMAT_VERSION;
  return { document: asIs ? (document as unknown as Project) : parseProject(document), asIs };
}

async function outlineAt(em: EntityManager, project: string, revision: number): Promise<Outline> {
  const written = { project, number: { $lte: revision }, outline: { $ne: null } };
  const [record] = await em.find(RevisionRecord, written, { orderBy: { number: 'desc' }, limit: 1 });
  return record.outline!;
}

/**
 * Writes a document as the next revision: only objects that differ from `before` are stored again.
 * @param before absent: there is none, or it is kept in an older form of the format, which objects of today must not be mixed with
 */
export function writeRevision(
  em: EntityManager,
  record: ProjectRecord,
  before: Project | undefined,
  document: Project,
  patch: PatchOperation[],
  { label, author }: { label: string; author?: string },
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
  const revision = em.create(RevisionRecord, {
    project: record.id,
    number: record.revision,
    at: now,
    label,
    author: author ?? null,
    outline: before && sameJson(outlineOf(before), outlineOf(document)) ? null : outlineOf(document),
    patch,
  } as RevisionRecord);
  em.persist(revision);
  return revision;
}
