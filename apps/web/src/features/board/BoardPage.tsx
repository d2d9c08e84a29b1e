import {
  type Band,
  type BandMeasure,
  BAND_MEASURES,
  GOAL_MEASURES,
  type Project,
  cellOf,
  columnOf,
  idFor,
  rangeAcross,
  rowRuler,
  VERDICT_WORDS,
  linear,
  STATISTIC_WORDS,
  numberOf,
  unitOf,
} from '@insidia/core';
import { unparse } from 'papaparse';
import { type KeyboardEvent, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useView } from '../../app/view';
import { Choose } from '../../fields/Choose';
import { type Until, api } from '../../store/api';
import { changed } from '../../store/document';
import { saveFile } from '../../store/saveFile';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { CellPicture } from '../../visuals/CellPicture';
import { Glyph } from '../../visuals/Glyph';
import { VerdictMark } from '../../visuals/VerdictMark';
import { useWidth } from '../../visuals/useWidth';
import { CellPanel } from './CellPanel';
import { MeasureList } from './MeasureList';
import { RankingCheck } from './RankingCheck';
import { type HowMany, RunBar } from './RunBar';
import { type Row, type Shown, acrossStyles, askedOf, countsOf, everyCell, judgedOf, rowsOf, shownAt, tiersOf } from './cellsOfBoard';
import { bandAbout } from '../../fields/bandAbout';
import { useCells } from '../../store/useCells';

const AS_IS = 'as-is';
/** In place of a style: all of them side by side. */
const RANGE = 'range';
const NAME_WIDTH = 124;
const FIRST: HowMany = { duel: 400, encounter: 200, until: false, narrower: 5, cap: 3200 };

/** The whole project judged at once: enemies and encounters by tiers, a measure in each cell, against the brief. */
export function BoardPage() {
  const project = useAppSelector((state) => state.document.document);
  return project && <Board project={project} />;
}

