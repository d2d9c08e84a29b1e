import {
  type Cause,
  type Encounter,
  type Project,
  type Suspect,
  type Window,
  scenarioKey,
  suspectsOf,
  clockTime,
  shown,
} from '@insidia/core';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { api } from '../../server/api';
import { useRead } from '../../server/useRead';
import { runCells } from '../../server/batches';
import { useAppDispatch, useAppSelector } from '../../store/store';
import type { Strip } from './strips';

/** Runs without each: enough to tell a tenth of a peak from chance. */
const RUNS = 100;

interface Props {
  project: Project;
  encounter: Encounter;
  strip: Strip;
  window: Window;
}

/** What causes a stretch of pressure: everything is left out in turn and run on the same seeds, the greatest relief first. */
export function CauseOf({ project, encounter, strip, window: { from, to } }: Props) {
  const dispatch = useAppDispatch();
  const saving = useAppSelector((state) => state.document.saving);
  const busy = useAppSelector((state) => state.batches.since !== null);
  const suspects = useMemo(() => suspectsOf(project, encounter), [project, encounter]);
  const without = useMemo(() => suspects.map((one) => one.without), [suspects]);
  const asked = { cell: strip.key, from, to, without };
  const found: Cause[] | null = useRead(JSON.stringify([project.id, asked]), () => api.causes(project.id, asked));
  const name = (id: string) => suspects.find((one) => one.without === id)?.name ?? id;
  const lacking = suspects.filter(({ without: id }) => !found?.some((one) => one.without === id && one.runs >= RUNS));
  if (!suspects.length) return <p className="note">There is one wave of one kind: nothing can be left out.</p>;
  const widest = Math.max(1e-9, ...(found ?? []).map(({ change }) => Math.abs(change.difference)));
  return (
    <div className="mt-1 border-l-2 border-hair pl-2">
      <p className="note">
        mean pressure from {clockTime(Math.max(0, from))} to {clockTime(to)} without each, on the same seeds, %/s
      </p>
      {found && found.length > 0 && (
        <table className="w-full text-label" aria-label="Without each">
          <tbody>
            {found.map(({ without: id, before, after, change, runs }, i) => {
              const says = change.high < 0 ? 'less' : change.low > 0 ? 'more' : 'no visible difference';
              return (
                <tr key={id} className="border-t border-hair" data-without={id} data-says={says} title={`${runs} runs each`}>
                  <td className={`pr-1 ${i === 0 && says === 'less' ? 'font-semibold' : ''}`}>
                    {id.startsWith('wave') ? (
                      <Link
                        className="hover:underline"
                        to={{ pathname: `/projects/${project.id}/encounters/${encounter.id}`, search: tierQuery(strip) }}
                      >
                        {name(id)}
                      </Link>
                    ) : (
                      <Link
                        className="hover:underline"
                        to={{ pathname: `/projects/${project.id}/enemies/${id.slice(5)}`, search: tierQuery(strip) }}
                      >
                        {name(id)}
                      </Link>
                    )}
                  </td>
                  <td className="whitespace-nowrap text-right tabular-nums">
                    {shown(100 * before, 1)} → {shown(100 * after, 1)}
                  </td>
                  <td className="w-[64px] pl-1.5">
                    <span
                      className={`block h-[7px] ${says === 'less' ? 'bg-ink-2' : says === 'more' ? 'border border-ink-2' : 'bg-hair'}`}
                      style={{ width: `${Math.max(2, (100 * Math.abs(change.difference)) / widest)}%` }}
                    />
                  </td>
                  <td className="whitespace-nowrap text-right text-ink-3">{says === 'no visible difference' ? '≈' : says}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      {lacking.length > 0 && (
        <button
          type="button"
          className="btn mt-1"
          disabled={saving !== 'saved' || busy || !found}
          onClick={() => dispatch(runCells(project.id, cellsWithout(strip, lacking)))}
        >
          {busy ? 'Running …' : `Run without each of ${lacking.length}`}
        </button>
      )}
    </div>
  );
}

function cellsWithout({ cell, key }: Strip, suspects: readonly Suspect[]) {
  const without = suspects.map((one) => ({ cell: scenarioKey({ ...cell, without: one.without }), runs: RUNS }));
  return [{ cell: key, runs: RUNS }, ...without];
}

function tierQuery({ cell }: Strip): string {
  const query = new URLSearchParams();
  if (cell.tier) query.set('tier', cell.tier);
  if (cell.skill) query.set('skill', cell.skill);
  return query.toString();
}
