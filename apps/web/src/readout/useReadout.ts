import type { Scenario } from '@insidia/core';
import { useEffect } from 'react';
import { useStore } from 'react-redux';
import type { AppStore } from '../store/store';
import type { ReadoutMessage, ReadoutRequest } from './protocol';
import { answered, asked, failed, styled } from './slice';

/** The first seed of every readout: the command line's default. */
export const READOUT_SEED = 1;

let worker: Worker | undefined;
let newest = 0;

/**
 * Keeps the readout up with the document. The worker is asked as soon as the document has changed, before the page draws
 * itself anew: the two go on side by side.
 */
export function useReadout(scenario: Scenario | undefined): void {
  const store = useStore() as AppStore;
  const key = JSON.stringify(scenario ?? null);
  useEffect(() => {
    const own = JSON.parse(key) as Scenario | null;
    if (!own) return;
    worker ??= new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<ReadoutMessage>) => {
      if ('answer' in data && data.answer.id === newest) store.dispatch(answered(data.answer));
      if ('styles' in data && data.styles.id === newest) store.dispatch(styled(data.styles));
      if ('failure' in data && data.failure.id === newest) store.dispatch(failed(data.failure));
    };
    let seen: ReadoutRequest['now'] | null = null;
    const ask = () => {
      const { document, before } = store.getState().document;
      if (!document || document === seen) return;
      seen = document;
      const request: ReadoutRequest = { id: ++newest, now: document, before, scenario: own, firstSeed: READOUT_SEED };
      worker?.postMessage(request);
      store.dispatch(asked(own.kind));
    };
    ask();
    return store.subscribe(ask);
  }, [key, store]);
}
