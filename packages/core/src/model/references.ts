/**
 * What speaks of what in a document, as its fields say it: where something is used, what goes or changes when it is taken
 * out, a document in which it has another id, a part made to fit where it is put.
 */
import type { Encounter } from './encounter';
import { type Constructor, type Gone, type RefersTo, type Reference, classFields } from './field';
import { fieldAt } from './field-at';
import { indexInList, isDictionary, pointerOf, pointerSteps, stepInto } from './pointer';
import { type Collection, COLLECTIONS, Project } from './project';
import { hasParty } from './planned';
import { QuestionDial } from './question';
import { FieldTweak, Tweak } from './tweak';
import { Unit } from './unit';
import { Variant } from './variant';
import { independent, withFittingVariants } from './variant-edit';
import { lineage } from './variants';
import { type Context, type Plain, contextOf, eachObject, idsIn, isNeeded, itemStep, kindsOf, resolves } from './walk';
import { fieldLabel, placeWords } from './words';

/** Something that has an id: of which kind, and in which unit, encounter or arena it stands where it stands in one. */
export interface Target {
  kind: RefersTo;
  id: string;
  in?: string;
}

/** One place that speaks of something. */
export interface Use {
  /** "Evening Shift › Second: Enemy" */
  where: string;
  /** Goes or changes with it when that is deleted; otherwise it must be changed first. */
  goes: boolean;
}

/** A list of a project, or of each item of one of its lists. */
interface Defining {
  owner?: Collection;
  list: string;
}

/** Whatever says by a pointer which number of something it means. */
const POINTING = new Set<Constructor>([FieldTweak, Tweak, QuestionDial]);

/** The lists that define what ids of each kind speak of. */
const LISTS: Partial<Record<RefersTo, Defining[]>> = {};
for (const collection of COLLECTIONS) {
  const { said, lists } = classFields(Project)!;
  const { defines: kind } = said.get(collection)!;
  if (kind) (LISTS[kind] ??= []).push({ list: collection });
  for (const [field, { defines }] of classFields(lists.get(collection)!())!.said)
    if (defines) (LISTS[defines] ??= []).push({ owner: collection, list: field });
}

/** Kinds whose ids are defined by something in the document: what can be taken out, or have another id. */
export const DEFINED = Object.keys(LISTS) as RefersTo[];

/** Everything in a document that ids can speak of. */
export function targetsOf(project: Project): Target[] {
  return DEFINED.flatMap((kind) =>
    LISTS[kind]!.flatMap(({ owner, list }) =>
      owner === undefined
        ? itemsIn(project, list).map(({ id }) => ({ kind, id }))
        : project[owner].flatMap((one) => itemsIn(one, list).map(({ id }) => ({ kind, id, in: one.id }))),
    ),
  );
}

const itemsIn = (owner: object, list: string) => (owner as Record<string, { id: string }[]>)[list];

/** Whether an id of a kind, where it stands, is that of the target. */
function speaksOf(target: Target, kinds: readonly RefersTo[], id: string, context: Context): boolean {
  return id === target.id && kinds.includes(target.kind) && ownerIn(target, context);
}

/** Whether the target's owner is the one that ids of its kind look into from there. Where none is known, another may be meant. */
function ownerIn({ kind, in: owner }: Target, { unit, encounter, arena }: Context): boolean {
  if (owner === undefined) return true;
  const { owner: collection } = LISTS[kind]![0];
  return (collection === 'units' ? unit : collection === 'encounters' ? encounter : arena)?.id === owner;
}

/** Whether an id is to be taken out of a field, and what follows. */
type Dead = (kinds: readonly RefersTo[], id: string, context: Context) => boolean;

/** A place that spoke of it. */
interface Found {
  type: Constructor;
  at: readonly string[];
  ids: readonly string[];
  gone: Gone;
}

/** What is left of an object; it has to go itself where `takes`. */
interface Left {
  value: Plain;
  takes: boolean;
}

/**
 * An object and all below it without what speaks of the dead. What blocks stays as it is.
 * @param found is told each place that spoke of them
 * @returns the same object where nothing did
 */
