/** What the fields of any object say of one another and refer to, judged by what its class says of them. */
import { type Constructor, type RefersTo, classFields } from './field';
import { pointerOf } from './pointer';
import type { Problem } from './problem';
import { type Context, type Plain, applies, eachObject, idsIn, isNeeded, kindsOf, resolves } from './walk';

export type Report = (path: string, rule: string, value: unknown, message: string) => void;

/** What an id of each kind must be the id of. */
export const KIND_WORDS: Record<RefersTo, string> = {
  unit: 'a unit of the project',
  attack: 'an attack of the unit',
  state: 'a state of the unit',
  arena: 'an arena of the project',
  spawnPoint: 'a spawn point of the arena',
  point: 'a point of the arena',
  zone: 'a zone of the arena',
  encounter: 'an encounter of the project',
  wave: 'a wave of the encounter',
  slots: 'a pool of attack slots of the encounter',
  trait: 'a trait of the project',
  tier: 'a tier of the project',
  skill: 'a skill of the project',
  style: 'a style of the project',
  role: 'a role',
  flag: 'a flag',
  counter: 'a counter of the encounter',
  ground: 'a kind of ground',
  damageType: 'a kind of damage',
  attackName: 'the name of an attack',
};

/** What is wrong with any field of an object and of all below it: what is missing, does not apply, refers to nothing, or is there twice. */
export function fieldProblems(type: Constructor, value: object, at: readonly string[], context: Context): Problem[] {
  const problems: Problem[] = [];
  const report: Report = (path, rule, given, message) => problems.push({ path, rule, value: given, message });
  eachObject(type, value, at, context, (of, object, here, within) => {
    appliance(of, object, here, report);
    references(of, object, here, within, report);
    for (const field of classFields(of)!.lists.keys()) uniqueIn(object[field] as { id?: string }[] | undefined, [...here, field], report);
  });
  return problems;
}

function appliance(type: Constructor, object: Plain, at: readonly string[], report: Report): void {
  for (const [field, said] of classFields(type)!.said) {
    const { when, needed, only, label } = said;
    if (!needed && !only) continue;
    const value = object[field];
    const missing = value === undefined || (Array.isArray(value) && value.length === 0 && classFields(type)!.lists.has(field));
    if (applies(when, object)) {
      if (isNeeded(said, object) && missing)
        report(pointerOf(...at, field), 'required', value, when ? `is needed ${because(when, object)}` : `needs at least one: ${label}`);
    } else if (only && value !== undefined) report(pointerOf(...at, field), 'applies', value, `does not apply ${because(when!, object)}`);
  }
}

/** "where delivery is melee" */
function because(when: Readonly<Record<string, unknown>>, object: Plain): string {
  return `where ${Object.keys(when)
    .map((field) => `${field} is ${String(object[field])}`)
    .join(' and ')}`;
}

function references(type: Constructor, object: Plain, at: readonly string[], context: Context, report: Report): void {
  for (const [field, reference] of classFields(type)!.references) {
    if (reference.loose) continue;
    const kinds = kindsOf(reference, object);
    const value = object[field];
    idsIn(value).forEach((id, i) => {
      if (resolves(kinds, id, context)) return;
      const here = Array.isArray(value) ? pointerOf(...at, field, i) : pointerOf(...at, field);
      report(here, 'reference', id, `must be ${kinds.map((kind) => KIND_WORDS[kind]).join(' or ')}`);
    });
  }
}

/** Ids, and names where the items have them, differ from one another. */
function uniqueIn(items: readonly { id?: string; name?: string }[] | undefined, at: readonly string[], report: Report): void {
  if (!items?.length || items[0].id === undefined) return;
  for (const key of ['id', 'name'] as const) {
    const seen = new Set<string>();
    for (const item of items) {
      const value = item[key];
      if (value === undefined) continue;
      if (seen.has(value)) report(pointerOf(...at, item.id!, key), 'unique', value, `must be unique in ${at[at.length - 1]}`);
      seen.add(value);
    }
  }
}
