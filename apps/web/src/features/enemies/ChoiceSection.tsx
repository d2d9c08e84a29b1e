import { type Choice, type Unit, conditionSentence, ruledOut, shown, traitsOf, timeUseWords } from '@insidia/core';
import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import { Choose } from '../../fields/Choose';
import { ConditionField } from '../../fields/ConditionField';
import { ListButtons, Mini, moved } from '../../fields/Mini';
import { Popover } from '../../fields/Popover';
import { FieldNumber, warningAt } from '../../fields/FieldNumber';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { useAppSelector } from '../../store/store';
import { WarnMark } from '../../visuals/WarnMark';
import { CopyPart, PastePart } from './Clipboard';
import { TargetingFields } from './TargetingFields';
import { guarded } from '../../parts/guarded';

type Entry = Choice['priorities'][number]['entries'][number];

/** How the next attack is picked: priorities from the top, entries as wide as their weights, and what came of each. */
export const ChoiceSection = guarded('The choice', function ChoiceSection({ editor }: { editor: UnitEditor }) {
  const { unit, base, project } = editor;
  const priorities = base.choice.priorities;
  const set = (next: Choice['priorities'], what: string) => editor.set('/choice/priorities', next, what);
  const change = (p: number, more: Partial<Choice['priorities'][number]>, what: string) =>
    set(
      priorities.map((one, i) => (i === p ? dropAbsent({ ...one, ...more }) : one)),
      what,
    );
  const reset = editor.view.edit === 'base' ? editor.reset('/choice') : undefined;
  return (
    <div className="min-w-0 px-3 py-2" aria-label="Choice" role="region">
      <div className="section-head">
        <h3>Choice</h3>
        <span className="note min-w-0 flex-1 truncate">
          tried in order of priority
          <Uses unit={unit.id} />
        </span>
        {reset && (
          <button type="button" className="link" onClick={reset} title="as its base has it">
            reset
          </button>
        )}
        <Popover
          label="Copy or paste the choice"
          align="end"
          width={220}
          trigger={
            <button type="button" className="link">
              …
            </button>
          }
        >
          <div className="flex gap-2">
            <CopyPart kind="choice" editor={editor} value={base.choice} />
            <PastePart kind="choice" editor={editor} />
          </div>
        </Popover>
      </div>
      {priorities.map((priority, p) => (
        <div key={p} className="mt-1.5" role="group" aria-label={`Priority ${p + 1}`}>
          <div className="flex items-start gap-1.5 text-table leading-5 text-ink-2">
            <span className="shrink-0">
              priority <b className="text-ink">{p + 1}</b>
            </span>
            <span className="min-w-0 flex-1">
              <ConditionField
                label={`Priority ${p + 1} is tried if`}
                condition={priority.condition}
                unit={base}
                project={project}
                none={p === 0 ? 'always' : 'otherwise'}
                onChange={(condition) =>
                  change(p, { condition }, condition ? `priority ${p + 1} if ${conditionSentence(condition)}` : `priority ${p + 1} always`)
                }
              />
            </span>
            {warningAt(editor, `/choice/priorities/${p}/condition`) && (
              <WarnMark label={warningAt(editor, `/choice/priorities/${p}/condition`)!} />
            )}
            {priorities.length > 1 && (
              <ListButtons
                what={`priority ${p + 1}`}
                index={p}
                count={priorities.length}
                onMove={(by) => set(moved(priorities, p, by), 'priorities in another order')}
                onRemove={() =>
                  set(
                    priorities.filter((_, i) => i !== p),
                    'a priority less',
                  )
                }
              />
            )}
            <AddEntry
              base={base}
              entries={priority.entries}
              p={p}
              onAdd={(attack, name) => change(p, { entries: [...priority.entries, { attack, weight: 1 }] }, `${name} in priority ${p + 1}`)}
            />
          </div>
          <Entries
            editor={editor}
            p={p}
            entries={priority.entries}
            onChange={(entries, what) => change(p, { entries }, what)}
            onLift={(e, to) => {
              const entry = priority.entries[e];
              const next = priorities.map((one, i) => ({
                ...one,
                entries: i === p ? one.entries.filter((_, j) => j !== e) : i === to ? [...one.entries, entry] : one.entries,
              }));
              if (to === priorities.length) next.push({ entries: [entry] });
              set(
                next.filter(({ entries }, i) => entries.length > 0 || i !== p),
                `another priority for ${base.attacks.find(({ id }) => id === entry.attack)?.name ?? entry.attack}`,
              );
            }}
            count={priorities.length}
          />
        </div>
      ))}
      <button type="button" className="link mt-1.5" onClick={() => set([...priorities, { entries: [] }], 'another priority')}>
        add a priority
      </button>
    </div>
  );
});

