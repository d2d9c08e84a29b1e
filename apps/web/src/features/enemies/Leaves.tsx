import { type State, conditionSentence, fixed, shown, countedTurns } from '@insidia/core';
import { Choose } from '../../fields/Choose';
import { ConditionField } from '../../fields/ConditionField';
import { firstOf } from '../../fields/conditions';
import { infoAt } from '../../fields/edits';
import { FieldNumber, warningAt } from '../../fields/FieldNumber';
import { ListButtons, Mini, moved } from '../../fields/Mini';
import { NumberField } from '../../fields/NumberField';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { WarnMark } from '../../visuals/WarnMark';
import { drawsAmong, FIRST_DECIDES, type Leave, leaveAdded, leaveChanged, withoutCondition } from './stateEdits';
import { useRun } from './useRun';

/** How often a life takes this way. */
function Taken({ unit, states, from, to }: { unit: string; states: number; from: number; to: number }) {
  const taken = useRun(unit, states)?.[from]?.moves.find((move) => move.to === to)?.perLife;
  return taken === undefined ? null : <b className="pr-0.5">{fixed(taken, 1)}</b>;
}

/** What leads out of a state, in the order in which it is tried. */
export function Leaves({ editor, state, index }: { editor: UnitEditor; state: State; index: number }) {
  const { base, unit, project } = editor;
  const at = `/states/${state.id}/leaves`;
  const name = (id: string) => unit.states.find((each) => each.id === id)?.name ?? id;
  // A state that decides at intervals may decide to stay, and does so anew.
  const others = base.states
    .filter(({ id }) => id !== state.id || state.decides || state.leaves.some(({ to }) => to === id))
    .map((each) => ({ id: each.id, name: each.id === state.id ? `${each.name}, anew` : each.name }));
  const leaves = base.states[index]?.leaves ?? [];
  // A new way leads where none does yet.
  const elsewhere = others.filter(({ id }) => id !== state.id);
  const next = elsewhere.find(({ id }) => !leaves.some(({ to }) => to === id)) ?? elsewhere[0];
  const set = (ways: State['leaves'], what: string) => editor.set(at, ways, what);
  const after = infoAt(`${at}/0/after`);
  const afterTurns = infoAt(`${at}/0/rounds/after`);
  const weight = infoAt(`${at}/0/weight`);
  const draws = drawsAmong(state);
  return (
    <div className="mt-1 text-table">
      <div className="flex items-baseline gap-2">
        <b>{state.name}</b>
        <span className="min-w-0 flex-1 truncate text-ink-3">
          {!leaves.length ? 'is never left' : draws ? 'leaves in this order, else by weight' : 'leaves, tried in this order'}
        </span>
        {!state.decides && next && (
          <button
            type="button"
            className="link"
            aria-label={`${state.name} decides at intervals`}
            title="ways out are asked at intervals, each time with new chances"
            onClick={() => editor.set(`/states/${state.id}/decides`, FIRST_DECIDES, 'each 0.5 s')}
          >
            decides at intervals
          </button>
        )}
        {next && (
          <button
            type="button"
            className="link"
            aria-label={`Add a way out of ${state.name}`}
            onClick={() =>
              set(
                leaveAdded({ leaves, decides: state.decides }, firstOf('distance', { unit: base, project }), next.id),
                `another way, to ${next.name}`,
              )
            }
          >
            add a way out
          </button>
        )}
      </div>
      {state.decides && (
        <div className="flex items-end gap-1 pb-1" role="group" aria-label="Decides">
          <FieldNumber tight editor={editor} path={`/states/${state.id}/decides/min`} width={84} />
          <FieldNumber tight editor={editor} path={`/states/${state.id}/decides/max`} width={84} />
          <Mini
            sign="remove"
            label="Decides at every step"
            onClick={() => editor.set(`/states/${state.id}/decides`, undefined, 'at every step')}
          />
        </div>
      )}
      {leaves.map((leave, i) => {
        const to = unit.states.findIndex(({ id }) => id === leave.to);
        const warning = warningAt(editor, `${at}/${i}/when`) ?? warningAt(editor, `${at}/${i}`);
        const change = (more: Partial<Leave>, what: string) => set(leaveChanged(leaves, i, more), what);
        return (
          <div
            key={i}
            className={`group grid ${draws ? 'grid-cols-[10px_minmax(0,1fr)_auto_auto_auto]' : 'grid-cols-[10px_92px_minmax(0,1fr)_auto_auto]'} items-center gap-1 py-px`}
            role="group"
            aria-label={`Way ${i + 1}`}
          >
            <span className="text-ink-3">{i + 1}</span>
            <Choose
              quiet
              className="field-box w-full gap-1 font-semibold"
              label={`Way ${i + 1} leads to`}
              value={leave.to}
              options={others}
              onChoose={(id) => change({ to: id }, `to ${name(id)}`)}
            />
            <span className={draws ? 'order-last col-span-4 col-start-2 pb-1 leading-4' : 'min-w-0 leading-4'}>
              {warning && <WarnMark label={warning} />}{' '}
              <ConditionField
                none={withoutCondition(leave)}
                label={`${state.name} leaves for ${name(leave.to)} when`}
                condition={leave.when}
                unit={base}
                project={project}
                onChange={(when) => change({ when }, when ? `when ${conditionSentence(when)}` : withoutCondition(leave))}
              />
            </span>
            <span className="flex gap-1">
              {after && (
                <NumberField
                  bare
                  compact
                  info={{ ...after, label: `Way ${i + 1} not before` }}
                  base={leave.after}
                  width={62}
                  onCommit={(value) => change({ after: value }, `after ${shown(value)} s`)}
                />
              )}
              {leave.rounds && afterTurns && (
                <NumberField
                  bare
                  compact
                  info={{ ...afterTurns, label: `Way ${i + 1} not before, in turns` }}
                  base={leave.rounds.after}
                  width={72}
                  onCommit={(value) => change({ rounds: { after: value } }, `after ${countedTurns(value)}`)}
                />
              )}
            </span>
            {weight && draws && (
              <NumberField
                bare
                compact
                info={{ ...weight, label: `Way ${i + 1} weight` }}
                base={leave.weight}
                width={46}
                onCommit={(value) => change({ weight: value }, `weight ${shown(value)}`)}
                onClear={() => change({ weight: undefined }, 'in its order')}
              />
            )}
            <span className="flex items-center">
              <Taken unit={unit.id} states={unit.states.length} from={index} to={to} />
              <ListButtons
                what={`way ${i + 1}`}
                index={i}
                count={leaves.length}
                onMove={leaves.length > 1 ? (by) => set(moved(leaves, i, by), 'other order') : undefined}
                onRemove={() =>
                  set(
                    leaves.filter((_, j) => j !== i),
                    `no more to ${name(leave.to)}`,
                  )
                }
              />
            </span>
          </div>
        );
      })}
    </div>
  );
}
