/** A document walked object by object, as its classes describe it, knowing in which unit, encounter and arena each stands. */
import { Arena } from './arena';
import { Band } from './brief';
import { Encounter } from './encounter';
import { type Constructor, type RefersTo, type Reference, type Said, type When, classFields } from './field';
import { isDictionary } from './pointer';
import type { Project } from './project';
import { Question } from './question';
import { Unit } from './unit';

/** In what an object stands, where that is known. */
export interface Context {
  project: Project;
  unit?: Unit;
  encounter?: Encounter;
  arena?: Arena;
}

export type Plain = Record<string, unknown>;

/** What an object of a class stands in, itself among it. */
export function contextOf(type: Constructor, value: object, context: Context): Context {
  if (type === Unit) return { ...context, unit: value as Unit };
  if (type === Arena) return { ...context, arena: value as Arena };
  if (type === Encounter) return inEncounter(value as Encounter, context);
  if (type === Band) {
    const encounter = context.project.encounters.find(({ id }) => id === (value as Band).encounter);
    return encounter ? inEncounter(encounter, context) : context;
  }
  if (type === Question && (value as Question).fight === 'encounter') {
    const encounter = context.project.encounters.find(({ id }) => id === (value as Question).of);
    return encounter ? inEncounter(encounter, context) : context;
  }
  return context;
}

const inEncounter = (encounter: Encounter, context: Context): Context => ({
  ...context,
  encounter,
  arena: context.project.arenas.find(({ id }) => id === encounter.arena),
});

/** The step that leads to an item of a list. */
export const itemStep = (item: unknown, index: number): string =>
  isDictionary(item) && typeof item.id === 'string' ? item.id : String(index);

/** Every object of a class and below, the outer before the inner. @param at the steps that lead to it */
export function eachObject(
  type: Constructor,
  value: object,
  at: readonly string[],
  context: Context,
  visit: (type: Constructor, value: Plain, at: readonly string[], context: Context) => void,
): void {
  const own = contextOf(type, value, context);
  visit(type, value as Plain, at, own);
  const { groups, lists } = classFields(type)!;
  for (const [field, group] of groups) {
    const inner = (value as Plain)[field];
    if (isDictionary(inner)) eachObject(group(), inner, [...at, field], own, visit);
  }
  for (const [field, item] of lists) {
    const items = (value as Plain)[field];
    if (!Array.isArray(items)) continue;
    items.forEach((one: object, i) => eachObject(item(), one, [...at, field, itemStep(one, i)], own, visit));
  }
}

/** Whether a field has something to say, by the other fields of its object. */
export function applies(when: When | undefined, object: Plain): boolean {
  return !when || Object.entries(when).every(([field, values]) => values.includes(object[field] as string));
}

/** Whether a field must be given, by the other fields of its object. */
export function isNeeded({ when, needed }: Said, object: Plain): boolean {
  return needed !== undefined && applies(when, object) && (needed === true || applies(needed, object));
}

/** Of what kind the ids in a field are; none where other fields say that it refers to nothing. */
export function kindsOf({ to }: Reference, object: Plain): readonly RefersTo[] {
  if (!('by' in to)) return to;
  const kind = to.kinds[object[to.by] as string];
  return kind ? [kind] : [];
}

/** What ids of a kind can speak of from where they stand; undefined where any will do, for nothing is known of it there. */
export function idsOf(kind: RefersTo, { project, unit, encounter, arena }: Context): readonly { id: string }[] | undefined {
  switch (kind) {
    case 'unit':
      return [...project.units, ...project.variants];
    case 'arena':
      return project.arenas;
    case 'encounter':
      return project.encounters;
    case 'trait':
      return project.traits;
    case 'tier':
      return project.tiers;
    case 'skill':
      return project.skills;
    case 'style':
      return project.styles;
    case 'attack':
      return unit?.attacks;
    case 'state':
      return unit?.states;
    case 'wave':
      return encounter?.waves;
    case 'slots':
      return encounter?.slots;
    case 'counter':
      return encounter?.counters;
    case 'spawnPoint':
      return arena?.spawnPoints;
    case 'point':
      return arena?.points;
    case 'zone':
      return arena?.zones;
    default:
      return undefined; // a name that nothing defines
  }
}

/** Whether an id speaks of something from where it stands. */
export function resolves(kinds: readonly RefersTo[], id: string, context: Context): boolean {
  return (
    kinds.length === 0 ||
    kinds.some((kind) => {
      const known = idsOf(kind, context);
      return known === undefined || known.some((one) => one.id === id);
    })
  );
}

/** The ids that a field of reference holds. */
export function idsIn(value: unknown): string[] {
  if (typeof value === 'string') return [value];
  return Array.isArray(value) ? (value as string[]) : [];
}
