import { ofType } from '../measure';

export const answersUsed = ofType({
  label: 'answers used',
  unit: '',
  about: 'dodges, guards and counters in nobody’s turn, per life',
  of: ({ spawned, turns: { had, reactions: used } }) => (had > 0 && spawned > 0 ? used.reduce((sum, one) => sum + one, 0) / spawned : NaN),
});
