import { timeOverLevel as shareOver } from '../pressure';
import { EITHER, ofRun } from '../measure';

/** As a share of the party’s full health per second. */
export const HIGH_PRESSURE_LEVEL = 0.1;

export const timeOverLevel = ofRun({
  label: 'time under high pressure',
  unit: '',
  about: 'share of fighting time with pressure above 10 % of full health a second',
  of: ({ losses, full }) => shareOver(losses, HIGH_PRESSURE_LEVEL * full),
  goal: { of: EITHER, usual: 'mean', percent: true },
});
