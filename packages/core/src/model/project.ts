import { Arena } from './arena';
import { Brief } from './brief';
import { Encounter } from './encounter';
import { About, Exactly, Group, Identifier, ListOf, Name, Optional, Text } from './field';
import { LIMITS } from './limits';
import { Tier } from './tier';
import { Trait } from './trait';
import { Tuning } from './question';
import { Skill, Style } from './tweak';
import { Unit } from './unit';
import { Variant } from './variant';

export const FORMAT = 'insidia-project';
export const FORMAT_VERSION = 4;

@About('A warning that is meant: it stays quiet until what it speaks of changes.')
export class Acceptance {
  @Identifier() id: string;
  @Name({ label: 'Rule', about: 'of the warning' }) rule: string;
  @Text(400, { label: 'Place', about: 'where it lies: a pointer into the project, variants like units' }) path: string;
  @Text(2000, { label: 'Cause', about: 'the values it was accepted for' }) cause: string;
  @Text(2000, { label: 'Reason', about: 'why it is meant' }) reason: string;
}

@About('One document holds a whole project. Units: metres, seconds, degrees, hit points; shares and chances from 0 to 1.')
export class Project {
  @Exactly(FORMAT) format: string;
  @Exactly(FORMAT_VERSION) version: number;
  @Identifier() id: string;
  @Name({ label: 'name', about: 'what people see' }) name: string;
  @ListOf(() => Unit, LIMITS.units, { label: 'Units', defines: 'unit' }) units: Unit[] = [];
  @ListOf(() => Variant, LIMITS.variants, { label: 'Linked variants', defines: 'unit' }) variants: Variant[] = [];
  @ListOf(() => Arena, LIMITS.arenas, { label: 'Arenas', defines: 'arena' }) arenas: Arena[] = [];
  @ListOf(() => Encounter, LIMITS.encounters, { label: 'Encounters', defines: 'encounter' }) encounters: Encounter[] = [];
  @ListOf(() => Trait, LIMITS.traits, { label: 'Traits', defines: 'trait' }) traits: Trait[] = [];
  @ListOf(() => Tier, LIMITS.tiers, { label: 'Tiers', defines: 'tier' }) tiers: Tier[] = [];
  @ListOf(() => Skill, LIMITS.skills, { label: 'Skills', defines: 'skill' }) skills: Skill[] = [];
  @ListOf(() => Style, LIMITS.styles, { label: 'Styles', defines: 'style' }) styles: Style[] = [];
  @ListOf(() => Acceptance, LIMITS.accepted, { label: 'accepted warnings' }) accepted: Acceptance[] = [];
  @Optional() @Group(() => Brief, { label: 'Brief' }) brief?: Brief;
  @Optional() @Group(() => Tuning, { label: 'Tuning', about: 'questions about numbers' }) tuning?: Tuning;
}

/** The lists of a project whose items have ids, in the order in which references point. */
export const COLLECTIONS = ['units', 'variants', 'arenas', 'encounters', 'traits', 'tiers', 'skills', 'styles'] as const;
export type Collection = (typeof COLLECTIONS)[number];

/** Ids that something of a project has: what is new must have another, for references are by id alone. */
export function takenIds(project: Project): string[] {
  return COLLECTIONS.flatMap((collection) => project[collection].map(({ id }) => id));
}
