/** Edits of a document as whole new documents: of a unit or a variant alike, and of values as a lens shows them. */
import { type Chain, type ChainStep, type Lens, effectiveUnit, writtenUnit } from './effective';
import type { Encounter } from './encounter';
import { type Constructor, classFields } from './field';
import { changeableAt, fieldAt, fitsField } from './field-at';
import { sameJson } from './patch';
import { indexInList, isDictionary, pointerOf, pointerSteps, stepInto } from './pointer';
import type { Project } from './project';
import { Unit } from './unit';
import { variantFor, withFittingVariants } from './variant-edit';

/** Sets a value within a document in place; undefined takes a field, or an item of a list, away. Nothing where no parent is. */
export function setAt(root: object, path: string, value: unknown): void {
  const steps = pointerSteps(path);
  const parent = steps.slice(0, -1).reduce<unknown>(stepInto, root);
  const last = steps[steps.length - 1];
  if (Array.isArray(parent)) {
    const index = indexInList(parent, last);
    if (index < 0) return;
    if (value === undefined) parent.splice(index, 1);
    else parent[index] = value;
  } else if (isDictionary(parent)) {
    if (value === undefined) delete parent[last];
    else parent[last] = value;
  }
}

/** Numbers side by side of which the first may not be above the second. The edges of a band are; accuracies near and far are not. */
const ORDERED: readonly { low: string; high: string; of?: string }[] = [
  { low: 'min', high: 'max' },
  { low: 'near', high: 'far', of: 'does' },
  { low: 'eyeHeight', high: 'height' },
];

/** The same of a number; where it passes the one beside it that it may not pass, that one goes with it. */
export function setInOrder(root: object, path: string, value: number | undefined): void {
  setAt(root, path, value);
  if (value === undefined) return;
  const steps = pointerSteps(path);
  const parent = steps.slice(0, -1).reduce<unknown>(stepInto, root);
  if (!isDictionary(parent)) return;
  const last = steps[steps.length - 1];
  for (const { low, high, of } of ORDERED) {
    const [a, b] = [parent[low], parent[high]];
    if (of !== undefined && !(of in parent)) continue;
    if (typeof a !== 'number' || typeof b !== 'number' || a <= b) continue;
    if (last === low) parent[high] = value;
    else if (last === high) parent[low] = value;
  }
}

/**
 * A project with one of its units, or variants, changed. What a variant should come to is written as what differs from its
 * base; a base's change reaches its variants, and what of theirs no longer fits it is left out.
 * @param change is handed the unit as it is written and changes it
 */
export function editUnit(project: Project, id: string, change: (unit: Unit) => void): Project {
  const unit = structuredClone(writtenUnit(project, id));
  const before = structuredClone(unit);
  change(unit);
  if (sameJson(before, unit)) return project;
  const edited = project.units.some((one) => one.id === id)
    ? { ...project, units: project.units.map((one) => (one.id === id ? unit : one)) }
    : { ...project, variants: project.variants.map((one) => (one.id === id ? variantFor(project, one, unit) : one)) };
  return project.variants.length ? withFittingVariants(edited) : edited;
}

/** The value as written that comes out as `wanted` at the end of a chain; one that is replaced on the way stays as it is. */
export function baseFor(wanted: number, chain: Chain | undefined): number {
  if (!chain) return wanted;
  return takenBack(wanted, chain, ({ source }) => source !== 'variant') ?? writtenValue(chain);
}

/** The value that a tier must set for `wanted` to come out, under the traits that come with it; one they replace is set as wanted. */
export function tierValueFor(wanted: number, chain: Chain | undefined): number {
  return (chain && takenBack(wanted, chain, ({ source }) => source === 'tierTrait')) ?? wanted;
}

/** A value before some steps of a chain; undefined where one of them replaces whatever was there. */
function takenBack(wanted: number, chain: Chain, of: (step: ChainStep) => boolean): number | undefined {
  let value = wanted;
  for (const { tweak } of chain.steps.filter(of).reverse()) {
    const by = Number(tweak.value);
    if (tweak.op === '=' || (tweak.op === '×' && by === 0)) return undefined;
    value = tweak.op === '×' ? value / by : value - by;
  }
  return Number(value.toPrecision(10));
}

/** The value of a chain as it is written: base and variants, before any tier, skill or style. */
export function writtenValue(chain: Chain): number {
  let value = chain.base;
  for (const { source, granted } of chain.steps) if (source === 'variant') value = granted;
  return value;
}

/** A unit changed so that the lens shows these values: numbers are written as their base, everything else as it is. */
export function withEffective(project: Project, id: string, lens: Lens, set: readonly { path: string; value: unknown }[]): Project {
  const { chains } = effectiveUnit(project, id, lens);
  return editUnit(project, id, (unit) => {
    for (const { path, value } of set)
      setAt(unit, path, typeof value === 'number' ? baseFor(value, chains.get(path)) : structuredClone(value));
  });
}

/** Pointers to every number of a unit or an encounter, in the order of the model: what a table or a dial can speak of. */
export const placesOfNumbers = (of: Unit | Encounter, root: Constructor = Unit): string[] =>
  placesWhere(of, root, (steps, value) => typeof value === 'number' && fieldAt(root, steps)?.kind === 'number');

/** The same to all that a tweak can speak of: numbers, and words and yes-or-nos that it may set. */
export const placesOfTweaked = (of: Unit | Encounter, root: Constructor = Unit): string[] =>
  placesWhere(of, root, (steps, value) => {
    const field = changeableAt(root, steps);
    return field !== undefined && fitsField(field, value);
  });

function placesWhere(of: Unit | Encounter, root: Constructor, wanted: (steps: string[], value: unknown) => boolean): string[] {
  const places: string[] = [];
  walk(root, of, []);
  return places;

  function walk(type: Constructor, value: unknown, at: string[]): void {
    if (!isDictionary(value)) return;
    for (const [field, kind] of classFields(type)?.kinds ?? []) {
      const inner = value[field];
      if (wanted([...at, field], inner)) places.push(pointerOf(...at, field));
      if (kind.kind === 'group') walk(kind.type(), inner, [...at, field]);
      if (kind.kind === 'list' && Array.isArray(inner) && inner.every((item) => isDictionary(item) && typeof item.id === 'string'))
        for (const item of inner as { id: string }[]) walk(kind.type(), item, [...at, field, item.id]);
    }
  }
}

/** The same with `*` in place of each list item's id, once each: "the cooldown of all attacks". */
export function widePlaces(of: Unit | Encounter, root: Constructor = Unit): string[] {
  const wide = (path: string) => {
    let at: unknown = of;
    const steps = pointerSteps(path).map((step) => {
      const named = Array.isArray(at) ? '*' : step;
      at = stepInto(at, step);
      return named;
    });
    return pointerOf(...steps);
  };
  return [...new Set(placesOfTweaked(of, root).map(wide))];
}
