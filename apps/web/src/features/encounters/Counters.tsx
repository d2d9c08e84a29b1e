import { LIMITS } from '@insidia/core';
import { FieldNumber } from '../../fields/FieldNumber';
import { Mini } from '../../fields/Mini';
import { NameField } from '../../fields/NameField';
import type { ObjectEditor } from '../../fields/useObjectEditor';
import { counterAdded } from './edits';

/** What the encounter keeps count of: its events and units change it, conditions ask it. */
export function Counters({ editor }: { editor: ObjectEditor<'encounters'> }) {
  const { base } = editor;
  const { counters } = base;
  return (
    <div className="border-t border-hair pt-1" role="group" aria-label="Counters">
      <div className="flex items-baseline">
        <b className="flex-1 text-table">Counters</b>
        {counters.length < LIMITS.counters && (
          <button type="button" className="link" onClick={() => editor.set('/counters', counterAdded(counters), 'another')}>
            add a counter
          </button>
        )}
      </div>
      {counters.map(({ id, name }) => {
        const held = editor.holding('counter', id);
        return (
          <div key={id} role="group" aria-label={name} className="flex items-end gap-1">
            <NameField
              label="Name of the counter"
              width={150}
              of={{ id, name }}
              among={counters}
              onName={(next) => editor.set(`/counters/${id}/name`, next, next)}
            />
            <FieldNumber tight editor={editor} path={`/counters/${id}/start`} width={84} />
            <Mini
              sign="remove"
              label={held.length ? `To be changed before ${name} can go: ${held.join('; ')}` : `Remove ${name}`}
              disabled={held.length > 0}
              onClick={() => editor.remove('counter', id, name)}
            />
          </div>
        );
      })}
    </div>
  );
}
