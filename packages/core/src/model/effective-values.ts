import { type Chain, type Lens, type WordChain, effectiveUnit } from './effective';
import { quantityAt } from './field-at';
import { type Json, isDictionary, pointerOf } from './pointer';
import type { Project } from './project';
import type { TweakValue } from './tweak';
import { Unit } from './unit';
import { fieldLabel } from './words';

/** One number of a unit as it is looked at; or a word or a yes-or-no that a tweak set. */
export interface EffectiveValue {
  /** Pointer within the unit; items of lists by their ids. */
  path: string;
  label: string;
  unit: string;
  value: TweakValue;
  /** From the base over each tweak; absent where none touched it. */
  chain?: Chain | WordChain;
}

/**
 * Every number of a unit through a lens, and what words tweaks set, in the order of the document.
 * @throws VariantError when there is no such unit
 */
export function effectiveValues(project: Project, id: string, lens: Lens, encounterId?: string): EffectiveValue[] {
  const encounter = project.encounters.find((one) => one.id === encounterId);
  const { unit, chains, words } = effectiveUnit(project, id, lens, encounter);
  const found: EffectiveValue[] = [];
  const walk = (value: Json, steps: string[]): void => {
    if (typeof value === 'number') {
      const info = quantityAt(Unit, steps);
      const path = pointerOf(...steps);
      if (info) found.push({ path, label: info.label, unit: info.unit, value, ...(chains.has(path) && { chain: chains.get(path) }) });
    } else if (typeof value === 'string' || typeof value === 'boolean') {
      const path = pointerOf(...steps);
      const chain = words.get(path);
      if (chain) found.push({ path, label: fieldLabel(Unit, steps), unit: '', value, chain });
    } else if (Array.isArray(value))
      value.forEach((item, i) => walk(item, [...steps, isDictionary(item) ? String(item.id ?? i) : String(i)]));
    else if (isDictionary(value)) for (const [key, one] of Object.entries(value)) walk(one, [...steps, key]);
  };
  walk(unit as unknown as Json, []);
  return found;
}
