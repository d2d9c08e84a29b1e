import { ENEMY, ofType } from '../measure';

export const partyDamage = ofType({
  label: 'damage to the party',
  unit: 'hp',
  about: 'health and shield its units took',
  of: ({ partyDamage: taken }) => taken,
  goal: { of: ENEMY, usual: 'mean' },
});
