import { type Does, blankState, doing, idFor, nameFor } from '@insidia/core';
import { useState } from 'react';
import { Choose } from '../../fields/Choose';
import { Popover } from '../../fields/Popover';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { PastePart } from './Clipboard';
import { DOES_WORDS, placesOf } from './stateEdits';

/** A sheet that makes a state: its name and what it does. */
export function NewState({ editor, onState }: { editor: UnitEditor; onState: (id: string) => void }) {
  const [name, setName] = useState('');
  const [does, setDoes] = useState<Does>('approach');
  const { base } = editor;
  return (
    <Popover
      label="New state"
      width={280}
      align="end"
      trigger={
        <button type="button" className="mini" aria-label="New state" title="New state">
          +
        </button>
      }
    >
      {(close) => (
        <form
          className="flex flex-col gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            const own = nameFor(
              name.trim() || 'State',
              base.states.map((state) => state.name),
            );
            const id = idFor(
              own,
              base.states.map((state) => state.id),
            );
            editor.change(`${base.name}: new state ${own}`, (unit) => {
              const to = placesOf(editor.project)[0]?.id ?? 'point';
              unit.states.push(doing(blankState(id, own, 'hold'), does, to));
              unit.startsIn ??= unit.states[0].id;
            });
            setName('');
            close();
            onState(id);
          }}
        >
          <label className="text-label text-ink-3">
            Name
            <input
              className="field-box w-full text-body text-ink"
              value={name}
              maxLength={80}
              autoFocus
              onChange={(event) => setName(event.target.value)}
            />
          </label>
          <Choose label="Does" value={does} options={DOES_WORDS} onChoose={(word) => setDoes(word as Does)} />
          <div className="flex gap-2">
            <button type="submit" className="btn btn-primary">
              Add state
            </button>
            <PastePart kind="state" editor={editor} onDone={(id) => (close(), onState(id))} />
          </div>
        </form>
      )}
    </Popover>
  );
}
