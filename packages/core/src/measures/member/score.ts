import { ofMember } from '../measure';

export const score = ofMember({
  label: 'score',
  unit: '',
  about: 'worth of the foes that it killed',
  of: ([row, member]) => row.scores[member],
});
