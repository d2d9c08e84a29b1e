import { About, Quantity } from '../field';
import { numberWords as n } from '../number-words';
import { InTurns, LastingRounds } from '../rounds';
import { brief, effect, lasting, lasts, seconds } from './parts';

@About('Hits on it do more for a time.')
export class Mark {
  @Quantity({ label: 'Marked', unit: '×', min: 0, max: 100, about: 'hits on a marked unit are multiplied by this' }) multiplier = 1.25;
  @seconds('For', 'how long it lasts') for = 5;
  @InTurns(() => LastingRounds) rounds?: LastingRounds;
}

export const mark = effect({
  type: Mark,
  label: 'Mark',
  turn: 2,
  compile: ({ multiplier, for: lasts }: Mark, { time }) => (time(lasts) > 0 ? { multiplier, lasts: time(lasts) } : null),
  strike: (struck, { multiplier, lasts }) => {
    struck.tell('mark', multiplier, lasts);
    struck.lasts('mark', multiplier, lasts);
  },
  event: {
    name: 'mark',
    values: ['multiplier', 's:seconds'],
    told: ({ otherName, values, clock }) => `${otherName} is marked × ${brief(values.multiplier, 2)} for ${lasting(values.seconds, clock)}`,
  },
  sentence: (given, _, clock) => `marks × ${n(given.multiplier)} for ${lasts(given, clock)}`,
  typical: { multiplier: [0.5, 2], for: [0.1, 2] },
});
