import { numberWords as n } from '../number-words';
import { Lasting } from './lasting';
import { brief, effect } from './parts';

export const stagger = effect({
  type: Lasting,
  label: 'Stagger',
  turn: 6,
  compile: ({ for: lasts }: Lasting, { time }) => (time(lasts) > 0 ? { lasts: time(lasts) } : null),
  strike: (struck, { lasts }) => struck.stagger(lasts),
  event: {
    name: 'stagger',
    values: ['s:seconds'],
    told: ({ otherName, values }) => `${otherName} reels for ${brief(values.seconds, 2)} s`,
  },
  sentence: ({ for: lasts }) => `staggers ${n(lasts)} s`,
  typical: { for: [0.1, 1] },
});
