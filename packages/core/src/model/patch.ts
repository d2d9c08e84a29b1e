/**
 * JSON Patch (RFC 6902: add, remove, replace, test) over pointers that step through lists by id. Used for revisions,
 * for undo and for merging two people's edits.
 */
import { type Copies, ownPart } from './copies';
import { type Json, indexInList, isDictionary, pointerOf, pointerSteps, stepInto } from './pointer';

export type PatchOperation =
  | { op: 'add' | 'replace' | 'test'; path: string; value: Json; /** for an item put into a list: the id it goes before */ before?: string }
  | { op: 'remove'; path: string };

/** A patch that does not fit its document: which operation, and what is missing. */
export class PatchError extends Error {
  constructor(
    readonly operation: number,
    readonly path: string,
    detail: string,
  ) {
    super(`operation ${operation} (${path}): ${detail}`);
  }
}

const FORBIDDEN = new Set(['__proto__', 'constructor', 'prototype']);

/**
 * Applies a patch in place. In a list of things with ids, "add" to `/list/-` appends, and "add" to `/list/ID` puts the
 * item before ID when `before` names it or at the end otherwise.
 * @param copies what of it may be written in: of what is not, a copy takes its place
 * @throws PatchError; the document may then be half changed, so apply it to a copy
 */
export function applyPatch(root: object, patch: readonly PatchOperation[], copies: Copies = 'all'): void {
  patch.forEach((operation, number) => {
    const steps = pointerSteps(operation.path);
    if (!steps.length) throw new PatchError(number, operation.path, 'the whole document is replaced by a whole write, not by a patch');
    if (steps.some((step) => FORBIDDEN.has(step))) throw new PatchError(number, operation.path, 'not a field of the document');
    let parent: Json = root;
    for (const step of steps.slice(0, -1)) {
      const part = stepInto(parent, step);
      if (part === undefined) throw new PatchError(number, operation.path, `there is nothing at "${step}"`);
      parent = ownWithin(parent, step, part, copies);
    }
    const last = steps[steps.length - 1];
    if (Array.isArray(parent)) applyToList(parent, last, operation, number);
    else if (isDictionary(parent)) applyToObject(parent, last, operation, number);
    else throw new PatchError(number, operation.path, 'its parent holds no fields');
  });
}

/** A part of something that may be written in, which it may be itself from now on. */
function ownWithin(parent: Json, step: string, part: Json, copies: Copies): Json {
  if (typeof part !== 'object' || part === null) return part;
  const own = ownPart(part, copies);
  if (own === part) return part;
  if (Array.isArray(parent)) parent[indexInList(parent, step)] = own;
  else (parent as Record<string, Json>)[step] = own;
  return own;
}

function applyToList(list: Json[], step: string, operation: PatchOperation, number: number): void {
  const index = indexInList(list, step);
  if (operation.op === 'add') {
    if (index >= 0 && isDictionary(list[index]) && 'id' in list[index]) {
      throw new PatchError(number, operation.path, `"${step}" is there already`);
    }
    const before = operation.before === undefined ? -1 : indexInList(list, operation.before);
    const position = before >= 0 ? before : index >= 0 ? index : list.length;
    list.splice(position, 0, structuredClone(operation.value));
    return;
  }
  if (index < 0) throw new PatchError(number, operation.path, `there is no "${step}" in the list`);
  if (operation.op === 'remove') list.splice(index, 1);
  else if (operation.op === 'replace') list[index] = structuredClone(operation.value);
  else if (!sameJson(list[index], operation.value)) throw new PatchError(number, operation.path, 'the value is another');
}

function applyToObject(parent: Record<string, Json>, step: string, operation: PatchOperation, number: number): void {
  const there = Object.hasOwn(parent, step);
  if (operation.op === 'add') parent[step] = structuredClone(operation.value);
  else if (!there) throw new PatchError(number, operation.path, `there is no "${step}"`);
  else if (operation.op === 'remove') delete parent[step];
  else if (operation.op === 'replace') parent[step] = structuredClone(operation.value);
  else if (!sameJson(parent[step], operation.value)) throw new PatchError(number, operation.path, 'the value is another');
}

/** Equality of JSON values; the order of an object's fields makes no difference. */
export function sameJson(a: Json, b: Json): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((item, i) => sameJson(item, b[i]));
  if (!isDictionary(a) || !isDictionary(b)) return false;
  const keys = Object.keys(a);
  return keys.length === Object.keys(b).length && keys.every((key) => Object.hasOwn(b, key) && sameJson(a[key], b[key]));
}

