import { Lasting } from './lasting';
import { effect, lasting, lasts } from './parts';

export const stagger = effect({
  type: Lasting,
  label: 'Stagger',
  turn: 6,
  compile: ({ for: lasts }: Lasting, { time }) => (time(lasts) > 0 ? { lasts: time(lasts) } : null),
  strike: (struck, { lasts }) => struck.stagger(lasts),
  event: {
    name: 'stagger',
    values: ['s:seconds'],
    // It is over at the turn after those that are lost.
    told: ({ otherName, values, clock }) =>
      `${otherName} reels for ${lasting(clock === 'rounds' ? values.seconds - 1 : values.seconds, clock)}`,
  },
  sentence: (given, _, clock) => `staggers ${lasts(given, clock)}`,
  typical: { for: [0.1, 1] },
});
