import { EITHER, ofRun } from '../measure';

export const gatesSkipped = ofRun({
  label: 'gates skipped',
  unit: '',
  about: 'health gates passed without their state having come',
  of: ({ kinds }) => kinds.reduce((sum, kind) => sum + kind.gatesSkipped, 0),
  goal: { of: EITHER, usual: 'mean' },
});
