import { type RefObject, useLayoutEffect, useRef } from 'react';

/**
 * What it is by now, for what outlives the render it began in: a drag goes on while figures come in, the page is scrolled and
 * edits are taken back, and writes to the document as it is then.
 */
export function useNewest<T>(value: T): RefObject<T> {
  const newest = useRef(value);
  useLayoutEffect(() => {
    newest.current = value;
  });
  return newest;
}
