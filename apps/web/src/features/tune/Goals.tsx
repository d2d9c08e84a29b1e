import {
  type BandMeasure,
  GOAL_MEASURES,
  LIMITS,
  type Objective,
  type Project,
  type QuestionGoal,
  STATISTICS,
  STATISTIC_WORDS,
  type Scenario,
  type Statistic,
  keptGoal,
  measuresOf,
  told,
  unitHeads,
  unitOf,
  untold,
  clockOfScenario,
  goalIn,
  type Clock,
} from '@insidia/core';
import { Choose } from '../../fields/Choose';
import { Mini } from '../../fields/Mini';
import { NumberField } from '../../fields/NumberField';
import { Popover } from '../../fields/Popover';
import { goalsText } from './address';

interface Props {
  project: Project;
  cell: Scenario;
  /** What is asked now, of the brief or of one's own. */
  objectives: readonly Objective[];
  /** Goals of the question's own; none: those of the brief. */
  own: readonly QuestionGoal[];
  label: string;
  onGoals: (text: string | undefined) => void;
}

/** What is asked about: each measure, by which statistic, and between what it is wanted. */
export function Goals({ project, cell, objectives, own, label, onGoals }: Props) {
  const goals = own.length ? own : objectives.map((one) => keptGoal(project, one));
  const set = (next: readonly QuestionGoal[]) => onGoals(goalsText(next));
  const change = (i: number, to: Partial<QuestionGoal>) => set(goals.map((goal, k) => (k === i ? whole({ ...goal, ...to }) : goal)));
  const free = measuresOf(cell.kind, clockOfScenario(project, cell)).find(
    (measure) => !goals.some((goal) => goal.measure === measure && goal.scope === 'fight'),
  );
  return (
    <Popover
      label="Goals"
      width={520}
      trigger={
        <button type="button" className="link font-semibold text-ink">
          {label}
        </button>
      }
    >
      <p className="mb-1 text-table text-ink-2">
        {own.length
          ? 'Goals of this question alone.'
          : 'What the brief wants of this fight, and what is usually looked at beside it. A change here is this question’s alone.'}
      </p>
      <table className="w-full text-table" aria-label="Goals of the question">
        <thead>
          <tr className="text-left text-label text-ink-3">
            <th className="font-normal">measure</th>
            <th className="w-[112px] pl-2 font-normal">by its</th>
            <th className="w-[74px] pl-2 font-normal">at least</th>
            <th className="w-[74px] pl-2 font-normal">at most</th>
            <th className="w-6" aria-label="Leave out" />
          </tr>
        </thead>
        <tbody>
          {goals.map((goal, i) => {
            const { measure, statistic } = goal;
            const name = goalIn(measure, clockOfScenario(project, cell)).label;
            const { share } = GOAL_MEASURES[measure];
            return (
              <tr key={i} aria-label={name} className="border-t border-hair align-middle">
                <td className="py-0.5">
                  {goal.scope === 'fight' ? (
                    <Choose
                      quiet
                      label={`Measure ${i + 1}`}
                      value={measure}
                      options={measuresOf(cell.kind, clockOfScenario(project, cell)).map((id) => ({
                        id,
                        name: goalIn(id, clockOfScenario(project, cell)).label,
                      }))}
                      onChoose={(id) => change(i, fresh(id as BandMeasure))}
                    />
                  ) : (
                    <span>
                      {name} of {nameOf(project, cell, goal)}
                    </span>
                  )}
                </td>
                <td className="pl-2">
                  {share ? (
                    <span className="text-ink-3">share of runs</span>
                  ) : (
                    <Choose
                      quiet
                      label={`Statistic of ${name}`}
                      value={statistic}
                      options={STATISTICS.filter((one) => one !== 'share').map((id) => ({ id, name: STATISTIC_WORDS[id] }))}
                      onChoose={(id) => change(i, { statistic: id as Statistic })}
                    />
                  )}
                </td>
                {(['low', 'high'] as const).map((edge) => (
                  <td key={edge} className="pl-2">
                    <NumberField
                      compact
                      bare
                      tight
                      width={66}
                      info={edgeInfo(goal, edge, clockOfScenario(project, cell))}
                      base={shownEdge(goal, edge)}
                      onCommit={(value) => change(i, { [edge]: Number(untold(measure, value).toPrecision(10)) })}
                      onClear={() => change(i, { [edge]: undefined })}
                    />
                  </td>
                ))}
                <td>
                  <Mini
                    sign="remove"
                    label={`Leave out ${name}`}
                    disabled={goals.length === 1}
                    onClick={() => set(goals.filter((_, k) => k !== i))}
                  />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <div className="mt-2 flex gap-3 border-t border-hair pt-2">
        <button
          type="button"
          className="link"
          disabled={!free || goals.length >= LIMITS.questionGoals}
          onClick={() => free && set([...goals, whole({ ...fresh(free), scope: 'fight' } as QuestionGoal)])}
        >
          add a measure
        </button>
        <span className="flex-1" />
        {own.length > 0 && (
          <button type="button" className="link" onClick={() => onGoals(undefined)}>
            what the brief wants
          </button>
        )}
      </div>
      <p className="mt-1 text-label text-ink-3">Without an edge it is only looked at.</p>
    </Popover>
  );
}

/** Another measure begins by its usual statistic, with nothing wanted of it. */
const fresh = (measure: BandMeasure): Partial<QuestionGoal> => ({
  measure,
  statistic: GOAL_MEASURES[measure].usual,
  low: undefined,
  high: undefined,
});

/** Without fields that say nothing. */
function whole(goal: QuestionGoal): QuestionGoal {
  const { low, high, ...rest } = goal;
  return { ...rest, ...(low !== undefined && { low }), ...(high !== undefined && { high }) };
}

/** An edge as people read it: a share in per cent. */
function shownEdge({ measure, ...goal }: QuestionGoal, edge: 'low' | 'high'): number | undefined {
  const own = goal[edge];
  return own === undefined ? undefined : Number(told(measure, own).toPrecision(10));
}

/** A band the wrong way round is refused where it is typed. */
const edgeInfo = (goal: QuestionGoal, edge: 'low' | 'high', clock: Clock) => ({
  label: `${goalIn(goal.measure, clock).label} ${edge === 'low' ? 'at least' : 'at most'}`,
  unit: unitOf(goal.measure, clock),
  min: edge === 'high' ? (shownEdge(goal, 'low') ?? -1e7) : -1e7,
  max: edge === 'low' ? (shownEdge(goal, 'high') ?? 1e7) : 1e7,
  about: 'what is wanted',
});

function nameOf(project: Project, { id }: Scenario, { scope, of }: QuestionGoal): string {
  if (scope === 'unit') return unitHeads(project).find((one) => one.id === of)?.name ?? of ?? '';
  const waves = project.encounters.find((one) => one.id === id)?.waves ?? [];
  return waves.find((one) => one.id === of)?.name ?? of ?? '';
}
