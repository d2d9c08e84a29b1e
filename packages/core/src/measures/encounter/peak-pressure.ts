import { ofRun } from '../measure';

export const peakPressure = ofRun({
  label: 'peak pressure',
  unit: 'hp/s',
  about: 'most health and shield the party lost in 3 s, per second',
  of: ({ pressure }) => pressure.peak,
});
