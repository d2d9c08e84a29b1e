/** Kept questions and the address: one becomes the other. Pure. */
import {
  type Dial,
  type Project,
  type Question,
  type QuestionGoal,
  type Scenario,
  Question as QuestionClass,
  cellsOfQuestion,
  dialOfKept,
  keptDial,
  keysOfMoves,
  nudges,
  objectivesOf,
  sameJson,
  unitHeads,
} from '@insidia/core';
import type { QueryChange } from '../../app/query';
import { dialsText, fightKey, goalsText } from './address';

/** What the page asks at the moment. */
export interface Asking {
  cell: Scenario;
  goals: readonly QuestionGoal[];
  dials: readonly Dial[];
  runs: number;
}

/** How many runs of each point where nobody said. */
export const USUAL_RUNS = 200;

/** The address that asks it, at the first tier and skill it names; what belongs to another question is taken away. */
export function queryOf(project: Project, question: Question): QueryChange {
  const [cell] = cellsOfQuestion(question);
  const dials = question.dials.flatMap((dial) => dialOfKept(project, dial) ?? []);
  return {
    question: question.id,
    fight: fightKey(cell),
    tier: cell.tier,
    skill: cell.skill,
    goals: goalsText(question.goals),
    dials: dialsText(project, dials),
    runs: question.runs === USUAL_RUNS ? undefined : question.runs,
    dial: undefined,
    with: undefined,
    at: undefined,
    and: undefined,
  };
}

/** What is asked, to be kept; a duel set up otherwise than by its copies is kept by those alone. */
export function questionFrom(
  project: Project,
  { cell, goals, dials, runs }: Asking,
  more: Pick<Question, 'id' | 'name'> & Partial<Question>,
): Question {
  const { tier, skill } = cell;
  const lens = { ...(tier !== undefined && { tier }), ...(skill !== undefined && { skill }) };
  // At other tiers and skills it is asked about as before, where the first of them is.
  const others = (more.at ?? []).slice(1);
  return {
    ...new QuestionClass(),
    ...more,
    fight: cell.kind,
    of: cell.id,
    copies: cell.duel?.copies ?? 1,
    at: Object.keys(lens).length || others.length ? [lens, ...others] : [],
    goals: [...goals],
    dials: dials.flatMap((dial) => keptDial(project, dial) ?? []),
    runs,
  };
}

/** Whether the page asks just what is kept. */
export const isAsKept = (project: Project, asking: Asking, question: Question): boolean =>
  sameJson(questionFrom(project, asking, { ...question }), { ...new QuestionClass(), ...question });

/** Dials of a question that lead nowhere any more. */
export const lostOf = (project: Project, { dials }: Question): number =>
  dials.filter((dial) => dialOfKept(project, dial) === undefined).length;

/** What has to be run for it: of what is written, and of each dial turned a little, at each of its tiers and skills. */
export function keysOfQuestion(project: Project, question: Question): string[] {
  const { turned } = nudges(
    project,
    question.dials.flatMap((dial) => dialOfKept(project, dial) ?? []),
  );
  const [cell] = cellsOfQuestion(question);
  return keysOfMoves(objectivesOf(project, cell, question.goals), turned);
}

/** "Evening Shift", "6 × Clipper". */
export function fightName(project: Project, { kind, id, duel }: Pick<Scenario, 'kind' | 'id' | 'duel'>): string {
  if (kind === 'encounter') return project.encounters.find((one) => one.id === id)?.name ?? id;
  const copies = duel?.copies ?? 1;
  return `${copies > 1 ? `${copies} × ` : ''}${unitHeads(project).find((one) => one.id === id)?.name ?? id}`;
}

/** Questions changed, or one taken out; the part goes with the last. */
export function withQuestions(project: Project, questions: readonly Question[]): Project {
  const { tuning: _, ...rest } = project;
  return questions.length ? { ...rest, tuning: { questions: [...questions] } } : rest;
}
