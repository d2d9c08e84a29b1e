import { ofType } from '../measure';

export const effectiveHealthAdded = ofType({
  label: 'effective health added',
  unit: 'hp',
  about: 'healing, shields and revived health it gave, per life',
  of: ({ spawned, healing }) => (spawned ? healing.added / spawned : NaN),
});
