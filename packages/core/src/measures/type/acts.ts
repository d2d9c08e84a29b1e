import { ofType } from '../measure';

export const acts = ofType({
  label: 'acts a turn',
  unit: '',
  about: 'attacks begun, for each of its turns',
  of: ({ turns: { had, acts: begun } }) => (had > 0 ? begun / had : NaN),
});
