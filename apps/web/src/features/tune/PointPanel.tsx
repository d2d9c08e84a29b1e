import {
  type Nudge,
  type Objective,
  type Project,
  type Scenario,
  dialValue,
  dialWords,
  isEntryDial,
  effectOf,
  estimate,
  numberOf,
  told,
  turnTo,
  turnedProject,
  unitOf,
  verdictOf,
  wantedWords,
} from '@insidia/core';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useTheme } from '../../app/theme';
import { Distribution } from '../../visuals/Distribution';
import { VerdictMark } from '../../visuals/VerdictMark';
import { WhatItDoes } from '../history/WhatItDoes';
import { WIDTH } from '../readout/Measure';
import { replayOf, throughBoard } from './links';
import type { RanOf } from './reading';
import { headOf } from './words';
import { WriteTo } from './WriteTo';

interface Props {
  project: Project;
  cell: Scenario;
  /** The same with the number at the value that is looked at. */
  after: Scenario;
  objectives: readonly Objective[];
  /** Numbers and where they are put; none: nothing is turned. */
  put: readonly Nudge[];
  /** It is known what has been run. */
  known: boolean;
  ran: RanOf;
  /** A proposal: what it does to every other goal of the brief is asked too. */
  everyGoal?: boolean;
  onWrite: (put: readonly Nudge[], document: Project, where?: string, tier?: string) => void;
}

/** One point: each goal before and after, and the way to write it. */
export function PointPanel({ project, cell, after, objectives, put, known, ran, everyGoal, onWrite }: Props) {
  const theme = useTheme();
  const [written, setWritten] = useState<string>();
  if (!put.length)
    return (
      <aside aria-label="The point" className="scroll border-l bg-sheet px-4 pt-3">
        <h2 className="text-section">Nothing is turned</h2>
        <p className="mt-1 text-ink-2">
          Each number that is turned shows here what it does to every goal, run by run, and can be written from here.
        </p>
      </aside>
    );
  const turned = put.filter(({ from, to }) => from !== to);
  const same = turned.length === 0;
  const turns = turned.map(({ dial, to }) => turnTo(dial, to));
  const values = turned.length > 2 ? `${turned.length} numbers` : turned.map(({ dial, to }) => dialValue(project, dial, to)).join(' and ');
  return (
    <aside aria-label="The point" className="scroll flex min-h-0 flex-col border-l bg-sheet px-4 pb-3 pt-[10px]">
      {(same ? put.slice(0, 1) : turned).map(({ dial, from, to }, i) => {
        const { name, whose } = dialWords(project, dial);
        return (
          <div key={dial.id}>
            <div className={i === 0 ? 'section-head' : 'mt-1 text-section'}>
              <h3 className="min-w-0 truncate">
                {whose}: {name.toLowerCase()}
              </h3>
            </div>
            <p className="mt-0.5 text-ink-2">
              {same
                ? `${dialValue(project, dial, from)}, as written`
                : `from ${dialValue(project, dial, from)} to ${dialValue(project, dial, to)}, on the same seeds`}
            </p>
          </div>
        );
      })}
      {objectives.map((objective) => (
        <One
          key={objective.column + objective.statistic}
          objective={objective}
          before={ran(cell, objective)}
          after={same ? undefined : ran(after, objective)}
          known={known}
          theme={theme}
        />
      ))}
      {everyGoal && !same && (
        <section aria-label="What else it moves" className="mt-3 border-t border-hair pt-2">
          <WhatItDoes key={values} before={project} after={turnedProject(project, turns)} narrow />
        </section>
      )}
      <span className="flex-1" />
      <div className="mt-3 flex flex-wrap items-center gap-2 border-t border-hair pt-3">
        <button
          type="button"
          className="btn btn-primary"
          disabled={same}
          onClick={() => {
            setWritten(values);
            onWrite(turned, turnedProject(project, turns));
          }}
        >
          {same ? 'It is written' : turned.every(({ dial }) => isEntryDial(project, dial)) ? 'Take it out' : `Write ${values}`}
        </button>
        {!same && (
          <WriteTo
            project={project}
            cell={cell}
            turns={turns}
            onWrite={(_, document, where, tier) => {
              setWritten(`${values} ${where}`);
              onWrite(turned, document, where, tier);
            }}
          />
        )}
        <Link className="btn" to={replayOf(project, after)}>
          {same ? 'Open as a replay' : 'As a replay'}
        </Link>
        {!same && (
          <Link className="btn" to={throughBoard(project, after)}>
            Look through it
          </Link>
        )}
        {written && <span className="text-label text-ink-3">written: {written}; Ctrl Z takes it back</span>}
      </div>
    </aside>
  );
}

