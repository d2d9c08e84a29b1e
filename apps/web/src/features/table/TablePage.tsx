import { type Clock, type Project, type Unit, shown } from '@insidia/core';
import { type ClipboardEvent, type KeyboardEvent, useMemo, useRef, useState } from 'react';
import { Link, useLocation, useParams } from 'react-router';
import { useView } from '../../app/view';
import { infoAt } from '../../fields/edits';
import { NumberField } from '../../fields/NumberField';
import { Popover } from '../../fields/Popover';
import { changed, movedWords } from '../../store/document';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { Glyph } from '../../visuals/Glyph';
import { CellInput } from './CellInput';
import { ColumnChoice } from './ColumnChoice';
import { FIRST_COLUMNS, clockOfSide, columnsOf, exampleOf } from './columns';
import { type Area, bounds, fromText, holds, numberIn, toText } from './grid';
import { Head } from './Head';
import {
  areaAt,
  type Cell,
  cellsWords,
  countCells,
  deedOf,
  filledCells,
  filledDown,
  multiplied,
  nextSort,
  pastedCells,
  rowsOf,
  type Sort,
  writtenCells,
} from './rows';

/** Columns that somebody chose, for fights in seconds and in turns. */
const columnsKey = (clock: Clock) => (clock === 'rounds' ? 'insidia.columns-in-turns' : 'insidia.columns');

/** Every unit of a side as a row: numbers to be selected, pasted, filled and multiplied. */
export function TablePage() {
  const project = useAppSelector((state) => state.document.document);
  const { side } = useParams();
  return project && <Table key={side} project={project} side={side === 'party' ? 'party' : 'enemy'} />;
}

