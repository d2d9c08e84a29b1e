/** A rectangle of cells and what is pasted into it. Pure. */
import { parse, unparse } from 'papaparse';
import { evaluate } from '../../fields/number';

export interface Area {
  row: number;
  column: number;
  /** The corner that moves while a selection is stretched. */
  toRow: number;
  toColumn: number;
}

export function bounds({ row, column, toRow, toColumn }: Area) {
  return { top: Math.min(row, toRow), left: Math.min(column, toColumn), bottom: Math.max(row, toRow), right: Math.max(column, toColumn) };
}

export function holds(area: Area, row: number, column: number): boolean {
  const { top, left, bottom, right } = bounds(area);
  return row >= top && row <= bottom && column >= left && column <= right;
}

/** Tab-separated lines, as spreadsheets take and give them. */
export function toText(cells: (number | undefined)[][]): string {
  return unparse(
    cells.map((line) => line.map((value) => value ?? '')),
    { delimiter: '\t', newline: '\n' },
  );
}

/** @returns rows of texts; an empty last line is no row */
export function fromText(text: string): string[][] {
  const delimiter = text.includes('\t') ? '\t' : text.includes(';') ? ';' : '\t';
  return parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter }).data;
}

export interface Placed {
  row: number;
  column: number;
  text: string;
}

/**
 * Where pasted texts go: one text fills the whole selection; a row or column as wide as the selection is repeated over it;
 * anything else is laid from the selection's first cell on, as far as there are cells.
 */
export function placed(texts: readonly (readonly string[])[], area: Area, rows: number, columns: number): Placed[] {
  const { top, left, bottom, right } = bounds(area);
  const high = Math.max(
    texts.length,
    bottom - top + 1 > texts.length && (bottom - top + 1) % texts.length === 0 ? bottom - top + 1 : texts.length,
  );
  const widest = Math.max(...texts.map((line) => line.length));
  const wide = right - left + 1 > widest && (right - left + 1) % widest === 0 ? right - left + 1 : widest;
  const found: Placed[] = [];
  for (let r = 0; r < high && top + r < rows; r++)
    for (let c = 0; c < wide && left + c < columns; c++) {
      const line = texts[r % texts.length];
      const text = line[c % widest];
      if (text !== undefined) found.push({ row: top + r, column: left + c, text });
    }
  return found;
}

/** A number as a spreadsheet writes it: 1,234.5 and 1.234,5 too; or an expression. Undefined where it is none. */
export function numberIn(text: string): number | undefined {
  const plain = text.trim().replace(/\s/g, '');
  if (/^-?\d{1,3}(,\d{3})+(\.\d+)?$/.test(plain)) return Number(plain.replaceAll(',', ''));
  if (/^-?\d{1,3}(\.\d{3})+,\d+$/.test(plain)) return Number(plain.replaceAll('.', '').replace(',', '.'));
  return evaluate(plain);
}
