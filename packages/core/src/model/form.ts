/** The fields of a group that a form shows beside one another, where nothing else is said. */
import { type Constructor, classFields } from './field';
import { fieldAt } from './field-at';
import { type Plain, applies } from './walk';

/**
 * Numbers, words and yes-or-no of the group at a pointer's steps, in the order of the class, and those of small groups within
 * it that hold nothing but numbers; without what has nothing to say as its object stands. Lists, texts, references and larger
 * groups have places of their own.
 * @returns paths within the group: "regen", "reaction/mean"
 */
export function plainFields(root: Constructor, steps: readonly string[], object: object | undefined): string[] {
  const group = fieldAt(root, steps);
  return group?.kind === 'group' ? fieldsOf(group.type(), (object ?? {}) as Plain) : [];
}

function fieldsOf(type: Constructor, object: Plain): string[] {
  const { kinds, said, references, optional } = classFields(type)!;
  return [...kinds].flatMap(([field, kind]) => {
    if (references.has(field) || !applies(said.get(field)!.when, object)) return [];
    if (kind.kind === 'number' || kind.kind === 'word' || kind.kind === 'yesNo') return [field];
    if (kind.kind !== 'group' || optional.has(field)) return [];
    const inner = [...classFields(kind.type())!.kinds];
    return inner.every(([, { kind: one }]) => one === 'number') ? inner.map(([name]) => `${field}/${name}`) : [];
  });
}
