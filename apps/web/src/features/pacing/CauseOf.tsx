import {
  type Cause,
  type Encounter,
  type PacedWave,
  type Project,
  type Suspect,
  type Window,
  scenarioKey,
  suspectsOf,
  momentWords,
  unitIn,
  shown,
} from '@insidia/core';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { api } from '../../server/api';
import { useRead } from '../../server/useRead';
import { runCells } from '../../server/batches';
import { useAppDispatch, useAppSelector } from '../../store/store';
import type { Strip } from './strips';

/** Runs without each at first: enough to see who matters; and of those that can't be told from chance with so many. */
const [FIRST, MORE] = [40, 200];

interface Props {
  project: Project;
  encounter: Encounter;
  strip: Strip;
  window: Window;
  /** When its waves came, over the runs that there are. */
  waves: readonly PacedWave[];
}

/** What causes a stretch of pressure: everything is left out in turn and run on the same seeds, the greatest relief first. */
export function CauseOf({ project, encounter, strip, window: { from, to }, waves }: Props) {
  const dispatch = useAppDispatch();
  const saving = useAppSelector((state) => state.document.saving);
  const busy = useAppSelector((state) => state.batches.since !== null);
  const [passes, setPasses] = useState(false);
  // As they came when it was asked: with more runs a median may move a little, and nothing need be run again for that.
  const [came] = useState(() => new Map(waves.map(({ id, started }) => [id, started])));
  const suspects = useMemo(
    () => suspectsOf(project, encounter, { from, to }, (wave) => came.get(wave), passes),
    [project, encounter, from, to, came, passes],
  );
  const without = useMemo(() => suspects.map((one) => one.without), [suspects]);
  const asked = { cell: strip.key, from, to, without };
  const found: Cause[] | null = useRead(JSON.stringify([project.id, asked]), () => api.causes(project.id, asked));
  const name = (id: string) => suspects.find((one) => one.without === id)?.name ?? id;
  const lacking = suspects.filter(({ without: id }) => !found?.some((one) => one.without === id && one.runs >= FIRST));
  const open = suspects.filter(({ without: id }) =>
    found?.some(({ without, runs, change }) => without === id && runs < MORE && change.low <= 0 && change.high >= 0),
  );
  const run = (which: readonly Suspect[], runs: number) => dispatch(runCells(project.id, cellsWithout(strip, which, runs)));
  if (!suspects.length) return <p className="note">There is one wave of one kind: nothing can be left out.</p>;
  const widest = Math.max(1e-9, ...(found ?? []).map(({ change }) => Math.abs(change.difference)));
  return (
    <div className="mt-1 border-l-2 border-hair pl-2">
      <p className="note">
        {encounter.clock === 'rounds' ? 'mean pressure from round ' : 'mean pressure from '}
        {momentWords(encounter.clock, Math.max(0, from))} to {momentWords(encounter.clock, to)} without each, on the same seeds,{' '}
        {unitIn(encounter.clock, '%/s')}
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
      {suspects.some(({ without }) => without.startsWith('wave:')) && (
        <div role="radiogroup" aria-label="Without a wave" className="mt-1 text-label">
          {[
            [false, 'without a wave, what waits for it comes sooner'],
            [true, 'its time passes, nobody comes'],
          ].map(([way, words]) => (
            <button
              key={String(way)}
              type="button"
              role="radio"
              aria-checked={passes === way}
              className="switch"
              onClick={() => setPasses(way as boolean)}
            >
              {words}
            </button>
          ))}
        </div>
      )}
      {lacking.length > 0 && (
        <button
          type="button"
          className="btn mt-1"
          title={`${FIRST} runs without each, the likeliest first; each stands here as soon as it is there`}
          disabled={saving !== 'saved' || busy || !found}
          onClick={() => run(lacking, FIRST)}
        >
          {busy ? 'Running …' : `Run without each of ${lacking.length}`}
        </button>
      )}
      {!lacking.length && open.length > 0 && (
        <button
          type="button"
          className="btn mt-1"
          title="those that can’t be told from chance yet"
          disabled={saving !== 'saved' || busy}
          onClick={() => run(open, MORE)}
        >
          {busy ? 'Running …' : `${MORE} runs for ${open.length} in doubt`}
        </button>
      )}
    </div>
  );
}

function cellsWithout({ cell, key }: Strip, suspects: readonly Suspect[], runs: number) {
  const without = suspects.map((one) => ({ cell: scenarioKey({ ...cell, without: one.without }), runs }));
  return [{ cell: key, runs }, ...without];
}

function tierQuery({ cell }: Strip): string {
  const query = new URLSearchParams();
  if (cell.tier) query.set('tier', cell.tier);
  if (cell.skill) query.set('skill', cell.skill);
  return query.toString();
}
