import type { Unit } from '@insidia/core';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useKept } from '../../app/kept';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { guarded } from '../../parts/guarded';
import { StateArcs } from '../../visuals/StateArcs';
import { WarnMark } from '../../visuals/WarnMark';
import { PastePart } from './Clipboard';
import { NewState } from './NewPart';
import { StateFields } from './StateFields';
import { doesSentence, whereTo } from './stateEdits';
import { useRun } from './useRun';

const ROW = 24;

/** States in working order with the share of life spent in each, the ways between them, and what the selected one does. */
export const StatesSection = guarded('The states', function StatesSection({ editor, turns }: { editor: UnitEditor; turns: boolean }) {
  const { unit, base, project } = editor;
  const nameOf = useMemo(() => whereTo(project, unit.id), [project, unit.id]);
  const start = base.startsIn ?? base.states[0]?.id;
  const [selected, setSelected] = useState<string | undefined>(useSearchParams()[0].get('state') ?? start);
  const state = unit.states.find(({ id }) => id === selected) ?? unit.states[0];
  const [all, setAll] = useKept('fields of the state', false);
  const colour = `var(--e-${unit.colour})`;
  return (
    <div className="min-w-0 border-r px-4 py-2" aria-label="States" role="region">
      <div className="section-head">
        <h3>States</h3>
        <span className="note truncate">share of life; transitions per life</span>
        <span className="flex-1" />
        {state && (
          <button type="button" className="link" aria-expanded={all} onClick={() => setAll(!all)}>
            {all ? 'fewer fields' : 'all fields'}
          </button>
        )}
        <PastePart kind="state" editor={editor} onDone={setSelected} />
        <NewState editor={editor} onMade={setSelected} />
      </div>
      {!unit.states.length && (
        <div className="mt-1 flex items-center gap-3 text-table text-ink-2">
          <span>None: it stands and attacks what comes into reach.</span>
          <NewState
            editor={editor}
            onMade={setSelected}
            trigger={
              <button type="button" className="btn shrink-0">
                Give it a state …
              </button>
            }
          />
        </div>
      )}
      <div className="relative -mx-4 mt-1">
        <div role="listbox" aria-label="States">
          {unit.states.map((each, i) => {
            const on = each.id === state?.id;
            const warning = editor.warnings.find(({ path }) => path.startsWith(`/units/${unit.id}/states/${each.id}`));
            return (
              <button
                key={each.id}
                type="button"
                role="option"
                aria-selected={on}
                onClick={() => setSelected(each.id)}
                style={{ height: ROW }}
                className={`grid w-full grid-cols-[12px_minmax(0,86px)_minmax(0,92px)_64px_34px_1fr] items-center gap-1 pl-3 pr-4 text-left text-table -outline-offset-2 ${on ? 'bg-sheet font-semibold shadow-[inset_3px_0_0_var(--ink)]' : 'hover:bg-sheet/50'}`}
              >
                <span className="text-[9px]" aria-label={each.id === start ? 'begins here' : undefined}>
                  {each.id === start ? '▸' : ''}
                </span>
                <span className="truncate" title={each.name}>
                  {each.name}
                </span>
                <span className="truncate font-normal text-ink-2" title={doesSentence(each, nameOf, turns ? 'rounds' : 'continuous')}>
                  {doesSentence(each, nameOf, turns ? 'rounds' : 'continuous')}
                </span>
                <Share unit={unit.id} states={unit.states.length} index={i} fill={on ? colour : 'var(--r-range)'} />
                <span className="pl-1">{warning && <WarnMark label={warning.message} />}</span>
              </button>
            );
          })}
        </div>
        {unit.states.length > 1 && <Arcs unit={unit} selected={state?.id} />}
      </div>
      {state && <StateFields key={state.id} editor={editor} state={state} onSelect={setSelected} start={start} all={all} turns={turns} />}
    </div>
  );
});

function Share({ unit, states, index, fill }: { unit: string; states: number; index: number; fill: string }) {
  const share = useRun(unit, states)?.[index]?.share;
  return (
    <>
      <svg width={64} height={12} aria-hidden>
        <path d="M0 6.5 H64" stroke="var(--hair)" />
        {share !== undefined && <rect width={64 * share} height={12} fill={fill} />}
      </svg>
      <span className="text-right">{share === undefined ? '' : `${Math.round(100 * share)} %`}</span>
    </>
  );
}

function Arcs({ unit, selected }: { unit: Unit; selected?: string }) {
  const run = useRun(unit.id, unit.states.length);
  return (
    <StateArcs
      states={unit.states}
      selected={selected}
      taken={run?.map(({ moves }) => moves)}
      row={ROW}
      className="pointer-events-none absolute right-2 top-0"
      width={58}
    />
  );
}
