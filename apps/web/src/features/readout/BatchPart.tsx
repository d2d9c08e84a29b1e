import {
  type BandMeasure,
  type Scenario,
  GOAL_MEASURES,
  type GoalSubject,
  scenarioKey,
  columnOf,
  estimate,
  numberOf,
  quantityOf,
} from '@insidia/core';
import { useMemo, useState } from 'react';
import { NumberField } from '../../fields/NumberField';
import { api } from '../../server/api';
import { runCells } from '../../server/batches';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { useCells } from '../../server/useCells';
import { Part } from './Part';

interface Props {
  project: string;
  cell: Scenario;
  measures: readonly BandMeasure[];
}

/** The same fight in numbers that a readout has no time for: run by the server, kept, and told with its intervals. */
export function BatchPart({ project, cell, measures }: Props) {
  const dispatch = useAppDispatch();
  const [runs, setRuns] = useState(1000);
  const saving = useAppSelector((state) => state.document.saving);
  const key = scenarioKey(cell);
  const progress = useAppSelector((state) => {
    const own = state.batches.cells[key];
    return own && own.done < own.wanted ? own : undefined;
  });
  const subject: GoalSubject = cell.kind === 'duel' ? 'enemy' : 'encounter';
  const columns = useMemo(() => measures.map((measure) => columnOf(measure, subject, cell.id)), [measures, subject, cell.id]);
  const asked = useMemo(() => [{ cell: key, columns }], [key, columns]);
  const found = useCells(project, asked)?.get(key);
  const known = found?.runs ? found : found?.stale;
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
              : 'not run'
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
          <tbody>
            {measures.map((measure, i) => {
              const { value, low, high } = estimate(known.values[columns[i]] ?? [], GOAL_MEASURES[measure].usual);
              return (
                <tr key={measure} data-batch={measure}>
                  <td className="text-ink-2 first-letter:uppercase">{GOAL_MEASURES[measure].label}</td>
                  <td className="text-right font-semibold" data-value={value}>
                    {quantityOf(measure, value)}
                  </td>
                  <td className="w-[92px] text-right text-ink-3">
                    {numberOf(measure, low)}–{Number.isFinite(high) ? numberOf(measure, high) : 'open'}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      {!progress && (
        <div className="mt-1 flex items-end gap-1.5">
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
            width={74}
            onCommit={(next) => setRuns(Math.ceil(next / 50) * 50)}
          />
          <button
            type="button"
            className="btn"
            disabled={saving !== 'saved' || (found?.runs ?? 0) >= runs}
            onClick={() => dispatch(runCells(project, [{ cell: key, runs }]))}
          >
            Run as a batch
          </button>
        </div>
      )}
    </Part>
  );
}
