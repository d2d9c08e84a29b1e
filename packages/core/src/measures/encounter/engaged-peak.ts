import { ENCOUNTER, ofRun } from '../measure';

export const engagedPeak = ofRun({
  label: 'engaged, peak',
  unit: '',
  about: 'most of them at one time',
  turns: null,
  of: ({ engaged }) => engaged.peak,
  goal: { of: ENCOUNTER },
});
