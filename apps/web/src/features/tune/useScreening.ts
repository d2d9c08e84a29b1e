import {
  type Design,
  type Dial,
  type Objective,
  type PairRan,
  type Project,
  type Scenario,
  type Screened,
  byClarity,
  compileScenario,
  designFor,
  numbersOf,
  ofBoth,
  secondDesign,
} from '@insidia/core';
import { useEffect, useRef, useState } from 'react';
import { threads } from '../../readout/team';
import type { ScreenAnswer, ScreenRequest } from './screener';
import Screener from './screener.ts?worker';

/** Runs in all of a screening. */
export const SCREEN_RUNS = { duel: 2000, encounter: 3000 };

/** ms between two looks at how far it is. */
const SHOWN_MS = 200;

export interface ScreeningState {
  done: number;
  pairs: number;
  numbers: number;
  /** ms since it began */
  began: number;
  failure?: string;
}

/** All numbers of a fight turned at once, to find those that move an objective most. Stops when the page is left. */
export function useScreening(onFound: (dials: Dial[]) => void) {
  const [state, setState] = useState<ScreeningState | null>(null);
  const workers = useRef<Worker[]>([]);
  const stop = () => {
    for (const worker of workers.current) worker.terminate();
    workers.current = [];
  };
  useEffect(() => stop, []);
  const begin = (project: Project, cell: Scenario, objectives: Objective[], objective: number, strongest: number) => {
    stop();
    let design: Design;
    try {
      const numbers = numbersOf(project, compileScenario(project, cell), cell.kind === 'encounter' ? cell.id : undefined);
      design = designFor(numbers, SCREEN_RUNS[cell.kind]);
    } catch (error) {
      setState({ done: 0, pairs: 0, numbers: 0, began: Date.now(), failure: (error as Error).message });
      return;
    }
    const told = { pairs: 2 * design.pairs, numbers: design.dials.length, began: Date.now() };
    setState({ ...told, done: 0 });
    const every = threads(navigator.hardwareConcurrency);
    workers.current = Array.from({ length: every }, () => new Screener());
    let shown = 0;
    half(design, 0, (first) => {
      half(secondDesign(design, first), design.pairs, (second) => {
        stop();
        setState(null);
        onFound(
          ofBoth(first, second)
            .slice(0, strongest)
            .map(({ dial }) => dial),
        );
      });
    });

    function half(own: Design, before: number, then: (found: Screened[]) => void) {
      const ran: PairRan[] = [];
      workers.current.forEach((worker, from) => {
        worker.onmessage = ({ data }: MessageEvent<ScreenAnswer>) => {
          if ('failure' in data) {
            stop();
            setState({ ...told, done: 0, failure: data.failure });
            return;
          }
          ran.push(data.ran);
          // A page that is drawn anew at every pair has no time for them.
          if (performance.now() - shown > SHOWN_MS) {
            shown = performance.now();
            setState({ ...told, done: before + ran.length });
          }
          if (ran.length === own.pairs) then(byClarity(own, ran, objective));
        };
        const request: ScreenRequest = { ...(before === 0 && { about: { project, cell, objectives } }), design: own, from, every };
        worker.postMessage(request);
      });
    }
  };
  const cancel = () => {
    stop();
    setState(null);
  };
  return { state, begin, cancel };
}
