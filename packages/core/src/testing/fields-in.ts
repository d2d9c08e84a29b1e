/** The fields of a piece of a document, with what the classes say of each. */
import { type Constructor, type FieldKind, classFields } from '../model/field';
import type { Loose } from './duels';

export interface FieldFound {
  /** The class that has it, what it is a field of, and the steps to it from the piece. */
  type: Constructor;
  of: Loose;
  key: string;
  at: string[];
  kind: FieldKind | undefined;
  value: unknown;
}

/** Each field of each class once. @param known those that have been found, in this piece or another; more are added */
export function fieldsIn(type: Constructor, of: Loose, known = new Set<string>(), at: string[] = []): FieldFound[] {
  const { groups, lists, kinds } = classFields(type)!;
  return Object.entries(of).flatMap(([key, value]) => {
    if (value === undefined) return [];
    const here = [...at, key];
    const group = groups.get(key);
    if (group) return fieldsIn(group(), value as Loose, known, here);
    const list = lists.get(key);
    if (list) return (value as Loose[]).flatMap((item, i) => fieldsIn(list(), item, known, [...here, String(i)]));
    const field = `${type.name} ${key}`;
    if (known.has(field)) return [];
    known.add(field);
    return [{ type, of, key, at: here, kind: kinds.get(key), value }];
  });
}
