import {
  type Band,
  type Scenario,
  goalIn,
  type JudgedGoal,
  type Project,
  scenarioKey,
  aimOf,
  goalPlace,
  STATISTIC_WORDS,
  numberOf,
  plainOf,
  quantityOf,
  unitOf,
  wantedWords,
  VERDICT_WORDS,
} from '@insidia/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { tuneSearch } from '../tune/address';
import { WouldMove } from '../tune/WouldMove';
import { useTheme } from '../../app/theme';
import { Choose } from '../../fields/Choose';
import { bandAbout, movedEdge } from '../../fields/bandAbout';
import { NumberField } from '../../fields/NumberField';
import { TextField } from '../../fields/TextField';
import type { CellRead } from '../../server/api';
import { runCells } from '../../server/batches';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { Histogram } from '../../visuals/Histogram';
import { VerdictMark } from '../../visuals/VerdictMark';
import { guarded } from '../../parts/guarded';

interface Props {
  project: Project;
  band: Band;
  goals: readonly JudgedGoal[];
  read: ReadonlyMap<string, CellRead>;
  onChange: (what: string, next: Band, mark?: string) => void;
}

const WIDTH = 308;
const RUNS = { duel: 400, encounter: 200 };

/** One goal: every cell it speaks of with its verdict, the runs of one of them with the band to be dragged, and bands to begin with. */
export const BandPanel = guarded('The goal', function BandPanel({ project, band, goals, read, onChange }: Props) {
  const dispatch = useAppDispatch();
  const theme = useTheme();
  const saving = useAppSelector((state) => state.document.saving);
  const [chosen, setChosen] = useState<string>();
  const [factor, setFactor] = useState(1.25);
  const { measure } = band;
  // What is missed first: that is what somebody looks for.
  const goal =
    goals.find((one) => keyOf(one) === chosen) ??
    goals.find(({ verdict, judgement }) => judgement && verdict.startsWith('missed')) ??
    goals.find(({ judgement }) => judgement) ??
    goals[0];
  const clock = goal?.clock;
  const values = goal && read.get(scenarioKey(goal.cell))?.values[goal.column];
  const lacking = goals.filter(({ judgement }) => !judgement).map(({ cell }) => cell);
  const other = othersOf(project, goals);
  const present = goals.flatMap(({ judgement }) =>
    judgement && Number.isFinite(judgement.estimate.value) ? [judgement.estimate.value] : [],
  );
  return (
    <aside aria-label="Goal" className="scroll flex min-h-0 flex-col border-l bg-sheet px-4 pb-3 pt-[10px]">
      <h2 className="font-title text-[16px] first-letter:uppercase">{goalIn(measure, clock).label}</h2>
      <p className="note">
        {goalIn(measure, clock).about}; {wantedWords(measure, band, clock)}
        {unitOf(measure, clock) && ` ${unitOf(measure, clock)}`}
      </p>
      <TextField
        label="Why"
        lines={2}
        value={band.why ?? ''}
        limit={400}
        onCommit={(why) => {
          const { why: _, ...rest } = band;
          onChange('why', why.trim() ? { ...rest, why: why.trim() } : rest);
        }}
      />
      {goal && values && goal.judgement ? (
        <div className="mt-2">
          <p className="mb-1 text-table" data-verdict={goal.verdict}>
            <span className="mr-1.5 inline-block align-[-2px]">
              <VerdictMark verdict={goal.verdict} />
            </span>
            {goalPlace(project, goal)}: {quantityOf(measure, goal.judgement.estimate.value, clock)}, {VERDICT_WORDS[goal.verdict]}
            {goal.verdict === 'undecided' && goal.judgement.more ? `; about ${goal.judgement.more} more runs would decide` : ''}.
          </p>
          <Histogram
            values={values}
            estimate={goal.judgement.estimate}
            statistic={STATISTIC_WORDS[band.statistic]}
            band={band}
            number={(value) => numberOf(measure, value, clock)}
            tick={(value) => plainOf(measure, value, clock)}
            unit={unitOf(measure, clock)}
            width={WIDTH}
            theme={theme}
            onEdge={(edge, value, mark) => {
              onChange('dragged', movedEdge(band, edge, value), mark);
            }}
          />
        </div>
      ) : (
        <p className="mt-3 text-ink-3">
          {goals.length ? 'Not run yet as it is now.' : 'It speaks of nobody: choose another role, unit or tier.'}
        </p>
      )}
      {lacking.length > 0 && (
        <button
          type="button"
          className="btn btn-primary mt-2 self-start"
          disabled={saving !== 'saved'}
          onClick={() =>
            dispatch(
              runCells(
                project.id,
                distinct(lacking).map((cell) => ({ cell: scenarioKey(cell), runs: RUNS[cell.kind] })),
              ),
            )
          }
        >
          Run what it needs ({distinct(lacking).length})
        </button>
      )}
      <section className="mt-3 border-t border-hair pt-1.5" aria-label="A band to begin with">
        <div className="section-head">
          <h3>A band to begin with</h3>
        </div>
        <div className="mt-1 flex flex-wrap items-end gap-1.5">
          <button
            type="button"
            className="btn"
            disabled={!present.length}
            onClick={() => {
              const { low: _, high: __, ...rest } = band;
              onChange('about the present values', { ...rest, ...bandAbout(measure, present) });
            }}
          >
            About the present {goals.length > 1 ? 'values' : 'value'}, ± 20 %
          </button>
        </div>
        {other.length > 0 && (
          <div className="mt-1.5 flex items-end gap-1.5">
            <NumberField
              info={{ label: 'Factor', unit: '×', min: 0.01, max: 100, about: 'times the other goal’s limits' }}
              base={factor}
              width={74}
              onCommit={setFactor}
            />
            <div className="w-[170px]">
              <Choose
                label="of the goal at"
                value={undefined}
                options={other.map(({ id, tier }) => ({ id, name: project.tiers.find((one) => one.id === tier)?.name ?? 'every tier' }))}
                onChoose={(id) => {
                  const from = other.find((one) => one.id === id);
                  if (!from) return;
                  const { low: _, high: __, ...rest } = band;
                  const times = (value: number) => Number((value * factor).toPrecision(3));
                  onChange('from another tier', {
                    ...rest,
                    ...(from.low !== undefined && { low: times(from.low) }),
                    ...(from.high !== undefined && { high: times(from.high) }),
                  });
                }}
              />
            </div>
          </div>
        )}
      </section>
      <section className="mt-3 border-t border-hair pt-1.5" aria-label="Where it is measured">
        <div className="section-head">
          <h3>Where it is measured</h3>
          <span className="note">{goals.length}</span>
        </div>
        <table className="mt-1 w-full text-table">
          <tbody>
            {goals.map((one) => (
              <tr
                key={keyOf(one)}
                data-runs={one.runs}
                title={`${one.runs} runs`}
                className={`border-t border-hair ${one === goal ? 'bg-well' : ''}`}
              >
                <td>
                  <button type="button" className="text-left" onClick={() => setChosen(keyOf(one))}>
                    {goalPlace(project, one)}
                  </button>
                </td>
                <td className="text-right">{one.judgement ? quantityOf(measure, one.judgement.estimate.value, one.clock) : '—'}</td>
                <td className="w-[34px] text-right">{one.judgement && <VerdictMark verdict={one.verdict} />}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      {goal && (
        <p className="mt-2 flex gap-4">
          <Link className="link" to={{ pathname: `/projects/${project.id}/board`, search: boardQuery(goal) }}>
            on the board
          </Link>
          <Link className="link" to={{ pathname: `/projects/${project.id}/tune`, search: tuneSearch(goal.cell) }}>
            in Tune
          </Link>
        </p>
      )}
      {goal && (
        <div className="mt-2">
          <WouldMove key={keyOf(goal)} project={project} objective={aimOf(goal)} />
        </div>
      )}
    </aside>
  );
});

const keyOf = ({ cell, column }: JudgedGoal) => `${scenarioKey(cell)} ${column}`;

function distinct(cells: readonly Scenario[]): Scenario[] {
  return [...new Map(cells.map((cell) => [scenarioKey(cell), cell])).values()];
}

/** Goals of the same measure and whom at other tiers. */
function othersOf(project: Project, goals: readonly JudgedGoal[]): Band[] {
  const [first] = goals;
  if (!first) return [];
  const { band } = first;
  return (project.brief?.bands ?? []).filter(
    (one) =>
      one.id !== band.id &&
      one.measure === band.measure &&
      one.scope === band.scope &&
      one.of === band.of &&
      one.encounter === band.encounter &&
      one.skill === band.skill,
  );
}

function boardQuery({ band, cell }: JudgedGoal): string {
  const query = new URLSearchParams({ measure: band.measure, cell: scenarioKey(cell) });
  if (cell.tier) query.set('tier', cell.tier);
  if (cell.skill) query.set('skill', cell.skill);
  return query.toString();
}
