/** Who has a trait, and what it comes to for somebody. */
import { type Lens, effectiveUnit, tweakApplies, tweakedUnit, writtenUnit } from '../model/effective';
import type { TweakValue } from '../model/tweak';
import { Unit } from '../model/unit';
import { quantityAt } from '../model/field-at';
import { placesAt, pointerOf, pointerSteps, valueAt } from '../model/pointer';
import type { Project } from '../model/project';
import type { Trait } from '../model/trait';
import { unitHeads } from '../model/variants';

/** Ids of the units that have it of themselves, at some tier, in some wave or by some event, in order of entry. */
export function bearersOf(project: Project, trait: string): string[] {
  const heads = unitHeads(project);
  const found = new Set<string>();
  const scoped = (given: Pick<Project['tiers'][number]['traits'][number], 'scope' | 'of'>) =>
    heads.filter((head) => tweakApplies(given, head)).forEach(({ id }) => found.add(id));
  for (const { id } of heads) if (writtenUnit(project, id).traits.includes(trait)) found.add(id);
  for (const { traits } of project.tiers) traits.filter((given) => given.trait === trait).forEach(scoped);
  for (const { waves, events } of project.encounters) {
    for (const wave of waves)
      for (const group of wave.groups) {
        const borne = wave.traits.includes(trait) || group.traits.some((given) => given.trait === trait && given.share > 0);
        if (borne) for (const id of [group.enemy, ...group.pool.map(({ enemy }) => enemy)]) if (id !== undefined) found.add(id);
      }
    for (const { then } of events)
      for (const { does, of, to, whom } of then) if (does === 'trait' && of === trait && to !== undefined) scoped({ scope: to, of: whom });
  }
  return heads.filter(({ id }) => found.has(id)).map(({ id }) => id);
}

/** A number, word or yes-or-no of a unit and what a trait makes of it. */
export interface Touched {
  path: string;
  before: TweakValue;
  after: TweakValue;
}

export interface TraitTouch {
  touched: Touched[];
  /** Its tweaks, by their place in its list, that speak of a number this unit does not have. */
  missing: number[];
  /** Numbers of the same kind as those it changes, which it leaves as they are: a shield beside health. */
  spared: { path: string; value: number }[];
}

/** Numbers that people think of together: who changes one of them may have meant the others too. */
const KINDRED: readonly (readonly string[])[] = [
  ['/health/max', '/shield/max', '/armour/flat', '/armour/resist/*/share', '/weakPoint/multiplier', '/stagger/threshold'],
  ['/attacks/*/effects/damage/amount', '/attacks/*/effects/overTime/amount'],
  ['/movement/walk', '/movement/run'],
  ['/attacks/*/beat/windup', '/attacks/*/beat/recovery', '/attacks/*/beat/cooldown'],
  ['/senses/sight', '/senses/lose'],
];

/**
 * What a trait changes of a unit, and what it does not.
 * @throws VariantError when there is no such unit
 */
export function traitOn(project: Project, trait: Trait, id: string, lens: Lens): TraitTouch {
  // Where the unit has it already, it is laid over what the unit is without it.
  const bare = { ...project, traits: project.traits.map((one) => (one.id === trait.id ? { ...one, tweaks: [] } : one)) };
  const before = effectiveUnit(bare, id, lens).unit;
  const after = tweakedUnit(before, trait.tweaks);
  const places = (path: string) => placesAt(before, pointerSteps(path)).map((steps) => pointerOf(...steps));
  const paths = [...new Set(trait.tweaks.flatMap(({ path }) => places(path)))];
  const kindred = KINDRED.map((kin) => kin.flatMap(places)).filter((kin) => kin.some((path) => paths.includes(path)));
  return {
    touched: paths.map((path) => ({ path, before: valueAt(before, path) as TweakValue, after: valueAt(after, path) as TweakValue })),
    missing: trait.tweaks.flatMap(({ path }, i) => (places(path).length ? [] : [i])),
    spared: kindred
      .flat()
      .filter((path) => !paths.includes(path) && quantityAt(Unit, pointerSteps(path)))
      .map((path) => ({ path, value: valueAt(before, path) as number })),
  };
}
