import { CLOCKS, GOAL_MEASURES, STATISTIC_WORDS, linear, numberOf, rankedRows, rowRuler } from '@insidia/core';
import { Choose } from '../../fields/Choose';
import { Glyph } from '../../visuals/Glyph';
import type { BoardParts } from './Grid';
import { rowUnits } from './rowUnits';

const WIDTH = 360;

interface Props extends BoardParts {
  column: number;
  onColumn: (column: number) => void;
  onSelect: (key: string) => void;
}

/** The rows of one column in the order in which they measure, each with its interval; a brace joins those that can't be told apart. */
export function BoardRanking({ rows, columns, cells, measure, column, onColumn, onSelect }: Props) {
  // Seconds and rounds are not ranked together.
  const kinds = (['enemy', 'encounter', 'wave'] as const)
    .flatMap((subject) => CLOCKS.map((clock) => ({ subject, clock })))
    .flatMap(({ subject, clock }) => {
      const own = rows.flatMap((row, r) => (row.subject === subject && row.clock === clock ? [r] : []));
      const ranks = rankedRows(
        own.map((r) => rows[r]),
        own.map((r) => cells[r]),
        column,
      );
      return ranks.length ? [{ subject, clock, ranks }] : [];
    });
  const { usual, share = false } = GOAL_MEASURES[measure];
  const units = rowUnits(measure, rows);
  return (
    <div className="px-4">
      <div className="flex items-end gap-3 border-b pb-1.5">
        <div className="w-[130px]">
          <Choose
            label="Ranked at"
            value={columns[column]?.key}
            options={columns.map(({ key, name }) => ({ id: key, name }))}
            onChoose={(key) =>
              onColumn(
                Math.max(
                  0,
                  columns.findIndex((one) => one.key === key),
                ),
              )
            }
          />
        </div>
        <p className="note pb-1">
          by {STATISTIC_WORDS[usual]}
          {units.common && `, ${units.common}`}, the most first, with 95 % intervals; ≈ stands where an interval touches the one above
        </p>
      </div>
      {!kinds.length && <p className="py-4 text-ink-3">Nothing has been run here yet.</p>}
      {kinds.map(({ subject, clock, ranks }) => {
        const { from, to } = rowRuler(
          ranks.map(({ shown: { estimate } }) => [estimate.low, estimate.value, estimate.high]),
          [],
          share,
        );
        const x = linear(Math.min(0, from), to, 4, WIDTH - 4);
        const clamp = (value: number) => Math.min(WIDTH - 4, Math.max(4, x(value)));
        return (
          <table
            key={`${subject} ${clock}`}
            className="mt-2 text-table"
            aria-label={`Ranking of ${subject === 'enemy' ? 'enemies' : `${subject}s`}${clock === 'rounds' ? ' in turns' : ''}`}
          >
            <tbody>
              {ranks.map(({ row, shown, apart }, i) => (
                <tr
                  key={shown.key}
                  data-rank={row.wave ?? row.id}
                  data-apart={apart}
                  className="cursor-pointer border-b border-hair hover:bg-well"
                  onClick={() => onSelect(shown.key)}
                >
                  <td className="w-[26px] text-right text-ink-3">{i + 1}</td>
                  <td className="w-[20px] text-center text-ink-3">{apart === false ? '≈' : ''}</td>
                  <td className="w-[190px] py-[3px]">
                    <button type="button" className="flex items-center gap-1.5 text-left">
                      {row.head && <Glyph unit={row.head} size={15} />}
                      {row.name}
                    </button>
                  </td>
                  <td>
                    <svg width={WIDTH} height={16} aria-hidden className="block">
                      <path d={`M4 12.5 H${WIDTH - 4}`} stroke="var(--hair)" />
                      <path
                        d={`M${clamp(shown.estimate.low)} 8 H${clamp(shown.estimate.high)}`}
                        stroke="var(--ink-2)"
                        strokeWidth={4}
                        strokeDasharray={shown.stale ? '2 2' : undefined}
                      />
                      <circle cx={clamp(shown.estimate.value)} cy={8} r={3.6} fill="var(--ink)" />
                    </svg>
                  </td>
                  <td className="w-[70px] whitespace-nowrap text-right font-semibold tabular-nums">
                    {numberOf(measure, shown.estimate.value, shown.clock)}
                    {units.beside(row) && <span className="ml-1 font-normal text-ink-3">{units.beside(row)}</span>}
                  </td>
                  <td className="w-[110px] text-right tabular-nums text-ink-3">
                    {numberOf(measure, shown.estimate.low, shown.clock)}–{numberOf(measure, shown.estimate.high, shown.clock)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        );
      })}
    </div>
  );
}
