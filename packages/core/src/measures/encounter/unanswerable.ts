import { joined } from '../fairness';
import { EITHER, ofRun } from '../measure';

export const unanswerable = ofRun({
  label: 'unanswerable share',
  unit: '',
  about: 'share of announced damage for which no answer was available',
  turns: null,
  of: ({ kinds }) => {
    const { damage, unanswerable: lost } = joined(kinds.flatMap(({ fairness }) => fairness));
    return damage > 0 ? lost / damage : NaN;
  },
  goal: { of: EITHER, usual: 'mean', percent: true },
});