function Board({ project }: { project: Project }) {
  const dispatch = useAppDispatch();
  const [view] = useView(project);
  const [search, setSearch] = useSearchParams();
  const saving = useAppSelector((state) => state.document.saving);
  const [howMany, setHowMany] = useState(FIRST);
  const [asTable, setAsTable] = useState(false);
  const [ref, width] = useWidth<HTMLDivElement>(732);
  const measure = BAND_MEASURES.find((key) => key === search.get('measure')) ?? 'timeToKill';
  const style = project.styles.find(({ id }) => id === search.get('style'))?.id;
  const lens = useMemo(() => ({ skill: view.skill, style }), [view.skill, style]);
  const range = search.get('style') === RANGE && project.styles.length > 0;
  const lenses = useMemo(
    () => [lens, ...(range ? project.styles.map(({ id }) => ({ skill: lens.skill, style: id })) : [])],
    [lens, range, project.styles],
  );
  const every = useMemo(() => lenses.flatMap((one) => everyCell(project, one)), [project, lenses]);
  const set = (name: string, value: string | undefined) =>
    setSearch(
      (old) => {
        const next = new URLSearchParams(old);
        if (value === undefined) next.delete(name);
        else next.set(name, value);
        return next;
      },
      { replace: true },
    );
  const tiers = tiersOf(project);
  const rows = useMemo(() => rowsOf(project, measure), [project, measure]);
  const asked = useMemo(() => lenses.flatMap((one) => askedOf(project, measure, one)), [project, measure, lenses]);
  const read = useCells(project.id, asked);
  const judged = useMemo(() => (read ? judgedOf(project, lens, read) : []), [project, lens, read]);
  const counts = useMemo(() => countsOf(judged), [judged]);
  const cells = useMemo(
    () =>
      rows.map((row) =>
        tiers.map(({ id }) => {
          const shown = shownAt(row, id, lens, measure, judged, read);
          return range ? acrossStyles(project, row, id, lens, measure, shown, read) : shown;
        }),
      ),
    [project, rows, tiers, lens, measure, judged, read, range],
  );
  const flat = cells.flat();
  const selected = flat.find(({ key }) => key === search.get('cell')) ?? flat[0];
  const at = Math.max(0, flat.indexOf(selected));
  const row = rows[Math.floor(at / tiers.length)];
  const tierIndex = at % tiers.length;
  const lacking = every.filter((key) => !read?.get(key)?.runs);
  const met = flat.filter(({ verdict }) => verdict === 'met').length;
  const wanted = flat.filter(({ band }) => band).length;
  /** Until what is shown is clear: by its band, where one speaks of the cell, or by its width. */
  const untilOf = (key: string): { until?: Until } => {
    const shown = flat.find((one) => one.key === key);
    if (!howMany.until || !shown) return {};
    const { statistic, band, cell } = shown;
    const column = columnOf(measure, cell.kind === 'duel' ? 'enemy' : 'encounter', cell.id);
    const edges = band && { band: { low: band.low, high: band.high } };
    return { until: { column, statistic, narrower: howMany.narrower / 100, cap: howMany.cap, ...edges } };
  };
  const run = (keys: readonly string[], runs?: number) =>
    void api.runCells(
      project.id,
      keys.map((cell) => ({ cell, runs: runs ?? howMany[cellOf(cell).kind], ...(runs === undefined && untilOf(cell)) })),
    );
  const changeBrief = (name: string, how: (bands: Band[]) => Band[], mark?: string) =>
    dispatch(
      changed({
        document: { ...project, brief: { ...(project.brief ?? { curves: [] }), bands: how(project.brief?.bands ?? []) } },
        name,
        mark,
      }),
    );
  const moveBand = (band: Band, edge: 'low' | 'high', value: number, mark: string) =>
    changeBrief(
      `Band of ${GOAL_MEASURES[band.measure].label}`,
      (bands) =>
        bands.map((one) => {
          if (one.id !== band.id) return one;
          const limit = edge === 'low' ? Math.min(value, one.high ?? Infinity) : Math.max(value, one.low ?? -Infinity);
          return { ...one, [edge]: Number(limit.toPrecision(3)) };
        }),
      mark,
    );
  const addBand = () => {
    if (!selected || !row || !Number.isFinite(selected.estimate.value)) return;
    const { value } = selected.estimate;
    const tier = tiers[tierIndex].id;
    const band: Band = {
      id: idFor(
        `${measure} ${row.id} ${tier ?? ''}`,
        (project.brief?.bands ?? []).map(({ id }) => id),
      ),
      measure,
      scope: row.kind === 'duel' ? 'unit' : 'encounter',
      of: row.id,
      ...(tier && { tier }),
      ...(view.skill && { skill: view.skill }),
      statistic: GOAL_MEASURES[measure].usual,
      ...bandAbout(measure, [value]),
    };
    changeBrief(`Band: ${GOAL_MEASURES[measure].label} of ${row.name}`, (bands) => [...bands, band]);
  };
  const skillName = [
    project.skills.find(({ id }) => id === view.skill)?.name ?? 'as written',
    ...(style ? [project.styles.find(({ id }) => id === style)?.name ?? style] : []),
  ].join(', ');
  const cellWidth = Math.max(96, (width - NAME_WIDTH - 34) / tiers.length);
  const label = GOAL_MEASURES[measure].label;
  return (
    <div className="grid min-h-0 grid-cols-[var(--list-w)_minmax(0,1fr)_var(--readout-w)]">
      <MeasureList measure={measure} counts={counts} onMeasure={(key) => set('measure', key)} />
      <main className="scroll flex min-h-0 min-w-0 flex-col" ref={ref}>
        <header className="flex items-center gap-3 px-4 pb-1.5 pt-2.5">
          <h1 className="text-page">Board</h1>
          <span className="note min-w-0 flex-1 truncate">
            {label}
            {unitOf(measure) && `, ${unitOf(measure)}`}, against the brief; {skillName}
          </span>
          {wanted > 0 && (
            <span className="whitespace-nowrap text-table" data-testid="met">
              <b>{met}</b> of {wanted} met
            </span>
          )}
        </header>
        <div className="flex items-end gap-3 px-4 pb-2">
          <div className="w-[130px]">
            <Choose
              label="Play style"
              value={range ? RANGE : (style ?? AS_IS)}
              options={[
                { id: AS_IS, name: 'as written' },
                ...project.styles.map(({ id, name }) => ({ id, name })),
                ...(project.styles.length ? [{ id: RANGE, name: 'the range across all' }] : []),
              ]}
              onChoose={(id) => set('style', id === AS_IS ? undefined : id)}
            />
          </div>
          <button type="button" className="btn" aria-pressed={asTable} onClick={() => setAsTable(!asTable)}>
            {asTable ? 'As pictures' : 'As a table'}
          </button>
          <button type="button" className="link" onClick={() => saveCsv(project, measure, rows, tiers, cells)}>
            CSV
          </button>
          <span className="flex-1" />
          <RunBar
            project={project.id}
            howMany={howMany}
            onHowMany={setHowMany}
            missing={read ? lacking.length : 0}
            all={every.length}
            onRun={(which) => run(which === 'all' ? every : lacking)}
            unsaved={saving !== 'saved'}
          />
        </div>
        {read ? (
          asTable ? (
            <BoardTable measure={measure} rows={rows} tiers={tiers} cells={cells} />
          ) : (
            <Grid
              rows={rows}
              tiers={tiers}
              cells={cells}
              measure={measure}
              cellWidth={cellWidth}
              selected={at}
              lensTier={view.tier}
              onSelect={(key) => set('cell', key)}
            />
          )
        ) : (
          <p className="px-4 py-6 text-ink-3">Reading what has been run …</p>
        )}
        <span className="flex-1" />
        {read && <RankingCheck project={project} lens={lens} read={read} width={width - 32} />}
      </main>
      {selected && row && (
        <CellPanel
          project={project}
          row={row}
          tier={{ ...tiers[tierIndex], number: tierIndex + 1 }}
          measure={measure}
          cell={selected}
          skillName={skillName}
          onRun={run}
          onBand={moveBand}
          onAddBand={addBand}
        />
      )}
    </div>
  );
}

