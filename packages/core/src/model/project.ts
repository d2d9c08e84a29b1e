import { Arena } from './arena';
import { Brief } from './brief';
import { Encounter } from './encounter';
import { Exactly, Group, Identifier, ListOf, Name, Optional, Text } from './field';
import { LIMITS } from './limits';
import { Skill, Style, Tier } from './tweak';
import { Unit } from './unit';
import { Variant } from './variant';

export const FORMAT = 'insidia-project';
export const FORMAT_VERSION = 1;

/** A warning that is meant: it stays quiet until what it speaks of changes. */
export class Acceptance {
  @Identifier() id: string;
  /** The rule of the warning. */
  @Name() rule: string;
  /** Where it lies: a pointer into the project, variants like units. */
  @Text(400) path: string;
  /** The values it was accepted for. */
  @Text(2000) cause: string;
  /** Why it is meant. */
  @Text(2000) reason: string;
}

/** One document holds a whole project. Units: metres, seconds, degrees, hit points; shares and chances from 0 to 1. */
export class Project {
  @Exactly(FORMAT) format: string;
  @Exactly(FORMAT_VERSION) version: number;
  @Identifier() id: string;
  @Name() name: string;
  @ListOf(() => Unit, LIMITS.units) units: Unit[] = [];
  @ListOf(() => Variant, LIMITS.variants) variants: Variant[] = [];
  @ListOf(() => Arena, LIMITS.arenas) arenas: Arena[] = [];
  @ListOf(() => Encounter, LIMITS.encounters) encounters: Encounter[] = [];
  @ListOf(() => Tier, LIMITS.tiers) tiers: Tier[] = [];
  @ListOf(() => Skill, LIMITS.skills) skills: Skill[] = [];
  @ListOf(() => Style, LIMITS.styles) styles: Style[] = [];
  @ListOf(() => Acceptance, LIMITS.accepted) accepted: Acceptance[] = [];
  @Optional() @Group(() => Brief) brief?: Brief;
}

/** The lists of a project whose items have ids, in the order in which references point. */
export const COLLECTIONS = ['units', 'variants', 'arenas', 'encounters', 'tiers', 'skills', 'styles'] as const;
export type Collection = (typeof COLLECTIONS)[number];
