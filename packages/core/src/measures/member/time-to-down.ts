import { ofMember } from '../measure';

export const timeToDown = ofMember({
  label: 'time-to-down',
  unit: 's',
  about: 'first damage to down',
  of: ([row, member]) => row.timesToDown[member],
});
