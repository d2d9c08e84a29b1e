import {
  type Does,
  type State,
  type Unit,
  Unit as UnitClass,
  blankState,
  conditionSentence,
  doing,
  fieldWords,
  idFor,
  nameFor,
  unitHeads,
  fixed,
  shown,
} from '@insidia/core';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { Choose } from '../../fields/Choose';
import { ConditionField, firstOf } from '../../fields/ConditionField';
import { ListButtons, Mini, moved } from '../../fields/Mini';
import { NumberField } from '../../fields/NumberField';
import { Popover } from '../../fields/Popover';
import { TextField } from '../../fields/TextField';
import { TweaksField } from '../../fields/TweaksField';
import { Field } from '../../fields/Field';
import { FieldNumber, warningAt } from '../../fields/FieldNumber';
import { infoAt } from '../../fields/edits';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { useAppSelector } from '../../store/store';
import { StateArcs } from '../../visuals/StateArcs';
import { WarnMark } from '../../visuals/WarnMark';
import { CopyPart, PastePart } from './Clipboard';
import { guarded } from '../../parts/guarded';

const DOES_WORDS = fieldWords(UnitClass, ['states', '0', 'does']);
const ROW = 24;
const KEEPS_BAND = ['band', 'strafe'];

/** States in working order with the share of life spent in each, the ways between them, and what the selected one does. */
export const StatesSection = guarded('The states', function StatesSection({ editor }: { editor: UnitEditor }) {
  const { unit, base } = editor;
  const start = base.startsIn ?? base.states[0]?.id;
  const [selected, setSelected] = useState<string | undefined>(useSearchParams()[0].get('state') ?? start);
  const state = unit.states.find(({ id }) => id === selected) ?? unit.states[0];
  const [all, setAll] = useState(false);
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
        <NewState editor={editor} onState={setSelected} />
      </div>
      {!unit.states.length && <p className="mt-1 text-table text-ink-2">None: it stands and attacks what comes into reach.</p>}
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
                <span className="truncate font-normal text-ink-2" title={doesSentence(each)}>
                  {doesSentence(each)}
                </span>
                <Share unit={unit.id} states={unit.states.length} index={i} fill={on ? colour : 'var(--r-range)'} />
                <span className="pl-1">{warning && <WarnMark label={warning.message} />}</span>
              </button>
            );
          })}
        </div>
        {unit.states.length > 1 && <Arcs unit={unit} selected={state?.id} />}
      </div>
      {state && <StateFields key={state.id} editor={editor} state={state} onSelect={setSelected} start={start} all={all} />}
    </div>
  );
});

/** What the last runs say of the states of a unit; nothing where they are of another. Only who asks repaints when they are done. */
function useRun(unit: string, states: number) {
  return useAppSelector((store) => {
    const own = store.readout.duel.answer?.now.summary.kinds.find(({ id }) => id === unit)?.states;
    return own?.length === states ? own : undefined;
  });
}

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

/** How often a life takes this way. */
function Taken({ unit, states, from, to }: { unit: string; states: number; from: number; to: number }) {
  const taken = useRun(unit, states)?.[from]?.moves.find((move) => move.to === to)?.perLife;
  return taken === undefined ? null : <b className="pr-0.5">{fixed(taken, 1)}</b>;
}

function doesSentence(state: State): string {
  if (KEEPS_BAND.includes(state.does))
    return `${state.does === 'band' ? 'band' : 'circles'} ${shown(state.near ?? 0)}–${shown(state.far ?? 0)} m`;
  if (state.does === 'approach')
    return state.stopAt === undefined ? 'approach, to 0.9 of its reach' : `approach, to ${shown(state.stopAt)} m`;
  if (state.does === 'patrol') return `walks ${state.patrol?.points.length ?? 0} stops`;
  if (state.does === 'follow' || state.does === 'goTo') return `${state.does === 'follow' ? 'follows' : 'goes to'} ${state.to ?? '…'}`;
  return DOES_WORDS.find(({ id }) => id === state.does)?.name ?? state.does;
}

interface StateProps {
  editor: UnitEditor;
  state: State;
  onSelect: (id: string | undefined) => void;
  start?: string;
  /** Every field is shown. */
  all: boolean;
}

