import { EITHER, ofRun } from '../measure';

export const partyLeft = ofRun({
  label: 'party health left',
  unit: '',
  about: 'share of the party’s full health at the end',
  of: ({ stream }) => stream.run.partyLeft,
  goal: { of: EITHER, percent: true, harder: 'less' },
});
