import { ofType, ENEMY } from '../measure';

export const reach = ofType({
  label: 'reach',
  unit: '',
  about: 'share of its turns, of those in which it was free to act, in which somebody could be struck with an attack that was ready',
  of: ({ turns: { free, reached } }) => (free > 0 ? reached / free : NaN),
  goal: { of: ENEMY, usual: 'mean', percent: true, clock: 'rounds' },
});
