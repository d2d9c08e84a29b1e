import { AliveCap, type Arena, type UnitHead, blank } from '@insidia/core';
import { Choose } from '../../fields/Choose';
import { Field } from '../../fields/Field';
import { FieldNumber } from '../../fields/FieldNumber';
import { Mini } from '../../fields/Mini';
import { NameField } from '../../fields/NameField';
import { TextField } from '../../fields/TextField';
import type { ObjectEditor } from '../../fields/useObjectEditor';
import { guarded } from '../../parts/guarded';
import { Slots, TypeCaps } from './Caps';
import { Counters } from './Counters';
import { EncounterClock } from './EncounterClock';
import { EncounterEvents } from './EncounterEvents';
import { Members, Sizes } from './Members';

interface Props {
  editor: ObjectEditor<'encounters'>;
  heads: ReadonlyMap<string, UnitHead>;
  arena: Arena | undefined;
}

/** What holds for the whole encounter: where, who, slots, caps, events, ends. */
export const Whole = guarded('The encounter’s form', function Whole({ editor, heads, arena }: Props) {
  const { base, project } = editor;
  const arenas = project.arenas.map(({ id, name }) => ({ id, name }));
  const standing = arena?.points.filter(({ health }) => health !== undefined).map(({ id, name }) => ({ id, name })) ?? [];
  const named = [...base.ends.defend, ...base.ends.destroy];
  const others = standing.map(({ id }) => id).filter((id) => !named.includes(id));
  return (
    <div className="flex flex-col gap-1.5" role="group" aria-label="The whole encounter">
      <NameField of={base} among={project.encounters} onName={(name) => editor.set('/name', name, name)} />
      <TextField
        label="Notes"
        lines={2}
        value={base.notes ?? ''}
        limit={2000}
        onCommit={(notes) => editor.set('/notes', notes.trim() || undefined, 'changed')}
      />
      <div className="flex items-end gap-1.5">
        <Choose
          label="Arena"
          value={base.arena}
          options={arenas}
          onChoose={(id) => editor.set('/arena', id, arenas.find((one) => one.id === id)?.name ?? id)}
        />
        {base.clock === 'continuous' && <FieldNumber tight editor={editor} path="/limit" width={80} />}
      </div>
      <EncounterClock editor={editor} />
      <Members editor={editor} heads={heads} list="party" />
      <Members editor={editor} heads={heads} list="allies" />
      <Sizes editor={editor} />
      <div className="border-t border-hair pt-1">
        <b className="text-table">Ends</b>
        <Field editor={editor} path="/ends/cleared" />
        <Field editor={editor} path="/ends/survive" />
        {standing.length > 0 && (
          <>
            <Field editor={editor} path="/ends/defend" offers={standing.filter(({ id }) => !base.ends.destroy.includes(id))} />
            <Field editor={editor} path="/ends/destroy" offers={standing.filter(({ id }) => !base.ends.defend.includes(id))} />
            {base.ends.also ? (
              <div className="flex items-end gap-1">
                <Field editor={editor} path="/ends/also" offers={standing.filter(({ id }) => !named.includes(id))} />
                <Mini sign="remove" label="All others stand" onClick={() => editor.set('/ends/also', undefined, 'all others')} />
              </div>
            ) : (
              others.length > 0 && (
                <button
                  type="button"
                  className="link"
                  title="which of the points with health stand in this fight besides"
                  onClick={() => editor.set('/ends/also', others, 'only some others')}
                >
                  all others stand too; only some …
                </button>
              )
            )}
          </>
        )}
      </div>
      {base.clock === 'continuous' && <Slots editor={editor} />}
      <div className="border-t border-hair pt-1">
        {base.alive ? (
          <div className="flex flex-wrap items-end gap-1.5">
            <FieldNumber tight editor={editor} path="/alive/most" label="Alive at most" width={84} />
            <Field editor={editor} path="/alive/full" width={110} />
            <Mini sign="remove" label="No cap on the living" onClick={() => editor.set('/alive', undefined, 'none')} />
            <TypeCaps editor={editor} heads={heads} />
          </div>
        ) : (
          <button type="button" className="link" onClick={() => editor.set('/alive', blank(AliveCap), 'a cap')}>
            a cap on the living …
          </button>
        )}
      </div>
      <Counters editor={editor} />
      <EncounterEvents editor={editor} />
    </div>
  );
});
