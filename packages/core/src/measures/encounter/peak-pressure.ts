import { ofRun } from '../measure';

export const peakPressure = ofRun({
  label: 'peak pressure',
  unit: 'hp/s',
  about: 'most health and shield the party lost in 3 s, per second',
  turns: { about: 'most health and shield that the party lost in one round' },
  of: ({ pressure }) => pressure.peak,
});
