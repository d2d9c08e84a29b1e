import {
  type Band,
  type BandMeasure,
  type Clock,
  GOAL_MEASURES,
  goalIn,
  type Project,
  effectiveUnit,
  paperDuel,
  quantileOf,
  VERDICT_WORDS,
  STATISTIC_WORDS,
  numberOf,
  plainOf,
  quantityOf,
  unitOf,
  wantedWords,
  type BoardRow,
  type BoardColumn,
  type Shown,
  columnAt,
  scenarioKey,
} from '@insidia/core';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { WouldMove } from '../tune/WouldMove';
import { useTheme } from '../../app/theme';
import type { CellRead } from '../../server/api';
import { READING } from '../../server/useCells';
import { useAppSelector } from '../../store/store';
import { Glyph } from '../../visuals/Glyph';
import { Histogram } from '../../visuals/Histogram';
import { VerdictMark } from '../../visuals/VerdictMark';
import { BatchHistory } from './BatchHistory';
import { guarded } from '../../parts/guarded';

interface Props {
  project: Project;
  row: BoardRow;
  column: BoardColumn;
  measure: BandMeasure;
  cell: Shown;
  /** Absent while it is being read. */
  read?: CellRead;
  /** What the board is looked at through. */
  through: string;
  onRun: (cells: string[], runs: number) => void;
  /** A band's edge is moved; absent where no band speaks of the cell. */
  onBand?: (band: Band, edge: 'low' | 'high', value: number, mark: string) => void;
  onAddBand: () => void;
}

const WIDTH = 308;

