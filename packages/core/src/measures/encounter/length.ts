import { EITHER, ofRun } from '../measure';

export const length = ofRun({
  label: 'length',
  unit: 's',
  about: 'from the start to the end, whatever the end',
  of: ({ length }) => length,
  goal: { of: EITHER },
});
