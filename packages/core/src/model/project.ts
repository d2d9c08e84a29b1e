import { Arena } from './arena';
import { Encounter } from './encounter';
import { Identifier, ListOf, Name, Planned } from './field';
import { Equals } from 'class-validator';
import { LIMITS } from './limits';
import { Skill, Style, Tier } from './tweak';
import { Unit } from './unit';
import { Variant } from './variant';

export const FORMAT = 'insidia-project';
export const FORMAT_VERSION = 1;

/** One document holds a whole project. Units: metres, seconds, degrees, hit points; shares and chances from 0 to 1. */
export class Project {
  @Equals(FORMAT) format: string;
  @Equals(FORMAT_VERSION) version: number;
  @Identifier() id: string;
  @Name() name: string;
  @ListOf(() => Unit, LIMITS.units) units: Unit[] = [];
  @ListOf(() => Variant, LIMITS.variants) variants: Variant[] = [];
  @ListOf(() => Arena, LIMITS.arenas) arenas: Arena[] = [];
  @ListOf(() => Encounter, LIMITS.encounters) encounters: Encounter[] = [];
  @ListOf(() => Tier, LIMITS.tiers) tiers: Tier[] = [];
  @ListOf(() => Skill, LIMITS.skills) skills: Skill[] = [];
  @ListOf(() => Style, LIMITS.styles) styles: Style[] = [];
  @Planned('the brief') brief?: object;
}

/** The lists of a project whose items have ids, in the order in which references point. */
export const COLLECTIONS = ['units', 'variants', 'arenas', 'encounters', 'tiers', 'skills', 'styles'] as const;
export type Collection = (typeof COLLECTIONS)[number];
