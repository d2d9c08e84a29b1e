import { VERDICT_WORDS, numberOf } from '@insidia/core';
import type { BoardParts } from './Grid';
import { rowUnits } from './rowUnits';

/** The same numbers as a table that can be selected and copied. */
export function BoardTable({ measure, rows, columns, cells }: BoardParts) {
  const units = rowUnits(measure, rows);
  return (
    <table className="mx-4 text-table" aria-label="Board as a table">
      <thead>
        <tr className="border-y text-left">
          <th className="font-normal text-ink-3">{units.common}</th>
          {columns.map(({ key, name }) => (
            <th key={key} colSpan={3} className="border-l border-hair px-2">
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, r) => (
          <tr key={`${row.subject} ${row.id} ${row.wave ?? ''}`} className="border-b border-hair">
            <th className="pr-3 text-left font-normal">
              {row.name}
              {units.beside(row) && `, ${units.beside(row)}`}
            </th>
            {cells[r].map((cell) => [
              <td key={`${cell.key} value`} className="border-l border-hair px-2 text-right font-semibold">
                {numberOf(measure, cell.estimate.value, cell.clock)}
              </td>,
              <td key={`${cell.key} interval`} className="px-1 text-right text-ink-3">
                {cell.runs
                  ? `${numberOf(measure, cell.estimate.low, cell.clock)}–${numberOf(measure, cell.estimate.high, cell.clock)}`
                  : ''}
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
