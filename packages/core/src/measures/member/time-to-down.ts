import { ofMember } from '../measure';

export const timeToDown = ofMember({
  label: 'time-to-down',
  unit: 's',
  about: 'first damage to down',
  turns: { label: 'rounds-to-down', about: 'first damage to down, both rounds counted' },
  of: ([row, member]) => row.timesToDown[member],
});
