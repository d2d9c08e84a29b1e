/** The rows of a table and what is written into them. Pure; a document is made anew. */
import {
  type Project,
  type Unit,
  type UnitHead,
  chainSentence,
  editUnit,
  effectiveUnit,
  setAt,
  shown,
  unitHeads,
  valueAt,
  writtenUnit,
} from '@insidia/core';
import { infoAt, setThroughTier } from '../../fields/edits';
import { limitBroken, tidy } from '../../fields/number';
import type { Column } from './columns';
import { type Area, bounds, numberIn, placed } from './grid';

export interface Row {
  head: UnitHead;
  /** `through`: the lens shows another value than is written. */
  cells: { path: string | undefined; value: number | undefined; through: boolean; chain?: string }[];
}

export interface Cell {
  row: number;
  column: number;
  value: number;
}

export interface Sort {
  by: string;
  down: boolean;
}

export interface Asked {
  side: Unit['side'];
  filter: string;
  sort: Sort | null;
  lens: { tier?: string; skill?: string };
  /** Values of the lens are shown, and written to its tier. */
  tier: string | undefined;
}

/** Units of a side whose name or role has the filter in it, in the order asked for; whoever lacks a value comes last. */
export function rowsOf(project: Project, columns: readonly Column[], { side, filter, sort, lens, tier }: Asked): Row[] {
  const wanted = filter.toLowerCase();
  const found = unitHeads(project)
    .filter((head) => head.side === side && `${head.name} ${head.role}`.toLowerCase().includes(wanted))
    .map((head) => rowOf(project, head, columns, lens, tier !== undefined));
  if (!sort) return found;
  const at = columns.findIndex(({ id }) => id === sort.by);
  const value = (row: Row) => (at < 0 ? row.head.name : (row.cells[at].value ?? Infinity));
  return [...found].sort((a, b) => (value(a) < value(b) ? -1 : value(a) > value(b) ? 1 : 0) * (sort.down ? -1 : 1));
}

function rowOf(project: Project, head: UnitHead, columns: readonly Column[], lens: Asked['lens'], effective: boolean): Row {
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

/** Upwards, then downwards, then as they come. */
export function nextSort(sort: Sort | null, by: string): Sort | null {
  if (sort?.by !== by) return { by, down: false };
  return sort.down ? null : { by, down: true };
}

export const cellsWords = (count: number) => `${count} ${count === 1 ? 'cell' : 'cells'}`;

/** The first three of what is wrong, and how many more. */
export function troubles(what: string, wrong: readonly string[]): string {
  return `${what}. ${wrong.slice(0, 3).join('; ')}${wrong.length > 3 ? ` and ${wrong.length - 3} more` : ''}`;
}

/** The document with all cells written, or with none of them and why. */
export function writtenCells(
  project: Project,
  rows: readonly Row[],
  columns: readonly Column[],
  cells: readonly Cell[],
  tier: string | undefined,
): { document: Project } | { trouble: string } {
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
  return broken.length ? { trouble: troubles('Nothing was changed', broken) } : { document };
}

/** The cells of a selection that have a value. */
export function filledCells(rows: readonly Row[], columns: number, area: Area): Cell[] {
  const { top, left, bottom, right } = bounds(area);
  const found: Cell[] = [];
  for (let row = top; row <= Math.min(bottom, rows.length - 1); row++)
    for (let column = left; column <= Math.min(right, columns - 1); column++) {
      const { value } = rows[row].cells[column];
      if (value !== undefined) found.push({ row, column, value });
    }
  return found;
}

/** How many cells a selection holds, with a value or without. */
export function countCells(rows: number, columns: number, area: Area): number {
  const { top, left, bottom, right } = bounds(area);
  return Math.max(0, Math.min(bottom, rows - 1) - top + 1) * Math.max(0, Math.min(right, columns - 1) - left + 1);
}

/** Whole numbers stay whole. */
export function multiplied(rows: readonly Row[], cells: readonly Cell[], factor: number): Cell[] {
  return cells.map((cell) => {
    const product = tidy(cell.value * factor);
    return { ...cell, value: infoAt(rows[cell.row].cells[cell.column].path!)?.whole ? Math.round(product) : product };
  });
}

/** What stands in the first row of the selection, for the rows below it. */
export function filledDown(rows: readonly Row[], cells: readonly Cell[], area: Area): Cell[] {
  const { top } = bounds(area);
  return cells.flatMap(({ row, column }) => {
    const value = rows[top].cells[column].value;
    return row === top || value === undefined ? [] : [{ row, column, value }];
  });
}

/** Pasted texts as numbers in their cells, or why not; empty texts change nothing. */
export function pastedCells(
  texts: readonly (readonly string[])[],
  area: Area,
  rows: readonly Row[],
  columns: readonly Column[],
): { cells: Cell[] } | { trouble: string } {
  const cells: Cell[] = [];
  const wrong: string[] = [];
  for (const { row, column, text } of placed(texts, area, rows.length, columns.length)) {
    if (text.trim() === '') continue;
    const value = numberIn(text);
    if (!rows[row].cells[column].path) wrong.push(`${rows[row].head.name} has no ${columns[column].label}`);
    else if (value === undefined) wrong.push(`${rows[row].head.name}, ${columns[column].label}: “${text}” is not a number`);
    else cells.push({ row, column, value });
  }
  return wrong.length ? { trouble: troubles('Nothing was pasted', wrong) } : { cells };
}

/** The selection after a move to a cell, which stays within the table; stretched from where it began, or alone. */
export function areaAt(area: Area, row: number, column: number, rows: number, columns: number, stretch: boolean): Area {
  const toRow = Math.min(Math.max(row, 0), rows - 1);
  const toColumn = Math.min(Math.max(column, 0), columns - 1);
  return stretch ? { ...area, toRow, toColumn } : { row: toRow, column: toColumn, toRow, toColumn };
}

export type KeyDeed = { go: readonly [number, number] } | { begin: string } | 'fillDown' | 'all';

const WAYS: Record<string, readonly [number, number]> = { ArrowDown: [1, 0], ArrowUp: [-1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] };

/** More rows or columns than any table has. */
const FAR = 1000;

/** What a key does in the table; undefined where the browser has it. */
export function deedOf({
  key,
  ctrlKey,
  metaKey,
  altKey,
}: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey'>): KeyDeed | undefined {
  const held = ctrlKey || metaKey;
  const way = WAYS[key];
  if (way) return { go: held ? [way[0] * FAR, way[1] * FAR] : way };
  if (key === 'Enter' || key === 'F2') return { begin: '' };
  if (held && key.toLowerCase() === 'd') return 'fillDown';
  if (held && key.toLowerCase() === 'a') return 'all';
  return !held && !altKey && /^[\d.,(+-]$/.test(key) ? { begin: key } : undefined;
}
