import { GOAL_MEASURES, type Objective } from '@insidia/core';

/** "win share", "time-to-kill, p90". */
export function headOf({ measure, statistic }: Objective): string {
  const { label, usual } = GOAL_MEASURES[measure];
  return statistic === usual ? label : `${label}, ${statistic}`;
}
