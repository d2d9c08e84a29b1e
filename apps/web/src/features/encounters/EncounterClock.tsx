import { type Encounter, type Project, metIn, projectWithRounds, unitHeads, writtenUnit } from '@insidia/core';
import { useState } from 'react';
import { Fields } from '../../fields/Field';
import { Mini } from '../../fields/Mini';
import { NumberField } from '../../fields/NumberField';
import { Popover } from '../../fields/Popover';
import type { ObjectEditor } from '../../fields/useObjectEditor';
import { changed } from '../../store/document';
import { useAppDispatch } from '../../store/store';

const ROUND = { label: 'A round', unit: 's', min: 0.1, max: 600, about: 'how many seconds it stands for' };
const CELL = { label: 'A cell', unit: 'm', min: 0.5, max: 20, about: 'how many metres it stands for' };

/** What the encounter goes by: by itself, or in turns, with how these go. */
export function EncounterClock({ editor }: { editor: ObjectEditor<'encounters'> }) {
  const { base } = editor;
  if (base.clock === 'continuous')
    return (
      <div className="border-t border-hair pt-1">
        <Turn editor={editor} />
      </div>
    );
  return (
    <div className="border-t border-hair pt-1" role="group" aria-label="Turns">
      <div className="flex items-center gap-1.5">
        <b className="flex-1 text-table">In turns</b>
        <button type="button" className="link" onClick={() => editor.set('/clock', 'continuous', 'in seconds')}>
          back to seconds
        </button>
      </div>
      <div className="flex flex-wrap items-start gap-x-2 gap-y-1">
        <Fields editor={editor} at="/rounds" />
      </div>
      <Costs editor={editor} />
    </div>
  );
}

/** Ground of the arena that it costs more to go over. */
function Costs({ editor }: { editor: ObjectEditor<'encounters'> }) {
  const { base, project } = editor;
  const costs = base.rounds?.costs ?? [];
  const kinds = [...new Set(project.arenas.find(({ id }) => id === base.arena)?.ground.map(({ kind }) => kind) ?? [])].filter(Boolean);
  const open = kinds.filter((kind) => !costs.some((one) => one.kind === kind));
  if (base.rounds?.ground === 'none' || (!costs.length && !open.length)) return null;
  return (
    <div className="flex flex-wrap items-end gap-1.5 pt-1">
      {costs.map(({ kind }, i) => (
        <span key={kind} className="flex items-end gap-0.5" role="group" aria-label={`Ground ${kind}`}>
          <span className="pb-1 text-table">{kind}</span>
          <Fields editor={editor} at={`/rounds/costs/${i}`} of={['cost']} />
          <Mini
            sign="remove"
            label={`${kind} as plain ground`}
            onClick={() =>
              editor.set(
                '/rounds/costs',
                costs.filter((one) => one.kind !== kind),
                `${kind} as plain ground`,
              )
            }
          />
        </span>
      ))}
      {open.map((kind) => (
        <button
          key={kind}
          type="button"
          className="link"
          onClick={() => editor.set('/rounds/costs', [...costs, { kind, cost: 2 }], `${kind} costs 2`)}
        >
          {kind} costs more …
        </button>
      ))}
    </div>
  );
}

/** Who would be written to, and what for. */
function lacking(project: Project, encounter: Encounter): string[] {
  const heads = new Map(unitHeads(project).map(({ id, name }) => [id, name]));
  return metIn(encounter, encounter.party, (id) => writtenUnit(project, id))
    .filter((id) => !writtenUnit(project, id).rounds)
    .map((id) => heads.get(id) ?? id);
}

/** One button that makes it take turns, with what it would write. */
function Turn({ editor }: { editor: ObjectEditor<'encounters'> }) {
  const { base, project } = editor;
  const dispatch = useAppDispatch();
  const [round, setRound] = useState(2);
  const [cell, setCell] = useState(1);
  const [failure, setFailure] = useState<string>();
  const names = lacking(project, base);
  const turn = (close: () => void) => {
    try {
      const document = projectWithRounds(project, base.id, { round, cell });
      dispatch(changed({ document, name: `${base.name}: in turns, a round of ${round} s, cells of ${cell} m` }));
      close();
    } catch (error) {
      setFailure((error as Error).message);
    }
  };
  return (
    <Popover
      label="In turns"
      width={360}
      trigger={
        <button type="button" className="link">
          takes turns instead …
        </button>
      }
    >
      {(close) => (
        <div className="flex flex-col gap-2 text-table">
          <p className="text-ink-2">
            The fight goes in rounds in which everyone has a turn. What is written in seconds and metres stays as it is, and what it comes
            to in turns and cells is written beside it, to be changed by hand.
          </p>
          <div className="flex gap-2">
            <NumberField info={ROUND} base={round} width={90} onCommit={setRound} />
            <NumberField info={CELL} base={cell} width={90} onCommit={setCell} />
          </div>
          <p>
            {names.length
              ? `Written: how the turns of ${base.name} go, and what ${names.join(', ')} ${names.length === 1 ? 'is' : 'are'} in turns.`
              : `Written: how the turns of ${base.name} go; all who come say already what they are in turns.`}
          </p>
          {failure && (
            <p role="alert" className="text-warn">
              {failure}
            </p>
          )}
          <button type="button" className="btn btn-primary self-start" onClick={() => turn(close)}>
            Derive from seconds
          </button>
        </div>
      )}
    </Popover>
  );
}
