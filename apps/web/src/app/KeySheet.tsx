import { useEffect, useRef, useState } from 'react';
import { laterWithin } from '../parts/later';

const TopSheet = laterWithin(async () => (await import('./TopSheet')).TopSheet);
const Keys = laterWithin(async () => (await import('./Keys')).Keys);

/** The keys, on one sheet; opened by "?". */
export function KeySheet() {
  const [open, setOpen] = useState(false);
  const opener = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && event.target.closest('input, textarea, [contenteditable]');
      if (event.key === '?' && !typing && !event.ctrlKey && !event.metaKey) setOpen((old) => !old);
    };
    addEventListener('keydown', key);
    return () => removeEventListener('keydown', key);
  }, []);
  return (
    <>
      <button
        ref={opener}
        type="button"
        className="grid h-6 w-5 place-items-center"
        aria-label="Keys"
        title="keys"
        aria-haspopup="dialog"
        onClick={() => setOpen(true)}
      >
        ?
      </button>
      {open && (
        <TopSheet title="Keys" width={560} close={() => setOpen(false)} from={opener}>
          <Keys />
        </TopSheet>
      )}
    </>
  );
}
