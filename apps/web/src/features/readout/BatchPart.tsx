import {
  type BandMeasure,
  type Scenario,
  GOAL_MEASURES,
  type Clock,
  goalIn,
  type GoalSubject,
  scenarioKey,
  columnOf,
  estimate,
  numberOf,
  quantityOf,
} from '@insidia/core';
import { useMemo, useState } from 'react';
import { NumberField } from '../../fields/NumberField';
import { type Until, api } from '../../server/api';
import { runCells } from '../../server/batches';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { useCells } from '../../server/useCells';
import { useRead } from '../../server/useRead';
import { Part } from './Part';

interface Props {
  project: string;
  cell: Scenario;
  measures: readonly BandMeasure[];
  /** What the fight goes by. */
  clock?: Clock;
}

/** How narrow the interval is to be, as a share of the value; how many runs before it is looked at, and at most. */
const [CLEAR, LEAST, MOST] = [0.05, 100, 20_000];

/** The same fight in numbers that a readout has no time for: run by the server, kept, and told with its intervals, beside what it was. */
export function BatchPart({ project, cell, measures, clock = 'continuous' }: Props) {
  const dispatch = useAppDispatch();
  const [runs, setRuns] = useState(500);
  const saving = useAppSelector((state) => state.document.saving);
  const key = scenarioKey(cell);
  const progress = useAppSelector((state) => {
    const own = state.batches.cells[key];
    return own && own.done < own.wanted ? own : undefined;
  });
  const subject: GoalSubject = cell.kind === 'duel' ? 'enemy' : 'encounter';
  const columns = useMemo(() => measures.map((measure) => columnOf(measure, subject, cell.id)), [measures, subject, cell.id]);
  const asked = useMemo(() => [{ cell: key, columns }], [key, columns]);
  const read = useCells(project, asked);
  const found = read?.get(key);
  const known = found?.runs ? found : found?.stale;
  const batches = useRead(JSON.stringify(['batches', project, key, columns]), () =>
    Promise.all(columns.map((column) => api.cellHistory(project, key, column))),
  );
  /** What a measure was in the batch before the present one. */
  const before = (i: number) => (found?.runs ? batches?.[i]?.find(({ batch }) => batch !== found.batch)?.values : undefined);
  const [first] = measures;
  const run = (wanted: number, until?: Until) => dispatch(runCells(project, [{ cell: key, runs: wanted, ...(until && { until }) }]));
  return (
    <Part
      title="As a batch"
      note={
        progress
          ? `${progress.done} of ${progress.wanted} runs`
          : found?.runs
            ? `${found.runs} runs`
            : known
              ? 'run before an edit'
              : read
                ? 'not run'
                : 'reading …'
      }
      right={
        progress ? (
          <button type="button" className="link" onClick={() => void api.cancelCells(project, key)}>
            Cancel
          </button>
        ) : undefined
      }
    >
      {known && (
        <table className={`w-full text-table leading-[18px] ${found?.runs ? '' : 'opacity-60'}`} aria-label="Batch">
          {measures.some((_, i) => before(i)) && (
            <thead>
              <tr className="text-right text-label text-ink-3">
                <th />
                <th className="font-normal">before</th>
                <th className="font-normal">now</th>
                <th className="font-normal">interval</th>
              </tr>
            </thead>
          )}
          <tbody>
            {measures.map((measure, i) => {
              const { value, low, high } = estimate(known.values[columns[i]] ?? [], GOAL_MEASURES[measure].usual);
              const was = before(i);
              const old = was && estimate(was, GOAL_MEASURES[measure].usual);
              const changed = old && (old.high < low || old.low > high);
              return (
                <tr key={measure} data-batch={measure}>
                  <td className="text-ink-2 first-letter:uppercase">{goalIn(measure, clock).label}</td>
                  {measures.some((_, j) => before(j)) && (
                    <td
                      className={`text-right ${changed ? '' : 'text-ink-3'}`}
                      data-before={old?.value}
                      title={changed ? 'visibly another' : 'no visible difference'}
                    >
                      {old ? quantityOf(measure, old.value, clock) : '—'}
                    </td>
                  )}
                  <td className="text-right font-semibold" data-value={value}>
                    {quantityOf(measure, value, clock)}
                  </td>
                  <td className="w-[92px] text-right text-ink-3">
                    {numberOf(measure, low, clock)}–{Number.isFinite(high) ? numberOf(measure, high, clock) : 'open'}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      {!progress && (
        <div className="mt-1 flex items-end gap-1.5">
          <button
            type="button"
            className="btn"
            disabled={saving !== 'saved'}
            title={`until the interval of ${goalIn(first, clock).label} is within ${CLEAR * 100} % of it, at most ${MOST} runs`}
            onClick={() => run(LEAST, { column: columns[0], statistic: GOAL_MEASURES[first].usual, narrower: CLEAR, cap: MOST })}
          >
            As many as it takes
          </button>
          <span className="pb-1 text-table text-ink-3">or</span>
          <NumberField
            compact
            info={{
              label: 'Runs',
              unit: '',
              min: 50,
              max: 100_000,
              whole: true,
              about: 'kept on the server; those that are known are not run again',
            }}
            base={runs}
            width={64}
            onCommit={(next) => setRuns(Math.ceil(next / 50) * 50)}
          />
          <button type="button" className="btn" disabled={saving !== 'saved' || (found?.runs ?? 0) >= runs} onClick={() => run(runs)}>
            Run as a batch
          </button>
        </div>
      )}
    </Part>
  );
}
