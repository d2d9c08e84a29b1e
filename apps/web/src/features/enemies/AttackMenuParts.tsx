import { type Attack, idFor, nameFor } from '@insidia/core';
import { Mini, moved } from '../../fields/Mini';
import { NameField } from '../../fields/NameField';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { CopyPart } from './Clipboard';

interface Props {
  editor: UnitEditor;
  attack: Attack;
  onAttack: (id: string | undefined) => void;
  close: () => void;
}

/** What can be done with an attack as a whole. */
export function AttackMenuParts({ editor, attack, onAttack, close }: Props) {
  const { base } = editor;
  const index = base.attacks.findIndex(({ id }) => id === attack.id);
  const move = (by: -1 | 1) =>
    editor.change(
      `${base.name}: ${attack.name} ${by < 0 ? 'earlier' : 'later'}`,
      (unit) => (unit.attacks = moved(unit.attacks, index, by)),
    );
  return (
    <div className="flex flex-col gap-2">
      <NameField of={attack} among={base.attacks} onName={(name) => editor.set(`/attacks/${attack.id}/name`, name, name)} />
      <div className="flex flex-wrap items-center gap-1">
        <CopyPart kind="attack" editor={editor} value={attack} />
        <button
          type="button"
          className="btn"
          onClick={() => {
            const name = nameFor(
              attack.name,
              base.attacks.map((one) => one.name),
            );
            const id = idFor(
              name,
              base.attacks.map((one) => one.id),
            );
            editor.change(`${base.name}: ${name} after ${attack.name}`, (unit) => {
              const own = unit.attacks.find((one) => one.id === attack.id)!;
              unit.attacks.splice(index + 1, 0, { ...structuredClone(own), id, name });
            });
            close();
            onAttack(id);
          }}
        >
          Double it
        </button>
        <Mini sign="up" label={`Move ${attack.name} earlier`} disabled={index === 0} onClick={() => move(-1)} />
        <Mini sign="down" label={`Move ${attack.name} later`} disabled={index === base.attacks.length - 1} onClick={() => move(1)} />
        <span className="flex-1" />
        <button
          type="button"
          className="btn"
          onClick={() => {
            editor.remove('attack', attack.id, attack.name);
            close();
            onAttack(base.attacks[index === 0 ? 1 : index - 1]?.id);
          }}
        >
          Remove
        </button>
      </div>
    </div>
  );
}
