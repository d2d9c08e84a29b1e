import { EITHER, ofRun } from '../measure';

export const unanswerable = ofRun({
  label: 'unanswerable share',
  unit: '',
  about: 'share of announced damage for which no answer was available',
  turns: null,
  of: ({ fairness: { damage, unanswerable: lost } }) => (damage > 0 ? lost / damage : NaN),
  goal: { of: EITHER, usual: 'mean', percent: true },
});
