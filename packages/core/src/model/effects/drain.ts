import { About, Quantity } from '../field';
import { numberWords as n } from '../number-words';
import { brief, effect } from './parts';

@About('Loses energy.')
export class Drain {
  @Quantity({ label: 'Drains', unit: '', min: 0, max: 1e6, about: 'energy taken away' }) amount = 1;
}

export const drain = effect({
  type: Drain,
  label: 'Drain',
  turn: 3,
  compile: ({ amount }: Drain) => (amount > 0 ? { amount } : null),
  strike: (struck, { amount }) => struck.tell('drain', struck.loseEnergy(amount)),
  event: {
    name: 'drain',
    values: ['amount'],
    told: ({ name, otherName, values }) => `${otherName} loses ${brief(values.amount)} energy to ${name}`,
  },
  sentence: ({ amount }) => `drains ${n(amount)} energy`,
  typical: { amount: [0, 5] },
});
