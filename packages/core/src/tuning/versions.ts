/**
 * Two versions of a project: what changed, edit by edit, and what each edit does. An edit that cannot stand without another (what
 * uses a new attack, without the attack) is one with it. Each is put in alone, and taken out alone, on the same seeds.
 */
import { type PatchOperation, applyPatch, difference } from '../model/patch';
import { pointerSteps } from '../model/pointer';
import { InvalidDocument } from '../model/problem';
import type { Project } from '../model/project';
import type { Setting, Tweak } from '../model/tweak';
import { parseProject } from '../model/validate';
import { changesInWords, wordingSentence } from '../model/words';

/** Edits that are told apart; more are grouped by what they are of. */
export const MOST_EDITS = 64;

/** One edit, or several that cannot stand alone. */
export interface Edit {
  /** What makes the version before into one with it alone. */
  operations: PatchOperation[];
  /** What it does, in words. */
  words: string[];
  /** The version before with it alone; and the version after without it. */
  putIn: Project;
  takenOut: Project;
}

export type EditBy = 'field' | 'unit';

/** Nothing of these makes a fight another. */
const ELSEWHERE = new Set(['id', 'name', 'brief', 'accepted', 'tuning']);

/** Settings whose tweaks have no ids: which number of whom a tweak changes tells one from another. */
const SETTINGS = ['tiers', 'skills', 'styles'] as const;

/** A project whose settings hold their tweaks by what they change, so that each is an edit of its own; order is kept apart. */
type Keyed = Omit<Project, (typeof SETTINGS)[number]>;

function keyed(project: Project): Keyed {
  const settings = SETTINGS.map((list) => [list, project[list].map((one) => ({ ...one, tweaks: byPlace(one.tweaks) }))]);
  return { ...project, ...Object.fromEntries(settings) } as Keyed;
}

/** "unit clipper /health/max 0": the first tweak on that number. */
function byPlace(tweaks: readonly Tweak[]): Record<string, Tweak> {
  const met = new Map<string, number>();
  return Object.fromEntries(
    tweaks.map((tweak) => {
      const place = `${tweak.scope} ${tweak.of ?? ''} ${tweak.path}`;
      const count = met.get(place) ?? 0;
      met.set(place, count + 1);
      return [`${place} ${count}`, tweak];
    }),
  );
}

/** Back, with tweaks in the order of the newer version, and those that only the older has behind them. */
function unkeyed(project: Keyed, before: Project, after: Project): unknown {
  const settings = SETTINGS.map((list) => [
    list,
    (project as unknown as Record<string, { id: string; tweaks: Record<string, Tweak> }[]>)[list].map((one) => {
      const orders = [after, before].map((version) => byPlace((version[list] as Setting[]).find(({ id }) => id === one.id)?.tweaks ?? []));
      const order = [...new Set(orders.flatMap((each) => Object.keys(each)))];
      return {
        ...one,
        tweaks: Object.entries(one.tweaks)
          .sort(([a], [b]) => order.indexOf(a) - order.indexOf(b))
          .map(([, tweak]) => tweak),
      };
    }),
  ]);
  return { ...project, ...Object.fromEntries(settings) };
}

/** The operations from one version to another that may change a fight; tweaks of settings by what they change. */
export function operationsBetween(before: Project, after: Project): PatchOperation[] {
  return difference(keyed(before), keyed(after)).filter(
    ({ path }) => !ELSEWHERE.has(pointerSteps(path)[0]) && !/\/(name|notes|description)$/.test(path),
  );
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
      after,
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
    return [{ operations: difference(before, putIn), words: changesInWords(before, putIn).map(wordingSentence), putIn, takenOut }];
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
function withOperations(before: Project, after: Project, operations: readonly PatchOperation[]): Project | undefined {
  const copy = structuredClone(keyed(before));
  try {
    applyPatch(copy, operations);
    return parseProject(unkeyed(copy, before, after));
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

/** The project with one tier made as another is: what the difference between them does, and which of its changes. @throws Error for a tier that is not there */
export function tierAs(project: Project, tier: string, like: string): Project {
  const [own, other] = [tier, like].map((id) => project.tiers.find((one) => one.id === id));
  if (!own || !other) throw new Error(`there is no tier "${own ? like : tier}"`);
  const { id, name } = own;
  return { ...project, tiers: project.tiers.map((one) => (one === own ? { ...structuredClone(other), id, name } : one)) };
}
