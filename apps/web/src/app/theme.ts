import { useSyncExternalStore } from 'react';

export type Theme = 'light' | 'dark';
const KEY = 'insidia.theme';
const listeners = new Set<() => void>();

function stored(): Theme {
  try {
    return localStorage.getItem(KEY) === 'dark' ? 'dark' : 'light';
  } catch {
    return 'light';
  }
}

export function applyTheme(theme: Theme = stored()): void {
  document.documentElement.dataset.theme = theme;
  try {
    localStorage.setItem(KEY, theme);
  } catch {
    /* the theme then lasts for this visit */
  }
  listeners.forEach((tell) => tell());
}

/** The theme in use. Charts on a canvas repaint when it changes. */
export function useTheme(): Theme {
  return useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => (document.documentElement.dataset.theme === 'dark' ? 'dark' : 'light'),
  );
}
