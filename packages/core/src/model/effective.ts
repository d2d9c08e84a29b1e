/**
 * Effective values: a unit's or encounter's numbers as seen through a tier, a skill and a list of dials, each with the
 * chain that led to it ("28 → ×1.25 Bramble → 35"). Tweaks stack by age: base → tier → skill → dials; × and + compose,
 * = replaces; every result is kept within the tweak's own and the field's limits.
 */
import { Encounter } from './encounter';
import { type QuantityInfo, quantityAt } from './field';
import { placesAt, pointerOf, pointerSteps, stepInto } from './pointer';
import type { Project } from './project';
import type { Tweak } from './tweak';
import { Unit } from './unit';

/** What the project is looked at through. Absent: as it is written. */
export interface Lens {
  tier?: string;
  skill?: string;
  /** Tweaks on top of all others: a sweep's, a solver's, an edit being tried. */
  dials?: Tweak[];
}

/** One step of a chain. */
export interface ChainStep {
  source: 'tier' | 'skill' | 'dial';
  /** Name of the tier or skill. */
  name: string;
  /** Where the tweak stands in its list. */
  index: number;
  tweak: Tweak;
  /** What the tweak alone would have given. */
  asked: number;
  /** What limits left of it. */
  granted: number;
}

/** Base value and what each tweak made of it. */
export interface Chain {
  base: number;
  steps: ChainStep[];
  value: number;
}

export interface Effective<T> {
  unit: T;
  /** By pointer within the unit or encounter; only numbers that some tweak touched. */
  chains: Map<string, Chain>;
}

interface Source {
  source: ChainStep['source'];
  name: string;
  tweaks: Tweak[];
}

function sourcesOf(project: Project, lens: Lens): Source[] {
  const sources: Source[] = [];
  const tier = project.tiers.find(({ id }) => id === lens.tier);
  const skill = project.skills.find(({ id }) => id === lens.skill);
  if (tier) sources.push({ source: 'tier', name: tier.name, tweaks: tier.tweaks });
  if (skill) sources.push({ source: 'skill', name: skill.name, tweaks: skill.tweaks });
  if (lens.dials?.length) sources.push({ source: 'dial', name: 'dial', tweaks: lens.dials });
  return sources;
}

/** Whether a tweak speaks of a unit. */
export function tweakApplies(tweak: Tweak, unit: Unit): boolean {
  switch (tweak.scope) {
    case 'enemies':
      return unit.side === 'enemy';
    case 'party':
      return unit.side === 'party';
    case 'role':
      return unit.role === tweak.of;
    case 'unit':
      return unit.id === tweak.of;
    default:
      return false;
  }
}

/** @throws Error when there is no such unit */
export function effectiveUnit(project: Project, id: string, lens: Lens): Effective<Unit> {
  const base = project.units.find((unit) => unit.id === id);
  if (!base) throw new Error(`there is no unit "${id}" in ${project.name}`);
  return apply(Unit, base, sourcesOf(project, lens), (tweak) => tweakApplies(tweak, base));
}

/** @throws Error when there is no such encounter */
export function effectiveEncounter(project: Project, encounter: Encounter, lens: Lens): Effective<Encounter> {
  return apply(Encounter, encounter, sourcesOf(project, lens), (tweak) => tweak.scope === 'encounter');
}

function apply<T extends object>(type: new () => T, base: T, sources: Source[], applies: (tweak: Tweak) => boolean): Effective<T> {
  const chains = new Map<string, Chain>();
  let unit = base;
  for (const { source, name, tweaks } of sources) {
    tweaks.forEach((tweak, index) => {
      if (!applies(tweak)) return;
      const steps = pointerSteps(tweak.path);
      const field = quantityAt(type, steps);
      if (!field) return;
      for (const place of placesAt(base, steps)) {
        if (unit === base) unit = structuredClone(base);
        const pointer = pointerOf(...place);
        const parent = place.slice(0, -1).reduce<unknown>((value, step) => stepInto(value, step), unit) as Record<string, number>;
        const key = place[place.length - 1];
        const chain = chains.get(pointer) ?? { base: parent[key], steps: [], value: parent[key] };
        const asked = operate(chain.value, tweak);
        const granted = kept(asked, tweak, field);
        chain.steps.push({ source, name, index, tweak, asked, granted });
        chain.value = granted;
        parent[key] = granted;
        chains.set(pointer, chain);
      }
    });
  }
  return { unit, chains };
}

function operate(value: number, tweak: Tweak): number {
  if (tweak.op === '×') return value * tweak.value;
  return tweak.op === '+' ? value + tweak.value : tweak.value;
}

function kept(asked: number, tweak: Tweak, field: QuantityInfo): number {
  let value = asked;
  if (tweak.round !== undefined) value = Math.floor(value / tweak.round + 0.5) * tweak.round;
  if (tweak.min !== undefined) value = Math.max(value, tweak.min);
  if (tweak.max !== undefined) value = Math.min(value, tweak.max);
  value = Math.min(Math.max(value, field.min), field.max);
  return field.whole ? Math.floor(value + 0.5) : value;
}

/** Every way to look at a project: base, each tier, each skill, and each pair. */
export function lenses(project: Project): Lens[] {
  const tiers = [undefined, ...project.tiers.map(({ id }) => id)];
  const skills = [undefined, ...project.skills.map(({ id }) => id)];
  return tiers.flatMap((tier) => skills.map((skill) => ({ tier, skill })));
}

/** "28 → ×1.25 Bramble → 35", and "asked 180, capped 150" where a limit bit. */
export function chainSentence(chain: Chain, shown: (value: number) => string = String): string {
  let text = shown(chain.base);
  for (const { tweak, name, asked, granted } of chain.steps) {
    text += ` → ${tweak.op}${shown(tweak.value)} ${name} → ${shown(granted)}`;
    if (asked !== granted && tweak.round === undefined) text += ` (asked ${shown(asked)}, capped)`;
  }
  return text;
}
