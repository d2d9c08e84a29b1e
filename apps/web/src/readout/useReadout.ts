import type { Project, Scenario } from '@insidia/core';
import { useEffect } from 'react';
import { useStore } from 'react-redux';
import type { AppStore } from '../store/store';
import { isHeld, onHeld } from './held';
import type { PageState, ReadoutMessage, ReadoutRequest, ToWorker } from './protocol';
import { answered, asked, failed, styled } from './slice';
import ReadoutWorker from './worker.ts?worker';

/** The first seed of every readout: the command line's default. */
export const READOUT_SEED = 1;

let worker: Worker | undefined;
let newest = 0;
/** Views that show a readout now. */
let shown = 0;
/** Whose fights the worker trains with. */
let project: Project | null = null;

const say = (message: ToWorker) => worker?.postMessage(message);

/** The worker, which lives as long as the page. */
function readoutWorker(): Worker {
  if (worker) return worker;
  worker = new ReadoutWorker();
  document.addEventListener('visibilitychange', tellPage);
  onHeld(tellPage);
  return worker;
}

function tellPage(): void {
  const held = isHeld();
  // A machine that is to do nothing but what is asked of it does not train either.
  const page: PageState = { visible: document.visibilityState === 'visible', goOn: shown > 0 && !held, project: held ? null : project };
  say({ page });
}

/** Gets the worker ready for what may be asked, when the page has nothing else to do. */
export function prepareReadouts(document: Project): void {
  project = document;
  readoutWorker();
  tellPage();
}

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
    readoutWorker().onmessage = ({ data }: MessageEvent<ReadoutMessage>) => {
      // An answer is as large as its runs. Frozen, the store takes it as it is, and does not look through all of it first.
      for (const part of Object.values(data)) Object.freeze(part);
      if ('answer' in data && data.answer.id === newest) store.dispatch(answered(data.answer));
      if ('styles' in data && data.styles.id === newest) store.dispatch(styled(data.styles));
      if ('failure' in data && data.failure.id === newest) store.dispatch(failed(data.failure));
    };
    shown++;
    tellPage();
    let seen: ReadoutRequest['now'] | null = null;
    const ask = () => {
      const { document, before } = store.getState().document;
      if (!document || document === seen) return;
      seen = document;
      say({ request: { id: ++newest, now: document, before, scenario: own, firstSeed: READOUT_SEED } });
      store.dispatch(asked(own.kind));
    };
    ask();
    const leave = store.subscribe(ask);
    return () => {
      leave();
      shown--;
      tellPage();
    };
  }, [key, store]);
}
