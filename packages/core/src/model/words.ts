/** What fields and their words are called where people read them, as their classes say it: forms, histories, comparisons. */
import { Arena } from './arena';
import { type Condition, conditionSentence } from './condition';
import { Encounter } from './encounter';
import { type Constructor, type FieldKind, classFields } from './field';
import { fieldAt } from './field-at';
import { numberWords } from './number-words';
import { type PatchOperation, difference } from './patch';
import { pointerSteps, stepInto } from './pointer';
import { type Collection, Project } from './project';
import { Tier } from './tier';
import { Trait } from './trait';
import { type FieldTweak, Skill, Style } from './tweak';
import { Unit } from './unit';
import { Variant } from './variant';
import { itemStep } from './walk';

/** The class that declares the last step of a pointer. */
function parentOf(root: Constructor, steps: readonly string[]): Constructor | undefined {
  const parent = fieldAt(root, steps.slice(0, -1));
  return parent?.kind === 'group' ? parent.type() : undefined;
}

/** What the field at a pointer is called; the step itself where nothing better is known. */
export function fieldLabel(root: Constructor, steps: readonly string[]): string {
  const field = steps[steps.length - 1] ?? '';
  const type = parentOf(root, steps);
  return (type && classFields(type)?.said.get(field)?.label) || field;
}

/** "Cooldown of all attacks". */
export function placeName(path: string, root: Constructor = Unit): string {
  const steps = pointerSteps(path);
  const label = fieldLabel(root, steps);
  const group = steps.filter((step, i) => i < steps.length - 1 && step !== '*' && steps[i + 1] !== '*' && !/^\d/.test(step));
  const within = group.length && group[group.length - 1] !== label.toLowerCase() ? ` (${group.join(' ')})` : '';
  const list = steps.lastIndexOf('*') > 0 ? ` of all ${steps[steps.lastIndexOf('*') - 1]}` : '';
  return `${label}${list}${within}`;
}

/** "Health of all attacks × 1.25", "Tracking of all attacks = fixed": what a tweak does. */
export function tweakWords(root: Constructor, { path, op, value }: FieldTweak): string {
  const amount = typeof value === 'number' ? numberWords(value) : valueWords(root, pointerSteps(path), value);
  return `${placeName(path, root)} ${op} ${amount}`;
}

/** What the words of a field are called, in the order of the model. */
export function fieldWords(root: Constructor, steps: readonly string[]): { id: string; name: string }[] {
  const field = steps[steps.length - 1];
  const type = parentOf(root, steps);
  const kind = type && classFields(type)?.kinds.get(field);
  if (!kind || (kind.kind !== 'word' && kind.kind !== 'someOf')) return [];
  return kind.words.map((id) => ({ id, name: kind.called[id] }));
}

/** A value of the document in a few words. */
export function valueWords(root: Constructor, steps: readonly string[], value: unknown): string {
  if (value === undefined) return 'none';
  const kind: FieldKind | undefined = fieldAt(root, steps);
  if (typeof value === 'number') {
    const unit = kind?.kind === 'number' ? kind.info.unit : '';
    return `${numberWords(value)}${unit ? ` ${unit}` : ''}`;
  }
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string') return fieldWords(root, steps).find(({ id }) => id === value)?.name ?? (value || 'nothing');
  if (Array.isArray(value)) {
    if (!value.length) return 'none';
    if (value.every((item) => typeof item === 'string'))
      return value.map((item: string) => fieldWords(root, steps).find(({ id }) => id === item)?.name ?? item).join(', ');
    return `${value.length} ${value.length === 1 ? 'entry' : 'entries'}`;
  }
  if (typeof value === 'object' && value !== null && 'subject' in value) return conditionSentence(value as Condition);
  return 'set';
}

/** One difference between two documents. */
export interface Wording {
  path: string;
  /** "Clipper › Bite". */
  where: string;
  /** "Cooldown", "added", "removed". */
  what: string;
  from?: string;
  to?: string;
}

const CLASSES: Record<Collection, Constructor> = {
  units: Unit,
  variants: Variant,
  arenas: Arena,
  encounters: Encounter,
  traits: Trait,
  tiers: Tier,
  skills: Skill,
  styles: Style,
};

