import { useEffect } from 'react';
import { type CellProgress, api } from './api';
import { batchesForgotten, batchesProgressed } from './batches';
import { useAppDispatch } from '../store/store';

/** Listens to how far the project's batches are for as long as it is open. */
export function useProgress(project: string): void {
  const dispatch = useAppDispatch();
  useEffect(() => {
    const events = api.progressOf(project);
    events.onmessage = ({ data }: MessageEvent<string>) =>
      dispatch(batchesProgressed({ progress: JSON.parse(data) as CellProgress[], at: Date.now() }));
    return () => {
      events.close();
      dispatch(batchesForgotten());
    };
  }, [project, dispatch]);
}
