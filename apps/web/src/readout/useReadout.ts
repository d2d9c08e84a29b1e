import type { DuelOptions } from '@insidia/core';
import { useEffect, useMemo } from 'react';
import { useStore } from 'react-redux';
import type { AppStore } from '../store/store';
import type { ReadoutMessage, ReadoutRequest } from './protocol';
import { answered, asked, failed, styled } from './slice';

/** Runs behind every readout, and its first seed: the command line's defaults. */
export const READOUT_RUNS = 200;
export const READOUT_SEED = 1;

let worker: Worker | undefined;
let newest = 0;

/**
 * Keeps the readout up with the document. The worker is asked as soon as the document has changed, before the page draws
 * itself anew: the two go on side by side.
 */
export function useReadout(lens: { tier?: string; skill?: string }, duel: DuelOptions | undefined): void {
  const store = useStore() as AppStore;
  const key = useMemo(() => JSON.stringify([lens, duel]), [lens, duel]);
  useEffect(() => {
    worker ??= new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<ReadoutMessage>) => {
      if ('answer' in data && data.answer.id === newest) store.dispatch(answered(data.answer));
      if ('styles' in data && data.styles.id === newest) store.dispatch(styled(data.styles));
      if ('failure' in data && data.failure.id === newest) store.dispatch(failed(data.failure.message));
    };
    const [ownLens, ownDuel] = JSON.parse(key) as [typeof lens, DuelOptions | null];
    let seen: ReadoutRequest['now'] | null = null;
    const ask = () => {
      const { document, before } = store.getState().document;
      if (!document || !ownDuel || document === seen) return;
      seen = document;
      const request: ReadoutRequest = {
        id: ++newest,
        now: document,
        before,
        lens: ownLens,
        duel: ownDuel,
        firstSeed: READOUT_SEED,
        runs: READOUT_RUNS,
      };
      worker?.postMessage(request);
      store.dispatch(asked());
    };
    ask();
    return store.subscribe(ask);
  }, [key, store]);
}
