/** Where a point can be written: where its numbers stand, or over them: at a tier, at a new one, in a trait. */
import { effectiveEncounter, effectiveUnit, type Lens, writtenUnit } from '../model/effective';
import { pointerOf, pointerSteps, placesAt, valueAt } from '../model/pointer';
import { idFor, nameFor } from '../model/new-ids';
import { type Project, takenIds } from '../model/project';
import type { Tier } from '../model/tier';
import { ENTRY, type Turn, type Turned, placesOfTurn, turnedProject } from '../model/turn';
import type { FieldTweak, Tweak, TweakValue } from '../model/tweak';
import { Encounter } from '../model/encounter';
import { changeableAt } from '../model/field-at';
import { Unit } from '../model/unit';
import { fieldLabel } from '../model/words';
import { unitHeads } from '../model/variants';

export type Into =
  | { kind: 'written' }
  | { kind: 'tier'; tier: string }
  /** Like another, and after it; or an empty one. */
  | { kind: 'newTier'; name: string; like?: string }
  | { kind: 'trait'; trait: string };

/** The project with it written, or why that can't be. */
export type Written = { project: Project; tier?: string } | { cannot: string };

/** Numbers that differ by less are the same: factors are products. */
const SAME = 1e-9;

/**
 * Turns written as one edit. At a tier they are tweaks of its own, behind those it has: a factor where that gives just what was
 * tried, else the value itself; what was tried is compared with what is written, for every unit and encounter.
 *
 * @param lens with which it was tried
 */
export function writtenInto(project: Project, turns: readonly Turn[], into: Into, lens: Lens): Written {
  switch (into.kind) {
    case 'written':
      return { project: turnedProject(project, turns) };
    case 'tier':
      return atTier(project, turns, into.tier, lens);
    case 'newTier': {
      const like = project.tiers.find(({ id }) => id === into.like);
      const { id, tiers } = withTier(project, into.name, like);
      return atTier({ ...project, tiers }, turns, id, lens);
    }
    case 'trait':
      return inTrait(project, turns, into.trait);
  }
}

/** A tier more, of a name that is free. */
function withTier(project: Project, name: string, like: Tier | undefined): { id: string; tiers: Tier[] } {
  const id = idFor(name, takenIds(project));
  const free = nameFor(
    name,
    project.tiers.map((tier) => tier.name),
  );
  const tier: Tier = { ...(like ? structuredClone(like) : { tweaks: [], traits: [] }), id, name: free };
  const at = like ? project.tiers.indexOf(like) + 1 : project.tiers.length;
  return { id, tiers: [...project.tiers.slice(0, at), tier, ...project.tiers.slice(at)] };
}

function atTier(project: Project, turns: readonly Turn[], tier: string, lens: Lens): Written {
  const at = { ...lens, tier };
  const wanted = turnedProject(project, turns);
  let now = project;
  for (const turn of turns) {
    const places = placesOfTurn(project, turn);
    if (!places.length) return { cannot: `${turn.path} leads nowhere` };
    const [list] = pointerSteps(turn.path);
    if (list !== 'units' && list !== 'encounters') return { cannot: 'a tier changes units and encounters' };
    if (fixedWord(turn, places)) return { cannot: fixedWord(turn, places)! };
    const tweaks = list === 'units' ? unitTweaks(now, wanted, turn, at) : encounterTweaks(project, wanted, turn, at);
    now = withTweaks(now, tier, tweaks);
  }
  const off = differing(now, wanted, at);
  return off === undefined ? { project: now, tier } : { cannot: `at that tier it would not come to what was tried: ${off}` };
}

const withTweaks = (project: Project, tier: string, tweaks: readonly Tweak[]): Project => ({
  ...project,
  tiers: project.tiers.map((one) => (one.id === tier ? { ...one, tweaks: [...one.tweaks, ...tweaks] } : one)),
});

/** One factor for a kind of units where that gives the same; else each number of each unit that comes to another. */
function unitTweaks(project: Project, wanted: Project, turn: Turn, at: Lens): Tweak[] {
  const steps = pointerSteps(turn.path);
  const path = pointerOf(...steps.slice(2));
  if (steps[1] === '*' && turn.op === '×' && typeof turn.value === 'number') {
    const scope = turn.role === 'enemy' ? 'enemies' : turn.role === 'party' ? 'party' : 'role';
    const all: Tweak = { scope, ...(scope === 'role' && { of: turn.role }), path, op: '×', value: turn.value };
    const tried = withTweaks(project, at.tier!, [all]);
    const same = unitHeads(project).every(({ id }) =>
      numbersAt(tried, id, path, at).every((value, i) => same9(value, numbersAt(wanted, id, path, at)[i])),
    );
    if ((scope !== 'role' || turn.role !== undefined) && same) return [all];
  }
  return unitHeads(project).flatMap(({ id }) => {
    const unit = effectiveUnit(project, id, at).unit;
    const after = effectiveUnit(wanted, id, at).unit;
    return placesAt(writtenUnit(project, id), pointerSteps(path)).flatMap((place): Tweak[] => {
      const own = pointerOf(...place);
      const [was, is] = [valueAt(unit, own), valueAt(after, own)];
      const whose = { scope: 'unit' as const, of: id, path: own };
      if (isWord(is)) return was === is ? [] : [{ ...whose, op: '=', value: is }];
      if (typeof was !== 'number' || typeof is !== 'number' || same9(was, is)) return [];
      const comes = (tweak: Tweak) => valueAt(effectiveUnit(withTweaks(project, at.tier!, [tweak]), id, at).unit, own);
      const set: Tweak = { ...whose, op: '=', value: is };
      const tried = was === 0 ? [set] : [...factors(is / was).map((value): Tweak => ({ ...whose, op: '×', value })), set];
      // To the last bit where that can be: the fight that was tried is the one that is written.
      return [tried.find((tweak) => comes(tweak) === is) ?? tried.find((tweak) => same9(Number(comes(tweak)), is)) ?? set];
    });
  });
}

