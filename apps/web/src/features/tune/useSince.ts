import { useEffect, useState } from 'react';
import { api } from '../../server/api';
import { useAppSelector } from '../../store/store';

/** Revisions looked through for the edit that made an answer old. */
const MOST_PAGES = 4;

/**
 * The first edit after each of some revisions, in words; undefined where there is none, or it lies too far back.
 * @param project its id
 * @param revisions with which something was last run
 */
export function useSince(project: string, revisions: readonly (number | undefined)[]): (string | undefined)[] {
  const saved = useAppSelector((state) => state.document.saved?.revision);
  const [labels, setLabels] = useState<ReadonlyMap<number, string>>(new Map());
  const oldest = Math.min(...revisions.flatMap((one) => one ?? []));
  useEffect(() => {
    if (!Number.isFinite(oldest)) return;
    let left = false;
    const look = async () => {
      const found = new Map<number, string>();
      let before: number | undefined;
      for (let page = 0; page < MOST_PAGES; page++) {
        const { revisions: list, older } = await api.revisions(project, before);
        for (const { number, label } of list) found.set(number, label);
        if (older === undefined || list.some(({ number }) => number <= oldest + 1)) break;
        before = older;
      }
      if (!left) setLabels(found);
    };
    // Without it the state is told without the edit's name.
    look().catch(() => setLabels(new Map()));
    return () => {
      left = true;
    };
  }, [project, oldest, saved]);
  return revisions.map((one) => (one === undefined ? undefined : labels.get(one + 1)));
}
