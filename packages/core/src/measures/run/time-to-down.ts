import { firstDown } from '../time-to-kill';
import { EITHER, ofRow } from '../measure';

export const timeToDown = ofRow({
  label: 'time-to-down',
  unit: 's',
  about: 'first damage to down, of the first member to go down',
  turns: { label: 'rounds-to-down', about: 'first damage to down, of the first member to go down, both rounds counted' },
  of: ({ timesToDown }) => firstDown(timesToDown),
  goal: { of: EITHER, harder: 'less' },
});
