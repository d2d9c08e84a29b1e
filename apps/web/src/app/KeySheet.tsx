import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';

const KEYS: [string, [string, string][]][] = [
  [
    'Everywhere',
    [
      ['Ctrl K', 'jump to anything'],
      ['Ctrl Z, Ctrl Shift Z', 'undo, redo'],
      ['?', 'this sheet'],
      ['Esc', 'close what is open; in a field: as it was'],
    ],
  ],
  [
    'Number fields',
    [
      ['↑ ↓', 'a step up or down; × 10 with Shift, ÷ 10 with Alt'],
      ['Enter', 'write it down'],
      ['2*1.25', 'expressions are worked out'],
      ['drag the label', 'steps by the mouse'],
      ['empty it', 'takes away a number that may be absent'],
      ['Alt T', 'turns it in Tune: what it moves'],
    ],
  ],
  [
    'Strips',
    [
      ['Tab', 'from edge to edge'],
      ['← →', 'moves the edge; × 10 with Shift, ÷ 10 with Alt'],
    ],
  ],
  [
    'Tune',
    [
      ['Ctrl Enter', 'runs what the table lacks: asks again after an edit'],
      ['↑ ↓', 'from number to number of the table'],
    ],
  ],
  [
    'Replay',
    [
      ['Space', 'play, pause'],
      ['← →', 'a step; a second with Shift'],
      ['n, p', 'the next, the previous event'],
    ],
  ],
  [
    'Waves',
    [
      ['← →', 'sooner, later by half a second; 5 s with Shift'],
      ['Alt ↑ ↓', 'moves the wave in its list'],
    ],
  ],
  [
    'Lists and tables',
    [
      ['↑ ↓', 'the next one'],
      ['Shift ↑ ↓ ← →', 'stretches a selection in a table'],
      ['Ctrl C, Ctrl V', 'copies and pastes cells, to and from a spreadsheet'],
      ['Ctrl D', 'fills down'],
      ['Enter, F2, a digit', 'changes the cell'],
    ],
  ],
];

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
          <div className="mt-2 grid grid-cols-2 gap-x-6 gap-y-3 text-table">
            {KEYS.map(([title, keys]) => (
              <section key={title}>
                <h3 className="border-b border-hair text-body font-semibold">{title}</h3>
                <dl>
                  {keys.map(([key, does]) => (
                    <div key={key} className="grid grid-cols-[92px_1fr] gap-2 py-0.5">
                      <dt className="font-semibold">{key}</dt>
                      <dd>{does}</dd>
                    </div>
                  ))}
                </dl>
              </section>
            ))}
          </div>
          <Dialog.Close className="btn mt-3">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
