import { EITHER, ofRun } from '../measure';

export const clashes = ofRun({
  label: 'clashing threats',
  unit: '',
  about: 'share of announced attacks that came while every answer was on cooldown',
  turns: null,
  of: ({ fairness: { announced, clashes: met } }) => (announced > 0 ? met / announced : NaN),
  goal: { of: EITHER, usual: 'mean', percent: true },
});
