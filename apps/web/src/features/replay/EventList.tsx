import { type Replay, type UnitHead } from '@insidia/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Choose } from '../../fields/Choose';
import { Glyph } from '../../visuals/Glyph';
import { plainSentence } from './sentences';
import { guarded } from '../../parts/guarded';
import { replayTime } from './replayTime';

interface Props {
  replay: Replay;
  heads: ReadonlyMap<string, UnitHead>;
  time: number;
  selected: number | undefined;
  onTime: (seconds: number) => void;
  onSelect: (unit: number | undefined) => void;
}

const FILTERS = {
  all: { name: 'all', fits: () => true },
  unit: { name: 'this unit', fits: () => true },
  hits: { name: 'hits', fits: (event: string) => ['hit', 'tick', 'crush', 'miss', 'blocked', 'exposed', 'death', 'down'].includes(event) },
  waves: {
    name: 'waves',
    fits: (event: string) =>
      ['wave', 'spawn', 'death', 'happening', 'flag', 'counter', 'score', 'stopped', 'end', 'capped'].includes(event),
  },
} as const;

/** Rows kept in the page about the present one; a run has thousands. */
const SHOWN = 120;

/** What happened, in order, in sentences; the present instant marked. */
export const EventList = guarded('The list of events', function EventList({ replay, heads, time, selected, onTime, onSelect }: Props) {
  const [filter, setFilter] = useState<keyof typeof FILTERS>('all');
  const [search, setSearch] = useState('');
  const events = useMemo(
    () =>
      replay.events.filter(
        ({ event, unit, other, sentence }) =>
          FILTERS[filter].fits(event) &&
          (filter !== 'unit' || unit === selected || other === selected) &&
          (search === '' || sentence.toLowerCase().includes(search.toLowerCase())),
      ),
    [replay, filter, selected, search],
  );
  const present = useMemo(() => {
    let [low, high] = [0, events.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (events[middle].time <= time + 1e-6) low = middle + 1;
      else high = middle;
    }
    return low - 1;
  }, [events, time]);
  const from = Math.max(0, Math.min(present - SHOWN / 2, events.length - SHOWN));
  const shown = events.slice(from, from + SHOWN);
  const list = useRef<HTMLUListElement>(null);
  useEffect(() => {
    list.current?.querySelector('[aria-current=true]')?.scrollIntoView({ block: 'center' });
  }, [present, filter]);
  const standing = replay.units.map((unit, number) => ({ id: String(number), name: unit.name }));
  return (
    <aside aria-label="Events" className="flex min-h-0 flex-col border-r bg-well">
      <div className="flex items-baseline px-4 pb-1 pt-3">
        <h2 className="flex-1 text-section">Events</h2>
        <span className="text-label text-ink-3">{events.length.toLocaleString('en')}</span>
      </div>
      <div className="px-4 pb-1" role="radiogroup" aria-label="Which events">
        {(Object.keys(FILTERS) as (keyof typeof FILTERS)[]).map((id) => (
          <button key={id} type="button" role="radio" aria-checked={filter === id} className="switch !px-1.5" onClick={() => setFilter(id)}>
            {FILTERS[id].name}
          </button>
        ))}
      </div>
      <div className="flex gap-1 px-4 pb-2">
        <input
          className="field-box min-w-0 flex-1 text-table"
          aria-label="Search events"
          placeholder="search"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <div className="w-[88px]">
          <Choose
            quiet
            label="Unit"
            value={selected === undefined ? '*' : String(selected)}
            options={[{ id: '*', name: 'a unit …' }, ...standing]}
            onChoose={(id) => onSelect(id === '*' ? undefined : Number(id))}
          />
        </div>
      </div>
      <ul ref={list} className="scroll min-h-0 flex-1 border-t">
        {shown.map((event, i) => {
          const number = event.unit ?? event.other;
          const head = number === undefined ? undefined : heads.get(replay.units[number]?.kind ?? '');
          const on = from + i === present;
          return (
            <li key={from + i} aria-current={on ? 'true' : undefined}>
              <button
                type="button"
                className={`grid w-full grid-cols-[44px_14px_minmax(0,1fr)] items-start gap-1.5 border-b border-hair px-2 py-1 pl-3 text-left text-label leading-[13px] -outline-offset-2 ${on ? 'bg-sheet font-semibold shadow-[inset_3px_0_0_var(--ink)]' : 'hover:bg-sheet/50'}`}
                onClick={() => {
                  onTime(event.time);
                  if (number !== undefined) onSelect(number);
                }}
              >
                <span className="text-ink-3">{replayTime(replay, event.time, 2)}</span>
                <span>{head && <Glyph unit={head} size={12} />}</span>
                <span className="min-w-0 [overflow-wrap:anywhere]">{plainSentence(event.sentence)}</span>
              </button>
            </li>
          );
        })}
        {!events.length && <li className="px-4 py-2 text-table text-ink-3">Nothing of the kind.</li>}
      </ul>
    </aside>
  );
});
