import { LIMITS, type TypeCap, type UnitHead, idFor } from '@insidia/core';
import { Choose } from '../../fields/Choose';
import { Field } from '../../fields/Field';
import { FieldNumber } from '../../fields/FieldNumber';
import { Mini } from '../../fields/Mini';
import { NumberField } from '../../fields/NumberField';
import { TextField } from '../../fields/TextField';
import type { ObjectEditor } from '../../fields/useObjectEditor';

/** How many of one kind may live at one time, besides how many of all. */
export function TypeCaps({ editor, heads }: { editor: ObjectEditor<'encounters'>; heads: ReadonlyMap<string, UnitHead> }) {
  const { base } = editor;
  const caps = base.alive?.perType ?? [];
  const free = [...heads.values()].filter(({ id, side }) => side === 'enemy' && !caps.some(({ unit }) => unit === id));
  const change = (what: string, how: (list: TypeCap[]) => TypeCap[]) =>
    editor.change(`${base.name} cap: ${what}`, (encounter) => {
      if (encounter.alive) encounter.alive.perType = how(encounter.alive.perType);
    });
  return (
    <div className="basis-full" role="group" aria-label="Caps by kind">
      {caps.map(({ unit, most }, i) => (
        <div key={unit} className="flex items-end gap-1">
          <div className="w-[120px]">
            <Choose
              quiet
              label={`Cap ${i + 1}: kind`}
              value={unit}
              options={[...heads.values()].map(({ id, name }) => ({ id, name }))}
              onChoose={(id) => change(heads.get(id)?.name ?? id, (list) => list.map((one, j) => (j === i ? { ...one, unit: id } : one)))}
            />
          </div>
          <NumberField
            bare
            compact
            width={52}
            base={most}
            info={{
              label: `Cap ${i + 1}: at most`,
              unit: '',
              min: 1,
              max: LIMITS.liveUnits,
              whole: true,
              about: 'of it alive at one time',
            }}
            onCommit={(value) => change(String(value), (list) => list.map((one, j) => (j === i ? { ...one, most: value } : one)))}
          />
          <Mini sign="remove" label={`Remove cap ${i + 1}`} onClick={() => change('one less', (list) => list.filter((_, j) => j !== i))} />
        </div>
      ))}
      {free.length > 0 && (
        <button type="button" className="link" onClick={() => change(free[0].name, (list) => [...list, { unit: free[0].id, most: 1 }])}>
          a cap for one kind …
        </button>
      )}
    </div>
  );
}

/** How many of a pool may attack at one time. */
export function Slots({ editor }: { editor: ObjectEditor<'encounters'> }) {
  const { base } = editor;
  return (
    <div className="border-t border-hair pt-1">
      <b className="text-table">Attack slots</b>
      {base.slots.map(({ id }) => (
        <div key={id} className="flex items-end gap-1">
          <span className="w-[52px] truncate pb-1 text-table" title={id}>
            {id}
          </span>
          <FieldNumber tight editor={editor} path={`/slots/${id}/size`} width={54} />
          <FieldNumber tight editor={editor} path={`/slots/${id}/gap`} width={58} />
          <Field editor={editor} path={`/slots/${id}/perTarget`} />
          <Mini sign="remove" label={`Remove ${id}`} onClick={() => editor.remove('slots', id, `slots ${id}`)} />
        </div>
      ))}
      <TextField
        quiet
        label="Another pool of slots"
        value=""
        placeholder="add a pool: its name"
        onCommit={(name) => {
          const id = idFor(
            name,
            base.slots.map((slot) => slot.id),
          );
          if (name.trim())
            editor.change(`${base.name}: slots ${id}`, (encounter) => void encounter.slots.push({ id, size: 2, perTarget: false, gap: 0 }));
        }}
      />
    </div>
  );
}
