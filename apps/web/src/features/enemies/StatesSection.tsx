import { DOES, type State, SUBJECTS, type SubjectInfo, conditionSentence } from '@insidia/core';
import { useState } from 'react';
import { Choose } from '../../fields/Choose';
import { NumberField } from '../../fields/NumberField';
import { UnitNumber } from '../../fields/UnitNumber';
import { setValue } from '../../fields/edits';
import { shown } from '../../fields/number';
import type { UnitEditor } from '../../fields/useUnitEditor';

const DOES_WORDS: Record<State['does'], string> = {
  hold: 'hold',
  approach: 'approach',
  band: 'keep a band',
  flee: 'flee',
  strafe: 'circle in a band',
  wander: 'wander about home',
  patrol: 'walk a beat',
  home: 'go home',
  search: 'search',
  goTo: 'go to a point',
  follow: 'follow a friend',
};
const KEEPS_BAND = ['band', 'strafe'];
/** What needs more than numbers is chosen in the file for now. */
const NEEDS_MORE = ['patrol', 'goTo', 'follow'];

/** States in working order; the selected one's numbers and the transitions that leave it, as sentences. */
export function StatesSection({ editor }: { editor: UnitEditor }) {
  const { unit } = editor;
  const start = unit.startsIn ?? unit.states[0]?.id;
  const [selected, setSelected] = useState(start);
  const state = unit.states.find(({ id }) => id === selected) ?? unit.states[0];
  const name = (id: string) => unit.states.find((each) => each.id === id)?.name ?? id;
  return (
    <div className="min-w-0 border-r px-4 py-2" aria-label="States" role="region">
      <div className="section-head">
        <h3>States</h3>
        <span className="note">in working order; it begins in the one marked</span>
      </div>
      {!unit.states.length && <p className="mt-1 text-table text-ink-2">None: it stands and attacks what comes into reach.</p>}
      <div role="listbox" aria-label="States" className="-mx-4 mt-1">
        {unit.states.map((each) => (
          <button
            key={each.id}
            type="button"
            role="option"
            aria-selected={each.id === state?.id}
            onClick={() => setSelected(each.id)}
            className={`grid h-6 w-full grid-cols-[14px_minmax(0,110px)_minmax(0,1fr)_auto] items-center gap-1 px-4 text-left text-table -outline-offset-2 ${each.id === state?.id ? 'bg-sheet font-semibold shadow-[inset_3px_0_0_var(--ink)]' : 'hover:bg-sheet/50'}`}
          >
            <span aria-label={each.id === start ? 'begins here' : undefined}>{each.id === start ? '▸' : ''}</span>
            <span className="truncate">{each.name}</span>
            <span className="truncate font-normal text-ink-2">{doesSentence(each)}</span>
            <span className="font-normal text-ink-3">
              {each.leaves.length ? `→ ${each.leaves.map(({ to }) => name(to)).join(', ')}` : ''}
            </span>
          </button>
        ))}
      </div>
      {state && <StateFields key={state.id} editor={editor} state={state} name={name} />}
    </div>
  );
}

function doesSentence(state: State): string {
  if (KEEPS_BAND.includes(state.does))
    return `${state.does === 'band' ? 'band' : 'circles'} ${shown(state.near ?? 0)}–${shown(state.far ?? 0)} m`;
  if (state.does === 'approach')
    return state.stopAt === undefined ? 'approach, to 0.9 of its reach' : `approach, to ${shown(state.stopAt)} m`;
  return DOES_WORDS[state.does];
}

function StateFields({ editor, state, name }: { editor: UnitEditor; state: State; name: (id: string) => string }) {
  const { unit, project } = editor;
  const at = (field: string) => `/states/${state.id}/${field}`;
  const set = (field: string, value: unknown, words: string) =>
    editor.apply(setValue(project, unit.id, at(field), value, `${unit.name} ${state.name}: ${words}`));
  const does = (word: string) => {
    const next = {
      ...state,
      does: word as State['does'],
      ...(KEEPS_BAND.includes(word) && { near: state.near ?? 4, far: state.far ?? 8 }),
    };
    editor.apply(
      setValue(project, unit.id, `/states/${state.id}`, next, `${unit.name} ${state.name} does: ${DOES_WORDS[word as State['does']]}`),
    );
  };
  return (
    <div className="mt-2 border-t border-hair pt-1.5">
      <div className="grid grid-cols-[minmax(0,1.4fr)_minmax(0,1fr)_repeat(3,minmax(0,0.9fr))] gap-1.5">
        <Choose
          label="Does"
          value={state.does}
          options={DOES.filter((id) => id === state.does || !NEEDS_MORE.includes(id)).map((id) => ({ id, name: DOES_WORDS[id] }))}
          onChoose={does}
        />
        {state.does !== 'hold' && (
          <Choose
            label="Pace"
            value={state.pace}
            options={['walk', 'run'].map((id) => ({ id, name: id }))}
            onChoose={(pace) => set('pace', pace, `${pace}s`)}
          />
        )}
        {state.does !== 'hold' && <UnitNumber editor={editor} path={at('paceFactor')} />}
        {state.does === 'approach' && <UnitNumber editor={editor} path={at('stopAt')} />}
        {KEEPS_BAND.includes(state.does) && <UnitNumber editor={editor} path={at('near')} />}
        {KEEPS_BAND.includes(state.does) && <UnitNumber editor={editor} path={at('far')} />}
      </div>
      {state.leaves.length > 0 && (
        <p className="mt-1.5 text-table text-ink-2">
          <b className="text-ink">{state.name}</b> leaves, tried in this order
        </p>
      )}
      <ol>
        {state.leaves.map((leave, i) => {
          const { when } = leave;
          const info: SubjectInfo = SUBJECTS[when.subject];
          const simple = info.asked === 'number' && when.value !== undefined;
          const side = when.is === 'above' ? 'over' : 'under';
          const change = (value: number) => {
            const leaves = state.leaves.map((each, j) => (j === i ? { ...each, when: { ...each.when, value } } : each));
            set('leaves', leaves, `to ${name(leave.to)} at ${shown(value)}`);
          };
          return (
            <li key={i} className="flex h-7 items-center gap-1.5 whitespace-nowrap text-table">
              <span className="text-ink-3">{i + 1}</span>
              <b>{name(leave.to)}</b>
              <span className="min-w-0 truncate text-ink-2" title={conditionSentence(when)}>
                when {simple ? `${info.label} is ${side}` : conditionSentence(when)}
              </span>
              {simple && (
                <NumberField
                  compact
                  label=""
                  info={{
                    label: info.label,
                    unit: info.unit,
                    min: 0,
                    max: 1e6,
                    about: `${name(leave.to)} when ${info.label} is ${side} this`,
                  }}
                  base={when.value as number}
                  width={66}
                  onCommit={change}
                />
              )}
              {leave.after > 0 && <span className="text-ink-3">after {shown(leave.after)} s</span>}
            </li>
          );
        })}
      </ol>
    </div>
  );
}
