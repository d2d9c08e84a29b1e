import { useState } from 'react';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { type Copied, PART_WORDS, type PartKind, type Parts, copied } from './copied';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { laterWithin } from '../../parts/later';

const PasteDialog = laterWithin(async () => (await import('./PasteDialog')).PasteDialog);

/** Copies a part of a unit, for this page and as text for anywhere else. */
export function CopyPart<K extends PartKind>({ kind, editor, value }: { kind: K; editor: UnitEditor; value: Parts[K] }) {
  const dispatch = useAppDispatch();
  const [done, setDone] = useState(false);
  return (
    <button
      type="button"
      className="btn"
      onClick={() => {
        dispatch(copied({ kind, value, from: editor.base.name } as Copied));
        void navigator.clipboard?.writeText(JSON.stringify({ [kind]: value }, null, 2)).catch(() => undefined);
        setDone(true);
      }}
    >
      {done ? 'Copied' : `Copy ${PART_WORDS[kind]}`}
    </button>
  );
}

/** Pastes what was copied into a unit, once it has shown what would change. */
export function PastePart({ kind, editor, onDone }: { kind: PartKind; editor: UnitEditor; onDone?: (id: string) => void }) {
  const clip = useAppSelector((state) => state.clipboard.copied);
  if (clip?.kind !== kind) return null;
  return <PasteDialog clip={clip} editor={editor} onDone={onDone} />;
}
