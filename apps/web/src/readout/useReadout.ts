import type { DuelOptions } from '@insidia/core';
import { useEffect, useMemo } from 'react';
import { useAppDispatch, useAppSelector } from '../store/store';
import type { ReadoutMessage, ReadoutRequest } from './protocol';
import { answered, asked, failed } from './slice';

/** Runs behind every readout, and its first seed: the command line's defaults. */
export const READOUT_RUNS = 200;
export const READOUT_SEED = 1;

let worker: Worker | undefined;
let newest = 0;

/** Keeps the readout up with the document: asks the worker on every change of what it depends on. */
export function useReadout(lens: { tier?: string; skill?: string }, duel: DuelOptions | undefined): void {
  const dispatch = useAppDispatch();
  const { document, before } = useAppSelector((state) => state.document);
  const key = useMemo(() => JSON.stringify([lens, duel]), [lens, duel]);
  useEffect(() => {
    worker ??= new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<ReadoutMessage>) => {
      if ('answer' in data && data.answer.id === newest) dispatch(answered(data.answer));
      if ('failure' in data && data.failure.id === newest) dispatch(failed(data.failure.message));
    };
  }, [dispatch]);
  useEffect(() => {
    if (!document || !duel || !worker) return;
    const request: ReadoutRequest = { id: ++newest, now: document, before, lens, duel, firstSeed: READOUT_SEED, runs: READOUT_RUNS };
    dispatch(asked());
    worker.postMessage(request);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- lens and duel are in the key
  }, [document, before, key, dispatch]);
}
