import { ENCOUNTER, ofRun } from '../measure';

export const lulls = ofRun({
  label: 'lulls',
  unit: '',
  about: 'stretches of at least 3 s with next to no pressure',
  turns: { about: 'stretches of at least one round with next to no harm' },
  of: ({ quiet }) => quiet.lulls.length,
  goal: { of: ENCOUNTER, harder: 'less' },
});
