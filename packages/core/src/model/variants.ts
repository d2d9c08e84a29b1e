/** What a linked variant comes to: its base as that stands now, changed as the variant says. */
import { type Copies, ownPart } from './copies';
import { applyPatch } from './patch';
import type { Project } from './project';
import type { Unit } from './unit';
import type { Variant } from './variant';

/** A circle of bases, or a base that is not there. */
export class VariantError extends Error {}

/** What is known of a unit or variant without working it out: for lists. */
export interface UnitHead {
  id: string;
  name: string;
  side: Unit['side'];
  role: string;
  glyph: Unit['glyph'];
  colour: Unit['colour'];
  basedOn?: string;
}

/** Whether a project has a unit or a variant of this id. */
export function hasUnit(project: Project, id: string): boolean {
  return project.units.some((unit) => unit.id === id) || project.variants.some((variant) => variant.id === id);
}

/** The variants between a unit and its original, the original's id first. @throws VariantError */
export function lineage(project: Project, id: string): { original: Unit; variants: Variant[] } {
  const variants: Variant[] = [];
  let at = id;
  for (;;) {
    const original = project.units.find((unit) => unit.id === at);
    if (original) return { original, variants: variants.reverse() };
    const variant = project.variants.find((one) => one.id === at);
    if (!variant) throw new VariantError(`there is no unit "${at}" in ${project.name}`);
    if (variants.includes(variant)) throw new VariantError(`${variant.name} is based on itself`);
    variants.push(variant);
    at = variant.basedOn;
  }
}

/**
 * Identity and changes of one variant laid over its base; its tweaks are left to whoever wants their chain.
 * @param copies what of the base may be written in, and what of the result may be from then on
 */
export function alter(base: Unit, variant: Variant, copies: Copies = new Set()): Unit {
  const unit = ownPart(base, copies);
  const { id, name, role, glyph, colour, notes } = variant;
  Object.assign(unit, { id, name }, role !== undefined && { role }, glyph && { glyph }, colour && { colour });
  if (notes === undefined) delete unit.notes;
  else unit.notes = notes;
  applyPatch(
    unit,
    variant.changes.map(({ op, path, value, before }) =>
      op === 'remove' ? { op, path } : { op, path, value, ...(before !== undefined && { before }) },
    ),
    copies,
  );
  return unit;
}

/** What an id stands for: a unit, or what a variant makes of its base; without its tweaks. @throws VariantError */
export function alteredUnit(project: Project, id: string): Unit {
  const { original, variants } = lineage(project, id);
  return variants.reduce((unit, variant) => alter(unit, variant), original);
}

/** Every unit and variant, in order of entry, as lists show them. */
export function unitHeads(project: Project): UnitHead[] {
  const heads: UnitHead[] = project.units.map(({ id, name, side, role, glyph, colour }) => ({ id, name, side, role, glyph, colour }));
  for (const { id, name, basedOn } of project.variants) {
    const { original, variants } = lineage(project, id);
    const head = { ...heads.find((one) => one.id === original.id)!, id, name, basedOn };
    for (const { role, glyph, colour } of variants) {
      if (role !== undefined) head.role = role;
      if (glyph) head.glyph = glyph;
      if (colour) head.colour = colour;
    }
    heads.push(head);
  }
  return heads;
}