function StateFields({ editor, state, onSelect, start, all }: StateProps) {
  const { unit, base, project } = editor;
  const at = `/states/${state.id}`;
  const index = unit.states.findIndex(({ id }) => id === state.id);
  const attacks = base.attacks.map(({ id, name }) => ({ id, name }));
  const places = project.arenas.flatMap(({ points, name }) => points.map((point) => ({ id: point.id, name: `${point.name} (${name})` })));
  const heads = unitHeads(project);
  const friends = [
    ...heads.filter(({ id }) => id !== unit.id).map(({ id, name }) => ({ id, name })),
    ...[...new Set(heads.map(({ role }) => role))].filter(Boolean).map((role) => ({ id: role, name: `any ${role}` })),
  ].filter(({ id }, i, list) => list.findIndex((one) => one.id === id) === i);
  return (
    <div className="mt-1 border-t border-hair pt-1">
      <div className="flex flex-wrap items-start gap-x-1.5">
        <div className="w-[98px]">
          <Choose
            label="Does"
            value={state.does}
            options={DOES_WORDS}
            onChoose={(does) =>
              editor.change(`${base.name} ${state.name}: ${DOES_WORDS.find(({ id }) => id === does)?.name}`, (one) => {
                const to = does === 'goTo' ? (places[0]?.id ?? 'point') : (friends[0]?.id ?? 'friend');
                one.states = one.states.map((each) => (each.id === state.id ? doing(each, does as Does, to) : each));
              })
            }
          />
        </div>
        <Field editor={editor} path={`${at}/pace`} width={58} />
        <FieldNumber tight editor={editor} path={`${at}/paceFactor`} width={52} label="Factor" />
        {state.does === 'approach' && <FieldNumber tight editor={editor} path={`${at}/stopAt`} width={66} />}
        {KEEPS_BAND.includes(state.does) && (
          <>
            <FieldNumber tight editor={editor} path={`${at}/near`} width={58} label="Keeps from" />
            <FieldNumber tight editor={editor} path={`${at}/far`} width={58} label="Keeps to" />
          </>
        )}
        {state.does === 'follow' && <FieldNumber tight editor={editor} path={`${at}/far`} label="Stays within" width={84} />}
        {(state.does === 'wander' || state.does === 'search') && <FieldNumber tight editor={editor} path={`${at}/radius`} width={84} />}
        {state.does === 'goTo' && <Field editor={editor} path={`${at}/to`} offers={places} />}
        {state.does === 'follow' && <Field editor={editor} path={`${at}/to`} offers={friends} />}
      </div>
      {state.does === 'patrol' && <Patrol editor={editor} state={state} />}
      {all && (
        <div className="mt-1 flex flex-wrap items-end gap-2 border-t border-hair pt-1">
          <TextField
            label="Name"
            width={110}
            value={state.name}
            limit={80}
            onCommit={(name) => {
              const own = name.trim();
              if (own && !base.states.some((one) => one.id !== state.id && one.name === own)) editor.set(`${at}/name`, own, own);
            }}
          />
          <Field editor={editor} path={`${at}/onTheWay`} width={130} />
          <Field editor={editor} path={`${at}/invulnerable`} />
          <div className="w-[120px]">
            <Choose
              label="May begin"
              value={state.attacks}
              options={fieldWords(UnitClass, ['states', '0', 'attacks'])}
              onChoose={(word) =>
                editor.change(`${base.name} ${state.name} may begin: ${word}`, (one) => {
                  const own = one.states.find(({ id }) => id === state.id)!;
                  own.attacks = word as State['attacks'];
                  if (word === 'some') own.only ??= attacks.map(({ id }) => id);
                  else delete own.only;
                })
              }
            />
          </div>
          {state.attacks === 'some' && <Field editor={editor} path={`${at}/only`} offers={attacks} />}
          <OnEnter editor={editor} state={state} attacks={attacks} />
          <TweaksField
            label="While in it"
            tweaks={base.states[index]?.tweaks ?? []}
            unit={base}
            onChange={(tweaks) => editor.set(`${at}/tweaks`, tweaks, 'tweaks changed')}
          />
          <span className="flex basis-full items-center gap-1">
            {state.id !== start && (
              <button type="button" className="btn" onClick={() => editor.set('/startsIn', state.id, state.name)}>
                Begin here
              </button>
            )}
            <CopyPart kind="state" editor={editor} value={state} />
            <PastePart kind="state" editor={editor} onDone={onSelect} />
            <span className="flex-1" />
            <ListButtons
              what={state.name}
              index={index}
              count={unit.states.length}
              onMove={(by) =>
                editor.change(`${base.name}: ${state.name} ${by < 0 ? 'earlier' : 'later'}`, (one) => {
                  one.startsIn ??= one.states[0]?.id;
                  one.states = moved(one.states, index, by);
                })
              }
              onRemove={() => {
                editor.remove('state', state.id, state.name);
                onSelect(undefined);
              }}
            />
          </span>
        </div>
      )}
      <Leaves editor={editor} state={state} index={index} />
    </div>
  );
}

