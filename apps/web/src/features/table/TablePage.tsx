import {
  type Project,
  type Unit,
  type UnitHead,
  chainSentence,
  editUnit,
  effectiveUnit,
  setAt,
  unitHeads,
  valueAt,
  writtenUnit,
  shown,
} from '@insidia/core';
import { type ClipboardEvent, type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useLocation, useParams } from 'react-router';
import { useView } from '../../app/view';
import { NumberField } from '../../fields/NumberField';
import { Popover } from '../../fields/Popover';
import { YesNo } from '../../fields/YesNo';
import { infoAt, setThroughTier } from '../../fields/edits';
import { limitBroken, tidy } from '../../fields/number';
import { changed, movedWords } from '../../store/document';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { Glyph } from '../../visuals/Glyph';
import { type Column, FIRST_COLUMNS, columnsOf } from './columns';
import { type Area, bounds, fromText, holds, numberIn, placed, toText } from './grid';

const columnsKey = 'insidia.columns';

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
  const [chosen, setChosen] = useState<string[]>(() => recall() ?? FIRST_COLUMNS);
  const [sort, setSort] = useState<{ by: string; down: boolean } | null>(null);
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
  const rows = useMemo(() => {
    const found = unitHeads(project)
      .filter((head) => head.side === side && `${head.name} ${head.role}`.toLowerCase().includes(filter.toLowerCase()))
      .map((head) => rowOf(project, head, columns, lens, tier !== undefined));
    if (!sort) return found;
    const at = columns.findIndex(({ id }) => id === sort.by);
    const value = (row: Row) => (at < 0 ? row.head.name : (row.cells[at].value ?? Infinity));
    return [...found].sort((a, b) => (value(a) < value(b) ? -1 : value(a) > value(b) ? 1 : 0) * (sort.down ? -1 : 1));
  }, [project, side, filter, columns, lens, sort, tier]);
  const focus = (row: number, column: number) => document.getElementById(`cell-${row}-${column}`)?.focus();
  useEffect(() => {
    localStorage.setItem(columnsKey, JSON.stringify(chosen));
  }, [chosen]);

  /** Writes many cells as one change, or none of them. */
  const write = (cells: { row: number; column: number; value: number }[], name: string) => {
    const broken: string[] = [];
    let document = project;
    for (const { row, column, value } of cells) {
      const { head, cells: own } = rows[row];
      const path = own[column].path;
      if (!path) continue;
      const problem = limitBroken(value, infoAt(path)!);
      if (problem) broken.push(`${head.name}, ${columns[column].label}: ${shown(value)} must be ${problem}`);
      else if (own[column].value !== value)
        document = tier
          ? setThroughTier(document, tier, head.id, path, value).document
          : editUnit(document, head.id, (unit) => setAt(unit, path, value));
    }
    setTrouble(
      broken.length
        ? `Nothing was changed. ${broken.slice(0, 3).join('; ')}${broken.length > 3 ? ` and ${broken.length - 3} more` : ''}`
        : null,
    );
    if (!broken.length && document !== project) dispatch(changed({ document, name }));
  };
  const selected = () => {
    const { top, left, bottom, right } = bounds(area);
    const cells: { row: number; column: number; value: number | undefined }[] = [];
    for (let row = top; row <= Math.min(bottom, rows.length - 1); row++)
      for (let column = left; column <= Math.min(right, columns.length - 1); column++)
        cells.push({ row, column, value: rows[row].cells[column].value });
    return cells;
  };
  const filled = () => selected().filter((cell): cell is { row: number; column: number; value: number } => cell.value !== undefined);
  const multiply = () =>
    write(
      filled().map((cell) => {
        const path = rows[cell.row].cells[cell.column].path!;
        const product = tidy(cell.value * factor);
        return { ...cell, value: infoAt(path)?.whole ? Math.round(product) : product };
      }),
      `${words(filled().length)} × ${shown(factor)}`,
    );
  const fillDown = () => {
    const { top } = bounds(area);
    const cells = filled()
      .filter(({ row }) => row > top)
      .flatMap(({ row, column }) => {
        const value = rows[top].cells[column].value;
        return value === undefined ? [] : [{ row, column, value }];
      });
    write(cells, `${words(cells.length)} filled down`);
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
    const cells: { row: number; column: number; value: number }[] = [];
    const wrong: string[] = [];
    for (const { row, column, text } of placed(fromText(event.clipboardData.getData('text/plain')), area, rows.length, columns.length)) {
      if (text.trim() === '') continue;
      const value = numberIn(text);
      if (!rows[row].cells[column].path) wrong.push(`${rows[row].head.name} has no ${columns[column].label}`);
      else if (value === undefined) wrong.push(`${rows[row].head.name}, ${columns[column].label}: “${text}” is not a number`);
      else cells.push({ row, column, value });
    }
    if (wrong.length)
      return setTrouble(`Nothing was pasted. ${wrong.slice(0, 3).join('; ')}${wrong.length > 3 ? ` and ${wrong.length - 3} more` : ''}`);
    write(cells, `${words(cells.length)} pasted`);
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
    const toRow = Math.min(Math.max(row, 0), rows.length - 1);
    const toColumn = Math.min(Math.max(column, 0), columns.length - 1);
    setArea(stretch ? { ...area, toRow, toColumn } : { row: toRow, column: toColumn, toRow, toColumn });
    focus(toRow, toColumn);
  };
  const keys = (event: KeyboardEvent) => {
    if (editing !== null) return;
    const way = { ArrowDown: [1, 0], ArrowUp: [-1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key];
    const held = event.ctrlKey || event.metaKey;
    if (way) {
      event.preventDefault();
      const far = held ? 1000 : 1;
      go(area.toRow + way[0] * far, area.toColumn + way[1] * far, event.shiftKey);
    } else if (event.key === 'Enter' || event.key === 'F2') {
      event.preventDefault();
      begin('');
    } else if (held && event.key.toLowerCase() === 'd') {
      event.preventDefault();
      fillDown();
    } else if (held && event.key.toLowerCase() === 'a') {
      event.preventDefault();
      setArea({ row: 0, column: 0, toRow: rows.length - 1, toColumn: columns.length - 1 });
    } else if (!held && !event.altKey && /^[\d.,(+-]$/.test(event.key)) {
      event.preventDefault();
      begin(event.key);
    }
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
            : 'values as written; a line under a number says that the lens changes it'}
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
          <ColumnChoice all={all} chosen={chosen} onChange={setChosen} />
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
          {words(selected().length)} selected; copy and paste as in a spreadsheet, type to change, Shift stretches
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
                unit={infoAt(column.id.startsWith('/') ? column.id : `/attacks/0/${column.id.slice(9)}`)?.unit}
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
                      <input
                        autoFocus
                        aria-label={`${head.name} ${columns[c].label}`}
                        className="w-full bg-sheet text-right outline-none ring-1 ring-ink"
                        defaultValue={editing}
                        onBlur={(event) => editing !== null && commit(event.target.value)}
                        onKeyDown={(event) => {
                          event.stopPropagation();
                          if (event.key === 'Escape') {
                            setEditing(null);
                            focus(r, c);
                          }
                          if (event.key === 'Enter' || event.key === 'Tab') {
                            event.preventDefault();
                            commit(event.currentTarget.value);
                            go(r + (event.key === 'Enter' ? 1 : 0), c + (event.key === 'Tab' ? 1 : 0), false);
                          }
                        }}
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

interface Row {
  head: UnitHead;
  cells: { path: string | undefined; value: number | undefined; through: boolean; chain?: string }[];
}

function rowOf(
  project: Project,
  head: UnitHead,
  columns: readonly Column[],
  lens: { tier?: string; skill?: string },
  effective: boolean,
): Row {
  const written = writtenUnit(project, head.id);
  const { unit, chains } = effectiveUnit(project, head.id, lens);
  const cells = columns.map(({ pathOf }) => {
    const path = pathOf(written);
    if (!path) return { path, value: undefined, through: false };
    const base = valueAt(written, path) as number;
    const seen = valueAt(unit, path) as number;
    const chain = chains.get(path);
    return {
      path,
      value: effective ? seen : base,
      through: seen !== base,
      ...(chain && { chain: chainSentence(chain, (value) => shown(value)) }),
    };
  });
  return { head, cells };
}

const words = (count: number) => `${count} ${count === 1 ? 'cell' : 'cells'}`;

function nextSort(sort: { by: string; down: boolean } | null, by: string) {
  if (sort?.by !== by) return { by, down: false };
  return sort.down ? null : { by, down: true };
}

function recall(): string[] | undefined {
  try {
    const kept = JSON.parse(localStorage.getItem(columnsKey) ?? 'null') as unknown;
    return Array.isArray(kept) && kept.length ? kept.filter((id): id is string => typeof id === 'string') : undefined;
  } catch {
    return undefined;
  }
}

function Head({
  label,
  unit,
  right,
  sorted,
  onSort,
}: {
  label: string;
  unit?: string;
  right?: boolean;
  sorted?: boolean;
  onSort: () => void;
}) {
  return (
    <span role="columnheader" aria-sort={sorted === undefined ? 'none' : sorted ? 'descending' : 'ascending'} className="min-w-0">
      <button
        type="button"
        className={`w-full px-1.5 py-1 text-label leading-[13px] text-ink-3 hover:text-ink ${right ? 'text-right' : 'pl-0 text-left'}`}
        title="sort by this"
        onClick={onSort}
      >
        {label}
        {unit && ` (${unit})`}
        {sorted !== undefined && (sorted ? ' ▾' : ' ▴')}
      </button>
    </span>
  );
}

function ColumnChoice({ all, chosen, onChange }: { all: Column[]; chosen: string[]; onChange: (chosen: string[]) => void }) {
  const [search, setSearch] = useState('');
  const found = all.filter(({ label }) => label.toLowerCase().includes(search.toLowerCase()));
  return (
    <div>
      <div className="flex gap-2">
        <input
          className="field-box min-w-0 flex-1"
          aria-label="Search columns"
          placeholder="search"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <button type="button" className="btn" onClick={() => onChange(FIRST_COLUMNS)}>
          As at first
        </button>
      </div>
      <ul className="scroll mt-2 max-h-[320px]">
        {found.map(({ id, label }) => (
          <li key={id}>
            <YesNo
              label={label}
              value={chosen.includes(id)}
              onChange={(on) =>
                onChange(
                  on
                    ? all.map((column) => column.id).filter((one) => one === id || chosen.includes(one))
                    : chosen.filter((one) => one !== id),
                )
              }
            />
          </li>
        ))}
      </ul>
    </div>
  );
}
