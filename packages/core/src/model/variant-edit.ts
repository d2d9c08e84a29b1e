/** How a linked variant is edited: whatever it should come to is written as what differs from its base. */
import { tweakedUnit, writtenUnit } from './effective';
import { quantityAt } from './field-at';
import { type PatchOperation, PatchError, difference, patched } from './patch';
import { placesAt, pointerOf, pointerSteps, valueAt } from './pointer';
import type { Project } from './project';
import type { FieldTweak } from './tweak';
import { Unit } from './unit';
import type { Alteration, Variant } from './variant';
import { alter } from './variants';

const IDENTITY = ['role', 'glyph', 'colour'] as const;

/**
 * The variant that comes to `wanted`. Tweaks that still give what is wanted stay as they are written (× 1.25 remains × 1.25);
 * a number that differs otherwise becomes a tweak that sets it; everything else becomes a change.
 * @param wanted has the variant's id and its base's side
 */
export function variantFor(project: Project, variant: Variant, wanted: Unit): Variant {
  const base = writtenUnit(project, variant.basedOn);
  const next: Variant = { id: variant.id, name: wanted.name, basedOn: variant.basedOn, changes: [], tweaks: [] };
  for (const field of IDENTITY) if (wanted[field] !== base[field]) Object.assign(next, { [field]: wanted[field] });
  if (wanted.notes !== undefined) next.notes = wanted.notes;
  const start = alter(base, next);
  for (const operation of difference(start, wanted)) {
    const becomesTweak =
      operation.op === 'replace' && typeof operation.value === 'number' && quantityAt(Unit, pointerSteps(operation.path)) !== undefined;
    if (!becomesTweak) next.changes.push(alterationOf(operation));
  }
  const altered = alter(base, next);
  const kept = variant.tweaks.filter((tweak) => stillWanted(altered, variant.tweaks, tweak, wanted));
  next.tweaks = [...kept, ...setters(tweakedUnit(altered, kept), wanted)];
  return next;
}

function alterationOf(operation: PatchOperation): Alteration {
  if (operation.op === 'remove') return { op: 'remove', path: operation.path };
  const { op, path, value, before } = operation;
  return { op: op === 'add' ? 'add' : 'replace', path, value, ...(before !== undefined && { before }) };
}

/** A tweak on one number stays where the tweaks together give what is wanted there; one on many where one of them is. */
function stillWanted(altered: Unit, tweaks: readonly FieldTweak[], tweak: FieldTweak, wanted: Unit): boolean {
  const result = tweakedUnit(altered, tweaks);
  return placesAt(altered, pointerSteps(tweak.path)).some((place) => {
    const pointer = pointerOf(...place);
    return valueAt(result, pointer) === valueAt(wanted, pointer) && valueAt(wanted, pointer) !== valueAt(altered, pointer);
  });
}

function setters(from: Unit, wanted: Unit): FieldTweak[] {
  return difference(from, wanted).flatMap(({ op, path }) => {
    const value = valueAt(wanted, path);
    return op === 'replace' && typeof value === 'number' ? [{ path, op: '=' as const, value }] : [];
  });
}

/** One thing in which a variant differs from its base. */
export interface OwnValue {
  path: string;
  /** As the base has it; undefined: not at all. */
  base: unknown;
  own: unknown;
}

/** Everything in which a unit differs from what it is based on; empty for an original. */
export function ownValues(project: Project, id: string): OwnValue[] {
  const variant = project.variants.find((one) => one.id === id);
  if (!variant) return [];
  const base = writtenUnit(project, variant.basedOn);
  const own = writtenUnit(project, id);
  const like: Unit = { ...base, id: own.id, name: own.name, notes: own.notes };
  if (own.notes === undefined) delete like.notes;
  return difference(like, own).map(({ path }) => ({ path, base: valueAt(like, path), own: valueAt(own, path) }));
}

/** The unit as wanted once a place is its base's again. */
export function asBase(project: Project, variant: Variant, path: string): Unit {
  const base = writtenUnit(project, variant.basedOn);
  let own = writtenUnit(project, variant.id);
  for (const operation of difference(own, { ...base, id: own.id, name: own.name, ...(own.notes !== undefined && { notes: own.notes }) })) {
    if (operation.path === path || operation.path.startsWith(`${path}/`)) own = patched(own, [operation]);
  }
  return own;
}

/**
 * Leaves out of every variant what no longer fits the base it follows (a change to an attack that is gone).
 * @returns the same project where everything fits
 */
export function withFittingVariants(project: Project): Project {
  let fitting = project;
  for (const { id } of project.variants) {
    for (;;) {
      try {
        writtenUnit(fitting, id);
        break;
      } catch (error) {
        if (!(error instanceof PatchError)) throw error;
        fitting = dropChange(fitting, id, error.operation);
      }
    }
  }
  return fitting;
}

/** The change that failed may be the variant's own or that of one it is based on: the first that does not fit goes. */
function dropChange(project: Project, id: string, operation: number): Project {
  const owner = ownerOfFailure(project, id);
  return {
    ...project,
    variants: project.variants.map((variant) =>
      variant.id === owner ? { ...variant, changes: variant.changes.filter((_, i) => i !== operation) } : variant,
    ),
  };
}

function ownerOfFailure(project: Project, id: string): string {
  const variant = project.variants.find((one) => one.id === id);
  if (!variant) return id;
  try {
    writtenUnit(project, variant.basedOn);
    return id;
  } catch {
    return ownerOfFailure(project, variant.basedOn);
  }
}

/** A variant as a unit of its own that follows nobody. */
export function independent(project: Project, id: string, as: { id: string; name: string }): Unit {
  return { ...structuredClone(writtenUnit(project, id)), ...as };
}
