import { medianOf } from '../quantile';
import { ENEMY, ofType } from '../measure';

export const lifetime = ofType({
  label: 'lifetime',
  unit: 's',
  about: 'spawn to death',
  turns: { about: 'rounds from its spawn to its death' },
  of: ({ lives }) => medianOf(lives.map((life) => life.lifetime)),
  goal: { of: ENEMY },
});
