import { Lasting } from './lasting';
import { effect, lasting, lasts } from './parts';

export const taunt = effect({
  type: Lasting,
  label: 'Taunt',
  turn: 5,
  about: 'the struck unit turns on whoever struck it',
  compile: ({ for: lasts }: Lasting, { time }) => (time(lasts) > 0 ? { lasts: time(lasts) } : null),
  strike: (struck, { lasts }) => {
    struck.tell('taunt', lasts);
    struck.taunt(lasts);
  },
  event: {
    name: 'taunt',
    values: ['s:seconds'],
    told: ({ name, otherName, values, clock }) => `${otherName} must go for ${name} for ${lasting(values.seconds, clock)}`,
  },
  sentence: (given, _, clock) => `draws its target for ${lasts(given, clock)}`,
  typical: { for: [0.1, 2] },
});
