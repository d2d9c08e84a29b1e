import {
  type BandMeasure,
  type BoardColumn,
  type BoardRow,
  GOAL_MEASURES,
  STATISTIC_WORDS,
  type Shown,
  VERDICT_WORDS,
  numberOf,
  rangeAcross,
  rowRuler,
  stylesPicture,
  unitOf,
} from '@insidia/core';
import { type KeyboardEvent, useRef } from 'react';
import { CellPicture } from '../../visuals/CellPicture';
import { Shapes } from '../../visuals/Shapes';
import { Glyph } from '../../visuals/Glyph';
import { VerdictMark } from '../../visuals/VerdictMark';
import { guarded } from '../../parts/guarded';
import { rowUnits } from './rowUnits';

export interface BoardParts {
  rows: readonly BoardRow[];
  columns: readonly BoardColumn[];
  cells: readonly (readonly Shown[])[];
  measure: BandMeasure;
}

interface Props extends BoardParts {
  /** px */
  names: number;
  cellWidth: number;
  selected: number;
  lensTier?: string;
  trouble: (cell: Shown) => string | undefined;
  onSelect: (key: string) => void;
}

/** Rows by columns; arrow keys move through it, and what is moved to is shown beside. */
export const Grid = guarded(
  'The board',
  function Grid({ rows, columns, cells, measure, names, cellWidth, selected, lensTier, trouble, onSelect }: Props) {
    const grid = useRef<HTMLDivElement>(null);
    const { share } = GOAL_MEASURES[measure];
    const units = rowUnits(measure, rows);
    const widths = `${names}px repeat(${columns.length}, minmax(0, 1fr))`;
    const move = (event: KeyboardEvent) => {
      const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: columns.length, ArrowUp: -columns.length }[event.key];
      const flat = cells.flat();
      const own = [...(grid.current?.querySelectorAll<HTMLElement>('[role=gridcell]') ?? [])];
      // From where the focus is: a key may come before the last move has been drawn.
      const from = own.findIndex((one) => one === document.activeElement);
      const to =
        event.key === 'Home' ? 0 : event.key === 'End' ? flat.length - 1 : by === undefined ? undefined : (from < 0 ? selected : from) + by;
      if (to === undefined) return;
      event.preventDefault();
      if (to < 0 || to >= flat.length) return;
      onSelect(flat[to].key);
      own[to]?.focus();
    };
    const firstEncounter = rows.findIndex(({ subject }) => subject !== 'enemy');
    return (
      <div ref={grid} role="grid" aria-label="Board" onKeyDown={move} className="mx-4 border-b">
        <div role="row" className="sticky top-0 z-10 grid border-y bg-paper" style={{ gridTemplateColumns: widths }}>
          <span role="columnheader" className="px-1 text-label leading-5 text-ink-3">
            {firstEncounter === 0 ? (rows[0].subject === 'wave' ? 'waves' : 'encounters') : 'enemies, by duel'}
          </span>
          {columns.map(({ key, name, number, at }) => (
            <span
              key={key}
              role="columnheader"
              className={`flex items-center gap-1.5 border-l border-hair px-1.5 leading-5 ${at.tier !== undefined && at.tier === lensTier ? 'font-semibold' : ''}`}
            >
              {number && <span className="tier">{number}</span>}
              <span className="truncate">{name}</span>
            </span>
          ))}
        </div>
        {rows.map((row, r) => {
          const own = cells[r];
          const { from, to } = rowRuler(
            own.map(({ values, styles }) => (styles ? styles.map(({ value }) => value) : values)),
            own.map(({ band }) => band),
            share ?? false,
          );
          return (
            <div
              key={`${row.subject} ${row.id} ${row.wave ?? ''}`}
              role="row"
              className={`grid ${r === firstEncounter && r > 0 ? 'mt-1.5 border-t' : ''}`}
              style={{ gridTemplateColumns: widths }}
            >
              <span role="rowheader" className="flex min-w-0 items-center gap-1.5 border-b border-hair px-1" title={row.name}>
                {row.head && (
                  <span className="shrink-0">
                    <Glyph unit={row.head} size={15} />
                  </span>
                )}
                <span className="truncate">{row.name}</span>
                {units.beside(row) && <span className="ml-auto shrink-0 text-label text-ink-3">{units.beside(row)}</span>}
              </span>
              {own.map((cell, t) => {
                const index = r * columns.length + t;
                return (
                  <div
                    key={cell.key}
                    role="gridcell"
                    tabIndex={index === selected ? 0 : -1}
                    aria-selected={index === selected}
                    aria-label={wordsOf(row, columns[t].name, measure, cell)}
                    data-cell={cell.key}
                    data-state={cell.stale ? 'stale' : cell.runs ? 'fresh' : 'none'}
                    data-verdict={cell.verdict}
                    onClick={() => onSelect(cell.key)}
                    className={`relative flex h-[34px] cursor-pointer items-center gap-1 border-b border-l border-hair px-1 ${index === selected ? 'outline-2 -outline-offset-2 outline-ink' : ''} ${cell.stale ? 'opacity-50' : ''}`}
                  >
                    {cell.styles ? (
                      <StyleRange cell={cell} measure={measure} from={from} to={to} width={Math.max(40, cellWidth - 74)} />
                    ) : cell.values.length ? (
                      <>
                        <CellPicture
                          values={cell.values}
                          estimate={cell.estimate}
                          share={share ?? false}
                          band={cell.band}
                          verdict={cell.verdict}
                          from={from}
                          to={to}
                          width={Math.max(40, cellWidth - 62)}
                          height={30}
                        />
                        <span className="ml-auto flex flex-col items-end leading-[14px]">
                          <b className="text-table tabular-nums">{numberOf(measure, cell.estimate.value, cell.clock)}</b>
                          {cell.verdict && (
                            <span className="flex items-center gap-0.5 text-label text-warn">
                              {cell.verdict === 'missedLow' ? 'low' : cell.verdict === 'missedHigh' ? 'high' : ''}
                              <VerdictMark verdict={cell.verdict} size={11} />
                            </span>
                          )}
                          {cell.stale && <span className="text-label text-ink-3">stale</span>}
                        </span>
                      </>
                    ) : (
                      <span className="text-label text-ink-3">{trouble(cell) ? 'can’t be run' : 'not run'}</span>
                    )}
                  </div>
                );
              })}
            </div>
          );
        })}
      </div>
    );
  },
);