function pruned(type: Constructor, object: Plain, at: readonly string[], outer: Context, dead: Dead, found: (place: Found) => void): Left {
  const context = contextOf(type, object, outer);
  const { references, optional, said, groups, lists } = classFields(type)!;
  let value = object;
  let takes = false;
  const set = (field: string, next: unknown) => {
    if (value === object) value = { ...object };
    if (next === undefined) delete value[field];
    else value[field] = next;
  };
  /** A field that may be absent is left out; with one that may not, its object goes. */
  const leaveOut = (field: string) => {
    if (optional.has(field) && !isNeeded(said.get(field)!, object)) set(field, undefined);
    else takes = true;
  };
  for (const [field, reference] of references) {
    const held = object[field];
    const kinds = kindsOf(reference, object);
    const killed = idsIn(held).filter((id) => dead(kinds, id, context));
    if (!killed.length) continue;
    const gone = goneOf(reference, object, at, Array.isArray(held) || optional.has(field) ? 'clears' : 'takes');
    found({ type, at: [...at, field], ids: killed, gone });
    if (gone === 'blocks') continue;
    if (gone === 'takes') takes = true;
    else if (Array.isArray(held))
      set(
        field,
        (held as string[]).filter((id) => !killed.includes(id)),
      );
    else leaveOut(field);
  }
  for (const [field, group] of groups) {
    const inner = object[field];
    if (!isDictionary(inner)) continue;
    const left = pruned(group(), inner, [...at, field], context, dead, found);
    if (left.takes) leaveOut(field);
    else if (left.value !== inner) set(field, left.value);
  }
  for (const [field, item] of lists) {
    const items = object[field];
    if (!Array.isArray(items) || !items.length) continue;
    const places: Found[] = [];
    const all = (items as Plain[]).map((one, i) =>
      pruned(item(), one, [...at, field, itemStep(one, i)], context, dead, (place) => places.push(place)),
    );
    const { emptied, needed } = said.get(field)!;
    // A list that must hold something keeps what it has.
    const held = needed && all.every((left) => left.takes);
    for (const place of places) found(held ? { ...place, gone: 'blocks' } : place);
    if (held) continue;
    if (all.every(({ takes: goes, value: left }, i) => !goes && left === items[i])) continue;
    let kept = all.filter((left) => !left.takes).map((left) => left.value);
    if (!kept.length && emptied === 'stays') kept = [all[0].value];
    if (!kept.length && emptied === 'takes') takes = true;
    set(field, kept);
  }
  return { value, takes };
}

function goneOf({ gone }: Reference, object: object, at: readonly string[], usual: Gone): Gone {
  return (typeof gone === 'function' ? gone(object, at) : gone) ?? usual;
}

/** Every place that speaks of it, in the order of the document. */
export function usesOf(project: Project, target: Target): Use[] {
  const uses = new Map<string, Use & { count: number }>();
  const use = (where: string, goes: boolean) => {
    const key = `${where} ${goes}`;
    const known = uses.get(key);
    if (known) known.count++;
    else uses.set(key, { where, goes, count: 1 });
  };
  if (target.kind === 'unit') {
    for (const variant of project.variants) {
      if (variant.basedOn === target.id) use(`${variant.name}: is based on it and becomes independent`, true);
      if (variant.id !== target.id && variant.changes.some(({ value }) => mentions(value, target.id)))
        use(`${variant.name}: a change of its own names it`, false);
    }
  }
  if (target.kind === 'trait')
    for (const variant of project.variants) if (withoutTrait(variant, target.id) !== variant) use(`${variant.name}: Traits`, true);
  const rest = withoutItem(project, target);
  pruned(
    Project,
    rest as unknown as Plain,
    [],
    { project: rest },
    (kinds, id, context) => speaksOf(target, kinds, id, context),
    ({ at, gone, type }) => {
      // A tweak is spoken of by the list it stands in.
      if (type !== Variant) use(placeWords(rest, type === Tweak ? at.slice(0, -2) : at), gone !== 'blocks');
    },
  );
  for (const encounter of without(project, target).encounters) if (!hasParty(encounter)) use(`${encounter.name}: Party`, false);
  for (const at of tweaksOn(project, target)) use(placeWords(project, at.slice(0, -1)), true);
  return [...uses.values()].map(({ where, goes, count }) => ({ where: count > 1 ? `${where} (${count})` : where, goes }));
}

