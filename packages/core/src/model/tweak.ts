import {
  About,
  AnyNumber,
  AnyValue,
  Identifier,
  ListOf,
  Name,
  OneOf,
  Optional,
  Pointer,
  Quantity,
  RefersByName,
  Text,
  YesNo,
  asTheyAre,
} from './field';
import { LIMITS } from './limits';

export const TWEAK_SCOPES = ['enemies', 'party', 'role', 'unit', 'encounter'] as const;
export const TWEAK_OPERATIONS = ['×', '+', '='] as const;
export type TweakOperation = (typeof TWEAK_OPERATIONS)[number];

export type TweakValue = number | string | boolean;

@About('One change to one number, word or yes-or-no of a unit (or encounter) that is known from where the change is written.')
export class FieldTweak {
  @Pointer('/health/max', {
    label: 'what',
    about: 'JSON Pointer (RFC 6901) within the unit or encounter; a step into a list is an item’s id, or `*` for each item',
  })
  path: string;
  @OneOf(asTheyAre(TWEAK_OPERATIONS), { label: 'operation', fixed: true }) op: TweakOperation;
  @AnyValue({ label: 'value', about: 'a word or a yes-or-no is set, with =' }) value: TweakValue;
  @Optional() @AnyNumber({ label: 'min', about: 'the result is kept at or above this' }) min?: number;
  @Optional() @AnyNumber({ label: 'max', about: 'the result is kept at or below this' }) max?: number;
  @Optional()
  @Quantity({ label: 'Round to', unit: '', min: 1e-6, max: 1e6, about: 'the result is rounded half up to a multiple of this' })
  round?: number;
}

@About('The same, saying whose number it is. Tiers, skills, styles, dials and edits through the lens are lists of these.')
export class Tweak extends FieldTweak {
  @OneOf(asTheyAre(TWEAK_SCOPES), {
    label: 'whose',
    about: 'whose number: all enemies, the party, every unit of a role, one unit, or the encounter',
  })
  scope: (typeof TWEAK_SCOPES)[number];
  @Optional()
  @RefersByName({ to: { by: 'scope', kinds: { role: 'role', unit: 'unit' } }, gone: 'takes' }, 80, {
    label: 'of',
    about: 'the role, or the unit',
    when: { scope: ['role', 'unit'] },
    needed: true,
  })
  of?: string;
}

@About('An ordered list of tweaks with a name.')
export class Setting {
  @Identifier() id: string;
  @Name() name: string;
  @Optional() @Text(2000, { label: 'Notes' }) notes?: string;
  @Optional()
  @YesNo({ label: 'Largest × only', about: 'of several × tweaks of this list on one number only the largest counts' })
  largestOnly?: boolean;
  @ListOf(() => Tweak, LIMITS.tweaks, { label: 'Tweaks' }) tweaks: Tweak[] = [];
}

@About('How well the simulated player plays: an ordered list of tweaks on the party.')
export class Skill extends Setting {}

@About('How the simulated player likes to play: an ordered list of tweaks on the party.')
export class Style extends Setting {}
