/** What stands beside the plan of an arena: exact numbers and fields of what is chosen, and the ground where nothing is. */
import type { Arena } from '@insidia/core';
import { Field } from '../../fields/Field';
import { FieldNumber } from '../../fields/FieldNumber';
import { Mini } from '../../fields/Mini';
import { NumberField } from '../../fields/NumberField';
import { NameField } from '../../fields/NameField';
import { TextField } from '../../fields/TextField';
import type { ObjectEditor } from '../../fields/useObjectEditor';
import { cornersOf, isConvex, middle, place, type Ref, SNAP } from './shapes';

/** Place, turn and size by exact numbers. */
export function Exact({
  chosen,
  arena,
  onMove,
  onTurn,
  onScale,
}: {
  chosen: Ref[];
  arena: Arena;
  onMove: (dx: number, dy: number) => void;
  onTurn: (degrees: number) => void;
  onScale: (wide: number, deep: number) => void;
}) {
  const corners = chosen.flatMap((each) => cornersOf(arena, each));
  const centre =
    chosen.length === 1
      ? middle(corners)
      : {
          x: (Math.min(...corners.map(({ x }) => x)) + Math.max(...corners.map(({ x }) => x))) / 2,
          y: (Math.min(...corners.map(({ y }) => y)) + Math.max(...corners.map(({ y }) => y))) / 2,
        };
  const wide = Math.max(...corners.map(({ x }) => x)) - Math.min(...corners.map(({ x }) => x));
  const deep = Math.max(...corners.map(({ y }) => y)) - Math.min(...corners.map(({ y }) => y));
  const metres = (label: string) => ({ label, unit: 'm', min: -500, max: 500, about: 'from the middle of the arena' });
  const tidy = (value: number) => Number(value.toFixed(3));
  return (
    <div className="flex flex-wrap gap-1.5">
      <NumberField compact info={metres('x')} base={tidy(centre.x)} width={76} onCommit={(x) => onMove(x - centre.x, 0)} />
      <NumberField compact info={metres('y')} base={tidy(centre.y)} width={76} onCommit={(y) => onMove(0, y - centre.y)} />
      {chosen.length === 1 && wide + deep > 0 && (
        <>
          <NumberField
            compact
            info={{ ...metres('Width'), min: 0.05, about: 'from west to east' }}
            base={tidy(wide)}
            width={76}
            onCommit={(next) => onScale(next / wide, 1)}
          />
          <NumberField
            compact
            info={{ ...metres('Depth'), min: 0.05, about: 'from south to north' }}
            base={tidy(deep)}
            width={76}
            onCommit={(next) => onScale(1, next / deep)}
          />
          <NumberField
            compact
            info={{ label: 'Turn by', unit: '°', min: -360, max: 360, about: 'counter-clockwise about its middle' }}
            base={0}
            width={76}
            onCommit={onTurn}
          />
        </>
      )}
    </div>
  );
}

