/** Numbers that a fight keeps count of beside its flags. */
import { About, Identifier, Name, OneOf, Quantity, Refers } from './field';

/** What a counter may be: it is held between these. */
export const MOST_COUNTED = 1e6;

@About('A number that an encounter keeps count of: from 0 to a million, changed by its events and by units on entering a state.')
export class Counter {
  @Identifier() id: string;
  @Name() name: string;
  @Quantity({ label: 'Starts at', unit: '', min: 0, max: MOST_COUNTED, about: 'what it is when the fight begins' }) start = 0;
}

@About('A change of a counter. In an encounter without that counter it is nothing.')
export class CounterChange {
  @Refers({ to: ['counter'], gone: 'takes' }, { label: 'Counter', about: 'a counter of the encounter' }) counter: string;
  @OneOf({ add: 'grows by', set: 'becomes' }, { label: 'How', about: 'grows by a number (less than 0: shrinks), or becomes it' }) how:
    'add' | 'set' = 'add';
  @Quantity({
    label: 'By',
    unit: '',
    min: -MOST_COUNTED,
    max: MOST_COUNTED,
    about: 'what it grows by, or becomes; it stays between 0 and a million',
  })
  by = 1;
}