function Table({ project, side }: { project: Project; side: Unit['side'] }) {
  const { search } = useLocation();
  const dispatch = useAppDispatch();
  const [view] = useView(project);
  const clock = useMemo(() => clockOfSide(project, side), [project, side]);
  const [own, setOwn] = useState<{ clock: Clock; columns: readonly string[] }>();
  const chosen = useMemo(() => (own?.clock === clock ? own.columns : recall(clock)) ?? FIRST_COLUMNS[clock], [own, clock]);
  const setChosen = (columns: readonly string[]) => {
    localStorage.setItem(columnsKey(clock), JSON.stringify(columns));
    setOwn({ clock, columns });
  };
  const [sort, setSort] = useState<Sort | null>(null);
  const [filter, setFilter] = useState('');
  const [area, setArea] = useState<Area>({ row: 0, column: 0, toRow: 0, toColumn: 0 });
  const [editing, setEditing] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [factor, setFactor] = useState(1.25);
  const grid = useRef<HTMLDivElement>(null);
  const all = useMemo(() => columnsOf(project, side), [project, side]);
  const columns = useMemo(() => chosen.flatMap((id) => all.find((column) => column.id === id) ?? []), [all, chosen]);
  const tier = view.edit === 'tier' ? view.tier : undefined;
  const lens = useMemo(() => ({ tier: view.tier, skill: view.skill }), [view.tier, view.skill]);
  const rows = useMemo(
    () => rowsOf(project, columns, { side, filter, sort, lens, tier }),
    [project, columns, side, filter, sort, lens, tier],
  );
  const focus = (row: number, column: number) => document.getElementById(`cell-${row}-${column}`)?.focus();

  /** Writes many cells as one change, or none of them. */
  const write = (cells: readonly Cell[], name: string) => {
    const result = writtenCells(project, rows, columns, cells, tier);
    setTrouble('trouble' in result ? result.trouble : null);
    if ('document' in result && result.document !== project) dispatch(changed({ document: result.document, name }));
  };
  const filled = () => filledCells(rows, columns.length, area);
  const multiply = () => write(multiplied(rows, filled(), factor), `${cellsWords(filled().length)} × ${shown(factor)}`);
  const fillDown = () => {
    const cells = filledDown(rows, filled(), area);
    write(cells, `${cellsWords(cells.length)} filled down`);
  };
  const copy = (event: ClipboardEvent) => {
    if (editing !== null) return;
    event.preventDefault();
    const { top, left, bottom, right } = bounds(area);
    event.clipboardData.setData(
      'text/plain',
      toText(rows.slice(top, bottom + 1).map(({ cells }) => cells.slice(left, right + 1).map(({ value }) => value))),
    );
  };
  const paste = (event: ClipboardEvent) => {
    if (editing !== null) return;
    event.preventDefault();
    const found = pastedCells(fromText(event.clipboardData.getData('text/plain')), area, rows, columns);
    if ('trouble' in found) return setTrouble(found.trouble);
    write(found.cells, `${cellsWords(found.cells.length)} pasted`);
  };
  const commit = (text: string) => {
    setEditing(null);
    const value = numberIn(text);
    if (text.trim() === '') return;
    if (value === undefined) return setTrouble(`“${text}” is not a number`);
    const { row, column } = area;
    write(
      [{ row, column, value }],
      movedWords({
        what: `${rows[row].head.name} ${columns[column].label.toLowerCase()}`,
        from: shown(rows[row].cells[column].value ?? 0),
        to: shown(value),
      }),
    );
  };
  const go = (row: number, column: number, stretch: boolean) => {
    const next = areaAt(area, row, column, rows.length, columns.length, stretch);
    setArea(next);
    focus(next.toRow, next.toColumn);
  };
  const keys = (event: KeyboardEvent) => {
    if (editing !== null) return;
    const deed = deedOf(event);
    if (deed === undefined) return;
    event.preventDefault();
    if (deed === 'fillDown') fillDown();
    else if (deed === 'all') setArea({ row: 0, column: 0, toRow: rows.length - 1, toColumn: columns.length - 1 });
    else if ('begin' in deed) begin(deed.begin);
    else go(area.toRow + deed.go[0], area.toColumn + deed.go[1], event.shiftKey);
  };
  const begin = (typed: string) => {
    const { row, column } = area;
    const cell = rows[row]?.cells[column];
    if (!cell?.path) return;
    setTrouble(null);
    setEditing(typed || String(cell.value));
  };
  const section = side === 'enemy' ? 'enemies' : 'party';
  const template = `minmax(150px, 1.6fr) 90px repeat(${columns.length}, minmax(64px, 1fr))`;
  return (
    <main className="flex min-h-0 flex-col px-4 pt-2" aria-label="Table">
      <div className="flex items-center gap-2">
        <h1 className="text-page">{side === 'enemy' ? 'Enemies' : 'Party'} as a table</h1>
        <span className="note min-w-0 flex-1 truncate">
          {tier
            ? `values at ${project.tiers.find(({ id }) => id === tier)?.name}; what you write becomes that tier’s own`
            : 'values as written; a line under a number says that the tier or skill viewed as changes it'}
        </span>
        <Link className="btn" to={{ pathname: `/projects/${project.id}/${section}`, search }}>
          Back to the bench
        </Link>
      </div>
      <div className="mt-2 flex items-center gap-2" role="toolbar" aria-label="Table">
        <input
          className="field-box w-[160px]"
          aria-label="Filter by name or role"
          placeholder="filter"
          value={filter}
          onChange={(event) => setFilter(event.target.value)}
        />
        <Popover
          label="Columns"
          width={320}
          trigger={
            <button type="button" className="btn">
              Columns …
            </button>
          }
        >
          <ColumnChoice all={all} chosen={chosen} first={FIRST_COLUMNS[clock]} onChange={setChosen} />
        </Popover>
        <button type="button" className="btn" onClick={() => (fillDown(), focus(area.toRow, area.toColumn))} title="Ctrl D">
          Fill down
        </button>
        <span className="flex items-center gap-1">
          <button type="button" className="btn" onClick={() => (multiply(), focus(area.toRow, area.toColumn))}>
            Multiply by
          </button>
          <NumberField
            bare
            compact
            info={{ label: 'Factor', unit: '', min: -1000, max: 1000, about: 'what the selected cells are multiplied by' }}
            base={factor}
            width={64}
            onCommit={setFactor}
          />
        </span>
        <span className="note">
          {cellsWords(countCells(rows.length, columns.length, area))} selected; copy and paste as in a spreadsheet, type to change, Shift
          stretches
        </span>
      </div>
      {trouble && (
        <p role="alert" className="mt-2 border-l-[3px] border-warn bg-warn-wash px-2.5 py-1 text-table">
          {trouble}
        </p>
      )}
      <div className="scroll mt-2 min-h-0 flex-1 border-t" tabIndex={-1}>
        <div
          ref={grid}
          role="grid"
          aria-label={side === 'enemy' ? 'Enemies' : 'Party'}
          aria-multiselectable
          aria-rowcount={rows.length + 1}
          aria-colcount={columns.length + 2}
          className="min-w-fit text-table"
          onKeyDown={keys}
          onCopy={copy}
          onPaste={paste}
        >
          <div
            role="row"
            aria-rowindex={1}
            className="sticky top-0 z-10 grid border-b border-ink bg-paper"
            style={{ gridTemplateColumns: template }}
          >
            <Head label="Name" sorted={sort?.by === 'name' ? sort.down : undefined} onSort={() => setSort(nextSort(sort, 'name'))} />
            <span role="columnheader" className="py-1 text-label text-ink-3">
              role
            </span>
            {columns.map((column) => (
              <Head
                key={column.id}
                right
                label={column.label}
                unit={infoAt(exampleOf(column.id))?.unit}
                sorted={sort?.by === column.id ? sort.down : undefined}
                onSort={() => setSort(nextSort(sort, column.id))}
              />
            ))}
          </div>
          {rows.map(({ head, cells }, r) => (
            <div
              key={head.id}
              role="row"
              aria-rowindex={r + 2}
              className="grid border-b border-hair"
              style={{ gridTemplateColumns: template }}
            >
              <span role="rowheader" className="flex h-7 min-w-0 items-center gap-1.5">
                <Glyph unit={head} size={14} />
                <Link
                  className="truncate hover:underline"
                  title={head.name}
                  to={{ pathname: `/projects/${project.id}/${section}/${head.id}`, search }}
                >
                  {head.name}
                </Link>
              </span>
              <span role="gridcell" className="truncate leading-7 text-ink-3">
                {head.role}
              </span>
              {cells.map((cell, c) => {
                const active = area.toRow === r && area.toColumn === c;
                const on = holds(area, r, c);
                const open = editing !== null && area.row === r && area.column === c;
                return (
                  <div
                    key={columns[c].id}
                    id={`cell-${r}-${c}`}
                    role="gridcell"
                    aria-colindex={c + 3}
                    aria-selected={on}
                    tabIndex={active ? 0 : -1}
                    title={cell.chain}
                    onMouseDown={(event) => {
                      if (open || event.button !== 0) return;
                      event.preventDefault();
                      setEditing(null);
                      go(r, c, event.shiftKey);
                    }}
                    onMouseEnter={(event) => event.buttons === 1 && editing === null && setArea({ ...area, toRow: r, toColumn: c })}
                    onDoubleClick={() => begin('')}
                    className={`h-7 px-1.5 text-right leading-7 -outline-offset-2 ${on ? 'bg-well' : ''} ${cell.path ? '' : 'text-ghost'}`}
                  >
                    {open ? (
                      <CellInput
                        label={`${head.name} ${columns[c].label}`}
                        text={editing}
                        onCommit={commit}
                        onLeave={() => (setEditing(null), focus(r, c))}
                        onGo={(down, right) => go(r + down, c + right, false)}
                      />
                    ) : (
                      <span className={cell.through ? 'border-b border-ink-2' : ''}>
                        {cell.value === undefined ? '—' : shown(cell.value)}
                      </span>
                    )}
                  </div>
                );
              })}
            </div>
          ))}
          {!rows.length && <p className="py-3 text-ink-2">Nobody like that.</p>}
        </div>
      </div>
    </main>
  );
}

function recall(clock: Clock): string[] | undefined {
  try {
    const kept = JSON.parse(localStorage.getItem(columnsKey(clock)) ?? 'null') as unknown;
    return Array.isArray(kept) && kept.length ? kept.filter((id): id is string => typeof id === 'string') : undefined;
  } catch {
    return undefined;
  }
}
