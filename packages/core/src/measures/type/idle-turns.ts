import { ofType, ENEMY } from '../measure';

export const idleTurns = ofType({
  label: 'turns without an act',
  unit: '',
  about: 'share of its turns, of those in which it knew of a foe, in which it neither struck nor prepared to',
  of: ({ turns: { aware, idle } }) => (aware > 0 ? idle / aware : NaN),
  goal: { of: ENEMY, usual: 'mean', percent: true, harder: 'less', clock: 'rounds' },
});
