import { AnyNumber, Identifier, ListOf, Name, OneOf, Optional, Pointer, Quantity, Text, YesNo } from './field';
import { LIMITS } from './limits';

export const TWEAK_SCOPES = ['enemies', 'party', 'role', 'unit', 'encounter'] as const;
export const TWEAK_OPERATIONS = ['×', '+', '='] as const;
export type TweakOperation = (typeof TWEAK_OPERATIONS)[number];

/** One change to one number of a unit (or encounter) that is known from where the change is written. */
export class NumberTweak {
  /** JSON Pointer (RFC 6901) within the unit or encounter. A step into a list is an item's id, or `*` for each item. */
  @Pointer('/health/max') path: string;
  @OneOf(TWEAK_OPERATIONS) op: TweakOperation;
  @AnyNumber() value: number;
  /** The result is kept at or above this. */
  @Optional() @AnyNumber() min?: number;
  /** The result is kept at or below this. */
  @Optional() @AnyNumber() max?: number;
  /** The result is rounded half up to a multiple of this. */
  @Optional()
  @Quantity({ label: 'Round to', unit: '', min: 1e-6, max: 1e6, about: 'the result is rounded half up to a multiple of this' })
  round?: number;
}

/** The same, saying whose number it is. Tiers, skills, styles, dials and edits through the lens are lists of these. */
export class Tweak extends NumberTweak {
  /** Whose number: all enemies, the party, every unit of a role, one unit, or the encounter. */
  @OneOf(TWEAK_SCOPES) scope: (typeof TWEAK_SCOPES)[number];
  /** The role (scope role) or the unit's id (scope unit). */
  @Optional() @Text(80) of?: string;
}

/** A difficulty setting: an ordered list of tweaks. */
export class Tier {
  @Identifier() id: string;
  @Name() name: string;
  @Optional() @Text(2000) notes?: string;
  /** Of several × tweaks of this list on one number only the largest counts. */
  @Optional() @YesNo() largestOnly?: boolean;
  @ListOf(() => Tweak, LIMITS.tweaks) tweaks: Tweak[] = [];
}

/** How well the simulated player plays: an ordered list of tweaks on the party. */
export class Skill extends Tier {}

/** How the simulated player likes to play: an ordered list of tweaks on the party. */
export class Style extends Tier {}