/** A measure across play styles: a mark a style on the row's ruler, and the least and the most. */
function StyleRange({ cell, measure, from, to, width }: { cell: Shown; measure: BandMeasure; from: number; to: number; width: number }) {
  const styles = cell.styles ?? [];
  const range = rangeAcross(styles.map(({ value }) => (Number.isNaN(value) ? undefined : value)));
  if (!range) return <span className="text-label text-ink-3">not run</span>;
  return (
    <>
      <svg width={width} height={30} aria-hidden className="block">
        <Shapes shapes={stylesPicture(cell, { from, to, width })} />
      </svg>
      <b className="ml-auto whitespace-nowrap text-label tabular-nums">
        {numberOf(measure, range.low, cell.clock)}–{numberOf(measure, range.high, cell.clock)}
      </b>
    </>
  );
}

function wordsOf(
  row: BoardRow,
  tier: string,
  measure: BandMeasure,
  { estimate, statistic, verdict, stale, runs, styles, clock }: Shown,
): string {
  if (styles?.length)
    return `${row.name}, ${tier}, by play style: ${styles.map(({ name, value }) => `${name} ${numberOf(measure, value, clock)}`).join(', ')}`;
  if (!runs) return `${row.name}, ${tier}: not run`;
  const parts = [`${STATISTIC_WORDS[statistic]} ${numberOf(measure, estimate.value, clock)} ${unitOf(measure, clock)}`];
  if (verdict) parts.push(VERDICT_WORDS[verdict]);
  if (stale) parts.push('run before an edit');
  return `${row.name}, ${tier}: ${parts.join(', ')}`;
}
