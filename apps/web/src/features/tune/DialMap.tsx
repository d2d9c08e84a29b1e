import {
  type MapAxis,
  type MapPoint,
  type Objective,
  type Project,
  VERDICT_WORDS,
  dialValue,
  dialWords,
  mapValues,
  numberOf,
  unitOf,
} from '@insidia/core';
import { useState } from 'react';
import { VerdictMark } from '../../visuals/VerdictMark';
import { headOf } from './words';

interface Props {
  project: Project;
  axes: readonly [MapAxis, MapAxis];
  objectives: readonly Objective[];
  /** Row by row from the least value of the second dial. */
  points: readonly MapPoint[];
  onChoose: (x: number, y: number) => void;
}

const ALL_WORDS = { met: 'all met', missed: 'one missed', undecided: 'undecided' } as const;

/** Two numbers at once: a table of their values, shaded by a goal's value, with its verdict; framed where all goals are met. */
export function DialMap({ project, axes, objectives, points, onChoose }: Props) {
  const [shown, setShown] = useState(0);
  const objective = objectives[shown] ?? objectives[0];
  const { measure, clock } = objective;
  const [xs, ys] = axes.map(mapValues);
  const [across, up] = axes.map(({ dial }) => dialWords(project, dial));
  const values = points.flatMap(({ at }) => at[shown]?.value ?? []).filter(Number.isFinite);
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const shade = (value: number) => (Number.isFinite(value) && most > least ? 0.32 * ((value - least) / (most - least)) : 0);
  const pointAt = (x: number, y: number) => points.find((point) => point.x === x && point.y === y);
  return (
    <div className="mt-1">
      <div className="flex flex-wrap items-center" role="radiogroup" aria-label="What the map shows">
        {objectives.map((one, i) => (
          <button
            key={one.column + one.statistic}
            type="button"
            role="radio"
            aria-checked={i === shown}
            className="switch"
            onClick={() => setShown(i)}
          >
            {headOf(one)}
          </button>
        ))}
      </div>
      <table
        className="mt-2 table-fixed text-table"
        style={{ width: 120 + xs.length * (xs.length > 6 ? 64 : 92) }}
        aria-label={`${headOf(objective)} along ${across.name} and ${up.name}`}
      >
        <thead>
          <tr>
            <th className="w-[120px] pr-2 text-right text-label font-normal text-ink-3">
              {up.name.toLowerCase()} ↓, {across.name.toLowerCase()} →
            </th>
            {xs.map((x) => (
              <th key={x} className="px-1 py-0.5 text-left font-normal">
                {dialValue(project, axes[0].dial, x)}
                {x === axes[0].now && <span className="text-ink-3"> ○</span>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {[...ys].reverse().map((y) => (
            <tr key={y}>
              <th className="pr-2 text-right font-normal">
                {y === axes[1].now && <span className="text-ink-3">○ </span>}
                {dialValue(project, axes[1].dial, y)}
              </th>
              {xs.map((x) => {
                const point = pointAt(x, y);
                const own = point?.at[shown];
                return (
                  <td key={x} className="p-0">
                    <button
                      type="button"
                      disabled={!own}
                      onClick={() => onChoose(x, y)}
                      title={
                        own &&
                        `${numberOf(measure, own.value, clock)} ${unitOf(measure, clock)} (${numberOf(measure, own.low, clock)} to ${numberOf(measure, own.high, clock)})${own.verdict ? `, ${VERDICT_WORDS[own.verdict]}` : ''}${point?.all ? `; of all goals: ${ALL_WORDS[point.all]}` : ''}`
                      }
                      className={`flex h-7 w-full items-center gap-1 border px-1.5 ${point?.all === 'met' ? 'border-[1.5px] border-ink' : 'border-hair'}`}
                      style={own && { background: `color-mix(in srgb, var(--ink-2) ${Math.round(100 * shade(own.value))}%, var(--sheet))` }}
                    >
                      <span className="min-w-0 flex-1 text-left">{own ? numberOf(measure, own.value, clock) : '·'}</span>
                      {own?.verdict && <VerdictMark verdict={own.verdict} size={9} />}
                    </button>
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-label text-ink-3">
        darker is more; {objectives.some(({ band }) => band) ? 'framed where all goals are met, sure with 95 % each; ' : ''}○ as written; a
        square opens it at the right
      </p>
    </div>
  );
}
