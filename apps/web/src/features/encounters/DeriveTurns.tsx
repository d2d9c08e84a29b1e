import { type Encounter, type Project, metIn, projectWithRounds, unitHeads, writtenUnit } from '@insidia/core';
import { useState } from 'react';
import { NumberField } from '../../fields/NumberField';
import type { ObjectEditor } from '../../fields/useObjectEditor';
import { changed } from '../../store/document';
import { useAppDispatch } from '../../store/store';

const ROUND = { label: 'A round', unit: 's', min: 0.1, max: 600, about: 'how many seconds it stands for' };
const CELL = { label: 'A cell', unit: 'm', min: 0.5, max: 20, about: 'how many metres it stands for' };

/** Who would be written to. */
function lacking(project: Project, encounter: Encounter): string[] {
  const heads = new Map(unitHeads(project).map(({ id, name }) => [id, name]));
  return metIn(encounter, encounter.party, (id) => writtenUnit(project, id))
    .filter((id) => !writtenUnit(project, id).rounds)
    .map((id) => heads.get(id) ?? id);
}

/** What making an encounter take turns would write, and the button that writes it. */
export function DeriveTurns({ editor, close }: { editor: ObjectEditor<'encounters'>; close: () => void }) {
  const { base, project } = editor;
  const dispatch = useAppDispatch();
  const [round, setRound] = useState(2);
  const [cell, setCell] = useState(1);
  const [failure, setFailure] = useState<string>();
  const names = lacking(project, base);
  const turn = () => {
    try {
      const document = projectWithRounds(project, base.id, { round, cell });
      dispatch(changed({ document, name: `${base.name}: in turns, a round of ${round} s, cells of ${cell} m` }));
      close();
    } catch (error) {
      setFailure((error as Error).message);
    }
  };
  return (
    <div className="flex flex-col gap-2 text-table">
      <p className="text-ink-2">
        The fight goes in rounds in which everyone has a turn. What is written in seconds and metres stays as it is, and what it comes to in
        turns and cells is written beside it, to be changed by hand.
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
      <button type="button" className="btn btn-primary self-start" onClick={turn}>
        Derive from seconds
      </button>
    </div>
  );
}
