/** What has been run of the cells of a question. */
import { type Moves, type Objective, type Project, type Ran, type Scenario, DIGEST_COLUMN, scenarioKey } from '@insidia/core';
import { useMemo } from 'react';
import type { CellRead } from '../../server/api';
import { useCells } from '../../server/useCells';

/** Runs of each number and of what is written, to choose from. */
export const RUNS = [100, 200, 400, 1000];

/** What a number does, which has values between. */
export type NumberMoves = Moves & { from: number; to: number };

/** What has been run of an objective's column in a cell as the document is now. */
export type RanOf = (cell: Scenario, objective: Objective) => Ran | undefined;

/** What is looked at together: a fight and what is asked of it. */
export interface Asked {
  project: Project;
  cell: Scenario;
  objectives: Objective[];
}

/** @param keys of cells, each once */
export function useRan(
  project: string,
  keys: readonly string[],
  objectives: readonly Objective[],
): { read: ReadonlyMap<string, CellRead> | null; ran: RanOf } {
  const columns = useMemo(() => [...new Set([...objectives.map(({ column }) => column), DIGEST_COLUMN])], [objectives]);
  const read = useCells(
    project,
    keys.map((cell) => ({ cell, columns })),
  );
  const ran = useMemo(
    (): RanOf =>
      (cell, { column }) => {
        const found = read?.get(scenarioKey(cell));
        const [values, digests] = [found?.values[column], found?.values[DIGEST_COLUMN]];
        return found?.runs && values && digests ? { values, digests } : undefined;
      },
    [read],
  );
  return { read, ran };
}

/** Cells that have fewer runs than wanted; none while nothing has been read. */
export const lackingOf = (read: ReadonlyMap<string, CellRead> | null, keys: readonly string[], runs: number): string[] =>
  read ? keys.filter((key) => (read.get(key)?.runs ?? 0) < runs) : [];