interface OneProps {
  objective: Objective;
  before: ReturnType<RanOf>;
  after: ReturnType<RanOf>;
  known: boolean;
  theme: string;
}

/** A goal before and after. */
function One({ objective, before, after, known, theme }: OneProps) {
  const { measure, statistic, band, clock } = objective;
  const unit = unitOf(measure, clock);
  const now = after ?? before;
  const read = useMemo(
    () =>
      now && {
        found: estimate(now.values, statistic),
        was: after && before ? estimate(before.values, statistic) : undefined,
        effect: after && before ? effectOf(before, after, statistic) : undefined,
      },
    [now, after, before, statistic],
  );
  if (!now || !read)
    return (
      <p className="mt-3 text-ink-3">
        {headOf(objective)}: {known ? 'not run' : 'reading …'}
      </p>
    );
  const { found, was, effect } = read;
  const scale = (values: ArrayLike<number>) => Array.from(values, (value) => told(measure, value));
  const verdict = band && found.value === found.value ? verdictOf(found, band) : undefined;
  const signed = (value: number) => `${value > 0 ? '+' : ''}${numberOf(measure, value, clock)}`;
  return (
    <section className="mt-2" aria-label={headOf(objective)} data-objective={measure}>
      <div className="flex items-center gap-1.5 text-table">
        <b className="min-w-0 truncate">{headOf(objective)}</b>
        <span className="flex-1 text-right">
          {was && <span className="text-ink-3">{numberOf(measure, was.value, clock)} → </span>}
          <b data-value={found.value}>{numberOf(measure, found.value, clock)}</b> {unit}
        </span>
        {verdict && <VerdictMark verdict={verdict} />}
      </div>
      {statistic === 'share' ? (
        <Share now={found} was={was} band={band} />
      ) : (
        Array.from(now.values).some(Number.isFinite) && (
          <Distribution
            label={headOf(objective)}
            unit={unit}
            now={scale(now.values)}
            before={after && before ? scale(before.values) : undefined}
            median={told(measure, found.value)}
            interval={{ low: told(measure, found.low), high: told(measure, found.high) }}
            medianBefore={was && told(measure, was.value)}
            width={WIDTH}
            theme={theme}
          />
        )
      )}
      <p className="text-label text-ink-3">
        {band && `${wantedWords(measure, band, clock)}; `}
        {effect?.says === 'never'
          ? 'not one fight went otherwise'
          : effect?.says === 'mute'
            ? 'can’t be told: no finite value before or after'
            : effect
              ? `${effect.says === 'none' ? 'no change seen' : 'changed by ' + signed(effect.difference)} (${signed(effect.low)} to ${signed(effect.high)})`
              : `${numberOf(measure, found.low, clock)} to ${numberOf(measure, found.high, clock)} with 95 %`}
      </p>
    </section>
  );
}

/** A share of runs on a line from none to all. */
function Share({
  now,
  was,
  band,
}: {
  now: { value: number; low: number; high: number };
  was?: { value: number };
  band?: Objective['band'];
}) {
  const x = (value: number) => Math.min(1, Math.max(0, value)) * WIDTH;
  return (
    <svg width={WIDTH} height={20} aria-hidden>
      {band && <rect x={x(band.low ?? 0)} y={2} width={Math.max(0, x(band.high ?? 1) - x(band.low ?? 0))} height={14} fill="var(--well)" />}
      <path d={`M0 9.5 H${WIDTH}`} className="axis" />
      <path d={`M${x(now.low)} 9 H${x(now.high)}`} stroke="var(--ink-2)" strokeWidth={4} />
      {was && <circle cx={x(was.value)} cy={9} r={3} fill="var(--ghost)" />}
      <circle cx={x(now.value)} cy={9} r={4} fill="var(--ink)" />
    </svg>
  );
}