function dropAbsent<T extends { condition?: unknown }>(value: T): T {
  const next = { ...value };
  if (next.condition === undefined) delete next.condition;
  return next;
}

function AddEntry({ base, entries, p, onAdd }: { base: Unit; entries: Entry[]; p: number; onAdd: (id: string, name: string) => void }) {
  const free = base.attacks.filter(({ id, delivery }) => traitsOf(delivery).chosen && !entries.some(({ attack }) => attack === id));
  if (!free.length) return null;
  return (
    <Popover label={`Add to priority ${p + 1}`} width={200} align="end" trigger={<Mini sign="add" label={`Add to priority ${p + 1}`} />}>
      {(close) => (
        <ul>
          {free.map(({ id, name }) => (
            <li key={id}>
              <button
                type="button"
                className="w-full truncate py-0.5 text-left text-table hover:bg-well"
                onClick={() => (close(), onAdd(id, name))}
              >
                {name}
              </button>
            </li>
          ))}
        </ul>
      )}
    </Popover>
  );
}

interface EntriesProps {
  editor: UnitEditor;
  p: number;
  entries: Entry[];
  onChange: (entries: Entry[], what: string) => void;
  /** Moves an entry into another priority; the count of priorities: into a new one. */
  onLift: (e: number, to: number) => void;
  count: number;
}

function Entries({ editor, p, entries, onChange, onLift, count }: EntriesProps) {
  const { unit, base } = editor;
  const shownEntries = unit.choice.priorities[p]?.entries ?? entries;
  const total = shownEntries.reduce((sum, { weight }) => sum + weight, 0);
  const colour = `var(--e-${unit.colour})`;
  const row = useRef<HTMLDivElement>(null);
  if (!entries.length) return <p className="text-table text-ink-2">Nothing in it yet.</p>;
  return (
    <div ref={row} className="flex gap-1">
      {entries.map((entry, e) => {
        const name = base.attacks.find(({ id }) => id === entry.attack)?.name ?? entry.attack;
        const weight = shownEntries[e]?.weight ?? entry.weight;
        const path = `/choice/priorities/${p}/entries/${e}`;
        const warning = warningAt(editor, path) ?? warningAt(editor, `${path}/weight`) ?? warningAt(editor, `${path}/condition`);
        return (
          <div key={entry.attack} className="relative min-w-[84px]" style={{ flexGrow: Math.max(weight, 0.05 * total), flexBasis: 0 }}>
            <div className="flex items-center border bg-sheet pl-1.5 text-table leading-[20px]">
              <span className="min-w-0 flex-1 truncate" title={name}>
                {name}
              </span>
              {warning && <WarnMark label={warning} />}
              <EntryMenu editor={editor} p={p} e={e} entries={entries} name={name} onChange={onChange} onLift={onLift} count={count} />
            </div>
            {e < entries.length - 1 && (
              <WeightEdge
                label={`${name} weight`}
                weight={weight}
                others={total - weight}
                row={row}
                onMove={(next, mark) => editor.writeEffective(`${path}/weight`, next, mark)}
              />
            )}
            <Outcome unit={unit.id} attack={entry.attack} p={p} e={e} colour={colour} />
            <FieldNumber editor={editor} path={`${path}/weight`} width={72} compact />
            {entry.condition && <p className="mt-0.5 line-clamp-2 text-label text-ink-2">if {conditionSentence(entry.condition)}</p>}
            <OutcomeWords unit={unit.id} attack={entry.attack} p={p} e={e} />
          </div>
        );
      })}
    </div>
  );
}

