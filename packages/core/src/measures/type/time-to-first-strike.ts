import { medianOf } from '../quantile';
import { ENEMY, ofType } from '../measure';

export const timeToFirstStrike = ofType({
  label: 'time-to-first-strike',
  unit: 's',
  about: 'from noticing the party to its first hit or miss',
  of: ({ firstStrikes }) => medianOf(firstStrikes),
  goal: { of: ENEMY },
});
