/** Linked variants: a unit that follows another except where it says otherwise. */
import { Anything, Identifier, ListOf, Name, OneOf, Optional, Pointer, Text } from './field';
import { LIMITS } from './limits';
import { NumberTweak } from './tweak';
import { COLOURS, GLYPHS, type Unit } from './unit';

/** One JSON Patch operation (RFC 6902) on the base: lists are stepped through by id. */
export class Alteration {
  @OneOf(['add', 'remove', 'replace']) op: 'add' | 'remove' | 'replace';
  @Pointer('/states/rush') path: string;
  @Optional() @Anything() value?: unknown;
  /** For an item put into a list: the id it goes before. */
  @Optional() @Text(80) before?: string;
}

/** Follows its base at any depth; what it tweaks, adds, replaces or drops is its own. */
export class Variant {
  @Identifier() id: string;
  @Name() name: string;
  /** A unit or another variant. */
  @Identifier() basedOn: string;
  @Optional() @Text(40) role?: string;
  @Optional() @OneOf(GLYPHS) glyph?: Unit['glyph'];
  @Optional() @OneOf(COLOURS) colour?: Unit['colour'];
  @Optional() @Text(8000) notes?: string;
  /** Changes that are not numbers: applied before the tweaks. */
  @ListOf(() => Alteration, LIMITS.tweaks) changes: Alteration[] = [];
  @ListOf(() => NumberTweak, LIMITS.tweaks) tweaks: NumberTweak[] = [];
}
