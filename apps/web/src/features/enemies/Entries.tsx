import { ruledOut, shown } from '@insidia/core';
import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import { drag } from '../../fields/drag';
import { useNewest } from '../../fields/useNewest';
import { FieldNumber, warningAt } from '../../fields/FieldNumber';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { useAppSelector } from '../../store/store';
import { conditionSentence } from '@insidia/core';
import { useClockInView } from '../../fields/clock';
import { WarnMark } from '../../visuals/WarnMark';
import { type Entry, outcomeWords, weightAfter, weightStepped } from './choiceEdits';
import { EntryMenu } from './EntryMenu';

export interface EntriesProps {
  editor: UnitEditor;
  p: number;
  entries: Entry[];
  onChange: (entries: Entry[], what: string) => void;
  /** Moves an entry into another priority; the count of priorities: into a new one. */
  onLift: (e: number, to: number) => void;
  count: number;
}

/** The entries of a priority as wide as their weights, and what came of each. */
export function Entries({ editor, p, entries, onChange, onLift, count }: EntriesProps) {
  const { unit, base } = editor;
  const shownEntries = unit.choice.priorities[p]?.entries ?? entries;
  const total = shownEntries.reduce((sum, { weight }) => sum + weight, 0);
  const colour = `var(--e-${unit.colour})`;
  const row = useRef<HTMLDivElement>(null);
  const clock = useClockInView();
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
            {entry.condition && <p className="mt-0.5 line-clamp-2 text-label text-ink-2">if {conditionSentence(entry.condition, clock)}</p>}
            <OutcomeWords unit={unit.id} attack={entry.attack} p={p} e={e} />
          </div>
        );
      })}
    </div>
  );
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

interface EdgeProps {
  label: string;
  weight: number;
  others: number;
  row: React.RefObject<HTMLDivElement | null>;
  onMove: (weight: number, mark: string) => void;
}

/** The edge between two entries: dragging it gives its entry another share of the draw. */
function WeightEdge({ label, weight, others, row, onMove }: EdgeProps) {
  const newest = useNewest(onMove);
  const down = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0 || !row.current) return;
    event.preventDefault();
    const width = row.current.getBoundingClientRect().width;
    const start = event.clientX;
    const mark = `weight ${label} ${event.timeStamp}`;
    drag(event, (e) => newest.current(weightAfter(weight, others, (e.clientX - start) / width), mark));
  };
  const key = (event: KeyboardEvent) => {
    const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (!way) return;
    event.preventDefault();
    onMove(weightStepped(weight, way, event), `weight keys ${label}`);
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
