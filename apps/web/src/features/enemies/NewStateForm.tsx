import { type Does, type Project, STATE_BEGINNINGS, type Unit, beginState, blankState, doing, idFor, nameFor } from '@insidia/core';
import { useMemo, useState } from 'react';
import { Beginnings } from '../../parts/Beginnings';
import { NewForm } from '../../parts/NewForm';
import type { NewPartProps } from './NewPart';
import { ReachMiniature } from '../../visuals/Miniature';
import { doesFor, placesOf, thingsOf } from './stateEdits';

/** Before what a plain state does. */
const PLAIN = 'plain ';

/** What makes a state: its name and what it begins as, with the ways in and out that make it happen. */
export function NewStateForm({ editor, onMade, close }: NewPartProps & { close: () => void }) {
  const [begins, setBegins] = useState(STATE_BEGINNINGS[0].id);
  const { base } = editor;
  const thing = thingsOf(editor.project)[0]?.id;
  const pattern = STATE_BEGINNINGS.find(({ id }) => id === begins);
  const taken = base.states.map((state) => state.name);
  const add = (name: string) => {
    const own = nameFor(name, taken);
    const id = idFor(
      own,
      base.states.map((state) => state.id),
    );
    editor.change(`${base.name}: new state ${own}`, (unit) => {
      if (pattern) return beginState(unit, pattern, { id, name: own }, thing);
      const to = placesOf(editor.project)[0]?.id ?? 'point';
      unit.states.push(doing(blankState(id, own, 'hold'), begins.slice(PLAIN.length) as Does, to));
      unit.startsIn ??= unit.states[0].id;
    });
    onMade(id);
  };
  return (
    <NewForm close={close} suggested={nameFor(pattern?.name ?? 'State', taken)} submit="Add state" onName={add}>
      <BeginsAs project={editor.project} unit={editor.unit} thing={thing} value={begins} onChoose={setBegins} />
    </NewForm>
  );
}

/** Patterns, then each thing that a state can do, by itself. */
function BeginsAs({
  project,
  unit,
  thing,
  value,
  onChoose,
}: {
  project: Project;
  unit: Unit;
  thing: string | undefined;
  value: string;
  onChoose: (id: string) => void;
}) {
  const offers = useMemo(() => {
    return [
      ...STATE_BEGINNINGS.filter((one) => !one.thing || thing !== undefined).map((one) => {
        const alone: Unit = { ...unit, states: [] };
        delete alone.startsIn;
        beginState(alone, one, { id: one.id, name: one.name }, thing);
        return { id: one.id, called: one.called, about: one.about, picture: <ReachMiniature unit={alone} /> };
      }),
      ...doesFor(project).map(({ id, name }) => ({
        id: `${PLAIN}${id}`,
        called: `plain: ${name}`,
        about: 'by itself, without ways in or out',
      })),
    ];
  }, [project, unit, thing]);
  return <Beginnings heads={[['its distances, to 16 m', 118]]} offers={offers} value={value} onChoose={onChoose} />;
}
