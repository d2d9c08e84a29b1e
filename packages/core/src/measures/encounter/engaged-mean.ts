import { ENCOUNTER, ofRun } from '../measure';

export const engagedMean = ofRun({
  label: 'engaged, mean',
  unit: '',
  about: 'enemies in wind-up, active or recovery against the party, over the fight',
  turns: null,
  of: ({ engaged }) => engaged.mean,
  goal: { of: ENCOUNTER },
});
