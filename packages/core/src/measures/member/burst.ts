import { ofMember } from '../measure';

export const burst = ofMember({
  label: 'burst',
  unit: '',
  about: 'most lost within 1 s, as a share of its full health',
  turns: { about: 'most lost in one round, as a share of its full health' },
  of: ([row, member]) => row.bursts[member],
});