interface GridProps {
  rows: readonly Row[];
  tiers: readonly { id?: string; name: string }[];
  cells: readonly (readonly Shown[])[];
  measure: BandMeasure;
  cellWidth: number;
  selected: number;
  lensTier?: string;
  onSelect: (key: string) => void;
}

/** Rows by columns; arrow keys move through it, and what is moved to is shown beside. */
function Grid({ rows, tiers, cells, measure, cellWidth, selected, lensTier, onSelect }: GridProps) {
  const grid = useRef<HTMLDivElement>(null);
  const { share } = GOAL_MEASURES[measure];
  const columns = `${NAME_WIDTH}px repeat(${tiers.length}, minmax(0, 1fr))`;
  const move = (event: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: tiers.length, ArrowUp: -tiers.length }[event.key];
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
  const firstEncounter = rows.findIndex(({ kind }) => kind === 'encounter');
  return (
    <div ref={grid} role="grid" aria-label="Board" onKeyDown={move} className="mx-4 border-b">
      <div role="row" className="sticky top-0 z-10 grid border-y bg-paper" style={{ gridTemplateColumns: columns }}>
        <span role="columnheader" className="px-1 text-label leading-5 text-ink-3">
          {firstEncounter === 0 ? 'encounters' : 'enemies, by duel'}
        </span>
        {tiers.map(({ id, name }, t) => (
          <span
            key={id ?? ''}
            role="columnheader"
            className={`flex items-center gap-1.5 border-l border-hair px-1.5 leading-5 ${id === lensTier ? 'font-semibold' : ''}`}
          >
            {id && <span className="tier">{t + 1}</span>}
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
            key={`${row.kind} ${row.id}`}
            role="row"
            className={`grid ${r === firstEncounter && r > 0 ? 'mt-1.5 border-t' : ''}`}
            style={{ gridTemplateColumns: columns }}
          >
            <span role="rowheader" className="flex min-w-0 items-center gap-1.5 border-b border-hair px-1" title={row.name}>
              {row.head && (
                <span className="shrink-0">
                  <Glyph unit={row.head} size={15} />
                </span>
              )}
              <span className="truncate">{row.name}</span>
            </span>
            {own.map((cell, t) => {
              const index = r * tiers.length + t;
              return (
                <div
                  key={cell.key}
                  role="gridcell"
                  tabIndex={index === selected ? 0 : -1}
                  aria-selected={index === selected}
                  aria-label={wordsOf(row, tiers[t].name, measure, cell)}
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
                        <b className="text-table tabular-nums">{numberOf(measure, cell.estimate.value)}</b>
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
                    <span className="text-label text-ink-3">{cell.read?.trouble ? 'can’t be run' : 'not run'}</span>
                  )}
                </div>
              );
            })}
          </div>
        );
      })}
    </div>
  );
}

