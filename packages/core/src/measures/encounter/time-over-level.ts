import { timeOverLevel as shareOver } from '../pressure';
import { EITHER, ofRun } from '../measure';
import { pressureClock } from '../clock';

/** As a share of the party’s full health per second. */
export const HIGH_PRESSURE_LEVEL = 0.1;

export const timeOverLevel = ofRun({
  label: 'time under high pressure',
  unit: '',
  about: 'share of fighting time with pressure above 10 % of full health a second',
  turns: {
    label: 'rounds of high pressure',
    about: 'share of the fighting rounds in which the party lost more than 10 % of its full health',
  },
  of: ({ stream, losses, full }) => shareOver(losses, HIGH_PRESSURE_LEVEL * full, pressureClock(stream)),
  goal: { of: EITHER, usual: 'mean', percent: true },
});