/** Factors near one: of few digits, as it is, and its neighbours. */
const factors = (factor: number): number[] => [
  Number(factor.toPrecision(4)),
  Number(factor.toPrecision(12)),
  ...[0, 1, -1, 2, -2].map((ulps) => factor * (1 + ulps * Number.EPSILON)),
];

function numbersAt(project: Project, id: string, path: string, at: Lens): number[] {
  const { unit } = effectiveUnit(project, id, at);
  return placesAt(unit, pointerSteps(path)).map((place) => Number(valueAt(unit, pointerOf(...place))));
}

function encounterTweaks(project: Project, wanted: Project, turn: Turn, at: Lens): Tweak[] {
  const [, id, ...within] = pointerSteps(turn.path);
  const after = effectiveEncounter(
    wanted,
    wanted.encounters.find((one) => one.id === id)!,
    at,
  ).unit;
  return placesAt(
    project.encounters.find((one) => one.id === id)!,
    within,
  ).map((place) => {
    const path = pointerOf(...place);
    return { scope: 'encounter', path, op: '=', value: valueAt(after, path) as TweakValue };
  });
}

const isWord = (value: unknown): value is string | boolean => typeof value === 'string' || typeof value === 'boolean';

/** Why a word can't be set by a tweak; undefined: it can. */
function fixedWord({ path }: Turn, places: readonly Turned[]): string | undefined {
  const [list, ...steps] = pointerSteps(path);
  const root = list === 'units' ? Unit : Encounter;
  if (places.some(({ field }) => field === ENTRY)) return 'an entry of a list can be taken out as it is written alone';
  if (places.every(({ before }) => !isWord(before)) || changeableAt(root, steps.slice(1))) return undefined;
  return `${fieldLabel(root, steps.slice(1)).toLowerCase()} is a word that other fields hang on: it can be written as it is alone`;
}

const same9 = (a: number, b: number) => Math.abs(a - b) <= SAME * Math.max(1, Math.abs(a), Math.abs(b));

/** Of whom something is otherwise at a tier; undefined: of nobody. */
function differing(one: Project, other: Project, at: Lens): string | undefined {
  for (const { id, name } of unitHeads(one)) if (!alike(effectiveUnit(one, id, at).unit, effectiveUnit(other, id, at).unit)) return name;
  for (const encounter of one.encounters) {
    const twin = other.encounters.find(({ id }) => id === encounter.id)!;
    if (!alike(effectiveEncounter(one, encounter, at).unit, effectiveEncounter(other, twin, at).unit)) return encounter.name;
  }
  return undefined;
}

function alike(a: unknown, b: unknown): boolean {
  if (typeof a === 'number' && typeof b === 'number') return same9(a, b);
  if (typeof a !== 'object' || a === null || typeof b !== 'object' || b === null) return a === b;
  const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...keys].every((key) => alike((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]));
}

/** On whoever has the trait: by a factor, where something is written; of what is 0, and of a kind of numbers, as it was turned. */
function inTrait(project: Project, turns: readonly Turn[], trait: string): Written {
  const tweaks: FieldTweak[] = [];
  for (const turn of turns) {
    const [list, , ...within] = pointerSteps(turn.path);
    const places = placesOfTurn(project, turn);
    if (list !== 'units') return { cannot: 'a trait changes units' };
    if (!places.length) return { cannot: `${turn.path} leads nowhere` };
    if (fixedWord(turn, places)) return { cannot: fixedWord(turn, places)! };
    const path = pointerOf(...within);
    if (typeof turn.value !== 'number') {
      tweaks.push({ path, op: '=', value: turn.value });
      continue;
    }
    const { before, after } = places[0] as unknown as { before: number; after: number };
    const factor = turn.op === '×' ? Number(turn.value) : before === 0 ? undefined : Number((after / before).toPrecision(12));
    tweaks.push(factor === undefined ? { path, op: '=', value: after } : { path, op: '×', value: factor });
  }
  const traits = project.traits.map((one) => (one.id === trait ? { ...one, tweaks: [...one.tweaks, ...tweaks] } : one));
  return { project: { ...project, traits } };
}
