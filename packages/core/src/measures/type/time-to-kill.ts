import { medianOf } from '../quantile';
import { ENEMY, ofType } from '../measure';

export const timeToKill = ofType({
  label: 'time-to-kill',
  unit: 's',
  about: 'first damage to death; survivors count as never',
  turns: { label: 'rounds-to-kill', about: 'first damage to death, both rounds counted; survivors count as never' },
  of: ({ lives }) => medianOf(lives.map((life) => life.timeToKill).filter((time) => time === time)),
  goal: { of: ENEMY },
});
