import { isWon } from '../../record/outcome';
import { EITHER, ofRow } from '../measure';

export const won = ofRow({
  label: 'win share',
  unit: '',
  about: 'share of runs that the party wins',
  of: ({ outcome }) => (isWon(outcome) ? 1 : 0),
  goal: { of: EITHER, usual: 'share', share: true, percent: true, harder: 'less' },
});
