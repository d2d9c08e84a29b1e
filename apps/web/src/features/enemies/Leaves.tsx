import { type State, conditionSentence, fixed, shown } from '@insidia/core';
import { Choose } from '../../fields/Choose';
import { ConditionField, firstOf } from '../../fields/ConditionField';
import { infoAt } from '../../fields/edits';
import { warningAt } from '../../fields/FieldNumber';
import { ListButtons, moved } from '../../fields/Mini';
import { NumberField } from '../../fields/NumberField';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { WarnMark } from '../../visuals/WarnMark';
import { type Leave, leaveAdded, leaveChanged } from './stateEdits';
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
  const others = base.states.filter(({ id }) => id !== state.id).map((each) => ({ id: each.id, name: each.name }));
  const leaves = base.states[index]?.leaves ?? [];
  const set = (next: State['leaves'], what: string) => editor.set(at, next, what);
  const after = infoAt(`${at}/0/after`);
  return (
    <div className="mt-1 text-table">
      <div className="flex items-baseline gap-2">
        <b>{state.name}</b>
        <span className="min-w-0 flex-1 truncate text-ink-3">{leaves.length ? 'leaves, tried in this order' : 'is never left'}</span>
        {others.length > 0 && (
          <button
            type="button"
            className="link"
            aria-label={`Add a way out of ${state.name}`}
            onClick={() =>
              set(leaveAdded(leaves, firstOf('distance', { unit: base, project }), others[0].id), `another way, to ${others[0].name}`)
            }
          >
            add a way out
          </button>
        )}
      </div>
      {leaves.map((leave, i) => {
        const to = unit.states.findIndex(({ id }) => id === leave.to);
        const warning = warningAt(editor, `${at}/${i}/when`);
        const change = (more: Partial<Leave>, what: string) => set(leaveChanged(leaves, i, more), what);
        return (
          <div
            key={i}
            className="group grid grid-cols-[10px_92px_minmax(0,1fr)_auto_auto] items-center gap-1 py-px"
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
            <span className="min-w-0 leading-4">
              {warning && <WarnMark label={warning} />}{' '}
              <ConditionField
                needed
                label={`${state.name} leaves for ${name(leave.to)} when`}
                condition={leave.when}
                unit={base}
                project={project}
                onChange={(when) => when && change({ when }, `when ${conditionSentence(when)}`)}
              />
            </span>
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
