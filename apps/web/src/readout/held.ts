import { useSyncExternalStore } from 'react';

/** Readouts wait to be asked for more runs, on this browser: a machine may have better things to do. */
const KEY = 'insidia.readouts-held';
const listeners = new Set<() => void>();
let held = stored();

function stored(): boolean {
  try {
    return localStorage.getItem(KEY) === 'yes';
  } catch {
    return false;
  }
}

export const isHeld = (): boolean => held;

export function hold(wanted: boolean): void {
  held = wanted;
  try {
    if (wanted) localStorage.setItem(KEY, 'yes');
    else localStorage.removeItem(KEY);
  } catch {
    /* it then lasts for this visit */
  }
  listeners.forEach((tell) => tell());
}

export function onHeld(tell: () => void): () => void {
  listeners.add(tell);
  return () => listeners.delete(tell);
}

export const useHeld = (): boolean => useSyncExternalStore(onHeld, isHeld);