/** A measure across play styles: a mark a style on the row's ruler, and the least and the most. */
function StyleRange({ cell, measure, from, to, width }: { cell: Shown; measure: BandMeasure; from: number; to: number; width: number }) {
  const styles = cell.styles ?? [];
  const { band } = cell;
  const range = rangeAcross(styles.map(({ value }) => (Number.isNaN(value) ? undefined : value)));
  if (!range) return <span className="text-label text-ink-3">not run</span>;
  const x = linear(from, to, 4, width - 4);
  const clamp = (value: number) => Math.min(Math.max(x(value), 4), width - 4);
  return (
    <>
      <svg width={width} height={30} aria-hidden className="block">
        {band && (
          <rect
            x={clamp(band.low ?? from)}
            y={4}
            width={Math.max(1, clamp(band.high ?? to) - clamp(band.low ?? from))}
            height={22}
            fill="var(--band)"
          />
        )}
        <path d={`M${clamp(range.low)} 15 H${clamp(range.high)}`} stroke="var(--ink-2)" strokeWidth={3} />
        {styles.map(({ id, value }) => (
          <circle key={id} cx={clamp(value)} cy={15} r={3} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={1.3} />
        ))}
      </svg>
      <b className="ml-auto whitespace-nowrap text-label tabular-nums">
        {numberOf(measure, range.low)}–{numberOf(measure, range.high)}
      </b>
    </>
  );
}

function wordsOf(row: Row, tier: string, measure: BandMeasure, { estimate, statistic, verdict, stale, runs, styles }: Shown): string {
  if (styles?.length)
    return `${row.name}, ${tier}, by play style: ${styles.map(({ name, value }) => `${name} ${numberOf(measure, value)}`).join(', ')}`;
  if (!runs) return `${row.name}, ${tier}: not run`;
  const parts = [`${STATISTIC_WORDS[statistic]} ${numberOf(measure, estimate.value)} ${unitOf(measure)}`];
  if (verdict) parts.push(VERDICT_WORDS[verdict]);
  if (stale) parts.push('run before an edit');
  return `${row.name}, ${tier}: ${parts.join(', ')}`;
}

/** The same numbers as a table that can be selected and copied. */
function BoardTable({ measure, rows, tiers, cells }: Pick<GridProps, 'measure' | 'rows' | 'tiers' | 'cells'>) {
  return (
    <table className="mx-4 text-table" aria-label="Board as a table">
      <thead>
        <tr className="border-y text-left">
          <th className="font-normal text-ink-3">{unitOf(measure)}</th>
          {tiers.map(({ id, name }) => (
            <th key={id ?? ''} colSpan={3} className="border-l border-hair px-2">
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, r) => (
          <tr key={`${row.kind} ${row.id}`} className="border-b border-hair">
            <th className="pr-3 text-left font-normal">{row.name}</th>
            {cells[r].map((cell) => [
              <td key={`${cell.key} value`} className="border-l border-hair px-2 text-right font-semibold">
                {numberOf(measure, cell.estimate.value)}
              </td>,
              <td key={`${cell.key} interval`} className="px-1 text-right text-ink-3">
                {cell.runs ? `${numberOf(measure, cell.estimate.low)}–${numberOf(measure, cell.estimate.high)}` : ''}
              </td>,
              <td key={`${cell.key} verdict`} className="px-1">
                {cell.stale ? 'stale' : cell.verdict ? VERDICT_WORDS[cell.verdict] : ''}
              </td>,
            ])}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function saveCsv(project: Project, measure: BandMeasure, rows: readonly Row[], tiers: GridProps['tiers'], cells: GridProps['cells']): void {
  const lines = rows.flatMap((row, r) =>
    cells[r].map(({ estimate: { value, low, high }, statistic, runs, band, verdict, stale }, t) => ({
      of: row.name,
      by: row.kind,
      tier: tiers[t].name,
      measure,
      statistic,
      runs,
      value,
      low,
      high,
      'wanted low': band?.low,
      'wanted high': band?.high,
      verdict: stale ? 'stale' : verdict,
    })),
  );
  saveFile(`${project.id}-${measure}.csv`, unparse(lines), 'text/csv');
}
