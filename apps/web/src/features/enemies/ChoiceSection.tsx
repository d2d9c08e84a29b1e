import { type Choice, type Unit, conditionSentence, traitsOf } from '@insidia/core';
import { ConditionField } from '../../fields/ConditionField';
import { warningAt } from '../../fields/FieldNumber';
import { ListButtons, Mini, moved } from '../../fields/Mini';
import { Popover } from '../../fields/Popover';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { guarded } from '../../parts/guarded';
import { useAppSelector } from '../../store/store';
import { WarnMark } from '../../visuals/WarnMark';
import { CopyPart, PastePart } from './Clipboard';
import { type Entry, lifted, type Priority, priorityChanged } from './choiceEdits';
import { Entries } from './Entries';

/** How the next attack is picked: priorities from the top, entries as wide as their weights, and what came of each. */
export const ChoiceSection = guarded('The choice', function ChoiceSection({ editor }: { editor: UnitEditor }) {
  const { unit, base, project } = editor;
  const priorities = base.choice.priorities;
  const set = (next: Choice['priorities'], what: string) => editor.set('/choice/priorities', next, what);
  const change = (p: number, more: Partial<Priority>, what: string) => set(priorityChanged(priorities, p, more), what);
  const reset = editor.view.edit === 'base' ? editor.reset('/choice') : undefined;
  return (
    <div className="min-w-0 px-3 py-2" aria-label="Choice" role="region">
      <div className="section-head">
        <h3>Choice</h3>
        <span className="note min-w-0 flex-1 truncate">
          tried in order of priority
          <Uses unit={unit.id} />
        </span>
        {reset && (
          <button type="button" className="link" onClick={reset} title="as its base has it">
            reset
          </button>
        )}
        <Popover
          label="Copy or paste the choice"
          align="end"
          width={220}
          trigger={
            <button type="button" className="link">
              …
            </button>
          }
        >
          <div className="flex gap-2">
            <CopyPart kind="choice" editor={editor} value={base.choice} />
            <PastePart kind="choice" editor={editor} />
          </div>
        </Popover>
      </div>
      {priorities.map((priority, p) => (
        <div key={p} className="mt-1.5" role="group" aria-label={`Priority ${p + 1}`}>
          <div className="flex items-start gap-1.5 text-table leading-5 text-ink-2">
            <span className="shrink-0">
              priority <b className="text-ink">{p + 1}</b>
            </span>
            <span className="min-w-0 flex-1">
              <ConditionField
                label={`Priority ${p + 1} is tried if`}
                condition={priority.condition}
                unit={base}
                project={project}
                none={p === 0 ? 'always' : 'otherwise'}
                onChange={(condition) =>
                  change(p, { condition }, condition ? `priority ${p + 1} if ${conditionSentence(condition)}` : `priority ${p + 1} always`)
                }
              />
            </span>
            {warningAt(editor, `/choice/priorities/${p}/condition`) && (
              <WarnMark label={warningAt(editor, `/choice/priorities/${p}/condition`)!} />
            )}
            {priorities.length > 1 && (
              <ListButtons
                what={`priority ${p + 1}`}
                index={p}
                count={priorities.length}
                onMove={(by) => set(moved(priorities, p, by), 'priorities in another order')}
                onRemove={() =>
                  set(
                    priorities.filter((_, i) => i !== p),
                    'a priority less',
                  )
                }
              />
            )}
            <AddEntry
              base={base}
              entries={priority.entries}
              p={p}
              onAdd={(attack, name) => change(p, { entries: [...priority.entries, { attack, weight: 1 }] }, `${name} in priority ${p + 1}`)}
            />
          </div>
          <Entries
            editor={editor}
            p={p}
            entries={priority.entries}
            onChange={(entries, what) => change(p, { entries }, what)}
            onLift={(e, to) => {
              const { attack } = priority.entries[e];
              set(lifted(priorities, p, e, to), `another priority for ${base.attacks.find(({ id }) => id === attack)?.name ?? attack}`);
            }}
            count={priorities.length}
          />
        </div>
      ))}
      <button type="button" className="link mt-1.5" onClick={() => set([...priorities, { entries: [] }], 'another priority')}>
        add a priority
      </button>
    </div>
  );
});

function AddEntry({ base, entries, p, onAdd }: { base: Unit; entries: Entry[]; p: number; onAdd: (id: string, name: string) => void }) {
  const free = base.attacks.filter(({ id, delivery }) => traitsOf(delivery).chosen && !entries.some(({ attack }) => attack === id));
  if (!free.length) return null;
  return (
    <Popover label={`Add to priority ${p + 1}`} width={200} align="end" trigger={<Mini sign="add" label={`Add to priority ${p + 1}`} />}>
      {(close) => (
        <ul>
          {free.map(({ id, name }) => (
            <li key={id}>
              <button
                type="button"
                className="w-full truncate py-0.5 text-left text-table hover:bg-well"
                onClick={() => (close(), onAdd(id, name))}
              >
                {name}
              </button>
            </li>
          ))}
        </ul>
      )}
    </Popover>
  );
}

/** How many uses of all its attacks there were. */
function Uses({ unit }: { unit: string }) {
  const starts = useAppSelector((state) =>
    state.readout.duel.answer?.now.summary.kinds.find(({ id }) => id === unit)?.attacks.reduce((sum, use) => sum + use.starts, 0),
  );
  return <>{starts ? `; ${starts.toLocaleString('en')} uses in the last runs` : ''}</>;
}