/** A variant whose own traits are not that one. @returns the same where they never were */
function withoutTrait(variant: Variant, trait: string): Variant {
  const gives = ({ path, value }: Variant['changes'][number]) => pointerSteps(path)[0] === 'traits' && mentions(value, trait);
  if (!variant.changes.some(gives)) return variant;
  const changes = variant.changes.flatMap((change) => {
    if (!gives(change)) return [change];
    return Array.isArray(change.value) ? [{ ...change, value: change.value.filter((id) => id !== trait) as unknown }] : [];
  });
  return { ...variant, changes };
}

/** Ids are used once in a project: whatever text equals one speaks of it. */
function mentions(value: unknown, id: string): boolean {
  if (value === null || typeof value !== 'object') return value === id;
  return Object.values(value).some((one) => mentions(one, id));
}

/** A project in which the list that defined it does not. */
function withoutItem(project: Project, { kind, id, in: owner }: Target): Project {
  const without = <T extends object>(of: T, list: string): T => ({ ...of, [list]: itemsIn(of, list).filter((one) => one.id !== id) });
  let rest = project;
  for (const { owner: collection, list } of LISTS[kind]!) {
    rest =
      collection === undefined
        ? without(rest, list)
        : { ...rest, [collection]: (rest[collection] as { id: string }[]).map((one) => (one.id === owner ? without(one, list) : one)) };
  }
  return rest;
}

/**
 * A project without it, and without what speaks of it and goes with it: variants of a unit become independent. What must be
 * changed first (`usesOf`, not `goes`) is left, and refused by validation.
 */
export function without(project: Project, target: Target): Project {
  const freed =
    target.kind === 'unit'
      ? project.variants
          .filter(({ basedOn }) => basedOn === target.id)
          .map((variant) => independent(project, variant.id, { id: variant.id, name: variant.name }))
      : [];
  const rest = withoutItem(withoutTweaks(project, target), target);
  const known = {
    ...rest,
    units: [...rest.units, ...freed],
    variants: rest.variants
      .filter(({ id }) => !freed.some((one) => one.id === id))
      .map((variant) => (target.kind === 'trait' ? withoutTrait(variant, target.id) : variant)),
    accepted: (rest.accepted ?? []).filter(({ path }) => !leadsInto(path, placeOf(project, target))),
  };
  const dead: Dead = (kinds, id, context) => speaksOf(target, kinds, id, context);
  const { value } = pruned(Project, known as unknown as Plain, [], { project: known }, dead, () => {});
  return withFirstWaves(withFittingVariants(value as unknown as Project));
}

/** The first wave of an encounter waits for none: one that has become the first comes at once. */
function withFirstWaves(project: Project): Project {
  const waits = ({ waves: [first] }: Encounter) =>
    first && first.after === undefined && (first.start === 'with' || first.start === 'defeated');
  if (!project.encounters.some(waits)) return project;
  const encounters = project.encounters.map((encounter) =>
    waits(encounter)
      ? { ...encounter, waves: encounter.waves.map((wave, i) => (i ? wave : { ...wave, start: 'atOnce' as const })) }
      : encounter,
  );
  return { ...project, encounters };
}

/** The pointer to it in its document. */
function placeOf(project: Project, { kind, id, in: owner }: Target): string {
  const lists = LISTS[kind]!;
  const { owner: collection, list } = lists.find(
    (one) => one.owner !== undefined || itemsIn(project, one.list).some((item) => item.id === id),
  )!;
  return collection === undefined ? pointerOf(list, id) : pointerOf(collection, owner!, list, id);
}

const leadsInto = (path: string, place: string) => path === place || path.startsWith(`${place}/`);

/** The steps to tweaks on numbers of the target, where it is known whose number each changes. */
function tweaksOn(project: Project, target: Target): string[][] {
  const found: string[][] = [];
  if (target.in === undefined) return found;
  const { list } = LISTS[target.kind]![0];
  const inner = pointerOf(list, target.id);
  eachObject(Project, project, [], { project }, (type, object, at, context) => {
    if (!POINTING.has(type)) return;
    const { path } = object as unknown as FieldTweak;
    if (leadsInto(path, inner) && ownersOf(project, type, object, at, context, target).includes(target.in!)) found.push([...at]);
  });
  return found;
}

