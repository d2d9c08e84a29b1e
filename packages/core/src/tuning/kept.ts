/** Questions that a project keeps, as what is asked: fights, what is wanted of them, dials; and back. */
import { LIMITS } from '../model/limits';
import { type GoalSubject } from '../measures/measure';
import { columnOf, GOAL_MEASURES, type BandMeasure, isTold } from '../measures/list';
import type { Clock } from '../record/clock';
import type { Between } from '../measures/enough';
import { type Goal, goalsOf, clockOfScenario } from '../analysis/cells';
import { type Scenario, scenarioKey } from '../analysis/scenario';
import { pointerOf, pointerSteps } from '../model/pointer';
import type { Project } from '../model/project';
import type { DialScope, Question, QuestionDial, QuestionGoal } from '../model/question';
import { unitHeads } from '../model/variants';
import { type Dial, dialFor, factorDial, wordDial } from './dial';
import { type Objective, aimOf, lookAt } from './goal';

/** The lists of a document that a dial's scope speaks of one of. */
const LISTS: Partial<Record<DialScope, string>> = {
  unit: 'units',
  encounter: 'encounters',
  arena: 'arenas',
  trait: 'traits',
  tier: 'tiers',
  skill: 'skills',
  style: 'styles',
  variant: 'variants',
};

/** The fights of a question: one at each tier and skill at which it is asked. */
export function cellsOfQuestion({ fight, of, copies, at }: Pick<Question, 'fight' | 'of' | 'copies' | 'at'>): Scenario[] {
  const lenses = at.length ? at : [{}];
  return lenses.map(({ tier, skill }: { tier?: string; skill?: string }) => ({
    kind: fight,
    id: of,
    ...(tier !== undefined && { tier }),
    ...(skill !== undefined && { skill }),
    ...(fight === 'duel' && copies > 1 && { duel: { copies } }),
  }));
}

/** Measures of a fight that are looked at where nothing is wanted of it. */
const USUAL: Record<Scenario['kind'], readonly BandMeasure[]> = {
  duel: ['won', 'timeToKill', 'peakPressureShare', 'dose'],
  encounter: ['won', 'length', 'peakPressureShare', 'longestWithoutLull'],
};
const USUAL_COUNT = 4;

/** What a question wants of one of its fights; of none of its own what the brief wants, and what is usually looked at beside it. */
export function objectivesOf(project: Project, cell: Scenario, goals: readonly QuestionGoal[] = []): Objective[] {
  const clock = clockOfScenario(project, cell);
  if (goals.length) return goals.slice(0, LIMITS.questionGoals).map((goal) => ({ ...objectiveOf(cell, goal), clock }));
  const own = goalsOfFight(project, cell).slice(0, LIMITS.questionGoals).map(aimOf);
  const usual = USUAL[cell.kind]
    .filter((measure) => !own.some((goal) => goal.measure === measure))
    .map((measure) => lookAt(cell, measure, clock));
  return own.length >= USUAL_COUNT ? own : [...own, ...usual.slice(0, USUAL_COUNT - own.length)];
}

/** What the brief wants of a fight. A crowd is nobody's goal: what it wants of an enemy's duel is no goal of six of them. */
export function goalsOfFight(project: Project, cell: Scenario): Goal[] {
  const key = scenarioKey({ ...cell, turned: undefined });
  return goalsOf(project, { tiers: [cell.tier], skills: [cell.skill] }).filter((goal) => scenarioKey(goal.cell) === key);
}

function objectiveOf(cell: Scenario, { measure, scope, of = cell.id, statistic, low, high }: QuestionGoal): Objective {
  const subject: GoalSubject = scope === 'wave' ? 'wave' : scope === 'unit' || cell.kind === 'duel' ? 'enemy' : 'encounter';
  const band: Between = { ...(low !== undefined && { low }), ...(high !== undefined && { high }) };
  return {
    cell,
    measure,
    of,
    column: columnOf(measure, subject, of),
    statistic,
    ...((low !== undefined || high !== undefined) && { band }),
  };
}

/** Back: what is wanted, as a question keeps it. */
export function keptGoal(project: Project, { cell, measure, of, statistic, band }: Objective): QuestionGoal {
  const own = of === cell.id;
  const scope = own ? 'fight' : unitHeads(project).some(({ id }) => id === of) ? 'unit' : 'wave';
  return { measure, scope, ...(!own && { of }), statistic, ...band };
}

/** Measures that can be wanted of a fight itself. */
export function measuresOf(kind: Scenario['kind'], clock: Clock = 'continuous'): BandMeasure[] {
  const subject = kind === 'duel' ? 'enemy' : 'encounter';
  return (Object.keys(GOAL_MEASURES) as BandMeasure[]).filter(
    (measure) => GOAL_MEASURES[measure].of.includes(subject) && isTold(measure, clock),
  );
}

/** A dial of a question; undefined where it leads nowhere any more. */
export function dialOfKept(project: Project, { scope, of, path, op, low, high, step, to, locked }: QuestionDial): Dial | undefined {
  const list = LISTS[scope];
  const role = scope === 'role' ? of : scope === 'enemies' ? 'enemy' : scope === 'party' ? 'party' : undefined;
  const full = list === undefined ? `/units/*${path}` : pointerOf(list, of ?? '') + path;
  const usual =
    to !== undefined
      ? // The words of a yes-or-no are of the format, those of other fields are their own.
        (wordDial(project, full, to) ?? (to === 'yes' || to === 'no' ? wordDial(project, full, to === 'yes') : undefined))
      : op === '×'
        ? factorDial(project, full, role)
        : dialFor(project, full);
  if (!usual) return undefined;
  const dial = {
    ...usual,
    ...(low !== undefined && { low }),
    ...(high !== undefined && { high }),
    ...(step !== undefined && { step }),
    ...(locked && { locked }),
  };
  return to !== undefined || dial.low < dial.high ? dial : undefined;
}

/** Back: a dial as a question keeps it; undefined for one that no scope speaks of. */
export function keptDial(project: Project, dial: Dial): QuestionDial | undefined {
  const { path, role, op, low, high, step, to, locked = false } = dial;
  const [list, id, ...within] = pointerSteps(path);
  const whose = scopeOf(list, id, role);
  if (!whose) return undefined;
  const kept: QuestionDial = { ...whose, path: pointerOf(...within), op, locked };
  if (to !== undefined) return { ...kept, to: typeof to === 'boolean' ? (to ? 'yes' : 'no') : to };
  const usual = dialOfKept(project, kept);
  return {
    ...kept,
    ...((usual?.low !== low || usual.high !== high) && { low, high }),
    ...(step !== usual?.step && step !== undefined && { step }),
  };
}

function scopeOf(list: string, id: string, role: string | undefined): Pick<QuestionDial, 'scope' | 'of'> | undefined {
  if (list === 'units' && id === '*') {
    if (role === 'enemy') return { scope: 'enemies' };
    if (role === 'party') return { scope: 'party' };
    return role === undefined ? undefined : { scope: 'role', of: role };
  }
  const scope = (Object.keys(LISTS) as DialScope[]).find((one) => LISTS[one] === list);
  return scope && { scope, of: id };
}
