/**
 * Effective values: a unit's or encounter's numbers as seen through a lens, each with the chain that led to it
 * ("28 → ×1.25 Bramble → 35"), and words and yes-or-nos as tweaks set them. Tweaks stack by age: base → variant → the unit's
 * traits → tier → skill → style → party size → dials → the tier's traits; × and + compose, = replaces; every result is kept
 * within the tweak's own and the field's limits. What comes later in a fight (traits of its wave, its group and by events,
 * growth, state, boosts) is applied by the engine with the same function.
 */
import { type Copies, ownPart } from './copies';
import { Encounter } from './encounter';
import { type Constructor, type QuantityInfo } from './field';
import { changeableAt, fitsField } from './field-at';
import { indexInList, placesAt, pointerOf, pointerSteps } from './pointer';
import type { Project } from './project';
import { type Trait, traitsBy } from './trait';
import type { FieldTweak, Setting, Tweak, TweakValue } from './tweak';
import { Unit } from './unit';
import { alter, lineage } from './variants';

/** What the project is looked at through. Absent: as it is written. */
export interface Lens {
  tier?: string;
  skill?: string;
  style?: string;
  /** How many of an encounter's party take part; absent: all. */
  players?: number;
  /** Tweaks on top of all others: a sweep's, a solver's, an edit being tried. */
  dials?: Tweak[];
}

/** One step of a chain. @typeParam V of what: numbers, or words and yes-or-nos */
export interface ChainStep<V extends TweakValue = number> {
  source: 'variant' | 'trait' | 'tier' | 'skill' | 'style' | 'size' | 'dial' | 'tierTrait';
  /** Name of the variant, trait, tier, skill or style. */
  name: string;
  /** Where the tweak stands in its list. */
  index: number;
  tweak: FieldTweak;
  /** What the tweak alone would have given. */
  asked: V;
  /** What limits left of it. */
  granted: V;
}

/** Base value and what each tweak made of it. */
export interface Chain<V extends TweakValue = number> {
  base: V;
  steps: ChainStep<V>[];
  value: V;
}

export type WordChain = Chain<string | boolean>;

export interface Effective<T> {
  unit: T;
  /** By pointer within the unit or encounter; only numbers that some tweak touched. */
  chains: Map<string, Chain>;
  /** The same of words and yes-or-nos. */
  words: Map<string, WordChain>;
}

/** What tweaks led to, by pointer. */
type Led = Omit<Effective<never>, 'unit'>;

const nothingLed = (): Led => ({ chains: new Map(), words: new Map() });

interface Source {
  source: ChainStep['source'];
  name: string;
  tweaks: readonly FieldTweak[];
  largestOnly?: boolean;
}

/** The lists of tweaks that a lens lays over a project, in their order. */
function sourcesOf(project: Project, lens: Lens, encounter?: Encounter): Source[] {
  const sources: Source[] = [];
  const add = (source: ChainStep['source'], list: readonly Setting[], id?: string) => {
    const found = id === undefined ? undefined : list.find((item) => item.id === id);
    if (found) sources.push({ source, name: found.name, tweaks: found.tweaks, largestOnly: found.largestOnly });
  };
  add('tier', project.tiers, lens.tier);
  add('skill', project.skills, lens.skill);
  add('style', project.styles, lens.style);
  const members = encounter && Math.min(lens.players ?? encounter.party.length, encounter.party.length);
  const size = encounter?.bySize.find((one) => one.members === members);
  if (size) sources.push({ source: 'size', name: `party of ${members}`, tweaks: size.tweaks });
  if (lens.dials?.length) sources.push({ source: 'dial', name: 'dial', tweaks: lens.dials });
  return sources;
}

