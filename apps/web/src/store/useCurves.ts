import type { Curve } from '@insidia/core';
import { useEffect, useState } from 'react';
import { api } from './api';
import { useAppSelector } from './store';

export interface CellCurve {
  runs: number;
  curve?: Curve;
}

/** Pressure curves of these cells as they are now, read anew when the project is saved or a batch moves on. */
export function useCurves(project: string, cells: readonly string[]): ReadonlyMap<string, CellCurve> | null {
  const [read, setRead] = useState<{ key: string; curves: Map<string, CellCurve> } | null>(null);
  const revision = useAppSelector((state) => state.document.saved?.revision);
  const changes = useAppSelector((state) => state.batches.changes);
  const key = JSON.stringify(cells);
  useEffect(() => {
    let left = false;
    const list = JSON.parse(key) as string[];
    Promise.all(list.map((cell) => api.cellCurve(project, cell)))
      .then((curves) => {
        if (!left) setRead({ key, curves: new Map(list.map((cell, i) => [cell, curves[i]])) });
      })
      .catch(() => undefined); // away, or refused for a moment: the next change reads again
    return () => {
      left = true;
    };
  }, [project, key, revision, changes]);
  return read && read.key === key ? read.curves : null;
}
