import { ENCOUNTER, ofRun } from '../measure';

export const score = ofRun({
  label: 'score',
  unit: '',
  about: 'worth of the foes killed (each time, where one is brought back), and what events gave',
  of: ({ score: { all } }) => all,
  goal: { of: ENCOUNTER, usual: 'mean', harder: 'less' },
});
