import { type Project, turnedProject, turnsWords } from '@insidia/core';
import { useLocation } from 'react-router';
import { changed } from '../store/document';
import { useAppDispatch } from '../store/store';
import { sectionOf } from './sections';
import { useView } from './view';

/** Sections in which numbers are turned by other means, and told there. */
const OWN = ['tune', 'replay'];

/** Says which numbers everything is looked at with that are not written, and takes them over or away. */
export function Through({ project }: { project: Project }) {
  const dispatch = useAppDispatch();
  const { pathname } = useLocation();
  const [{ turned }, change] = useView(project);
  if (!turned || OWN.includes(sectionOf(pathname) ?? '')) return null;
  const words = turnsWords(project, turned);
  return (
    <aside aria-label="Looked through" className="flex h-8 items-center gap-3 border-b bg-well px-4 text-table">
      <span className="shrink-0 font-title italic text-ink-3">looked at with</span>
      <b className="min-w-0 truncate" title={words}>
        {words}
      </b>
      <span className="shrink-0 text-ink-3">fights, figures and verdicts are of that; nothing of it is written</span>
      <span className="flex-1" />
      <button
        type="button"
        className="link shrink-0"
        onClick={() => {
          dispatch(changed({ document: turnedProject(project, turned), name: `Tune: ${words}` }));
          change({ turned: undefined });
        }}
      >
        write it
      </button>
      <button type="button" className="link shrink-0" onClick={() => change({ turned: undefined })}>
        as written
      </button>
    </aside>
  );
}