/** Whether a tweak, or who is given a trait, speaks of a unit. */
export function tweakApplies(tweak: Pick<Tweak, 'scope' | 'of'>, unit: Pick<Unit, 'id' | 'side' | 'role'>): boolean {
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

/** The lists of tweaks of traits, in the order in which they are given. */
const ofTraits = (project: Project, ids: readonly string[], source: 'trait' | 'tierTrait'): Source[] =>
  traitsBy(project, ids).map(({ name, tweaks }) => ({ source, name, tweaks }));

/** Ids of the traits that a tier gives to a unit. */
function ofTier({ tiers }: Project, { tier }: Lens, unit: Pick<Unit, 'id' | 'side' | 'role'>): string[] {
  const given = tiers.find(({ id }) => id === tier)?.traits ?? [];
  return given.filter((one) => tweakApplies(one, unit)).map(({ trait }) => trait);
}

/** The traits that a unit has of itself and at a tier, in the order in which they are laid over it. @param unit as it is written */
export function traitsAt(project: Project, unit: Pick<Unit, 'id' | 'side' | 'role' | 'traits'>, lens: Lens): Trait[] {
  return traitsBy(project, [...unit.traits, ...ofTier(project, lens, unit)]);
}

/** A unit with what its variants change. @returns what of it is no part of the document */
function altered(project: Project, id: string, led: Led): { unit: Unit; copies: Copies } {
  const { original, variants } = lineage(project, id);
  const copies: Copies = new Set();
  let unit = original;
  for (const variant of variants) {
    unit = alter(unit, variant, copies);
    unit = applySources(Unit, unit, [{ source: 'variant', name: variant.name, tweaks: variant.tweaks }], () => true, led, copies);
  }
  return { unit, copies };
}

/** A unit or variant as it is written: its base and its own changes, without its traits, through no lens. @throws VariantError */
export function writtenUnit(project: Project, id: string): Unit {
  return altered(project, id, nothingLed()).unit;
}

/**
 * On which side tweaks and traits find a unit: on that of the list that keeps it; but one that comes in an encounter without a
 * party, and only on its side, is the party's there.
 */
export function sideIn({ party, allies, waves }: Encounter, { id, side }: Pick<Unit, 'id' | 'side'>): Unit['side'] {
  if (party.length) return side;
  const groups = waves.flatMap((wave) => wave.groups).filter(({ enemy, pool }) => enemy === id || pool.some((entry) => entry.enemy === id));
  const stands = groups.length > 0 && groups.every((group) => group.side === 'ours') && !allies.some(({ unit }) => unit === id);
  return stands ? 'party' : side;
}

/**
 * @param encounter whose tweaks by party size count; absent: none do
 * @throws VariantError when there is no such unit
 */
export function effectiveUnit(project: Project, id: string, lens: Lens, encounter?: Encounter): Effective<Unit> {
  const led = nothingLed();
  const { unit: written, copies } = altered(project, id, led);
  const spoken = { id, role: written.role, side: encounter ? sideIn(encounter, written) : written.side };
  const lay = (unit: Unit, sources: Source[], speaksOf: (tweak: FieldTweak) => boolean) =>
    applySources(Unit, unit, sources, speaksOf, led, copies);
  const ofAll = () => true;
  const born = lay(written, ofTraits(project, written.traits, 'trait'), ofAll);
  const seen = lay(born, sourcesOf(project, lens, encounter), (tweak) => tweakApplies(tweak as Tweak, spoken));
  return { unit: lay(seen, ofTraits(project, ofTier(project, lens, spoken), 'tierTrait'), ofAll), ...led };
}

/** @throws nothing */
export function effectiveEncounter(project: Project, encounter: Encounter, lens: Lens): Effective<Encounter> {
  const led = nothingLed();
  const speaksOf = (tweak: FieldTweak) => (tweak as Tweak).scope === 'encounter';
  return { unit: applySources(Encounter, encounter, sourcesOf(project, lens, encounter), speaksOf, led, new Set()), ...led };
}

/** A unit with more tweaks laid over it: what a trait, a wave's growth, a state or a boost makes of it. */
export function tweakedUnit(unit: Unit, tweaks: readonly FieldTweak[]): Unit {
  return applySources(Unit, unit, [{ source: 'dial', name: '', tweaks }], () => true, nothingLed(), new Set());
}

function applySources<T extends object>(
  type: Constructor,
  base: T,
  sources: Source[],
  speaksOf: (tweak: FieldTweak) => boolean,
  led: Led,
  copies: Copies,
): T {
  let unit = base;
  for (const { source, name, tweaks, largestOnly } of sources) {
    const counted = largestOnly ? largestOf(tweaks.filter(speaksOf)) : undefined;
    tweaks.forEach((tweak, index) => {
      if (!speaksOf(tweak) || (counted && !counted.has(tweak))) return;
      const steps = pointerSteps(tweak.path);
      const field = changeableAt(type, steps);
      if (!field || !fitsField(field, tweak.value)) return;
      for (const place of placesAt(base, steps)) {
        const pointer = pointerOf(...place);
        unit = ownPart(unit, copies);
        let parent = unit as Record<string, unknown>;
        for (const step of place.slice(0, -1)) {
          const at = Array.isArray(parent) ? indexInList(parent, step) : step;
          parent = parent[at] = ownPart(parent[at] as Record<string, unknown>, copies);
        }
        const key = place[place.length - 1];
        const before = parent[key];
        if (field.kind === 'number') {
          const asked = operate(before as number, tweak);
          parent[key] = follow(led.chains, pointer, before as number, {
            source,
            name,
            index,
            tweak,
            asked,
            granted: kept(asked, tweak, field.info),
          });
        } else {
          const asked = tweak.value as string | boolean;
          parent[key] = follow(led.words, pointer, before as string | boolean, { source, name, index, tweak, asked, granted: asked });
        }
      }
    });
  }
  return unit;
}

/** Adds a step to the chain of a place. @returns what it comes to */
function follow<V extends TweakValue>(chains: Map<string, Chain<V>>, pointer: string, before: V, step: ChainStep<V>): V {
  const chain = chains.get(pointer) ?? { base: before, steps: [], value: before };
  chain.steps.push(step);
  chain.value = step.granted;
  chains.set(pointer, chain);
  return step.granted;
}

/** Of several × tweaks on one path the largest; everything else as it is. */
function largestOf(tweaks: readonly FieldTweak[]): Set<FieldTweak> {
  const largest = new Map<string, FieldTweak>();
  const counted = new Set<FieldTweak>();
  for (const tweak of tweaks) {
    if (tweak.op !== '×') counted.add(tweak);
    else if (!(Number(tweak.value) <= Number(largest.get(tweak.path)?.value ?? -Infinity))) largest.set(tweak.path, tweak);
  }
  largest.forEach((tweak) => counted.add(tweak));
  return counted;
}

function operate(value: number, tweak: FieldTweak): number {
  const by = Number(tweak.value);
  if (tweak.op === '×') return value * by;
  return tweak.op === '+' ? value + by : by;
}

function kept(asked: number, tweak: FieldTweak, field: QuantityInfo): number {
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

/**
 * "28 → ×1.25 Bramble → 35", and "asked 180, capped 150" where a limit bit; of words "turns → = Blight → fixed".
 * @param called what words are called; absent: as they are written
 */
export function chainSentence(
  chain: Chain | WordChain,
  shown: (value: number) => string = String,
  called: (value: string | boolean) => string = String,
): string {
  const said = (value: TweakValue) => (typeof value === 'number' ? shown(value) : called(value));
  let text = said(chain.base);
  for (const { tweak, name, asked, granted } of chain.steps) {
    text += ` → ${tweak.op}${typeof granted === 'number' ? said(tweak.value) : ''} ${name} → ${said(granted)}`;
    if (asked !== granted && tweak.round === undefined) text += ` (asked ${said(asked)}, capped)`;
  }
  return text;
}
