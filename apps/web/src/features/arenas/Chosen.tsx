import type { Arena, Corner } from '@insidia/core';
import type { ObjectEditor } from '../../fields/useObjectEditor';
import { Exact, Fields } from './ArenaForm';
import { alignment, ALIGNS, cornersOf, moved, type Ref, scaled, turned } from './shapes';

interface ChosenProps {
  editor: ObjectEditor<'arenas'>;
  arena: Arena;
  chosen: readonly Ref[];
  names: string;
  /** Who speaks of what is chosen, and must have something else first. */
  held: readonly string[];
  onReshape: (name: string, how: (corners: Corner[], index: number) => Corner[]) => void;
  onDouble: () => void;
  onRemove: () => void;
}

/** What is chosen on a plan: where exactly, how it lines up, its fields, its copy and its end. */
export function Chosen({ editor, arena, chosen, names, held, onReshape, onDouble, onRemove }: ChosenProps) {
  return (
    <div className="flex flex-col gap-2" role="group" aria-label="Chosen">
      <p className="text-table">
        <b>{chosen.length === 1 ? names : `${chosen.length} things`}</b>
      </p>
      <Exact
        chosen={[...chosen]}
        arena={arena}
        onMove={(dx, dy) => onReshape(`${names} moved`, (corners) => moved(corners, dx, dy))}
        onTurn={(degrees) => onReshape(`${names} turned`, (corners) => turned(corners, degrees))}
        onScale={(wide, deep) => onReshape(`${names} resized`, (corners) => scaled(corners, wide, deep))}
      />
      {chosen.length > 1 && (
        <div className="flex flex-wrap gap-1" role="group" aria-label="Align">
          {ALIGNS.map((how) => (
            <button
              key={how}
              type="button"
              className="switch"
              onClick={() => {
                const by = alignment(
                  chosen.map((each) => cornersOf(arena, each)),
                  how,
                );
                onReshape(`aligned ${how}`, (corners, i) => moved(corners, by[i].dx, by[i].dy));
              }}
            >
              {how}
            </button>
          ))}
        </div>
      )}
      {chosen.length === 1 && <Fields editor={editor} each={chosen[0]} />}
      <div className="flex gap-1.5">
        <button type="button" className="btn" onClick={onDouble}>
          Double
        </button>
        <button
          type="button"
          className="btn"
          disabled={held.length > 0 || chosen.every(({ kind }) => kind === 'partyStart')}
          title={held.length ? `to be changed first: ${held.join('; ')}` : undefined}
          onClick={onRemove}
        >
          Remove
        </button>
      </div>
    </div>
  );
}
