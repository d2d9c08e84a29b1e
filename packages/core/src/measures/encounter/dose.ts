import { EITHER, ofRun } from '../measure';

export const dose = ofRun({
  label: 'pressure dose',
  unit: '',
  about: 'all party damage as a share of its full health: 1 would down everyone once',
  of: ({ pressure }) => pressure.dose,
  goal: { of: EITHER, usual: 'mean' },
});
