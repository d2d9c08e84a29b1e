import {
  type Dial,
  type Estimate,
  type Moves,
  type Objective,
  type Project,
  type Scenario,
  type Verdict,
  dialValue,
  dialWords,
  isOfNumber,
  numberOf,
  pointerSteps,
  unitHeads,
  unitOf,
  wantedWords,
} from '@insidia/core';
import { type KeyboardEvent, useRef, useState } from 'react';
import { Choose } from '../../fields/Choose';
import { VerdictMark } from '../../visuals/VerdictMark';
import { AddNumber } from './AddNumber';
import { DialStrip } from './DialStrip';
import { EffectBar } from './EffectBar';
import { RUNS } from './reading';
import { STRONGEST, Strongest } from './Strongest';
import { headOf } from './words';

interface Props {
  project: Project;
  cell: Scenario;
  objectives: Objective[];
  moved: readonly Moves[];
  stuck: readonly Dial[];
  /** What each objective comes to as it is written. */
  verdicts: readonly ({ estimate: Estimate; verdict?: Verdict } | undefined)[];
  chosen: string | undefined;
  /** The point of the chosen number that is looked at. */
  at: number | undefined;
  runs: number;
  /** Cells that have not so many runs; absent until what has been run is known. */
  lacking?: number;
  busy: boolean;
  saved: boolean;
  troubles: readonly string[];
  onChoose: (dial: string) => void;
  onDials: (dials: readonly Dial[]) => void;
  onAdd: (dial: Dial) => void;
  /** A screening has found them. */
  onFound: (dials: readonly Dial[]) => void;
  onRuns: (runs: number) => void;
  onRun: () => void;
}

/** What there is to run, on the button that runs it. */
function asks(moved: number, lacking: number | undefined, runs: number): string {
  if (!moved) return 'Nothing to run';
  if (lacking === undefined) return 'Reading …';
  return lacking === 0 ? 'All is run' : `Run ${lacking} × ${runs}`;
}

