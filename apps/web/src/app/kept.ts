/** How a part of a page was left, kept while the page is open: a fold that was opened for one unit is open for the next. */
import { useState } from 'react';

const left = new Map<string, unknown>();

/** Like a state, but found again as it was left by whatever had the name before. */
export function useKept<T>(name: string, initial: T): [T, (value: T) => void] {
  const [value, set] = useState<T>(() => (left.has(name) ? (left.get(name) as T) : initial));
  return [
    value,
    (next) => {
      left.set(name, next);
      set(next);
    },
  ];
}
