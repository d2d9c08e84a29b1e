import { About, ListOf } from './field';
import { LIMITS } from './limits';
import { GivenTrait } from './trait';
import { Setting } from './tweak';

@About('A difficulty setting: an ordered list of tweaks, and traits that come with it.')
export class Tier extends Setting {
  @ListOf(() => GivenTrait, LIMITS.given, { label: 'Traits', about: 'laid over the tweaks of tier, skill, style and size of the party' })
  traits: GivenTrait[] = [];
}
