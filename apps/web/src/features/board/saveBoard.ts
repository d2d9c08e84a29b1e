import { type Project, boardPicture, csvRow, unitOf } from '@insidia/core';
import { unparse } from 'papaparse';
import { pngOf } from '../../visuals/png';
import { saveFile } from '../../parts/saveFile';
import type { BoardParts } from './Grid';

/** Every cell of the board as a line. */
export function saveCsv(project: Project, { measure, rows, columns, cells }: BoardParts): void {
  const lines = rows.flatMap((row, r) =>
    cells[r].map(({ estimate: { value, low, high }, statistic, runs, band, verdict, stale, clock }, t) => ({
      of: row.name,
      by: row.subject === 'enemy' ? 'duel' : row.subject,
      column: columns[t].name,
      measure,
      statistic,
      runs,
      value,
      low,
      high,
      'wanted low': band?.low,
      'wanted high': band?.high,
      verdict: stale ? 'stale' : verdict,
      unit: unitOf(measure, clock),
    })),
  );
  saveFile(`${project.id}-${measure}.csv`, unparse(lines.map(csvRow)), 'text/csv');
}

/** px across: as wide as a page of a document likes it. */
const PNG_WIDTH = 1100;

/** The board as a picture. */
export async function savePng(project: Project, parts: BoardParts): Promise<void> {
  saveFile(`${project.id}-${parts.measure}.png`, await pngOf(boardPicture({ ...parts, width: PNG_WIDTH })));
}
