import { ENCOUNTER, ofRun } from '../measure';

export const longestWithoutLull = ofRun({
  label: 'longest stretch without a lull',
  unit: 's',
  about: 'between two lulls, or a lull and an end of the fight',
  of: ({ quiet }) => quiet.longestWithout,
  goal: { of: ENCOUNTER, usual: 'p90' },
});
