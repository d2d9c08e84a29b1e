import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { laterWithin } from '../parts/later';

const Keys = laterWithin(async () => (await import('./Keys')).Keys);

/** The keys, on one sheet; opened by "?". */
export function KeySheet() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && event.target.closest('input, textarea, [contenteditable]');
      if (event.key === '?' && !typing && !event.ctrlKey && !event.metaKey) setOpen((old) => !old);
    };
    addEventListener('keydown', key);
    return () => removeEventListener('keydown', key);
  }, []);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <button type="button" className="grid h-6 w-5 place-items-center" aria-label="Keys" title="keys">
          ?
        </button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-50 bg-ink/20" />
        <Dialog.Content className="sheet fixed left-1/2 top-[12%] z-50 w-[560px] -translate-x-1/2 p-4" aria-describedby={undefined}>
          <Dialog.Title className="text-section">Keys</Dialog.Title>
          <Keys />
          <Dialog.Close className="btn mt-3">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