/** Of which units or encounters a tweak changes a number. Where it speaks of many, of the target's owner if only that has such a part. */
function ownersOf(project: Project, type: Constructor, object: Plain, at: readonly string[], context: Context, target: Target): string[] {
  const { scope, of } = object as unknown as Tweak;
  if (type === QuestionDial && of !== undefined) {
    const whose = (object as unknown as QuestionDial).scope;
    if (whose === 'unit') return originalOf(project, of);
    if (whose !== 'role') return [of];
  }
  if (type === Tweak && scope === 'unit' && of !== undefined) return originalOf(project, of);
  if (type === Tweak && scope === 'encounter' && context.encounter) return [context.encounter.id];
  if (type === FieldTweak && at[0] === 'variants') return originalOf(project, at[1]);
  if (type === FieldTweak && context.unit) return [context.unit.id];
  const { owner, list } = LISTS[target.kind]![0];
  if ((scope === 'encounter') !== (owner === 'encounters')) return [];
  const owners = project[owner!].filter((one) => itemsIn(one, list).some(({ id }) => id === target.id));
  return owners.length === 1 ? [owners[0].id] : [];
}

/** A unit and what it is based on, at any remove. */
function originalOf(project: Project, id: string): string[] {
  try {
    const { original, variants } = lineage(project, id);
    return [original.id, ...variants.map((one) => one.id)];
  } catch {
    return [id];
  }
}

function withoutTweaks(project: Project, target: Target): Project {
  const gone = tweaksOn(project, target);
  if (!gone.length) return project;
  const copy = structuredClone(project);
  for (const at of gone.reverse()) {
    const list = at.slice(0, -1).reduce<unknown>(into, copy) as unknown[];
    list.splice(Number(at[at.length - 1]), 1);
  }
  return copy;
}

const into = (value: unknown, step: string): unknown =>
  Array.isArray(value) ? value[value.findIndex((one, i) => itemStep(one, i) === step)] : (value as Plain)[step];

/** Takes a part out of a unit, with everything in it that refers to it. Changes the unit. */
export function dropPart(unit: Unit, kind: 'attack' | 'state', id: string): void {
  const { list } = LISTS[kind]![0];
  const rest = { ...unit, [list]: itemsIn(unit, list).filter((one) => one.id !== id) };
  const dead: Dead = (kinds, named) => kinds.includes(kind) && named === id;
  replace(unit, pruned(Unit, rest as unknown as Plain, [], { project: new Project() }, dead, () => {}).value);
}

/** Takes an entry of a list out of a unit, and what spoke of it. @param steps to the entry */
export function dropEntry(unit: Unit, steps: readonly string[]): void {
  const [list, id] = steps;
  const kind = (['attack', 'state'] as const).find((one) => steps.length === 2 && LISTS[one]!.some((own) => own.list === list));
  if (kind) dropPart(unit, kind, id);
  else cutOut(unit, steps);
}

/** The same of an entry within anything else of a document. */
export function withoutEntry(project: Project, steps: readonly string[]): Project {
  const [collection, owner, list, id] = steps;
  const defined =
    steps.length === 4 ? DEFINED.find((kind) => LISTS[kind]!.some((own) => own.owner === collection && own.list === list)) : undefined;
  if (defined) return without(project, { kind: defined, id, in: owner });
  const rest = { ...project, [collection]: structuredClone(project[collection as Collection]) };
  cutOut(rest, steps);
  return rest;
}

function cutOut(root: object, steps: readonly string[]): void {
  const list = steps.slice(0, -1).reduce<unknown>((value, step) => stepInto(value, step), root) as unknown[];
  const at = Array.isArray(list) ? indexInList(list, steps[steps.length - 1]) : -1;
  if (at >= 0) list.splice(at, 1);
}

function replace(object: object, next: object): void {
  for (const key of Object.keys(object)) delete (object as Plain)[key];
  Object.assign(object, next);
}

/** A project whose encounters, arenas, settings and brief speak of nothing that is not there: what was cut out by hand. */
export function withFittingReferences(project: Project): Project {
  const apart = { ...project, units: [], variants: [] };
  const { value } = pruned(Project, apart as unknown as Plain, [], { project }, missing, () => {});
  if ((value as object) === apart) return project;
  return { ...(value as unknown as Project), units: project.units, variants: project.variants };
}

const missing: Dead = (kinds, id, context) => !resolves(kinds, id, context);

/**
 * A part of a unit as it fits into another: what it refers to and that one does not have is left out.
 * @param type its class
 * @returns what fits, and what was lost: "follow-up attack bite-two"
 */
