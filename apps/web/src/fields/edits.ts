/** Edits of a unit's values as whole new documents with a name, whether they go to the base or to a tier. */
import {
  type Project,
  type QuantityInfo,
  type TweakValue,
  Unit,
  editUnit,
  effectiveUnit,
  fieldLabel,
  pointerSteps,
  quantityAt,
  setInOrder,
  stepInto,
  tierValueFor,
  valueAt,
  writtenUnit,
  valueWords,
  shown,
} from '@insidia/core';
import { type Moved, movedWords } from '../store/document';

export interface Edit {
  document: Project;
  name: string;
  moved?: Moved;
}

/** Label and unit of a number of a unit; undefined where the path leads to none. */
export function infoAt(path: string): QuantityInfo | undefined {
  return quantityAt(Unit, pointerSteps(path));
}

/** "Clipper Bite cooldown": the unit, the attack or state within it, the field. */
export function nameOfPlace(unit: Unit, path: string): string {
  const steps = pointerSteps(path);
  const [collection, id] = steps;
  const item = collection === 'attacks' || collection === 'states' ? stepInto(unit[collection], id) : undefined;
  const label = fieldLabel(Unit, steps);
  return [unit.name, (item as { name?: string } | undefined)?.name, label.charAt(0).toLowerCase() + label.slice(1)]
    .filter(Boolean)
    .join(' ');
}

/** Writes a number as it is written; undefined takes it away. */
export function setNumber(project: Project, unitId: string, path: string, value: number | undefined): Edit {
  const unit = writtenUnit(project, unitId);
  const before = valueAt(unit, path) as number | undefined;
  const measure = infoAt(path)?.unit;
  const words = (number: number | undefined) => (number === undefined ? 'none' : shown(number));
  const to = `${words(value)}${measure && value !== undefined ? ` ${measure}` : ''}`;
  const moved = { what: nameOfPlace(unit, path), from: words(before), to };
  return { document: editUnit(project, unitId, (one) => setInOrder(one, path, value)), name: movedWords(moved), moved };
}

/** Makes a unit's value at a tier what is asked: the tier's own tweak for this unit and path, last in its list. */
export function setThroughTier(project: Project, tierId: string, unitId: string, path: string, value: TweakValue): Edit {
  const document = structuredClone(project);
  const tier = document.tiers.find(({ id }) => id === tierId);
  if (!tier) return { document, name: '' };
  tier.tweaks = tier.tweaks.filter((tweak) => !isOwnTweak(tweak, unitId, path));
  const set = typeof value === 'number' ? tierValueFor(value, effectiveUnit(project, unitId, { tier: tierId }).chains.get(path)) : value;
  tier.tweaks.push({ scope: 'unit', of: unitId, path, op: '=', value: set });
  return {
    document,
    name: `${nameOfPlace(writtenUnit(project, unitId), path)} = ${typeof value === 'number' ? shown(value) : valueWords(Unit, pointerSteps(path), value)} at ${tier.name}`,
  };
}

/** Takes back what `setThroughTier` wrote. */
export function resetThroughTier(project: Project, tierId: string, unitId: string, path: string): Edit {
  const document = structuredClone(project);
  const tier = document.tiers.find(({ id }) => id === tierId);
  if (tier) tier.tweaks = tier.tweaks.filter((tweak) => !isOwnTweak(tweak, unitId, path));
  return { document, name: `${nameOfPlace(writtenUnit(project, unitId), path)} as ${tier?.name} has it for all` };
}

export function hasOwnTweak(project: Project, tierId: string | undefined, unitId: string, path: string): boolean {
  return project.tiers.find(({ id }) => id === tierId)?.tweaks.some((tweak) => isOwnTweak(tweak, unitId, path)) ?? false;
}

function isOwnTweak(tweak: { scope: string; of?: string; path: string; op: string }, unitId: string, path: string): boolean {
  return tweak.scope === 'unit' && tweak.of === unitId && tweak.path === path && tweak.op === '=';
}
