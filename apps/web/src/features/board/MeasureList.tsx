import {
  BAND_MEASURES,
  type BandMeasure,
  type Clock,
  GOAL_MEASURES,
  commonClock,
  goalIn,
  type Verdict,
  isTold,
  VERDICT_WORDS,
  STATISTIC_WORDS,
  unitOf,
} from '@insidia/core';
import { useRef } from 'react';
import { READING } from '../../server/useCells';
import { VerdictMark } from '../../visuals/VerdictMark';

interface Props {
  /** What the fights of the board go by. */
  clocks: readonly Clock[];
  measure: BandMeasure;
  counts: ReadonlyMap<BandMeasure, Record<Verdict, number>>;
  /** It is known how the goals stand. */
  known: boolean;
  /** Goals of the brief, wherever. */
  goals: number;
  /** Where most of them are seen, if none is seen here. */
  seenAt?: { words: string; look: () => void };
  onMeasure: (measure: BandMeasure) => void;
}

const WIDTH = 176;

/** The measures: those of the brief first, with how many of their goals are met; and how a cell reads. */
export function MeasureList({ clocks, measure, counts, known, goals, seenAt, onMeasure }: Props) {
  const offered = BAND_MEASURES.filter((key) => clocks.some((clock) => isTold(key, clock)));
  const inBrief = offered.filter((key) => counts.has(key));
  const others = offered.filter((key) => !counts.has(key));
  const clock = commonClock(clocks);
  const list = useRef<HTMLElement>(null);
  return (
    <nav
      ref={list}
      tabIndex={-1}
      aria-label="Measures"
      className="scroll outline-none scroll-pb-[180px] flex min-h-0 flex-col border-r bg-well"
    >
      <div className="section-head shrink-0 border-b px-4 py-2.5">
        <h3>Measures</h3>
        <span className="flex-1" />
        <span className="text-label text-ink-3">{inBrief.length ? 'in the brief' : ''}</span>
      </div>
      {inBrief.map((key) => (
        <MeasureItem key={key} id={key} clock={clock} on={key === measure} counts={counts.get(key)} onChoose={() => onMeasure(key)} />
      ))}
      <p className="shrink-0 px-4 pb-0.5 pt-2 text-label text-ink-3">
        {inBrief.length ? 'not in the brief' : noneWords(known, goals)}
        {known && !inBrief.length && seenAt && (
          <button
            type="button"
            className="link ml-1"
            onClick={() => {
              // It goes away with what it says: the next key begins at the goals it led to.
              list.current?.focus();
              seenAt.look();
            }}
          >
            {seenAt.words}
          </button>
        )}
      </p>
      {others.map((key) => (
        <MeasureItem key={key} id={key} clock={clock} on={key === measure} onChoose={() => onMeasure(key)} />
      ))}
      <section className="sticky bottom-0 mt-auto shrink-0 border-t bg-well px-4 py-2" aria-label="How a cell reads">
        <b className="text-table">How a cell reads</b>
        <ul className="mt-1 text-table">
          {(Object.keys(VERDICT_WORDS) as Verdict[]).map((verdict) => (
            <li key={verdict} className="flex items-center gap-2 leading-5">
              <VerdictMark verdict={verdict} />
              {VERDICT_WORDS[verdict]}
            </li>
          ))}
        </ul>
        <p className="mt-1 text-label leading-[13px] text-ink-3">
          The bracket is what is wanted, the shape every run, the mark the median (or what the band asks for). Paler: run before an edit.
        </p>
      </section>
    </nav>
  );
}

/** Why no measure is one of the brief's. */
function noneWords(known: boolean, goals: number): string {
  if (!goals) return 'The brief has no goal yet.';
  if (!known) return READING;
  return goals === 1 ? 'The brief’s one goal does not speak of this.' : `None of the brief’s ${goals} goals speaks of this.`;
}

function MeasureItem({
  id,
  clock,
  on,
  counts,
  onChoose,
}: {
  id: BandMeasure;
  clock: Clock;
  on: boolean;
  counts?: Record<Verdict, number>;
  onChoose: () => void;
}) {
  const { usual } = GOAL_MEASURES[id];
  const { label, about } = goalIn(id, clock);
  const total = counts ? Object.values(counts).reduce((a, b) => a + b, 0) : 0;
  const unit = unitOf(id, clock);
  return (
    <button
      type="button"
      aria-current={on ? 'page' : undefined}
      title={about}
      onClick={onChoose}
      className={`block w-full shrink-0 border-b border-hair px-4 text-left ${on ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]' : ''} ${counts ? 'py-1.5' : 'py-1'}`}
    >
      <span className="flex items-baseline gap-2 leading-4">
        <span className={`min-w-0 flex-1 truncate ${on ? 'font-semibold' : ''}`}>{label.charAt(0).toUpperCase() + label.slice(1)}</span>
        {counts && (
          <span className="text-label text-ink-3">
            <b className="text-ink">{counts.met}</b> of {total}
          </span>
        )}
      </span>
      {counts && (
        <>
          <span className="block text-label leading-[13px] text-ink-3">{[unit, STATISTIC_WORDS[usual]].filter(Boolean).join(', ')}</span>
          <Bar counts={counts} total={total} />
        </>
      )}
    </button>
  );
}

/** Met, missed low, missed high and undecided as stretches, told by their ends: points to the left and right are misses. */
function Bar({ counts, total }: { counts: Record<Verdict, number>; total: number }) {
  const gap = 1;
  const span = (n: number) => (n / total) * (WIDTH - 3 * gap);
  let at = 0;
  const next = (n: number) => {
    const from = at;
    if (n) at += span(n) + gap;
    return { from, width: span(n) };
  };
  const met = next(counts.met);
  const low = next(counts.missedLow);
  const high = next(counts.missedHigh);
  const open = next(counts.undecided);
  const tip = (width: number) => Math.min(4, width);
  return (
    <svg width={WIDTH} height={6} className="mt-[3px] block" aria-hidden>
      {counts.met > 0 && <rect x={met.from} width={met.width} height={6} fill="var(--met)" />}
      {counts.missedLow > 0 && (
        <path d={`M${low.from} 3 l${tip(low.width)} -3 H${low.from + low.width} V6 H${low.from + tip(low.width)}Z`} fill="var(--miss)" />
      )}
      {counts.missedHigh > 0 && (
        <path
          d={`M${high.from} 0 H${high.from + high.width - tip(high.width)} L${high.from + high.width} 3 L${high.from + high.width - tip(high.width)} 6 H${high.from}Z`}
          fill="var(--miss)"
        />
      )}
      {counts.undecided > 0 && (
        <path d={`M${open.from} 3 H${open.from + open.width}`} stroke="var(--open)" strokeWidth={3} strokeDasharray="1.6 1.6" />
      )}
    </svg>
  );
}
