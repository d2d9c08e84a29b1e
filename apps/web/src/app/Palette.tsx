import type { Project } from '@insidia/core';
import { useEffect, useRef, useState } from 'react';
import { laterWithin } from '../parts/later';

const TopSheet = laterWithin(async () => (await import('./TopSheet')).TopSheet);
const Places = laterWithin(async () => (await import('./Places')).Places);

/** Jump to anything by typing a part of its name: units, attacks, states, sections, what can be done. */
export function Palette({ project }: { project: Project }) {
  const [open, setOpen] = useState(false);
  const opener = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'k') return;
      event.preventDefault();
      setOpen((old) => !old);
    };
    addEventListener('keydown', key);
    return () => removeEventListener('keydown', key);
  }, []);
  return (
    <>
      <button
        ref={opener}
        type="button"
        className="rounded-[2px] border px-1 text-label leading-4 text-ink-3 hover:border-ink-2"
        title="jump to anything"
        aria-haspopup="dialog"
        onClick={() => setOpen(true)}
      >
        Ctrl K
      </button>
      {open && (
        <TopSheet quiet title="Jump to anything" width={520} close={() => setOpen(false)} from={opener}>
          <Places project={project} onDone={() => setOpen(false)} />
        </TopSheet>
      )}
    </>
  );
}
