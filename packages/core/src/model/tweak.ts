import { Identifier, ListOf, Name, OneOf, Optional, Planned, Quantity, Text } from './field';
import { IsNumber, IsString, Matches } from 'class-validator';
import { LIMITS } from './limits';

export const TWEAK_SCOPES = ['enemies', 'party', 'role', 'unit', 'encounter'] as const;
export const TWEAK_OPERATIONS = ['×', '+', '='] as const;
export type TweakOperation = (typeof TWEAK_OPERATIONS)[number];

/** One change to one number. Variants, tiers, skills, sweeps and edits through the lens are all lists of these. */
export class Tweak {
  /** Whose number: all enemies, the party, every unit of a role, one unit, or the encounter. */
  @OneOf(TWEAK_SCOPES) scope: (typeof TWEAK_SCOPES)[number];
  /** The role (scope role) or the unit's id (scope unit). */
  @Optional() @Text(80) of?: string;
  /** JSON Pointer (RFC 6901) within the unit or encounter. A step into a list is an item's id, or `*` for each item. */
  @IsString() @Matches(/^(\/[^/]+)+$/, { message: 'must be a JSON Pointer such as /health/max' }) path: string;
  @OneOf(TWEAK_OPERATIONS) op: TweakOperation;
  @IsNumber({ allowNaN: false, allowInfinity: false }) value: number;
  /** The result is kept at or above this. */
  @Optional() @IsNumber({ allowNaN: false, allowInfinity: false }) min?: number;
  /** The result is kept at or below this. */
  @Optional() @IsNumber({ allowNaN: false, allowInfinity: false }) max?: number;
  /** The result is rounded half up to a multiple of this. */
  @Optional()
  @Quantity({ label: 'Round to', unit: '', min: 1e-6, max: 1e6, about: 'the result is rounded half up to a multiple of this' })
  round?: number;
}

/** A difficulty setting: an ordered list of tweaks. */
export class Tier {
  @Identifier() id: string;
  @Name() name: string;
  @Optional() @Text(2000) notes?: string;
  @Planned('"only the largest counts" for a list of tweaks') largestOnly?: boolean;
  @ListOf(() => Tweak, LIMITS.tweaks) tweaks: Tweak[] = [];
}

/** How well the simulated player plays: an ordered list of tweaks on the party. */
export class Skill extends Tier {}