/** Rows are numbers, columns are goals, a cell is a bar to the side to which the number moves the goal. */
export function MovesTable(props: Props) {
  const { project, cell, objectives, moved, stuck, verdicts, chosen, at, runs, lacking, busy, saved, troubles } = props;
  const [sort, setSort] = useState<number | undefined>();
  const table = useRef<HTMLTableElement>(null);
  const strength = (one: Moves, i: number) => {
    const effect = one.effects[i];
    return effect && effect.says !== 'mute' ? Math.abs(effect.difference) : -1;
  };
  const rows = sort === undefined ? moved : [...moved].sort((a, b) => strength(b, sort) - strength(a, sort));
  const most = objectives.map((_, i) => Math.max(1e-9, ...moved.map(({ effects }) => reach(effects[i]))));
  const colours = new Map(unitHeads(project).map(({ id, colour }) => [id, colour]));
  const dials = moved.map(({ dial }) => dial);
  // As many goals leave less room for each: its number is not cut off.
  const barWidth = objectives.length > 4 ? 30 : objectives.length > 3 ? 42 : 62;
  const toRow = (event: KeyboardEvent, by: number) => {
    const next = rows[rows.findIndex(({ dial }) => dial.id === chosen) + by];
    if (!next) return;
    event.preventDefault();
    props.onChoose(next.dial.id);
    table.current?.querySelector<HTMLElement>(`[data-dial="${CSS.escape(next.dial.id)}"]`)?.focus();
  };
  return (
    <section aria-label="What moves it" className="shrink-0">
      <div className="overflow-x-auto">
        <table ref={table} className="w-full table-fixed border-y text-table" style={{ minWidth: 358 + 76 * objectives.length }}>
          <thead>
            <tr className="text-left align-bottom">
              <th className="w-[172px] py-1 pl-4 text-label font-normal text-ink-3">number, as written</th>
              <th className="w-[124px] py-1 text-label font-normal text-ink-3">may turn between</th>
              {objectives.map((objective, i) => {
                const found = verdicts[i];
                return (
                  <th
                    key={objective.column + objective.statistic}
                    className="px-1 py-1 font-normal"
                    aria-sort={sort === i ? 'descending' : 'none'}
                  >
                    <span className="flex h-4 items-center gap-1 whitespace-nowrap text-label">
                      {found?.verdict && <VerdictMark verdict={found.verdict} />}
                      {found &&
                        `${numberOf(objective.measure, found.estimate.value, objective.clock)} ${unitOf(objective.measure, objective.clock)}`}
                    </span>
                    <button
                      type="button"
                      className="block w-full truncate text-left font-semibold"
                      title={`order by ${headOf(objective)}`}
                      onClick={() => setSort(sort === i ? undefined : i)}
                    >
                      {headOf(objective)}
                      {sort === i && ' ↓'}
                    </button>
                    <span className="block truncate text-label text-ink-3">
                      {objective.band ? wantedWords(objective.measure, objective.band, objective.clock) : 'looked at'}
                    </span>
                  </th>
                );
              })}
              <th className="w-14" aria-label="Hold, leave out" />
            </tr>
          </thead>
          <tbody>
            {rows.map((one) => {
              const { dial, from, to, effects } = one;
              const { name, whose } = dialWords(project, dial);
              const here = dial.id === chosen;
              const steps = pointerSteps(dial.path);
              const colour = steps[0] === 'units' || steps[0] === 'variants' ? colours.get(steps[1]) : undefined;
              return (
                <tr
                  key={dial.id}
                  aria-selected={here}
                  className={`border-t border-hair ${here ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]' : ''}`}
                  onClick={() => props.onChoose(dial.id)}
                >
                  <td className="py-0.5 pl-4">
                    <button
                      type="button"
                      data-dial={dial.id}
                      className="flex w-full min-w-0 items-center gap-1.5 text-left"
                      onKeyDown={(event) =>
                        event.key === 'ArrowDown' ? toRow(event, 1) : event.key === 'ArrowUp' ? toRow(event, -1) : undefined
                      }
                    >
                      <svg width={10} height={10} className="shrink-0" aria-hidden>
                        {colour ? (
                          <circle cx={5} cy={5} r={4.5} fill={`var(--e-${colour})`} />
                        ) : (
                          <rect x={1.5} y={1.5} width={7} height={7} fill="none" stroke="var(--ink-2)" />
                        )}
                      </svg>
                      <span className="min-w-0 flex-1">
                        <span className="block truncate" title={`${name} ${dialValue(project, dial, from)}`}>
                          <span className={here ? 'font-semibold' : ''}>{name}</span>{' '}
                          <span className="text-ink-3">{dialValue(project, dial, from)}</span>
                        </span>
                        <span className="block truncate text-label text-ink-3">
                          {whose}, to {dialValue(project, dial, to)}
                        </span>
                      </span>
                    </button>
                  </td>
                  <td>
                    {isOfNumber(one) ? (
                      <DialStrip
                        dial={dial}
                        now={one.from}
                        marks={[{ at: one.to }, ...(here && at !== undefined ? [{ at, chosen: true }] : [])]}
                      />
                    ) : (
                      <span className="text-label text-ink-3">no values between</span>
                    )}
                  </td>
                  {effects.map((effect, i) => (
                    <td key={objectives[i].column + objectives[i].statistic} className="px-1">
                      {effect ? (
                        <EffectBar
                          effect={effect}
                          measure={objectives[i].measure}
                          clock={objectives[i].clock}
                          most={most[i]}
                          width={barWidth}
                          asked={objectives[i].band !== undefined || !objectives.some(({ band }) => band)}
                        />
                      ) : (
                        <span className="text-ghost">·</span>
                      )}
                    </td>
                  ))}
                  <td className="whitespace-nowrap text-right">
                    {isOfNumber(one) && (
                      <button
                        type="button"
                        aria-pressed={dial.locked === true}
                        aria-label={`Hold ${whose} ${name}`}
                        title={dial.locked ? 'held as it is: no search turns it' : 'hold it as it is: no search turns it'}
                        className={`h-6 w-6 align-middle hover:text-ink ${dial.locked ? 'text-ink' : 'text-ghost'}`}
                        onClick={(event) => {
                          event.stopPropagation();
                          props.onDials(dials.map((each) => (each.id === dial.id ? { ...each, locked: !each.locked } : each)));
                        }}
                      >
                        <Held held={dial.locked === true} />
                      </button>
                    )}
                    <button
                      type="button"
                      className="h-6 w-6 align-middle text-ink-3 hover:text-ink"
                      aria-label={`Leave out ${whose} ${name}`}
                      onClick={(event) => {
                        event.stopPropagation();
                        props.onDials(dials.filter(({ id }) => id !== dial.id));
                      }}
                    >
                      ×
                    </button>
                  </td>
                </tr>
              );
            })}
            {moved.length === 0 && (
              <tr>
                <td colSpan={objectives.length + 3} className="px-4 py-5 text-ink-2">
                  No number is turned yet. Add those that you have in mind, or let all of the fight’s numbers be turned at once to find the{' '}
                  {STRONGEST} that move it most.
                </td>
              </tr>
            )}
          </tbody>
        </table>
      </div>
      {stuck.length > 0 && (
        <p className="px-4 pt-1 text-label text-ink-3">
          Can’t be turned, for they have nowhere to go:{' '}
          {stuck.map((dial) => `${dialWords(project, dial).whose} ${dialWords(project, dial).name}`).join(', ')}.
        </p>
      )}
      {troubles.length > 0 && (
        <p role="alert" className="mx-4 mt-1 border-l-[3px] border-warn bg-warn-wash px-2 py-1 text-table">
          {troubles.length === 1 ? 'One turned fight' : `${troubles.length} turned fights`} can’t be run: {troubles[0]}.
        </p>
      )}
      <div className="flex items-end gap-4 px-4 py-2">
        <AddNumber project={project} cell={cell} onAdd={props.onAdd} />
        <Strongest project={project} cell={cell} objectives={objectives} onFound={props.onFound} />
        <span className="flex-1" />
        <span className="w-[92px]">
          <Choose
            quiet
            label="Runs"
            value={String(runs)}
            options={RUNS.map((many) => ({ id: String(many), name: `${many} runs` }))}
            onChoose={(many) => props.onRuns(Number(many))}
          />
        </span>
        <button type="button" className="btn btn-primary" disabled={!saved || busy || !lacking || moved.length === 0} onClick={props.onRun}>
          {busy ? 'Running …' : asks(moved.length, lacking, runs)}
        </button>
      </div>
    </section>
  );
}

/** How far a cell's drawing goes: what it shows, and its interval as far as twice that. */
function reach(effect: Moves['effects'][number]): number {
  if (!effect || effect.says === 'never' || effect.says === 'mute') return 0;
  const { difference, low, high } = effect;
  const ends = [difference, low, high].filter(Number.isFinite).map(Math.abs);
  return Math.min(Math.max(...ends), 2 * Math.max(Math.abs(difference), 1e-9) + (effect.says === 'none' ? Math.max(...ends) / 2 : 0));
}

/** A number that is held: a pin through a line; else the line alone. */
function Held({ held }: { held: boolean }) {
  return (
    <svg width={14} height={14} viewBox="0 0 14 14" className="inline" aria-hidden>
      <path d="M1 11.5 H13" stroke="currentColor" strokeWidth={1.4} />
      <path d="M7 12 V6" stroke="currentColor" strokeWidth={1.4} />
      <circle cx={7} cy={4} r={2.8} fill={held ? 'currentColor' : 'none'} stroke="currentColor" strokeWidth={1.4} />
    </svg>
  );
}
