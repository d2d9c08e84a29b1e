import { medianOf } from '../quantile';
import { ENEMY, ofType } from '../measure';

export const timeToFirstStrike = ofType({
  label: 'time-to-first-strike',
  unit: 's',
  about: 'from noticing the party to its first hit or miss',
  turns: { label: 'rounds-to-first-strike', about: 'from noticing the party to its first hit or miss, both rounds counted' },
  of: ({ firstStrikes }) => medianOf(firstStrikes),
  goal: { of: ENEMY },
});
