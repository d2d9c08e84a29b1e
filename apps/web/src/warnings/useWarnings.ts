import { type Lens, type Project, inspect, sameJson, sortedOut } from '@insidia/core';
import { useEffect } from 'react';
import { useStore } from 'react-redux';
import { type AppStore, useAppSelector } from '../store/store';
import { type Warnings, inspected } from './warnings';

/** ms after the last change: inspection never stands in the way of an edit or of its readout. */
const QUIET_MS = 220;

/** The project’s warnings through the lens. */
export const useWarnings = (): Warnings => useAppSelector((state) => state.warnings);

/** Keeps the warnings up with a project. */
export function useInspection(project: Project, lens: Lens): void {
  const store = useStore() as AppStore;
  useEffect(() => {
    const timer = setTimeout(() => {
      const found = sortedOut(project, inspect(project, lens));
      if (!sameJson(found, store.getState().warnings)) store.dispatch(inspected(found));
    }, QUIET_MS);
    return () => clearTimeout(timer);
  }, [project, lens, store]);
}
