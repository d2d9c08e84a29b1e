import { Dialog } from 'radix-ui';
import { useState } from 'react';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { type Copied, PART_WORDS } from './copied';
import { pasting } from './pasting';

/** What pasting would change, before it does. */
export function PasteDialog({ clip, editor, onDone }: { clip: Copied; editor: UnitEditor; onDone?: (id: string) => void }) {
  const [open, setOpen] = useState(false);
  const { base } = editor;
  const { id, lines, how, lost } = pasting(clip, base);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <button type="button" className="btn">
          Paste {PART_WORDS[clip.kind]} …
        </button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-50 bg-ink/30" />
        <Dialog.Content className="sheet fixed left-1/2 top-[18%] z-50 w-[520px] -translate-x-1/2 p-4">
          <Dialog.Title className="text-section">
            Paste {'name' in clip.value ? clip.value.name : PART_WORDS[clip.kind]} from {clip.from} into {base.name}
          </Dialog.Title>
          <Dialog.Description className="mt-1 text-table text-ink-2">
            {lines.length ? 'This would change:' : 'Nothing would change: it is the same already.'}
          </Dialog.Description>
          <ul className="scroll mt-2 max-h-[280px] text-table">
            {lines.map((line) => (
              <li key={line} className="border-t border-hair py-0.5">
                {line}
              </li>
            ))}
          </ul>
          {lost.length > 0 && (
            <p className="mt-2 border-l-[3px] border-warn bg-warn-wash px-2.5 py-1.5 text-table">
              Left out, because {base.name} has nothing of the kind: {lost.join(', ')}.
            </p>
          )}
          <div className="mt-3 flex gap-2">
            <button
              type="button"
              className="btn btn-primary"
              disabled={!lines.length}
              onClick={() => {
                editor.change(`${base.name}: ${PART_WORDS[clip.kind]} pasted from ${clip.from}`, how);
                setOpen(false);
                onDone?.(id);
              }}
            >
              Paste
            </button>
            <Dialog.Close className="btn">Leave it</Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
