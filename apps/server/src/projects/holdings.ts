/** What projects hold, for their list: counted in the database, without reading whole documents. */
import type { EntityManager } from '@mikro-orm/postgresql';

export interface Holdings {
  enemies: number;
  members: number;
  encounters: number;
  goals: number;
}

/** What the newest revision of a project holds, and what was last said of it. */
export interface Held {
  holds: Holdings;
  label: string;
  author?: string;
}

/** The newest outline of each project that is not deleted. */
const OUTLINES = `
  select p.id, p.revision, o.outline from project p
  cross join lateral (
    select outline from revision r
    where r.project = p.id and r.number <= p.revision and r.outline is not null order by r.number desc limit 1) o
  where p.deleted_at is null`;

const COUNTS = `
  select o.id, coalesce(json_array_length(o.outline->'order'->'encounters'), 0) as encounters,
    coalesce(json_array_length(o.outline->'fields'->'brief'->'bands'), 0) as goals, r.label, r.author
  from (${OUTLINES}) o join revision r on r.project = o.id and r.number = o.revision`;

/** Side of each unit, base of each variant, as they are now. */
const UNITS = `
  select o.id as project, u.id, v.side, v.base from (${OUTLINES}) o
  cross join lateral (
    select 'units' as collection, id from json_array_elements_text(o.outline->'order'->'units') as list(id)
    union all select 'variants', id from json_array_elements_text(o.outline->'order'->'variants') as list(id)) u
  cross join lateral (
    select body->>'side' as side, body->>'basedOn' as base from object_version v
    where v.project = o.id and v.collection = u.collection and v.object_id = u.id and v.revision <= o.revision
    order by v.revision desc limit 1) v`;

/** By project. */
export async function holdings(em: EntityManager): Promise<Map<string, Held>> {
  const ask = <Row>(sql: string) => em.getConnection().execute(sql, [], 'all', em.getTransactionContext()) as Promise<Row[]>;
  const counts = await ask<{ id: string; encounters: number; goals: number; label: string; author: string | null }>(COUNTS);
  const units = await ask<{ project: string; id: string; side: string | null; base: string | null }>(UNITS);
  const held = new Map<string, Held>();
  for (const { id, encounters, goals, label, author } of counts)
    held.set(id, { holds: { enemies: 0, members: 0, encounters, goals }, label, ...(author && { author }) });
  const known = new Map(units.map((unit) => [`${unit.project} ${unit.id}`, unit]));
  for (const { project, id } of units) {
    let at = known.get(`${project} ${id}`);
    // A variant stands where its base does, at however many removes.
    for (let removes = 0; at?.base && removes < known.size; removes++) at = known.get(`${project} ${at.base}`);
    const holds = held.get(project)?.holds;
    if (holds && at?.side) holds[at.side === 'enemy' ? 'enemies' : 'members']++;
  }
  return held;
}
