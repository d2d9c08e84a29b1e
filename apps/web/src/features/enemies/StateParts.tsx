import { LIMITS, type State, Unit as UnitClass, fieldWords } from '@insidia/core';
import { Choose } from '../../fields/Choose';
import { CountFields } from '../../fields/CountFields';
import { Field } from '../../fields/Field';
import { ListButtons, Mini, moved } from '../../fields/Mini';
import { TextField } from '../../fields/TextField';
import { TweaksField } from '../../fields/TweaksField';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { CopyPart } from './Clipboard';
import type { StateProps } from './StateFields';
import { countersOf, freeName, mayBegin } from './stateEdits';

/** What else may be said of a state: its name, what it may begin, what entering it does, tweaks, its place in the list. */
export function StateParts({ editor, state, onSelect, start }: StateProps) {
  const { unit, base } = editor;
  const at = `/states/${state.id}`;
  const index = unit.states.findIndex(({ id }) => id === state.id);
  const attacks = base.attacks.map(({ id, name }) => ({ id, name }));
  return (
    <div className="mt-1 flex flex-wrap items-end gap-2 border-t border-hair pt-1">
      <TextField
        label="Name"
        width={110}
        value={state.name}
        limit={80}
        onCommit={(name) => {
          const own = freeName(base.states, state.id, name);
          if (own) editor.set(`${at}/name`, own, own);
        }}
      />
      <Field editor={editor} path={`${at}/onTheWay`} width={130} />
      <Field editor={editor} path={`${at}/invulnerable`} />
      <div className="w-[120px]">
        <Choose
          label="May begin"
          value={state.attacks}
          options={fieldWords(UnitClass, ['states', '0', 'attacks'])}
          onChoose={(word) =>
            editor.change(`${base.name} ${state.name} may begin: ${word}`, (one) =>
              mayBegin(
                one.states.find(({ id }) => id === state.id)!,
                word as State['attacks'],
                attacks.map(({ id }) => id),
              ),
            )
          }
        />
      </div>
      {state.attacks === 'some' && <Field editor={editor} path={`${at}/only`} offers={attacks} />}
      <OnEnter editor={editor} state={state} attacks={attacks} />
      <TweaksField
        label="While in it"
        tweaks={base.states[index]?.tweaks ?? []}
        unit={base}
        onChange={(tweaks) => editor.set(`${at}/tweaks`, tweaks, 'tweaks changed')}
      />
      <span className="flex basis-full items-center gap-1">
        {state.id !== start && (
          <button type="button" className="btn" onClick={() => editor.set('/startsIn', state.id, state.name)}>
            Begin here
          </button>
        )}
        <CopyPart kind="state" editor={editor} value={state} />
        <span className="flex-1" />
        <ListButtons
          what={state.name}
          index={index}
          count={unit.states.length}
          onMove={(by) =>
            editor.change(`${base.name}: ${state.name} ${by < 0 ? 'earlier' : 'later'}`, (one) => {
              one.startsIn ??= one.states[0]?.id;
              one.states = moved(one.states, index, by);
            })
          }
          onRemove={() => {
            editor.remove('state', state.id, state.name);
            onSelect(undefined);
          }}
        />
      </span>
    </div>
  );
}

function OnEnter({ editor, state, attacks }: { editor: UnitEditor; state: State; attacks: { id: string; name: string }[] }) {
  const at = `/states/${state.id}/onEnter`;
  const counters = countersOf(editor.project);
  const counts = state.onEnter?.counts ?? [];
  const count = (next: typeof counts, what: string) => editor.set(`${at}/counts`, next, what);
  if (!state.onEnter)
    return (
      <button type="button" className="link" onClick={() => editor.set(at, { refill: false, counts: [] }, 'something')}>
        on entering …
      </button>
    );
  return (
    <div role="group" aria-label="On entering" className="flex flex-wrap items-end gap-2">
      <Field editor={editor} path={`${at}/attack`} offers={attacks} none="nothing" />
      <Field editor={editor} path={`${at}/raise`} none="none" />
      <Field editor={editor} path={`${at}/lower`} none="none" />
      <Field editor={editor} path={`${at}/refill`} />
      {counts.map((one, i) => (
        <span key={i} className="flex items-end gap-1">
          <CountFields
            label={`Count ${i + 1}`}
            value={one}
            counters={counters}
            onChange={(next) => count(counts.with(i, next), 'changed')}
          />
          <Mini
            sign="remove"
            label={`Remove count ${i + 1}`}
            onClick={() =>
              count(
                counts.filter((_, j) => j !== i),
                'one less',
              )
            }
          />
        </span>
      ))}
      {counters.length > 0 && counts.length < LIMITS.counts && (
        <button
          type="button"
          className="link"
          onClick={() => count([...counts, { counter: counters[0].id, how: 'add', by: 1 }], `${counters[0].name} grows`)}
        >
          counts …
        </button>
      )}
      <Mini sign="remove" label="Nothing on entering" onClick={() => editor.set(at, undefined, 'nothing')} />
    </div>
  );
}
