import type { Curve, CurveName } from '@insidia/core';
import { useEffect, useState } from 'react';
import { api } from './api';
import { useAppSelector } from './store';

export interface CellCurve {
  runs: number;
  curve?: Curve;
}

/** Curves over the clock of these cells as they are now, read anew when the project is saved or a batch moves on. */
export function useCurves(project: string, cells: readonly string[], of: CurveName): ReadonlyMap<string, CellCurve> | null {
  const [read, setRead] = useState<{ key: string; of: CurveName; curves: Map<string, CellCurve> } | null>(null);
  const revision = useAppSelector((state) => state.document.saved?.revision);
  const changes = useAppSelector((state) => state.batches.changes);
  const key = JSON.stringify(cells);
  useEffect(() => {
    let left = false;
    const list = JSON.parse(key) as string[];
    Promise.all(list.map((cell) => api.cellCurve(project, cell, of)))
      .then((curves) => {
        if (!left) setRead({ key, of, curves: new Map(list.map((cell, i) => [cell, curves[i]])) });
      })
      .catch(() => undefined); // away, or refused for a moment: the next change reads again
    return () => {
      left = true;
    };
  }, [project, key, of, revision, changes]);
  return read && read.key === key && read.of === of ? read.curves : null;
}
