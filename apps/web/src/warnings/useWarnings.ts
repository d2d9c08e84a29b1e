import { type Lens, type Project, sameJson } from '@insidia/core';
import { useEffect } from 'react';
import { useStore } from 'react-redux';
import { useFetched } from '../store/fetched';
import { type AppStore, type RootState, useAppSelector } from '../store/store';
import { type Warnings, inspected } from './warnings';

/** ms after the last change, and at most so many more for the readout's figures: inspection stands in the way of neither. */
const QUIET_MS = 220;
const FIGURES_MS = 1500;

/** Figures of the last edit are still on their way. */
const figuresWait = ({ readout }: RootState) => readout.duel.pending || readout.encounter.pending;

/** The project’s warnings through the lens. */
export const useWarnings = (): Warnings => useAppSelector((state) => state.warnings);

/** Keeps the warnings up with a project. */
export function useInspection(project: Project, lens: Lens): void {
  const store = useStore() as AppStore;
  const fetched = useFetched();
  useEffect(() => {
    let over = false;
    const look = () =>
      fetched(
        'What finds warnings',
        () => import('./inspecting'),
        ({ inspect, sortedOut }) => {
          // While it was fetched the project may have changed: then it is looked at again.
          if (over) return;
          const found = sortedOut(project, inspect(project, lens));
          if (!sameJson(found, store.getState().warnings)) store.dispatch(inspected(found));
        },
      );
    let leave = () => {};
    const lookOnce = () => {
      clearTimeout(timer);
      leave();
      look();
    };
    let timer = setTimeout(() => {
      if (!figuresWait(store.getState())) return look();
      timer = setTimeout(lookOnce, FIGURES_MS);
      leave = store.subscribe(() => figuresWait(store.getState()) || lookOnce());
    }, QUIET_MS);
    return () => {
      over = true;
      clearTimeout(timer);
      leave();
    };
  }, [project, lens, store, fetched]);
}
