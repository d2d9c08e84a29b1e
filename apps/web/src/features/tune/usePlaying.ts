import { PLAY_BUDGET, type PlayFound, type Project, type Scenario } from '@insidia/core';
import { useEffect, useRef, useState } from 'react';
import { threads } from '../../readout/team';
import type { PlayerAnswer, PlayerRequest } from './player';
import PlayerWorker from './player.ts?worker';

export interface Playing {
  step?: { phase: string; runs: number; of: number };
  found?: PlayFound;
  failure?: string;
  /** The project that it was asked of: after an edit it is said of what was. */
  project: Project;
}

/** A search for cheap ways to win, in workers of its own; it ends when the page is left. */
export function usePlaying() {
  const [playing, setPlaying] = useState<Playing | null>(null);
  const worker = useRef<Worker>(undefined);
  const stop = () => {
    worker.current?.terminate();
    worker.current = undefined;
  };
  useEffect(() => stop, []);
  const begin = (project: Project, cell: Scenario) => {
    stop();
    setPlaying({ project });
    worker.current = new PlayerWorker();
    worker.current.onmessage = ({ data }: MessageEvent<PlayerAnswer>) => {
      setPlaying((old) => ({ ...old, ...data, project }));
      if (!('step' in data)) stop();
    };
    const request: PlayerRequest = { project, cell, budget: PLAY_BUDGET.usual, threads: threads(navigator.hardwareConcurrency) };
    worker.current.postMessage(request);
  };
  const cancel = () => {
    stop();
    setPlaying(null);
  };
  return { playing, begin, cancel };
}
