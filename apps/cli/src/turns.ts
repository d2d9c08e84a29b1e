import { type Project, projectWithRounds } from '@insidia/core';
import { asUsage } from './simulate';

export interface TurnsOptions {
  encounter: string;
  /** s */
  round: number;
  /** m */
  cell: number;
}

/** The document in which a fight of it takes turns, as JSON. */
export function turns(project: Project, { encounter, round, cell }: TurnsOptions): string {
  return (
    JSON.stringify(
      asUsage(() => projectWithRounds(project, encounter, { round, cell })),
      null,
      2,
    ) + '\n'
  );
}
