import {
  type ComparedGoal,
  type Goal,
  type Project,
  blame,
  blameOverall,
  flips,
  goalName,
  isSeen,
  numberOf,
  scenarioKey,
  unitOf,
} from '@insidia/core';
import { useEffect, useRef, useState } from 'react';
import { useView } from '../../app/view';
import { VerdictMark } from '../../visuals/VerdictMark';
import { EffectBar } from '../tune/EffectBar';
import type { CompareAnswer, CompareRequest, EditRow } from './comparer';
import Comparer from './comparer.ts?worker';

/** Runs of each cell of either version. */
const RUNS = 100;

interface Found {
  progress?: { done: number; of: number };
  goals?: ComparedGoal[];
  asked?: Goal[];
  edits?: EditRow[];
  failure?: string;
}

const keyOf = ({ band, cell, of }: Goal) => `${band.id} ${scenarioKey(cell)} ${of}`;

/**
 * What the difference between two versions does to every goal, on the same seeds, and which edit did it.
 * @param tier at which alone; absent: at that of the lens
 * @param narrow goals alone, at every tier and skill: what a point does beside what it is for
 */
export function WhatItDoes({ before, after, tier, narrow }: { before: Project; after: Project; tier?: string; narrow?: boolean }) {
  const [view] = useView(after);
  const [found, setFound] = useState<Found>();
  const [chosen, setChosen] = useState<string>();
  const worker = useRef<Worker>(undefined);
  const stop = () => {
    worker.current?.terminate();
    worker.current = undefined;
  };
  useEffect(() => stop, []);
  const begin = () => {
    stop();
    setFound({});
    worker.current = new Comparer();
    worker.current.onmessage = ({ data }: MessageEvent<CompareAnswer>) => {
      setFound((old) => ({ ...old, ...('of' in data ? { progress: data } : data) }));
      if ('edits' in data || 'failure' in data) stop();
    };
    const lens = narrow ? {} : { tier: tier ?? view.tier, skill: view.skill };
    const request: CompareRequest = { before, after, ...lens, runs: RUNS, goalsOnly: narrow };
    worker.current.postMessage(request);
  };
  const bands = (after.brief?.bands.length ?? 0) + (before.brief?.bands.length ?? 0);
  if (!bands)
    return <p className="text-label text-ink-3">Neither version has a goal: what the difference does is told by goals of the brief.</p>;
  const { progress, goals, asked = [], edits, failure } = found ?? {};
  const running = found !== undefined && !edits && !failure;
  const shown = goals?.filter((one) => flips(one) || isSeen(one.effect)) ?? [];
  const goal = asked.findIndex((one) => keyOf(one) === chosen);
  const weight = (row: EditRow) => (goal < 0 ? blameOverall(row.effects) : blame(row.effects[goal]));
  const ordered = [...(edits ?? [])].sort((a, b) => weight(b) - weight(a));
  return (
    <div className="text-table">
      <div className="flex items-center gap-3">
        <button type="button" className="btn" disabled={running} onClick={begin}>
          {narrow ? 'What else it moves' : found ? 'Run both again' : 'What it does to the fights'}
        </button>
        <span className="text-label text-ink-3" role="status">
          {failure
            ? `can’t be run: ${failure}`
            : running
              ? progress
                ? `${progress.done.toLocaleString('en')} of ${progress.of.toLocaleString('en')} runs${goals && !narrow ? ', each edit alone' : ''}`
                : 'beginning …'
              : found
                ? `${RUNS} runs a cell on the same seeds`
                : narrow
                  ? `every goal of the brief, ${RUNS} runs a cell`
                  : `every goal of both at the lens, ${RUNS} runs a cell; then every edit alone`}
        </span>
      </div>
      {goals && (
        <table className="mt-2 w-full table-fixed" aria-label="What moved">
          <thead>
            <tr className="text-left text-label text-ink-3">
              <th className="font-normal">
                goal that flips or moves, {shown.length} of {goals.length}
              </th>
              <th className="w-[104px] text-right font-normal">before, after</th>
              {!narrow && <th className="w-[120px] pl-2 font-normal">moved by</th>}
              <th className="w-[52px] pl-2 font-normal">was, is</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((one) => {
              const { measure } = one.goal.band;
              const { clock } = one.goal;
              const key = keyOf(one.goal);
              const here = goal >= 0 && keyOf(asked[goal]) === key;
              const name = goalName(after, { ...one.goal, runs: 0, verdict: 'undecided' });
              const value = (of: ComparedGoal['before']) => (of ? numberOf(measure, of.judgement.estimate.value, clock) : '–');
              return (
                <tr key={key} className={`border-t border-hair ${here ? 'bg-well' : ''}`}>
                  <td className="py-0.5">
                    <button
                      type="button"
                      aria-pressed={here}
                      className="block w-full truncate text-left"
                      title={name}
                      onClick={() => setChosen(here ? undefined : key)}
                    >
                      {name}
                    </button>
                  </td>
                  <td className="text-right">
                    {value(one.before)}, {value(one.after)} {unitOf(measure, clock)}
                  </td>
                  {!narrow && (
                    <td className="pl-2">
                      {one.effect && <EffectBar effect={one.effect} measure={measure} clock={clock} most={mostOf(one)} asked width={44} />}
                    </td>
                  )}
                  <td className="pl-2">
                    <span className="flex items-center gap-1">
                      {one.before && <VerdictMark verdict={one.before.verdict} />}
                      {one.after && <VerdictMark verdict={one.after.verdict} />}
                    </span>
                  </td>
                </tr>
              );
            })}
            {shown.length === 0 && (
              <tr>
                <td colSpan={4} className="border-t border-hair py-1 text-ink-2">
                  No goal flips, and none can be seen to move in so many runs.
                </td>
              </tr>
            )}
          </tbody>
        </table>
      )}
      {edits && asked.length > 0 && (
        <table className="mt-3 w-full table-fixed" aria-label="Which edit did it">
          <thead>
            <tr className="text-left text-label text-ink-3">
              <th className="font-normal">
                {goal < 0
                  ? 'edit, the one to blame over all goals first; a goal above shows it for that goal'
                  : 'edit, the one that did most first'}
              </th>
              {goal < 0 ? (
                <th className="w-[150px] text-right font-normal">goals it moves</th>
              ) : (
                <>
                  <th className="w-[120px] font-normal">put in alone</th>
                  <th className="w-[120px] font-normal">lost without it</th>
                </>
              )}
            </tr>
          </thead>
          <tbody>
            {ordered.map((row) => {
              const sentence = row.words.join('; ');
              return (
                <tr key={sentence} className="border-t border-hair">
                  <td className="py-0.5">
                    <span className="block truncate" title={sentence}>
                      {sentence}
                    </span>
                    {goal >= 0 && row.effects[goal].together && (
                      <span className="text-label text-ink-3">only with others, or only without</span>
                    )}
                  </td>
                  {goal < 0 ? (
                    <td className="text-right">{movedWords(row, asked.length)}</td>
                  ) : (
                    <Bars row={row} rows={edits} goal={goal} asked={asked} />
                  )}
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </div>
  );
}

/** What an edit does to one goal: alone, and among the others. */
function Bars({ row, rows, goal, asked }: { row: EditRow; rows: readonly EditRow[]; goal: number; asked: readonly Goal[] }) {
  const { putIn, takenOut } = row.effects[goal];
  const { measure } = asked[goal].band;
  const { clock } = asked[goal];
  const sizes = rows
    .flatMap(({ effects }) => [effects[goal].putIn, effects[goal].takenOut])
    .map((effect) => (effect && isSeen(effect) ? Math.abs(effect.difference) * 1.4 : 0));
  const most = Math.max(1e-9, ...sizes);
  return [putIn, takenOut].map((effect, i) => (
    <td key={i} className="pr-3">
      {effect && <EffectBar effect={effect} measure={measure} clock={clock} most={most} asked width={44} />}
    </td>
  ));
}

/** "2 of 4": goals that it moves for all to see; of what no fight shows, never. */
function movedWords({ effects }: EditRow, of: number): string {
  const all = effects.flatMap(({ putIn, takenOut }) => [putIn, takenOut]);
  if (all.every((effect) => !effect || effect.says === 'never')) return 'never';
  return `${effects.filter(({ putIn, takenOut }) => isSeen(putIn) || isSeen(takenOut)).length} of ${of}`;
}

const mostOf = ({ effect }: ComparedGoal): number => (effect ? Math.max(1e-9, Math.abs(effect.difference) * 1.6) : 1);
