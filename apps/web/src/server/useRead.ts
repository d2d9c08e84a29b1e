import { useEffect, useState } from 'react';
import { readFailed, readWorked } from './batches';
import { useAppDispatch, useAppSelector } from '../store/store';

/**
 * What the server knows of runs, read anew when the project is saved or a batch moves on; null until it is there. A read that
 * fails is told where every view shows it, and made again at the next change.
 * @param key says what is read: another key, another value
 */
export function useRead<T>(key: string, load: () => Promise<T>): T | null {
  const dispatch = useAppDispatch();
  const [read, setRead] = useState<{ key: string; value: T } | null>(null);
  const revision = useAppSelector((state) => state.document.saved?.revision);
  const changes = useAppSelector((state) => state.batches.changes);
  useEffect(() => {
    let left = false;
    load().then(
      (value) => {
        if (left) return;
        setRead({ key, value });
        dispatch(readWorked());
      },
      (error: Error) => {
        if (!left) dispatch(readFailed(error.message));
      },
    );
    return () => {
      left = true;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what is loaded is in the key
  }, [key, revision, changes, dispatch]);
  return read && read.key === key ? read.value : null;
}
