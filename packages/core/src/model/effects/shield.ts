import { About } from '../field';
import { numberWords as n } from '../number-words';
import { InTurns, LastingRounds } from '../rounds';
import { brief, effect, lasts, points, seconds } from './parts';

@About('A shield lent for a time; a larger one takes the place of a smaller.')
export class LentShield {
  @points('Shield given', 'absorbs damage before the unit’s own shield') amount = 0;
  @seconds('For', 'how long it lasts') for = 5;
  @InTurns(() => LastingRounds) rounds?: LastingRounds;
}

export const shield = effect({
  type: LentShield,
  label: 'Shield',
  compile: ({ amount, for: lasts }: LentShield, { time }) => (amount > 0 ? { amount, lasts: time(lasts) } : null),
  help: (struck, { amount, lasts }) => {
    struck.tell('shielded', amount);
    struck.lasts('lent', amount, lasts);
  },
  event: {
    name: 'shielded',
    values: ['amount'],
    told: ({ name, otherName, values }) => `${name} shields ${otherName} with ${brief(values.amount)}`,
  },
  sentence: (given, _, clock) => `shields ${n(given.amount)} hp for ${lasts(given, clock)}`,
  typical: { amount: [0, 12], for: [0.1, 3] },
});
