import { type Does, type State, doing, keepsBand, stateTurnFields } from '@insidia/core';
import { Choose } from '../../fields/Choose';
import { Field } from '../../fields/Field';
import { InTurns } from '../../fields/InTurns';
import { FieldNumber } from '../../fields/FieldNumber';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { Leaves } from './Leaves';
import { DOES_WORDS, doesFor, friendsOf, placesOf } from './stateEdits';
import { laterWithin } from '../../parts/later';

const StateErrands = laterWithin(async () => (await import('./StateErrands')).StateErrands);
const StateParts = laterWithin(async () => (await import('./StateParts')).StateParts);

export interface StateProps {
  editor: UnitEditor;
  state: State;
  onSelect: (id: string | undefined) => void;
  start?: string;
  /** Every field is shown. */
  all: boolean;
  /** The duel beside it takes turns. */
  turns: boolean;
}

/** Its pace and distances in seconds and metres. */
function InSeconds({ editor, state }: Pick<StateProps, 'editor' | 'state'>) {
  const at = `/states/${state.id}`;
  return (
    <>
      <Field editor={editor} path={`${at}/pace`} width={58} />
      <FieldNumber tight editor={editor} path={`${at}/paceFactor`} width={52} label="Factor" />
      {state.does === 'approach' && <FieldNumber tight editor={editor} path={`${at}/stopAt`} width={66} />}
      {keepsBand(state.does) && (
        <>
          <FieldNumber tight editor={editor} path={`${at}/near`} width={58} label="Keeps from" />
          <FieldNumber tight editor={editor} path={`${at}/far`} width={58} label="Keeps to" />
        </>
      )}
      {(state.does === 'wander' || state.does === 'search') && <FieldNumber tight editor={editor} path={`${at}/radius`} width={84} />}
    </>
  );
}

/** What the selected state does, and all that may be said of it. */
export function StateFields({ editor, state, onSelect, start, all, turns }: StateProps) {
  const { unit, base, project } = editor;
  const at = `/states/${state.id}`;
  const index = unit.states.findIndex(({ id }) => id === state.id);
  const places = placesOf(project);
  const friends = friendsOf(project, unit.id);
  return (
    <div className="mt-1 border-t border-hair pt-1">
      <div className="flex flex-wrap items-start gap-x-1.5">
        <div className="w-[98px]">
          <Choose
            label="Does"
            value={state.does}
            options={doesFor(project)}
            onChoose={(does) =>
              editor.change(`${base.name} ${state.name}: ${DOES_WORDS.find(({ id }) => id === does)?.name}`, (one) => {
                const to = places[0]?.id ?? 'point';
                one.states = one.states.map((each) => (each.id === state.id ? doing(each, does as Does, to) : each));
              })
            }
          />
        </div>
        {(all || !turns) && <InSeconds editor={editor} state={state} />}
        {(all || turns) && <InTurns editor={editor} at={at} of={stateTurnFields(state)} />}
        {state.does === 'goTo' && <Field editor={editor} path={`${at}/to`} offers={places} />}
        {state.does === 'goTo' && <Field editor={editor} path={`${at}/strikes`} width={118} />}
        {state.does === 'follow' && (
          <Field editor={editor} path={`${at}/to`} label="Follows" offers={friends} none="any friend" width={104} />
        )}
      </div>
      {(state.does === 'follow' || state.does === 'wander' || state.does === 'patrol') && <StateErrands editor={editor} state={state} />}
      {all && <StateParts editor={editor} state={state} onSelect={onSelect} start={start} all={all} turns={turns} />}
      <Leaves editor={editor} state={state} index={index} />
    </div>
  );
}