export function fitted<T extends object>(type: Constructor, part: T, unit: Unit): { part: T; lost: string[] } {
  const own = (kind: RefersTo) => kind === 'attack' || kind === 'state';
  const dead: Dead = (kinds, id, context) => kinds.some(own) && missing(kinds, id, context);
  const lost: string[] = [];
  const { value } = pruned(type, part as unknown as Plain, [], { project: new Project(), unit }, dead, ({ at, ids }) => {
    const labels = at
      .map((_, i) => fieldLabel(type, at.slice(0, i + 1)).toLowerCase())
      .filter((_, i) => fieldAt(type, at.slice(0, i))?.kind !== 'list');
    for (const id of ids) lost.push([...labels.slice(-2), id].join(' '));
  });
  return { part: value as unknown as T, lost };
}

/** A project in which it has another id, and everything that spoke of it speaks of it still. */
export function renamed(project: Project, target: Target, id: string): Project {
  const copy = structuredClone(project);
  const { list } = LISTS[target.kind]![0];
  const before = pointerOf(list, target.id);
  eachObject(Project, copy, [], { project: copy }, (type, object, at, context) => {
    rename(type, object, context, target, id);
    if (POINTING.has(type)) {
      const tweak = object as unknown as FieldTweak;
      if (
        target.in !== undefined &&
        leadsInto(tweak.path, before) &&
        ownersOf(project, type, object, at, context, target).includes(target.in)
      )
        tweak.path = pointerOf(list, id) + tweak.path.slice(before.length);
    }
    if (type === Variant) renameInChanges(project, object as unknown as Variant, target, id);
  });
  const place = placeOf(project, target);
  const moved = pointerOf(...pointerSteps(place).slice(0, -1), id);
  for (const one of copy.accepted) if (leadsInto(one.path, place)) one.path = moved + one.path.slice(place.length);
  for (const { owner, list: name } of LISTS[target.kind]!) {
    for (const of of owner === undefined ? [copy] : copy[owner].filter((one) => one.id === target.in))
      for (const item of itemsIn(of, name)) if (item.id === target.id) item.id = id;
  }
  return copy;
}

function rename(type: Constructor, object: Plain, context: Context, target: Target, id: string): void {
  for (const [field, reference] of classFields(type)!.references) {
    const kinds = kindsOf(reference, object);
    const now = (one: string) => (speaksOf(target, kinds, one, context) ? id : one);
    const value = object[field];
    if (typeof value === 'string') object[field] = now(value);
    else if (Array.isArray(value)) object[field] = (value as string[]).map(now);
  }
}

/** What a variant changes of its base says where, and with what. */
function renameInChanges(project: Project, variant: Variant, target: Target, id: string): void {
  const owned = target.in !== undefined && originalOf(project, variant.id).includes(target.in);
  const { list } = LISTS[target.kind]![0];
  for (const change of variant.changes) {
    const before = pointerOf(list, target.id);
    if (owned && leadsInto(change.path, before)) change.path = pointerOf(list, id) + change.path.slice(before.length);
    const steps = pointerSteps(change.path);
    if (owned && change.before === target.id && steps[0] === list) change.before = id;
    const unit = { id: target.in } as Unit;
    const context: Context = owned ? { project, unit } : { project };
    const kind = fieldAt(Unit, steps);
    const values = kind?.kind === 'list' && Array.isArray(change.value) ? (change.value as unknown[]) : [change.value];
    if ((kind?.kind === 'group' || kind?.kind === 'list') && values.every(isDictionary))
      for (const value of values)
        eachObject(kind.type(), value, [], context, (type, object, _, within) => rename(type, object, within, target, id));
    else if (change.value !== undefined) change.value = renamedValue(steps, change.value, context, target, id);
  }
}

/** A single field that a change sets: renamed as the class says that holds it. */
function renamedValue(steps: readonly string[], value: unknown, context: Context, target: Target, id: string): unknown {
  const parent = fieldAt(Unit, steps.slice(0, -1));
  if (parent?.kind !== 'group') return value;
  const field = steps[steps.length - 1];
  const reference = classFields(parent.type())!.references.get(field);
  if (!reference) return value;
  const kinds = 'by' in reference.to ? Object.values(reference.to.kinds) : reference.to;
  const now = (one: unknown) => (speaksOf(target, kinds, one as string, context) ? id : one);
  return Array.isArray(value) ? value.map(now) : now(value);
}
