import type { Dial, Objective, Preferred, Project } from '@insidia/core';
import { useEffect, useRef, useState } from 'react';
import { threads } from '../../readout/team';
import type { FinderAnswer, FinderRequest } from './finder';
import Finder from './finder.ts?worker';

type Told = Exclude<FinderAnswer, { failure: string }>;

export interface Finding extends Partial<Told> {
  failure?: string;
  /** ms since 1970 */
  began: number;
}

/** A search for numbers, in workers of its own; it ends when the page is left. */
export function useFinding() {
  const [finding, setFinding] = useState<Finding | null>(null);
  const worker = useRef<Worker>(undefined);
  const stop = () => {
    worker.current?.terminate();
    worker.current = undefined;
  };
  useEffect(() => stop, []);
  const say = (request: FinderRequest) => worker.current?.postMessage(request);
  const begin = (project: Project, objectives: Objective[], dials: Dial[], prefer: Preferred, budget: number) => {
    stop();
    const began = Date.now();
    setFinding({ began });
    worker.current = new Finder();
    worker.current.onmessage = ({ data }: MessageEvent<FinderAnswer>) => {
      setFinding((old) => ({ ...(old ?? {}), ...data, began }));
      if ('failure' in data || data.progress.phase === 'done') stop();
    };
    say({ project, objectives, dials, prefer, budget, threads: threads(navigator.hardwareConcurrency) });
  };
  return {
    finding,
    begin,
    pause: () => say('pause'),
    goOn: () => say('goOn'),
    forget: () => {
      stop();
      setFinding(null);
    },
  };
}
