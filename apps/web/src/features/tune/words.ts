import { GOAL_MEASURES, goalIn, type Objective } from '@insidia/core';

/** "win share", "time-to-kill, p90". */
export function headOf({ measure, statistic, clock }: Objective): string {
  const { usual } = GOAL_MEASURES[measure];
  const { label } = goalIn(measure, clock);
  return statistic === usual ? label : `${label}, ${statistic}`;
}
