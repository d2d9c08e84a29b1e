import { useEffect, useState } from 'react';
import { type CellRead, api } from './api';
import { useAppSelector } from './store';

/** What has been run of these cells, read anew when the project is saved or a batch moves on. */
export function useCells(project: string, asked: readonly { cell: string; columns: string[] }[]): ReadonlyMap<string, CellRead> | null {
  const [read, setRead] = useState<{ key: string; cells: Map<string, CellRead> } | null>(null);
  const revision = useAppSelector((state) => state.document.saved?.revision);
  const changes = useAppSelector((state) => state.batches.changes);
  const key = JSON.stringify(asked);
  useEffect(() => {
    let left = false;
    api
      .readCells(project, JSON.parse(key) as { cell: string; columns: string[] }[])
      .then((cells) => {
        if (!left) setRead({ key, cells: new Map(cells.map((one) => [one.cell, one])) });
      })
      .catch(() => undefined); // away: the save state says so; the next change reads again
    return () => {
      left = true;
    };
  }, [project, key, revision, changes]);
  return read && read.key === key ? read.cells : null;
}
