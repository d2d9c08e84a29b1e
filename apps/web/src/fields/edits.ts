/** Edits of a unit's numbers as whole new documents with a name, whether they go to the base or to a tier. */
import { type Chain, type Project, type QuantityInfo, Unit, pointerSteps, quantityAt, stepInto, valueAt } from '@insidia/core';
import { shown, tidy } from './number';

export interface Edit {
  document: Project;
  name: string;
}

const unitOf = (project: Project, id: string) => project.units.find((unit) => unit.id === id) as Unit;

/** Label and unit of a number of a unit; undefined where the path leads to none. */
export function infoAt(path: string): QuantityInfo | undefined {
  return quantityAt(Unit, pointerSteps(path));
}

/** "Clipper Bite cooldown": the unit, the attack or state within it, the field. */
export function nameOfNumber(project: Project, unitId: string, path: string): string {
  const unit = unitOf(project, unitId);
  const [collection, id] = pointerSteps(path);
  const item = collection === 'attacks' || collection === 'states' ? stepInto(unit[collection], id) : undefined;
  const label = infoAt(path)?.label ?? path;
  return [unit.name, (item as { name?: string } | undefined)?.name, label.charAt(0).toLowerCase() + label.slice(1)]
    .filter(Boolean)
    .join(' ');
}

function setAt(root: unknown, path: string, value: unknown): void {
  const steps = pointerSteps(path);
  const parent = steps.slice(0, -1).reduce(stepInto, root) as Record<string, unknown>;
  if (value === undefined) delete parent[steps[steps.length - 1]];
  else parent[steps[steps.length - 1]] = value;
}

/** Writes a base value. */
export function setBase(project: Project, unitId: string, path: string, value: number): Edit {
  const before = valueAt(unitOf(project, unitId), path) as number | undefined;
  const document = structuredClone(project);
  setAt(unitOf(document, unitId), path, value);
  const unit = infoAt(path)?.unit;
  return {
    document,
    name: `${nameOfNumber(project, unitId, path)} ${before === undefined ? 'none' : shown(before)} → ${shown(value)}${unit ? ' ' + unit : ''}`,
  };
}

/** Sets any value of a unit that is not a number (a word, a reference). */
export function setValue(project: Project, unitId: string, path: string, value: unknown, name: string): Edit {
  const document = structuredClone(project);
  setAt(unitOf(document, unitId), path, value);
  return { document, name };
}

/** Makes a unit's value at a tier what is asked: the tier's own tweak for this unit and path, last in its list. */
export function setThroughTier(project: Project, tierId: string, unitId: string, path: string, value: number): Edit {
  const document = structuredClone(project);
  const tier = document.tiers.find(({ id }) => id === tierId);
  if (!tier) return { document, name: '' };
  tier.tweaks = tier.tweaks.filter((tweak) => !isOwnTweak(tweak, unitId, path));
  tier.tweaks.push({ scope: 'unit', of: unitId, path, op: '=', value });
  return { document, name: `${nameOfNumber(project, unitId, path)} = ${shown(value)} at ${tier.name}` };
}

/** Takes back what `setThroughTier` wrote. */
export function resetThroughTier(project: Project, tierId: string, unitId: string, path: string): Edit {
  const document = structuredClone(project);
  const tier = document.tiers.find(({ id }) => id === tierId);
  if (tier) tier.tweaks = tier.tweaks.filter((tweak) => !isOwnTweak(tweak, unitId, path));
  return { document, name: `${nameOfNumber(project, unitId, path)} as ${tier?.name} has it for all` };
}

export function hasOwnTweak(project: Project, tierId: string | undefined, unitId: string, path: string): boolean {
  return project.tiers.find(({ id }) => id === tierId)?.tweaks.some((tweak) => isOwnTweak(tweak, unitId, path)) ?? false;
}

function isOwnTweak(tweak: { scope: string; of?: string; path: string; op: string }, unitId: string, path: string): boolean {
  return tweak.scope === 'unit' && tweak.of === unitId && tweak.path === path && tweak.op === '=';
}

/** The base value that comes out as `wanted` at the end of a chain; a chain that replaces it leaves the base as it is. */
export function baseFor(wanted: number, chain: Chain | undefined): number {
  if (!chain) return wanted;
  let value = wanted;
  for (const { tweak } of [...chain.steps].reverse()) {
    if (tweak.op === '=' || (tweak.op === '×' && tweak.value === 0)) return chain.base;
    value = tweak.op === '×' ? value / tweak.value : value - tweak.value;
  }
  return tidy(value);
}