/** "Chosen 31 %. Range 46, cooldown 17". */
function outcomeWords(share: number | undefined, causes: ReturnType<typeof ruledOut>): string {
  const chosen = share === undefined ? 'Never used' : `Chosen ${Math.round(100 * share)} %`;
  const why = causes
    .filter((cause) => cause.share >= 0.02)
    .slice(0, 3)
    .map((cause) => `${timeUseWords(cause.by)} ${Math.round(100 * cause.share)}`);
  return `${chosen}.${why.length ? ` Idle: ${why.join(', ')}` : ''}`;
}

/** What the last runs say of an entry. Only who asks repaints when they are done. */
function useOutcome(unit: string, attack: string, p: number, e: number) {
  const answer = useAppSelector((state) => state.readout.duel.answer);
  const number = answer?.now.summary.kinds.findIndex(({ id }) => id === unit) ?? -1;
  if (!answer || number < 0) return undefined;
  const uses = answer.now.summary.kinds[number].attacks;
  const use = uses.find(({ id }) => id === attack);
  if (!use) return undefined;
  const starts = uses.reduce((sum, one) => sum + one.starts, 0);
  const looks = answer.now.choice[number]?.[p]?.[e];
  return { use, share: starts ? use.starts / starts : undefined, causes: looks ? ruledOut(looks) : [] };
}

interface OutcomeProps {
  unit: string;
  attack: string;
  p: number;
  e: number;
}

/** Upper half: share of uses; lower: what ruled it out while idle. */
function Outcome({ unit, attack, p, e, colour }: OutcomeProps & { colour: string }) {
  const found = useOutcome(unit, attack, p, e);
  let from = 0;
  return (
    <svg
      width="100%"
      height={11}
      className="mt-[3px]"
      role="img"
      aria-label={found ? outcomeWords(found.share, found.causes) : 'not run yet'}
      preserveAspectRatio="none"
    >
      <rect width="100%" height={5} fill="var(--hair)" />
      <rect width={`${100 * (found?.share ?? 0)}%`} height={5} fill={colour} />
      {found?.causes.map(({ by, share: part }) => {
        const x = from;
        from += part;
        return <rect key={by} x={`${100 * x}%`} y={6} width={`${100 * part}%`} height={5} fill={`var(--r-${by})`} />;
      })}
    </svg>
  );
}

function OutcomeWords(props: OutcomeProps) {
  const found = useOutcome(props.unit, props.attack, props.p, props.e);
  if (!found) return null;
  const { hits, misses, blocked } = found.use;
  return (
    <p
      className="mt-0.5 text-label text-ink-2"
      title={`${hits} hits, ${misses} misses${blocked ? `, ${blocked} stopped by the window` : ''}`}
    >
      {outcomeWords(found.share, found.causes)}
    </p>
  );
}

/** How many uses of all its attacks there were. */
function Uses({ unit }: { unit: string }) {
  const starts = useAppSelector((state) =>
    state.readout.duel.answer?.now.summary.kinds.find(({ id }) => id === unit)?.attacks.reduce((sum, use) => sum + use.starts, 0),
  );
  return <>{starts ? `; ${starts.toLocaleString('en')} uses in the last runs` : ''}</>;
}

interface EdgeProps {
  label: string;
  weight: number;
  others: number;
  row: React.RefObject<HTMLDivElement | null>;
  onMove: (weight: number, mark: string) => void;
}

