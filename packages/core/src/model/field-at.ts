/** Which field of the document a pointer leads to, by what the classes say. */
import { type ClassFields, type Constructor, type FieldKind, type QuantityInfo, classFields } from './field';

/**
 * What kind of value a pointer of the given class leads to, whatever the ids in between; undefined where it leads nowhere.
 * The item a list step names makes no difference; a pointer that ends at an item leads to a group of the item's class.
 */
export function fieldAt(root: Constructor, steps: readonly string[]): FieldKind | undefined {
  let at: FieldKind = { kind: 'group', type: () => root };
  for (const step of steps) {
    if (at.kind === 'list') {
      at = { kind: 'group', type: at.type };
      continue;
    }
    if (at.kind !== 'group') return undefined;
    const next: FieldKind | undefined = classFields(at.type())?.kinds.get(step);
    if (!next) return undefined;
    at = next;
  }
  return at;
}

export type ChangeableField =
  Extract<FieldKind, { kind: 'number' | 'yesNo' }> | (Extract<FieldKind, { words: readonly string[] }> & { kind: 'word' });

/** What a tweak may change: a number; a word or a yes-or-no that does not say which other fields count. Undefined: nothing that it may. */
export function changeableAt(root: Constructor, steps: readonly string[]): ChangeableField | undefined {
  const found = fieldAt(root, steps);
  if (found?.kind === 'number') return found;
  if (found?.kind !== 'word' && found?.kind !== 'yesNo') return undefined;
  const parent = fieldAt(root, steps.slice(0, -1));
  const fields = parent?.kind === 'group' ? classFields(parent.type()) : undefined;
  const name = steps[steps.length - 1];
  return !fields || fields.said.get(name)?.fixed || decides(fields, name) ? undefined : (found as ChangeableField);
}

/** Whether other fields of the class have something to say, or speak of something else, by what it says. */
const decides = ({ said, references }: ClassFields, name: string): boolean =>
  [...said.values()].some(({ when, needed }) => (when && name in when) || (typeof needed === 'object' && name in needed)) ||
  [...references.values()].some(({ to }) => 'by' in to && to.by === name);

/** Whether a value is one that such a field holds; of a number's limits nothing is said. */
export const fitsField = (field: ChangeableField, value: unknown): value is number | string | boolean =>
  field.kind === 'number'
    ? typeof value === 'number'
    : field.kind === 'yesNo'
      ? typeof value === 'boolean'
      : typeof value === 'string' && field.words.includes(value);

/** The quantity a pointer of the given class leads to; undefined where it leads to no number. */
export function quantityAt(root: Constructor, steps: readonly string[]): QuantityInfo | undefined {
  const found = fieldAt(root, steps);
  return found?.kind === 'number' ? found.info : undefined;
}
