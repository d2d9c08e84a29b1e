import type { Curve, CurveName } from '@insidia/core';
import { useMemo } from 'react';
import { api } from './api';
import { useRead } from './useRead';

export interface CellCurve {
  runs: number;
  curve?: Curve;
}

/** Curves over the clock of these cells as they are now. */
export function useCurves(project: string, cells: readonly string[], of: CurveName): ReadonlyMap<string, CellCurve> | null {
  const curves = useRead(JSON.stringify([project, cells, of]), () =>
    Promise.all(cells.map(async (cell) => [cell, await api.cellCurve(project, cell, of)] as const)),
  );
  return useMemo(() => curves && new Map(curves), [curves]);
}