/** The runs behind one cell: where they lie, how sure that is, and the way to the fights themselves. */
export const CellPanel = guarded(
  'The cell',
  function CellPanel({ project, row, column, measure, cell, read, through, onRun, onBand, onAddBand }: Props) {
    const theme = useTheme();
    const { estimate, statistic, values, band, verdict, goal, runs } = cell;
    const { label } = goalIn(measure, cell.clock);
    const against = project.units.find(({ side }) => side === 'party');
    const paper = useMemo(() => paperOf(project, row, cell, measure, against?.id), [project, row, cell, measure, against]);
    const more = goal?.judgement?.more;
    const finite = useMemo(() => values.filter((value) => value === value).sort((a, b) => a - b), [values]);
    const place =
      row.subject === 'enemy'
        ? `in a duel with ${against?.name ?? 'nobody'}`
        : `in ${project.encounters.find(({ id }) => id === row.id)?.name ?? row.name}`;
    const changes = useAppSelector((state) => state.batches.changes);
    // What would be run is what is saved.
    const unsaved = useAppSelector((state) => state.document.saving !== 'saved');
    return (
      <aside aria-label="Cell" className="scroll flex min-h-0 flex-col border-l bg-sheet px-4 pb-3 pt-[10px]">
        <div className="flex items-center gap-2">
          {row.head && (
            <span className="shrink-0">
              <Glyph unit={row.head} size={20} />
            </span>
          )}
          <h2 className="min-w-0 truncate font-title text-[16px]">{row.name}</h2>
          {column.number && <span className="tier">{column.number}</span>}
          <h2 className="truncate font-title text-[16px]" title={column.name}>
            {column.name}
          </h2>
        </div>
        <p className="note">
          {label.charAt(0).toUpperCase() + label.slice(1)} {place}, {through}
          {cell.stale ? '; run before an edit' : ''}
        </p>
        {read?.trouble && (
          <p role="alert" className="mt-3 border-l-[3px] border-warn bg-warn-wash px-2.5 py-1.5 text-table">
            This cell can’t be run: {read.trouble}.
          </p>
        )}
        {!read ? (
          <p className="mt-6 text-ink-3">{READING}</p>
        ) : !values.length ? (
          <div className="mt-6">
            <p className="text-ink-2">Not run yet as it is now.</p>
            <button
              type="button"
              className="btn btn-primary mt-2"
              disabled={unsaved}
              onClick={() => onRun([scenarioKey(cell.cell)], row.subject === 'enemy' ? 400 : 200)}
            >
              Run this cell
            </button>
          </div>
        ) : (
          <>
            <div className="mt-2 flex items-end gap-2">
              <span className="font-title text-[32px] font-medium leading-8" data-value={estimate.value}>
                {quantityOf(measure, estimate.value, cell.clock)}
              </span>
              <span className="flex-1" />
              {verdict && (
                <span className="flex items-center gap-1.5" data-verdict={verdict}>
                  <VerdictMark verdict={verdict} size={15} />
                  <b className={verdict === 'missedLow' || verdict === 'missedHigh' ? 'text-warn' : ''}>{VERDICT_WORDS[verdict]}</b>
                </span>
              )}
            </div>
            <p className="mb-2 mt-1 text-table text-ink-2">
              <span className="text-ink">{sentenceOf(measure, cell)}</span> 95 % interval {numberOf(measure, estimate.low, cell.clock)}–
              {Number.isFinite(estimate.high) ? numberOf(measure, estimate.high, cell.clock) : 'open'}
              {verdict === 'undecided' && goal?.judgement?.verdict === 'undecided'
                ? more
                  ? `; about ${more} more runs would decide`
                  : '; it lies on the edge'
                : verdict === 'undecided'
                  ? '; clear by itself, but not among so many goals'
                  : ''}
              .
            </p>
            <Histogram
              values={values}
              estimate={estimate}
              statistic={STATISTIC_WORDS[statistic]}
              band={band}
              number={(value) => numberOf(measure, value, cell.clock)}
              tick={(value) => plainOf(measure, value, cell.clock)}
              unit={unitOf(measure, cell.clock)}
              paper={paper}
              width={WIDTH}
              theme={theme}
              onEdge={band && onBand ? (edge, value, mark) => onBand(band, edge, value, mark) : undefined}
            />
            {!GOAL_MEASURES[measure].share && <Quantiles measure={measure} values={finite} clock={cell.clock} />}
            <table className="mt-1.5 w-full border-t border-hair text-table leading-[18px]">
              <tbody>
                <Line name="runs">
                  <b>{runs}</b> <span className="text-ink-3">seeds 1–{runs}</span>
                </Line>
                {values.some((value) => value === Infinity) && (
                  <Line name="survived, counted as never">{values.filter((value) => value === Infinity).length}</Line>
                )}
                {values.some((value) => value !== value) && (
                  <Line name="without a value">{values.filter((value) => value !== value).length}</Line>
                )}
                {paper !== undefined && (
                  <Line name="on paper">
                    {quantityOf(measure, paper, cell.clock)}{' '}
                    {Number.isFinite(estimate.value) && (
                      <span className="text-ink-3">(simulated is × {(estimate.value / paper).toFixed(2)})</span>
                    )}
                  </Line>
                )}
                {band && <Line name="the brief">{wantedWords(measure, band, cell.clock)}</Line>}
              </tbody>
            </table>
            {!cell.stale && (
              <Seeds project={project} row={row} cell={cell} won={read?.values.won} measure={measure} against={against?.id} />
            )}
            {cell.styles && (
              <table className="mt-2 w-full border-t border-hair text-table leading-[18px]" aria-label="Across play styles">
                <tbody>
                  {cell.styles.map(({ id, name, value }) => (
                    <Line key={id} name={name}>
                      {quantityOf(measure, value, cell.clock)}
                    </Line>
                  ))}
                </tbody>
              </table>
            )}
            <div className="mt-2.5 flex flex-wrap gap-1.5 border-t border-hair pt-2">
              <button
                type="button"
                className="btn btn-primary"
                disabled={unsaved}
                onClick={() => onRun([scenarioKey(cell.cell)], cell.stale ? runs : Math.min(100_000, runs + (more || runs)))}
              >
                {cell.stale ? 'Run as it is now' : `Run ${more || runs} more`}
              </button>
              <WouldMove
                key={cell.key + measure}
                className="btn"
                project={project}
                objective={{
                  cell: cell.cell,
                  measure,
                  of: row.wave ?? row.id,
                  column: columnAt(row, measure),
                  statistic: cell.statistic,
                  ...(band && { band }),
                }}
              />
              {!band && (
                <button type="button" className="btn" onClick={onAddBand}>
                  Want a band here
                </button>
              )}
            </div>
            <BatchHistory
              key={`${cell.key} ${measure} ${changes}`}
              project={project.id}
              cell={scenarioKey(cell.cell)}
              column={columnAt(row, measure)}
              measure={measure}
              statistic={statistic}
              band={band}
              width={WIDTH}
            />
          </>
        )}
      </aside>
    );
  },
);

function Line({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <tr>
      <td className="text-ink-2">{name}</td>
      <td className="text-right">{children}</td>
    </tr>
  );
}