/** What the one chosen thing is, besides where it is. */
export function Fields({ editor, each }: { editor: ObjectEditor<'arenas'>; each: Ref }) {
  const arena: Arena = editor.base;
  if (each.kind === 'partyStart') return <FieldNumber tight editor={editor} path="/partyStart/facing" width={84} />;
  const at = `/${each.kind}/${each.id}`;
  const list = arena[each.kind] as { id: string; name: string }[];
  const item = list.find(({ id }) => id === each.id);
  if (!item) return null;
  const corners = cornersOf(arena, each);
  return (
    <div className="flex flex-wrap items-end gap-1.5">
      <NameField width={160} of={item} among={list} onName={(name) => editor.set(`${at}/name`, name, name)} />
      {each.kind === 'walls' && <FieldNumber tight editor={editor} path={`${at}/height`} width={84} />}
      {each.kind === 'ground' && <Field editor={editor} path={`${at}/kind`} width={110} />}
      {each.kind === 'zones' && (
        <>
          <Field editor={editor} path={`${at}/by`} width={110} />
          <Field editor={editor} path={`${at}/role`} none="any" width={100} />
          <Field editor={editor} path={`${at}/flag`} width={110} />
        </>
      )}
      {each.kind === 'points' && (
        <>
          <FieldNumber tight editor={editor} path={`${at}/radius`} width={76} />
          <FieldNumber tight editor={editor} path={`${at}/height`} width={76} />
          <FieldNumber tight editor={editor} path={`${at}/health`} width={84} />
        </>
      )}
      {each.kind === 'spawnPoints' && (
        <>
          <FieldNumber tight editor={editor} path={`${at}/scatter`} width={76} />
          <FieldNumber tight editor={editor} path={`${at}/facing`} width={76} />
        </>
      )}
      {corners.length > 1 && (
        <div className="basis-full">
          <p className="text-label text-ink-3">Corners, m from the middle</p>
          {corners.map((corner, i) => (
            <div key={i} className="flex items-center gap-1">
              <span className="w-3 text-label text-ink-3">{i + 1}</span>
              {(['x', 'y'] as const).map((axis) => (
                <NumberField
                  key={axis}
                  bare
                  compact
                  info={{ label: `Corner ${i + 1} ${axis}`, unit: 'm', min: -500, max: 500, about: '' }}
                  base={corner[axis]}
                  width={72}
                  onCommit={(value) => {
                    const next = corners.map((one, j) => (j === i ? { ...one, [axis]: value } : one));
                    if (isConvex(next)) editor.change(`${arena.name}: a corner of ${item.name}`, (own) => place(own, each, next));
                  }}
                />
              ))}
              <Mini
                sign="add"
                label={`Another corner after ${i + 1}`}
                onClick={() => {
                  const b = corners[(i + 1) % corners.length];
                  const m = middle(corners);
                  const half = { x: (corner.x + b.x) / 2, y: (corner.y + b.y) / 2 };
                  // A little outwards, so that the shape stays convex.
                  const out = { x: half.x + (half.x - m.x) * 0.15, y: half.y + (half.y - m.y) * 0.15 };
                  const next = [...corners.slice(0, i + 1), out, ...corners.slice(i + 1)];
                  if (isConvex(next)) editor.change(`${arena.name}: ${item.name} has another corner`, (own) => place(own, each, next));
                }}
              />
              <Mini
                sign="remove"
                label={`Remove corner ${i + 1}`}
                disabled={corners.length <= 3}
                onClick={() =>
                  editor.change(`${arena.name}: ${item.name} has a corner less`, (own) =>
                    place(
                      own,
                      each,
                      corners.filter((_, j) => j !== i),
                    ),
                  )
                }
              />
            </div>
          ))}
        </div>
      )}
    </div>
  );
}

/** The arena itself. */
export function Ground({ editor }: { editor: ObjectEditor<'arenas'> }) {
  const arena: Arena = editor.base;
  return (
    <div className="flex flex-col gap-2" role="group" aria-label="The whole arena">
      <NameField of={arena} among={editor.project.arenas} onName={(name) => editor.set('/name', name, name)} />
      <div className="flex gap-1.5">
        <FieldNumber tight editor={editor} path="/width" width={78} />
        <FieldNumber tight editor={editor} path="/depth" width={78} />
        <FieldNumber tight editor={editor} path="/grid" width={70} />
      </div>
      <TextField
        label="Notes"
        lines={3}
        value={arena.notes ?? ''}
        limit={2000}
        onCommit={(notes) => editor.set('/notes', notes.trim() || undefined, 'changed')}
      />
      <p className="text-table text-ink-2">
        Click a thing to choose it, with Shift for more; drag it, its corners or its knob. Places snap to {SNAP} m, not with Alt. Drag the
        empty plan to shift it, turn the wheel to come nearer. Choose a unit above and point anywhere to see what it would see and reach
        from there.
      </p>
    </div>
  );
}
