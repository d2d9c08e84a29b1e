import { longestLossOfControl } from '../fairness';
import { EITHER, ofRun } from '../measure';

export const lossOfControl = ofRun({
  label: 'longest loss of control',
  unit: 's',
  about: 'one member staggered, slowed or knocked about without a break',
  turns: null,
  of: ({ stream }) => longestLossOfControl(stream),
  goal: { of: EITHER, usual: 'p90' },
});