/** "6.8 s; wanted 4.5–7; too close to call." */
function sentenceOf(measure: BandMeasure, { estimate, band, verdict, clock }: Shown): string {
  const value = quantityOf(measure, estimate.value, clock);
  if (!band || !verdict) return `${value}; no band of the brief speaks of it.`;
  const words = { met: 'met', missedLow: 'missed, it is lower', missedHigh: 'missed, it is higher', undecided: 'too close to call' };
  return `${value}; ${wantedWords(measure, band, clock)}; ${words[verdict]}.`;
}

function Quantiles({ measure, values, clock }: { measure: BandMeasure; values: readonly number[]; clock: Clock }) {
  const finite = values.filter(Number.isFinite);
  const mean = finite.length === values.length ? finite.reduce((a, b) => a + b, 0) / finite.length : NaN;
  const sd = Math.sqrt(finite.reduce((sum, value) => sum + (value - mean) ** 2, 0) / Math.max(1, finite.length - 1));
  const list: [string, number][] = [
    ['p10', quantileOf(values, 0.1)],
    ['p25', quantileOf(values, 0.25)],
    ['median', quantileOf(values, 0.5)],
    ['p75', quantileOf(values, 0.75)],
    ['p90', quantileOf(values, 0.9)],
    ['mean', mean],
    ['sd', sd],
  ];
  return (
    <table className="mt-2 w-full text-right text-table leading-[18px]">
      <thead>
        <tr className="text-label text-ink-3">
          {list.map(([name]) => (
            <th key={name} className="font-normal">
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        <tr>
          {list.map(([name, value]) => (
            <td key={name} className={name === 'median' ? 'font-semibold' : ''}>
              {numberOf(measure, value, clock)}
            </td>
          ))}
        </tr>
      </tbody>
    </table>
  );
}

/** Paper time-to-kill of a duel: the only measure of a board that has a closed form. */
function paperOf(project: Project, row: BoardRow, { cell }: Shown, measure: BandMeasure, against: string | undefined): number | undefined {
  if (row.subject !== 'enemy' || (measure !== 'timeToKill' && measure !== 'timeToDown') || against === undefined) return undefined;
  const unit = (id: string) => effectiveUnit(project, id, cell).unit;
  const [attacker, victim] = measure === 'timeToKill' ? [unit(against), unit(row.id)] : [unit(row.id), unit(against)];
  return paperDuel(attacker, victim)?.timeToKill;
}

/** The runs themselves: the median one, the one farthest on the wrong side, and the first that was lost. */
function Seeds({
  project,
  row,
  cell,
  won,
  measure,
  against,
}: {
  project: Project;
  row: BoardRow;
  cell: Shown;
  won?: readonly number[];
  measure: BandMeasure;
  against?: string;
}) {
  const order = cell.values.map((value, i) => ({ value, seed: i + 1 })).filter(({ value }) => value === value);
  order.sort((a, b) => a.value - b.value || a.seed - b.seed);
  if (!order.length) return null;
  const median = order[Math.ceil(order.length / 2) - 1];
  const worst = GOAL_MEASURES[measure].harder === 'less' ? order[0] : order[order.length - 1];
  const lost = won?.indexOf(0) ?? -1;
  const to = (seed: number) => {
    const query = new URLSearchParams();
    if (cell.cell.tier) query.set('tier', cell.cell.tier);
    if (cell.cell.skill) query.set('skill', cell.cell.skill);
    query.set('seed', String(seed));
    if (row.subject === 'enemy') {
      query.set('enemy', row.id);
      query.set('members', against ?? '');
    }
    return { pathname: `/projects/${project.id}/replay/${row.subject === 'enemy' ? 'duel' : row.id}`, search: query.toString() };
  };
  // A replay is looked at through tier and skill alone.
  if (cell.cell.style !== undefined || cell.cell.players !== undefined) return null;
  const entry = (words: string, { seed, value }: { seed: number; value: number }) => (
    <Link key={words} className="block border border-rule bg-sheet px-2 py-[3px] text-table leading-4 hover:border-ink-2" to={to(seed)}>
      <b>{words}</b>
      <br />
      <span className="text-ink-3">
        seed {seed}, {quantityOf(measure, value, cell.clock)}
      </span>
    </Link>
  );
  return (
    <div className="mt-2.5 grid grid-cols-2 gap-2" role="group" aria-label="Runs to open">
      {!GOAL_MEASURES[measure].share && entry('Open a median run', median)}
      {!GOAL_MEASURES[measure].share && entry('Open the worst run', worst)}
      {lost >= 0 && entry('Open the first lost', { seed: lost + 1, value: cell.values[lost] })}
    </div>
  );
}
