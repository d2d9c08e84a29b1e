import { joined } from '../fairness';
import { EITHER, ofRun } from '../measure';

export const clashes = ofRun({
  label: 'clashing threats',
  unit: '',
  about: 'share of announced attacks that came while every answer was on cooldown',
  turns: null,
  of: ({ kinds }) => {
    const { announced, clashes: met } = joined(kinds.flatMap(({ fairness }) => fairness));
    return announced > 0 ? met / announced : NaN;
  },
  goal: { of: EITHER, usual: 'mean', percent: true },
});
