import type { State } from '@insidia/core';
import { Field } from '../../fields/Field';
import { FieldNumber } from '../../fields/FieldNumber';
import { ListButtons, Mini, moved } from '../../fields/Mini';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { FIRST_PICKS, FIRST_ROAMS, stopAdded, zonesOf } from './stateEdits';
import { TargetingFields } from './TargetingFields';

/** Whom it follows, how it wanders, where its round goes. */
export function StateErrands({ editor, state }: { editor: UnitEditor; state: State }) {
  if (state.does === 'follow') return <Picks editor={editor} state={state} />;
  if (state.does === 'wander') return <Roams editor={editor} state={state} />;
  return <Patrol editor={editor} state={state} />;
}

/** Whom a follower picks, where it is not simply the nearest. */
function Picks({ editor, state }: { editor: UnitEditor; state: State }) {
  const at = `/states/${state.id}/picks`;
  if (!state.picks)
    return (
      <button type="button" className="link" onClick={() => editor.set(at, FIRST_PICKS, 'by criteria')}>
        the nearest of them; pick by criteria …
      </button>
    );
  return (
    <div role="group" aria-label="Whom it follows" className="mt-1 flex flex-wrap items-end gap-1 border-t border-hair pt-1">
      <TargetingFields editor={editor} at={at} />
      <button type="button" className="link" onClick={() => editor.set(at, undefined, 'the nearest')}>
        follow the nearest
      </button>
    </div>
  );
}

/** How a wanderer goes about, where it is not from place to place. */
function Roams({ editor, state }: { editor: UnitEditor; state: State }) {
  const at = `/states/${state.id}/roams`;
  if (!state.roams)
    return (
      <button type="button" className="link" onClick={() => editor.set(at, FIRST_ROAMS, 'in directions')}>
        from place to place; keep directions for a time …
      </button>
    );
  return (
    <div role="group" aria-label="Directions" className="mt-1 flex flex-wrap items-start gap-x-1.5 border-t border-hair pt-1">
      <FieldNumber tight editor={editor} path={`${at}/min`} width={74} />
      <FieldNumber tight editor={editor} path={`${at}/max`} width={64} />
      <FieldNumber tight editor={editor} path={`${at}/stands`} width={46} />
      <Field editor={editor} path={`${at}/zone`} offers={zonesOf(editor.project)} none="about home" width={104} />
      <span className="pt-[14px]">
        <Mini sign="remove" label="No directions: from place to place" onClick={() => editor.set(at, undefined, 'from place to place')} />
      </span>
    </div>
  );
}

function Patrol({ editor, state }: { editor: UnitEditor; state: State }) {
  const { base } = editor;
  const at = `/states/${state.id}/patrol`;
  const points = state.patrol?.points ?? [];
  const set = (next: typeof points, what: string) => editor.set(`${at}/points`, next, what);
  return (
    <div className="mt-1" role="group" aria-label="Its round">
      {points.map(({ id }, i) => (
        <div key={id} className="flex items-end gap-1" role="group" aria-label={`Stop ${i + 1}`}>
          <span className="w-4 pb-1 text-label text-ink-3">{i + 1}</span>
          {(['x', 'y', 'pause', 'facing'] as const).map((field) => (
            <FieldNumber tight key={field} editor={editor} path={`${at}/points/${id}/${field}`} width={66} />
          ))}
          <span className="pb-[2px]">
            <ListButtons
              what={`stop ${i + 1}`}
              index={i}
              count={points.length}
              onMove={(by) => set(moved(points, i, by), 'other order')}
              onRemove={() =>
                points.length > 1 &&
                set(
                  points.filter((_, j) => j !== i),
                  'one stop less',
                )
              }
            />
          </span>
        </div>
      ))}
      <div className="flex items-end gap-2">
        <Field editor={editor} path={`${at}/order`} width={120} />
        <FieldNumber tight editor={editor} path={`${at}/startAt`} width={66} />
        <button type="button" className="link" onClick={() => set(stopAdded(points), 'another stop')}>
          add a stop
        </button>
      </div>
      <span className="sr-only">{base.name}</span>
    </div>
  );
}