/**
 * A value that another has become, of the other's own parts wherever they are the same: whatever an edit leaves alone is the very
 * object that it was before, so that who asks whether it changed need not look into it.
 * @returns equal to `after` (the order of an object's fields may be that of before); `before` itself where they are equal
 */
export function sharing<T>(before: T, after: T): T;
export function sharing(before: Json, after: Json): Json {
  if (before === after) return before;
  if (Array.isArray(before) && Array.isArray(after)) return sharedList(before, after);
  if (!isDictionary(before) || !isDictionary(after)) return after;
  const keys = Object.keys(after);
  let same = keys.length === Object.keys(before).length;
  const parts = keys.map((key): [string, Json] => {
    const known = Object.hasOwn(before, key);
    const part = known ? sharing(before[key], after[key]) : after[key];
    same &&= known && part === before[key];
    return [key, part];
  });
  return same ? before : Object.fromEntries(parts);
}

/** Things with ids are held against those of the same id, other items against those at the same place. */
function sharedList(before: Json[], after: Json[]): Json[] {
  const known = ids(before) && ids(after) && new Map(before.map((item) => [(item as { id: string }).id, item]));
  const items = after.map((item, i) => sharing(known ? known.get((item as { id: string }).id) : before[i], item));
  return items.length === before.length && items.every((item, i) => item === before[i]) ? before : items;
}

/** A document changed by a patch; the old one stays as it was, and what the patch leaves alone is shared with it. @throws PatchError */
export function patched<T extends object>(document: T, patch: readonly PatchOperation[]): T {
  const copies: Copies = new Set();
  const next = ownPart(document, copies);
  applyPatch(next, patch, copies);
  return sharing(document, next);
}

/** The patch that turns one document into another: applying it to `from` gives `to`. */
export function difference(from: Json, to: Json, at: string[] = []): PatchOperation[] {
  if (sameJson(from, to)) return [];
  if (isDictionary(from) && isDictionary(to)) {
    const operations: PatchOperation[] = [];
    for (const key of Object.keys(from)) {
      if (!Object.hasOwn(to, key)) operations.push({ op: 'remove', path: pointerOf(...at, key) });
      else operations.push(...difference(from[key], to[key], [...at, key]));
    }
    for (const key of Object.keys(to)) {
      if (!Object.hasOwn(from, key)) operations.push({ op: 'add', path: pointerOf(...at, key), value: to[key] });
    }
    return operations;
  }
  const fromIds = ids(from);
  const toIds = ids(to);
  if (fromIds && toIds && Array.isArray(from) && Array.isArray(to) && at.length) return listDifference(from, to, fromIds, toIds, at);
  return [{ op: 'replace', path: pointerOf(...at), value: to }];
}

/** Ids of a list of things with distinct ids; undefined for any other value. An empty list counts as one. */
function ids(value: Json): string[] | undefined {
  if (!Array.isArray(value)) return undefined;
  const found = value.map((item) => (isDictionary(item) && typeof item.id === 'string' ? item.id : undefined));
  return found.every((id) => id !== undefined) && new Set(found).size === found.length ? found : undefined;
}

function listDifference(from: Json[], to: Json[], fromIds: string[], toIds: string[], at: string[]): PatchOperation[] {
  const kept = fromIds.filter((id) => toIds.includes(id));
  // A changed order of what stays is rare: the list is then replaced whole.
  if (
    !sameJson(
      kept,
      toIds.filter((id) => fromIds.includes(id)),
    )
  )
    return [{ op: 'replace', path: pointerOf(...at), value: to }];
  const operations: PatchOperation[] = fromIds
    .filter((id) => !toIds.includes(id))
    .map((id) => ({ op: 'remove', path: pointerOf(...at, id) }));
  for (const id of kept) operations.push(...difference(from[fromIds.indexOf(id)], to[toIds.indexOf(id)], [...at, id]));
  // From the end, so that the item each one goes before is already there.
  for (let i = toIds.length - 1; i >= 0; i--) {
    if (fromIds.includes(toIds[i])) continue;
    const before = toIds[i + 1];
    operations.push({ op: 'add', path: pointerOf(...at, toIds[i]), value: to[i], ...(before === undefined ? {} : { before }) });
  }
  return operations;
}

/** Whether two patches of the same document touch the same place, or one a part of what the other touches. */
export function patchesOverlap(a: readonly PatchOperation[], b: readonly PatchOperation[]): string[] {
  const inside = (p: string, q: string) => p === q || p.startsWith(q + '/');
  return a.filter((x) => b.some((y) => inside(x.path, y.path) || inside(y.path, x.path))).map((x) => x.path);
}
