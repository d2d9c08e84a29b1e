import { EITHER, ofRun } from '../measure';

export const peakPressureShare = ofRun({
  label: 'peak pressure',
  unit: '/s',
  about: 'the same as a share of the party’s full health',
  turns: { about: 'the same as a share of the party’s full health' },
  of: ({ pressure }) => pressure.peakShare,
  goal: { of: EITHER, percent: true },
});
