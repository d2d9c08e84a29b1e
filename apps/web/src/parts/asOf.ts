import { useState } from 'react';

/**
 * What stood there when something came: figures are shown with the document that they are of, and are not drawn anew while the
 * next ones are awaited.
 * @param came which one is shown now
 */
export function useAsOf<T>(came: unknown, now: T): T {
  const [held, hold] = useState({ came, now });
  if (held.came === came) return held.now;
  hold({ came, now });
  return now;
}
