import { useMemo } from 'react';
import { type CellRead, api } from './api';
import { useRead } from './useRead';

/** Said until it is known what has been run: what is not known is not called "not run". */
export const READING = 'Reading what has been run …';

/** What has been run of these cells. */
export function useCells(project: string, asked: readonly { cell: string; columns: string[] }[]): ReadonlyMap<string, CellRead> | null {
  const cells = useRead(JSON.stringify([project, asked]), () => api.readCells(project, asked as { cell: string; columns: string[] }[]));
  return useMemo(() => cells && new Map(cells.map((one) => [one.cell, one])), [cells]);
}
