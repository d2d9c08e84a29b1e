import { conditionSentence, traitsOf } from '@insidia/core';
import { Choose } from '../../fields/Choose';
import { ConditionField } from '../../fields/ConditionField';
import { FieldNumber } from '../../fields/FieldNumber';
import { ListButtons, moved } from '../../fields/Mini';
import { type Entry, entryChanged } from './choiceEdits';
import type { EntryMenuProps } from './EntryMenu';
import { TargetingFields } from './TargetingFields';

/** Attack, weight, place, condition, own targeting. */
export function EntryMenuParts({ editor, p, e, entries, name, onChange, onLift, count, close }: EntryMenuProps & { close: () => void }) {
  const { base, project } = editor;
  const entry = entries[e];
  const change = (more: Partial<Entry>, what: string) => onChange(entryChanged(entries, e, more), what);
  const others = base.attacks.filter(
    ({ id, delivery }) => traitsOf(delivery).chosen && (id === entry.attack || !entries.some(({ attack }) => attack === id)),
  );
  return (
    <div className="flex flex-col gap-2 text-table">
      <div className="flex items-end gap-2">
        <div className="w-[150px]">
          <Choose label="Attack" value={entry.attack} options={others} onChoose={(attack) => change({ attack }, 'another attack')} />
        </div>
        <FieldNumber editor={editor} path={`/choice/priorities/${p}/entries/${e}/weight`} compact width={72} />
        <span className="flex-1" />
        <ListButtons
          what={name}
          index={e}
          count={entries.length}
          onMove={(by) => onChange(moved(entries, e, by), `${name} ${by < 0 ? 'earlier' : 'later'}`)}
          onRemove={() => {
            close();
            onChange(
              entries.filter((_, i) => i !== e),
              `${name} not in priority ${p + 1}`,
            );
          }}
        />
      </div>
      <p>
        usable if{' '}
        <ConditionField
          label={`${name} in priority ${p + 1} is usable if`}
          condition={entry.condition}
          unit={base}
          project={project}
          onChange={(condition) => change({ condition }, condition ? `${name} if ${conditionSentence(condition)}` : `${name} always`)}
        />
      </p>
      <div className="flex gap-1">
        {p > 0 && (
          <button type="button" className="btn" onClick={() => (close(), onLift(e, p - 1))}>
            To priority {p}
          </button>
        )}
        <button type="button" className="btn" onClick={() => (close(), onLift(e, p + 1))}>
          To {p + 1 < count ? `priority ${p + 2}` : 'a new priority'}
        </button>
      </div>
      {entry.targeting ? (
        <div>
          <p className="flex items-baseline gap-2 border-t border-hair pt-1">
            <b>Own targeting</b>
            <button type="button" className="link" onClick={() => change({ targeting: undefined }, `${name} at the unit’s target`)}>
              as the unit targets
            </button>
          </p>
          <TargetingFields editor={editor} at={`/choice/priorities/${p}/entries/${e}/targeting`} />
        </div>
      ) : (
        <button
          type="button"
          className="link self-start"
          onClick={() => change({ targeting: structuredClone(base.targeting) }, `${name} with its own targeting`)}
        >
          own targeting …
        </button>
      )}
    </div>
  );
}