/** What leads out of a state, in the order in which it is tried. */
function Leaves({ editor, state, index }: { editor: UnitEditor; state: State; index: number }) {
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
              set(
                [...leaves, { when: firstOf('distance', { unit: base, project }), to: others[0].id, after: 0 }],
                `another way, to ${others[0].name}`,
              )
            }
          >
            add a way out
          </button>
        )}
      </div>
      {leaves.map((leave, i) => {
        const to = unit.states.findIndex(({ id }) => id === leave.to);
        const warning = warningAt(editor, `${at}/${i}/when`);
        const change = (more: Partial<typeof leave>, what: string) =>
          set(
            leaves.map((one, j) => (j === i ? { ...one, ...more } : one)),
            what,
          );
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

function OnEnter({ editor, state, attacks }: { editor: UnitEditor; state: State; attacks: { id: string; name: string }[] }) {
  const at = `/states/${state.id}/onEnter`;
  if (!state.onEnter)
    return (
      <button type="button" className="link" onClick={() => editor.set(at, { refill: false }, 'something')}>
        on entering …
      </button>
    );
  return (
    <div role="group" aria-label="On entering" className="flex flex-wrap items-end gap-2">
      <Field editor={editor} path={`${at}/attack`} offers={attacks} none="nothing" />
      <Field editor={editor} path={`${at}/raise`} none="none" />
      <Field editor={editor} path={`${at}/lower`} none="none" />
      <Field editor={editor} path={`${at}/refill`} />
      <Mini sign="remove" label="Nothing on entering" onClick={() => editor.set(at, undefined, 'nothing')} />
    </div>
  );
}

function Patrol({ editor, state }: { editor: UnitEditor; state: State }) {
  const { base } = editor;
  const at = `/states/${state.id}/patrol`;
  const points = state.patrol?.points ?? [];
  const set = (next: typeof points, what: string) => editor.set(`${at}/points`, next, what);
  return (
    <div className="mt-1" role="group" aria-label="Beat walked">
      {points.map(({ id }, i) => (
        <div key={id} className="flex items-end gap-1">
          <span className="w-4 pb-1 text-label text-ink-3">{i + 1}</span>
          {(['x', 'y', 'pause', 'facing'] as const).map((field) => (
            <FieldNumber tight key={field} editor={editor} path={`${at}/points/${id}/${field}`} width={66} />
          ))}
          <span className="pb-[2px]">
            <ListButtons
              what={`stop ${i + 1}`}
              index={i}
              count={points.length}
              onMove={(by) => set(moved(points, i, by), 'other order')}
              onRemove={() =>
                points.length > 1 &&
                set(
                  points.filter((_, j) => j !== i),
                  'one stop less',
                )
              }
            />
          </span>
        </div>
      ))}
      <div className="flex items-end gap-2">
        <Field editor={editor} path={`${at}/order`} width={120} />
        <FieldNumber tight editor={editor} path={`${at}/startAt`} width={66} />
        <button
          type="button"
          className="link"
          onClick={() => {
            const last = points[points.length - 1];
            const id = idFor(
              'abcdefghijklmnopqrstuvwxyz'[points.length] ?? 'stop',
              points.map((point) => point.id),
            );
            set([...points, { id, x: (last?.x ?? 0) + 3, y: last?.y ?? 0, pause: 1 }], 'another stop');
          }}
        >
          add a stop
        </button>
      </div>
      <span className="sr-only">{base.name}</span>
    </div>
  );
}

function NewState({ editor, onState }: { editor: UnitEditor; onState: (id: string) => void }) {
  const [name, setName] = useState('');
  const [does, setDoes] = useState<Does>('approach');
  const { base } = editor;
  return (
    <Popover
      label="New state"
      width={280}
      align="end"
      trigger={
        <button type="button" className="mini" aria-label="New state" title="New state">
          +
        </button>
      }
    >
      {(close) => (
        <form
          className="flex flex-col gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            const own = nameFor(
              name.trim() || 'State',
              base.states.map((state) => state.name),
            );
            const id = idFor(
              own,
              base.states.map((state) => state.id),
            );
            editor.change(`${base.name}: new state ${own}`, (unit) => {
              const to = unitHeads(editor.project).find((head) => head.id !== unit.id)?.id ?? 'point';
              unit.states.push(doing(blankState(id, own, 'hold'), does, to));
              unit.startsIn ??= unit.states[0].id;
            });
            setName('');
            close();
            onState(id);
          }}
        >
          <label className="text-label text-ink-3">
            Name
            <input
              className="field-box w-full text-body text-ink"
              value={name}
              maxLength={80}
              autoFocus
              onChange={(event) => setName(event.target.value)}
            />
          </label>
          <Choose label="Does" value={does} options={DOES_WORDS} onChoose={(word) => setDoes(word as Does)} />
          <div className="flex gap-2">
            <button type="submit" className="btn btn-primary">
              Add state
            </button>
            <PastePart kind="state" editor={editor} onDone={(id) => (close(), onState(id))} />
          </div>
        </form>
      )}
    </Popover>
  );
}
