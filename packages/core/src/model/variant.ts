/** Linked variants: a unit that follows another except where it says otherwise. */
import { About, Anything, Identifier, ListOf, Name, OneOf, Optional, Pointer, Refers, Text, asTheyAre } from './field';
import { LIMITS } from './limits';
import { FieldTweak } from './tweak';
import { COLOURS, GLYPHS, type Unit } from './unit';

@About('One JSON Patch operation (RFC 6902) on the base: lists are stepped through by id.')
export class Alteration {
  @OneOf(asTheyAre(['add', 'remove', 'replace'])) op: 'add' | 'remove' | 'replace';
  @Pointer('/states/rush') path: string;
  @Optional() @Anything({ about: 'what is added, or put in its place' }) value?: unknown;
  @Optional() @Text(80, { about: 'for an item put into a list: the id it goes before' }) before?: string;
}

@About('Follows its base at any depth; what it tweaks, adds, replaces or drops is its own.')
export class Variant {
  @Identifier() id: string;
  @Name() name: string;
  @Refers({ to: ['unit'] }, { label: 'based on', about: 'a unit or another variant' }) basedOn: string;
  @Optional() @Text(40, { label: 'Role', about: 'absent: its base’s' }) role?: string;
  @Optional() @OneOf(asTheyAre(GLYPHS), { label: 'Sign', about: 'absent: its base’s' }) glyph?: Unit['glyph'];
  @Optional() @OneOf(asTheyAre(COLOURS), { label: 'Colour', about: 'absent: its base’s' }) colour?: Unit['colour'];
  @Optional() @Text(8000, { label: 'Notes' }) notes?: string;
  @ListOf(() => Alteration, LIMITS.tweaks, { label: 'changes', about: 'that are not numbers: applied before the tweaks' })
  changes: Alteration[] = [];
  @ListOf(() => FieldTweak, LIMITS.tweaks, { label: 'tweaks' }) tweaks: FieldTweak[] = [];
}
