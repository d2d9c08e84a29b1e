/** Traits: named lists of tweaks that are given to units, and what they come to. */
import { About, Identifier, ListOf, Name, OneOf, Optional, Quantity, Refers, RefersByName, Text } from './field';
import { LIMITS } from './limits';
import { FieldTweak } from './tweak';

/** Whose units a trait may be given to. */
export const TRAIT_SCOPES = { enemies: 'all enemies', party: 'the party', role: 'a role', unit: 'a unit' } as const;

@About('A named list of changes to numbers, given to units, groups of a wave or a share of them, waves, at tiers or by events.')
export class Trait {
  @Identifier() id: string;
  @Name() name: string;
  @Optional() @Text(2000, { label: 'Notes' }) notes?: string;
  @ListOf(() => FieldTweak, LIMITS.traitTweaks, { label: 'Tweaks', about: 'on whoever has it, in this order' }) tweaks: FieldTweak[] = [];
}

@About('A trait that the units of a group come with, or a share of them.')
export class GroupTrait {
  @Refers({ to: ['trait'] }, { label: 'Trait' }) trait: string;
  @Quantity({ label: 'Share', unit: '', min: 0, max: 1, about: 'chance that a unit of the group has it, drawn for each; 1: all have' })
  share = 1;
}

@About('A trait, and who has it.')
export class GivenTrait {
  @Refers({ to: ['trait'] }, { label: 'Trait' }) trait: string;
  @OneOf(TRAIT_SCOPES, { label: 'Who', about: 'all enemies, the party, every unit of a role, or one unit' })
  scope: keyof typeof TRAIT_SCOPES = 'enemies';
  @Optional()
  @RefersByName({ to: { by: 'scope', kinds: { role: 'role', unit: 'unit' } }, gone: 'takes' }, 80, {
    label: 'Whom',
    about: 'the role, or the unit',
    when: { scope: ['role', 'unit'] },
    needed: true,
    only: true,
  })
  of?: string;
}

/** The traits of these ids, in this order; what there is none of is left out. */
export function traitsBy({ traits }: { traits: readonly Trait[] }, ids: readonly string[]): Trait[] {
  return ids.flatMap((id) => traits.find((trait) => trait.id === id) ?? []);
}

/** What traits change, in the order in which they are given. */
export function tweaksBy(project: { traits: readonly Trait[] }, ids: readonly string[]): FieldTweak[] {
  return traitsBy(project, ids).flatMap(({ tweaks }) => tweaks);
}