/** What differs between two versions of a project, a line for each place. */
export function changesInWords(before: Project, after: Project): Wording[] {
  return difference(before, after).map((operation) => wordingOf(before, after, operation));
}

/** The same within one object of a class (a unit, an attack), whose name is left out. */
export function changesWithin(type: Constructor, before: object, after: object): Wording[] {
  return difference(before, after).map((operation) => within(type, before, after, pointerSteps(operation.path), [], operation));
}

function wordingOf(before: Project, after: Project, operation: PatchOperation): Wording {
  const [collection, id, ...steps] = pointerSteps(operation.path);
  const type = CLASSES[collection as Collection];
  const list = (project: Project) => project[collection as Collection] as { id: string; name: string }[] | undefined;
  if (!type || id === undefined) return within(Project, before, after, pointerSteps(operation.path), [], operation);
  const [old, now] = [before, after].map((project) => list(project)?.find((item) => item.id === id));
  const name = (now ?? old)?.name ?? id;
  if (!steps.length) return { path: operation.path, where: name, what: operation.op === 'remove' ? 'removed' : 'added' };
  return within(type, old ?? {}, now ?? {}, steps, [name], operation);
}

function within(type: Constructor, before: object, after: object, steps: string[], names: string[], { op, path }: PatchOperation): Wording {
  const where = [...names];
  let [old, now]: unknown[] = [before, after];
  let itemAdded = false;
  steps.forEach((step, i) => {
    const inList = fieldAt(type, steps.slice(0, i))?.kind === 'list';
    old = stepInto(old, step);
    now = stepInto(now, step);
    if (inList) {
      const item = (now ?? old) as { name?: string; id?: string } | undefined;
      where.push(item?.name ?? item?.id ?? `${fieldLabel(type, steps.slice(0, i)).toLowerCase()} ${Number(step) + 1}`);
      itemAdded = i === steps.length - 1;
    } else if (i < steps.length - 1 && fieldAt(type, steps.slice(0, i + 1))?.kind === 'group') {
      const label = fieldLabel(type, steps.slice(0, i + 1));
      if (!PLAIN_GROUPS.has(step)) where.push(label.toLowerCase());
    }
  });
  if (itemAdded && op !== 'replace') return { path, where: where.join(' › '), what: op === 'remove' ? 'removed' : 'added' };
  return {
    path,
    where: where.join(' › '),
    what: itemAdded ? 'replaced' : fieldLabel(type, steps),
    from: valueWords(type, steps, old),
    to: valueWords(type, steps, now),
  };
}

/** What an item of the list at a pointer is called: its name, or what its list says, or its id. */
export function itemName(list: readonly string[], item: object): string | undefined {
  const type = parentOf(Project, list);
  const called = type && classFields(type)?.said.get(list[list.length - 1])?.called;
  const { name, id } = item as { name?: string; id?: string };
  return name ?? called?.(item) ?? id;
}

/** Where a field stands, as people read it: "Evening Shift › Second: Enemy". Items of lists by their names, others by the list. */
export function placeWords(project: Project, at: readonly string[]): string {
  const names: string[] = [];
  let value: unknown = project;
  at.slice(0, -1).forEach((step, i) => {
    value = Array.isArray(value) ? value.find((one, index) => itemStep(one, index) === step) : stepInto(value, step);
    const inList = fieldAt(Project, at.slice(0, i))?.kind === 'list';
    const name = inList ? itemName(at.slice(0, i), value as object) : undefined;
    const label = fieldLabel(Project, at.slice(0, i + 1));
    if (name) names.push(name);
    else if (!inList && !PLAIN_GROUPS.has(step) && !Array.isArray(value)) names.push(i ? label.toLowerCase() : label);
  });
  return `${names.join(' › ')}: ${fieldLabel(Project, at)}`;
}

/** Groups whose fields' labels say enough by themselves. */
const PLAIN_GROUPS = new Set(['beat', 'range', 'health', 'body', 'movement', 'senses', 'effects', 'hits', 'aim']);

/** "Clipper › Bite: Cooldown 1.6 s → 2.4 s". */
export function wordingSentence({ where, what, from, to }: Wording): string {
  const place = where ? `${where}: ` : '';
  return from === undefined ? `${place}${what}` : `${place}${what} ${from} → ${to}`;
}
