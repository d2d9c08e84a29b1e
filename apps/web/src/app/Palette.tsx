import type { Project } from '@insidia/core';
import { Dialog } from 'radix-ui';
import { Suspense, useEffect, useState } from 'react';
import { later } from '../parts/later';

const Places = later(async () => (await import('./Places')).Places);

/** Jump to anything by typing a part of its name: units, attacks, states, sections, what can be done. */
export function Palette({ project }: { project: Project }) {
  const [open, setOpen] = useState(false);
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
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <button
          type="button"
          className="rounded-[2px] border px-1 text-label leading-4 text-ink-3 hover:border-ink-2"
          title="jump to anything"
        >
          Ctrl K
        </button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-50 bg-ink/20" />
        <Dialog.Content className="sheet fixed left-1/2 top-[14%] z-50 w-[520px] -translate-x-1/2" aria-describedby={undefined}>
          <Dialog.Title className="sr-only">Jump to anything</Dialog.Title>
          <Suspense>
            <Places project={project} onDone={() => setOpen(false)} />
          </Suspense>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
