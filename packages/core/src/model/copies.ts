/** Writing in a copy of a document of which only what is written in is copied: all else is the document's own, the very same objects. */

/** The parts that are copies, to be written in; all: every part is. */
export type Copies = Set<object> | 'all';

/** A part that may be written in: itself where it is a copy already, else a copy of it alone, with the very same parts. */
export function ownPart<T extends object>(part: T, copies: Copies): T {
  if (copies === 'all' || copies.has(part)) return part;
  const copy = (Array.isArray(part) ? [...part] : { ...part }) as T;
  copies.add(copy);
  return copy;
}
