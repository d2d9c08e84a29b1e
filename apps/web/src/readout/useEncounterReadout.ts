import { useEffect } from 'react';
import { useAppDispatch, useAppSelector } from '../store/store';
import type { EncounterMessage, EncounterRequest } from './encounterProtocol';
import { encounterAnswered, encounterAsked, encounterFailed } from './encounterSlice';
import { READOUT_SEED } from './useReadout';

let worker: Worker | undefined;
let newest = 0;

/** Keeps the readout of an encounter up with the document. */
export function useEncounterReadout(lens: { tier?: string; skill?: string }, encounter: string | undefined): void {
  const dispatch = useAppDispatch();
  const { document, before } = useAppSelector((state) => state.document);
  useEffect(() => {
    worker ??= new Worker(new URL('./encounterWorker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<EncounterMessage>) => {
      if ('answer' in data && data.answer.id === newest) dispatch(encounterAnswered(data.answer));
      if ('failure' in data && data.failure.id === newest) dispatch(encounterFailed(data.failure.message));
    };
  }, [dispatch]);
  useEffect(() => {
    if (!document || !encounter || !worker) return;
    const request: EncounterRequest = { id: ++newest, now: document, before, lens, encounter, firstSeed: READOUT_SEED };
    dispatch(encounterAsked());
    worker.postMessage(request);
  }, [document, before, lens, encounter, dispatch]);
}
