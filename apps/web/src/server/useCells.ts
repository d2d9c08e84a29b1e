import { useMemo } from 'react';
import { type CellRead, api } from './api';
import { useRead } from './useRead';

/** What has been run of these cells. */
export function useCells(project: string, asked: readonly { cell: string; columns: string[] }[]): ReadonlyMap<string, CellRead> | null {
  const cells = useRead(JSON.stringify([project, asked]), () => api.readCells(project, asked as { cell: string; columns: string[] }[]));
  return useMemo(() => cells && new Map(cells.map((one) => [one.cell, one])), [cells]);
}