/** The edge between two entries: dragging it gives its entry another share of the draw. */
function WeightEdge({ label, weight, others, row, onMove }: EdgeProps) {
  const down = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0 || !row.current) return;
    event.preventDefault();
    const handle = event.currentTarget;
    handle.setPointerCapture(event.pointerId);
    const width = row.current.getBoundingClientRect().width;
    const start = event.clientX;
    const share = weight / (weight + others || 1);
    const mark = `weight ${label} ${event.timeStamp}`;
    const move = (e: globalThis.PointerEvent) => {
      const wanted = Math.min(0.95, Math.max(0.02, share + (e.clientX - start) / width));
      onMove(Math.max(0.01, Number(((wanted / (1 - wanted)) * others).toPrecision(2))), mark);
    };
    handle.addEventListener('pointermove', move);
    const end = () => handle.removeEventListener('pointermove', move);
    handle.addEventListener('pointerup', end, { once: true });
    handle.addEventListener('pointercancel', end, { once: true });
  };
  const key = (event: KeyboardEvent) => {
    const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (!way) return;
    event.preventDefault();
    onMove(Math.max(0.01, Number((weight + way * (event.shiftKey ? 10 : event.altKey ? 0.1 : 1)).toFixed(2))), `weight keys ${label}`);
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={weight}
      aria-valuemin={0}
      aria-valuemax={1000}
      aria-valuetext={`${shown(weight)}, ${Math.round((100 * weight) / (weight + others || 1))} % of the draw`}
      className="edge absolute -right-[5px] top-0 z-10 h-[22px] w-[6px]"
      style={{ touchAction: 'none' }}
      onPointerDown={down}
      onKeyDown={key}
    />
  );
}

function EntryMenu({ editor, p, e, entries, name, onChange, onLift, count }: EntriesProps & { e: number; name: string }) {
  const { base, project } = editor;
  const entry = entries[e];
  const change = (more: Partial<Entry>, what: string) =>
    onChange(
      entries.map((one, i) => {
        if (i !== e) return one;
        const next = dropAbsent({ ...one, ...more });
        if (next.targeting === undefined) delete next.targeting;
        return next;
      }),
      what,
    );
  const others = base.attacks.filter(
    ({ id, delivery }) => traitsOf(delivery).chosen && (id === entry.attack || !entries.some(({ attack }) => attack === id)),
  );
  return (
    <Popover
      label={`${name} in priority ${p + 1}`}
      align="end"
      width={420}
      trigger={
        <button type="button" className="mini !w-4" aria-label={`${name} in priority ${p + 1}: more`} title="condition, targeting, place">
          ⋮
        </button>
      }
    >
      {(close) => (
        <div className="flex flex-col gap-2 text-table">
          <div className="flex items-end gap-2">
            <div className="w-[150px]">
              <Choose label="Attack" value={entry.attack} options={others} onChoose={(attack) => change({ attack }, 'another attack')} />
            </div>
            <FieldNumber editor={editor} path={`/choice/priorities/${p}/entries/${e}/weight`} compact width={72} />
            <span className="flex-1" />
            <ListButtons
              what={name}
              index={e}
              count={entries.length}
              onMove={(by) => onChange(moved(entries, e, by), `${name} ${by < 0 ? 'earlier' : 'later'}`)}
              onRemove={() => {
                close();
                onChange(
                  entries.filter((_, i) => i !== e),
                  `${name} not in priority ${p + 1}`,
                );
              }}
            />
          </div>
          <p>
            usable if{' '}
            <ConditionField
              label={`${name} in priority ${p + 1} is usable if`}
              condition={entry.condition}
              unit={base}
              project={project}
              onChange={(condition) => change({ condition }, condition ? `${name} if ${conditionSentence(condition)}` : `${name} always`)}
            />
          </p>
          <div className="flex gap-1">
            {p > 0 && (
              <button type="button" className="btn" onClick={() => (close(), onLift(e, p - 1))}>
                To priority {p}
              </button>
            )}
            <button type="button" className="btn" onClick={() => (close(), onLift(e, p + 1))}>
              To {p + 1 < count ? `priority ${p + 2}` : 'a new priority'}
            </button>
          </div>
          {entry.targeting ? (
            <div>
              <p className="flex items-baseline gap-2 border-t border-hair pt-1">
                <b>Own targeting</b>
                <button type="button" className="link" onClick={() => change({ targeting: undefined }, `${name} at the unit’s target`)}>
                  as the unit targets
                </button>
              </p>
              <TargetingFields editor={editor} at={`/choice/priorities/${p}/entries/${e}/targeting`} />
            </div>
          ) : (
            <button
              type="button"
              className="link self-start"
              onClick={() => change({ targeting: structuredClone(base.targeting) }, `${name} with its own targeting`)}
            >
              own targeting …
            </button>
          )}
        </div>
      )}
    </Popover>
  );
}
