/** What the address says after the question mark. */
import { useCallback } from 'react';
import { useSearchParams } from 'react-router';

/** Values to be written; undefined or empty takes one away. */
export type QueryChange = Readonly<Record<string, string | number | undefined>>;

/**
 * The query and the one way to change it. A change begins with the address as it is now: two that come before the page has
 * drawn itself anew (a choice, and the clock that follows it) don't undo one another.
 */
export function useQuery(): [URLSearchParams, (values: QueryChange) => void] {
  const [query, setQuery] = useSearchParams();
  const change = useCallback(
    (values: QueryChange) => setQuery(changedQuery(window.location.search, values), { replace: true }),
    [setQuery],
  );
  return [query, change];
}

export function changedQuery(search: string, values: QueryChange): URLSearchParams {
  const next = new URLSearchParams(search);
  for (const [name, value] of Object.entries(values)) {
    if (value === undefined || value === '') next.delete(name);
    else next.set(name, String(value));
  }
  return next;
}
