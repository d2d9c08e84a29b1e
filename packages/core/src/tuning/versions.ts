/**
 * Two versions of a project: what changed, edit by edit, and what each edit does. An edit that cannot stand without another (what
 * uses a new attack, without the attack) is one with it. Each is put in alone, and taken out alone, on the same seeds.
 */
import { type PatchOperation, applyPatch, difference } from '../model/patch';
import { pointerSteps } from '../model/pointer';
import { InvalidDocument } from '../model/problem';
import type { Project } from '../model/project';
import { parseProject } from '../model/validate';
import { changesInWords, wordingSentence } from '../model/words';

/** Edits that are told apart; more are grouped by what they are of. */
export const MOST_EDITS = 64;

/** One edit, or several that cannot stand alone. */
export interface Edit {
  /** Its operations, in the order in which they are applied. */
  operations: PatchOperation[];
  /** What it does, in words. */
  words: string[];
  /** The version before with it alone; and the version after without it. */
  putIn: Project;
  takenOut: Project;
}

export type EditBy = 'field' | 'unit';

/** Nothing of these makes a fight another. */
const ELSEWHERE = new Set(['id', 'name', 'brief', 'accepted']);

/** The operations from one version to another that may change a fight. */
export function operationsBetween(before: Project, after: Project): PatchOperation[] {
  return difference(before, after).filter(({ path }) => !ELSEWHERE.has(pointerSteps(path)[0]) && !/\/(name|notes|description)$/.test(path));
}

/**
 * The edits from one version to another, in their order. Where one alone makes no valid project, it is joined with those that it
 * needs: what makes it valid when they come along, or all of what it is of.
 */
export function editsBetween(before: Project, after: Project, by: EditBy = 'field'): Edit[] {
  const operations = operationsBetween(before, after);
  const fine = by === 'field' && operations.length <= MOST_EDITS;
  let groups: number[][] = grouped(operations, fine ? (_, i) => String(i) : ({ path }) => pointerSteps(path).slice(0, 2).join('/'));
  const applied = (which: readonly number[]) =>
    withOperations(
      before,
      which.map((i) => operations[i]),
    );
  const rest = (group: readonly number[]) => operations.map((_, i) => i).filter((i) => !group.includes(i));
  for (let again = true; again && groups.length > 1;) {
    again = false;
    for (const group of groups) {
      if (applied(group) && applied(rest(group))) continue;
      const others = groups.filter((one) => one !== group);
      const stands = (one: number[]) => {
        const both = [...group, ...one].sort((a, b) => a - b);
        return applied(both) && applied(rest(both)) ? both : undefined;
      };
      const partner =
        others.find((one) => stands(one)) ?? others.find((one) => near(operations[one[0]], operations[group[0]])) ?? others[0];
      groups = [...others.filter((one) => one !== partner), [...group, ...partner].sort((a, b) => a - b)].sort((a, b) => a[0] - b[0]);
      again = true;
      break;
    }
  }
  return groups.flatMap((group): Edit[] => {
    const [putIn, takenOut] = [applied(group), applied(rest(group))];
    if (!putIn || !takenOut) return [];
    return [{ operations: group.map((i) => operations[i]), words: changesInWords(before, putIn).map(wordingSentence), putIn, takenOut }];
  });
}

const near = (a: PatchOperation, b: PatchOperation): boolean =>
  pointerSteps(a.path).slice(0, 2).join('/') === pointerSteps(b.path).slice(0, 2).join('/');

function grouped(operations: readonly PatchOperation[], keyOf: (operation: PatchOperation, i: number) => string): number[][] {
  const groups = new Map<string, number[]>();
  operations.forEach((operation, i) => groups.set(keyOf(operation, i), [...(groups.get(keyOf(operation, i)) ?? []), i]));
  return [...groups.values()];
}

/** A version with operations applied; undefined where that makes no valid project. */
function withOperations(before: Project, operations: readonly PatchOperation[]): Project | undefined {
  const copy = structuredClone(before);
  try {
    applyPatch(copy, operations);
    return parseProject(copy);
  } catch (error) {
    if (error instanceof InvalidDocument || (error as Error).name === 'Error') return undefined;
    throw error;
  }
}

/** Objects of another project with the ids that they have in this one: found by id, else by name; told where by name. */
export function matched(project: Project, other: Project): { project: Project; byName: { from: string; to: string }[] } {
  const byName: { from: string; to: string }[] = [];
  for (const list of ['units', 'variants', 'arenas', 'encounters', 'tiers', 'skills', 'styles', 'traits'] as const) {
    const own = project[list] as { id: string; name: string }[];
    const theirs = other[list] as { id: string; name: string }[];
    for (const { id, name } of theirs) {
      if (own.some((one) => one.id === id)) continue;
      const same = own.find((one) => one.name === name && !theirs.some((each) => each.id === one.id));
      if (same) byName.push({ from: id, to: same.id });
    }
  }
  if (!byName.length) return { project: other, byName };
  // Every reference is by id alone and ids are unlike other words: what is quoted whole is the id.
  const renamed = new Map(byName.map(({ from, to }) => [from, to]));
  const through = (value: unknown): unknown =>
    typeof value === 'string'
      ? (renamed.get(value) ?? value)
      : Array.isArray(value)
        ? value.map(through)
        : typeof value === 'object' && value !== null
          ? Object.fromEntries(Object.entries(value).map(([key, one]) => [key, key === 'name' || key === 'notes' ? one : through(one)]))
          : value;
  return { project: parseProject(through(other)), byName };
}
