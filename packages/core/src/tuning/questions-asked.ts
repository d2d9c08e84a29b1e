/** What is asked, of words: a question that the project keeps, or a fight, goals and dials as an address or a command line has them. */
import { clockOfScenario } from '../analysis/cells';
import { meaningless } from '../measures/list';
import type { Scenario } from '../analysis/scenario';
import type { Project } from '../model/project';
import type { Question, QuestionGoal } from '../model/question';
import { NoGoal, dialOfText, goalOfText } from './asked-text';
import type { Dial } from './dial';
import { cellsOfQuestion, dialOfKept } from './kept';

/** What is wrong with what was asked, in words. */
export class NoQuestion extends Error {}

export interface AskedWords {
  /** Id of a kept question, else its name. */
  question?: string;
  /** Instead of a question's, or beside: `won:share:0.7..0.9`; `/units/clipper/health/max=16..28`. */
  goals?: readonly string[];
  dials?: readonly string[];
  runs?: number;
  /** Another tier or skill than the question's. */
  tier?: string;
  skill?: string;
}

export interface AskedQuestion {
  /** The fight at each tier and skill at which it is asked about; of what moves it the first. */
  cells: Scenario[];
  goals: QuestionGoal[];
  /** Absent: the strongest of all. */
  dials?: Dial[];
  /** Of each value. */
  runs: number;
  question?: Question;
}

/** Runs of each value where nobody said. */
export const USUAL_ASKED_RUNS = 400;

/** @param fight without a question @throws NoQuestion for what is not there, or is no goal and no dial */
export function askedQuestion(project: Project, words: AskedWords, fight?: () => Scenario): AskedQuestion {
  const question = words.question === undefined ? undefined : keptQuestion(project, words.question);
  if (question && fight) throw new NoQuestion('a question says which fight: leave the other out');
  if (!question && !fight) throw new NoQuestion('which fight is asked about: give a question or a fight');
  const cells = question ? lensed(cellsOfQuestion(question), words) : [fight!()];
  const goals = words.goals?.map((text) => goalOf(project, text)) ?? question?.goals ?? [];
  for (const { measure } of goals) {
    const [{ id }] = cells;
    const where = project.encounters.find((one) => one.id === id)?.name ?? 'a duel';
    const odd = meaningless(measure, clockOfScenario(project, cells[0]), where);
    if (odd) throw new NoQuestion(`${measure} ${odd}`);
  }
  const dials = words.dials?.map((text) => dialAsked(project, text)) ?? (question?.dials.length ? dialsOf(project, question) : undefined);
  return {
    cells,
    goals,
    ...(dials && { dials }),
    runs: words.runs ?? question?.runs ?? USUAL_ASKED_RUNS,
    ...(question && { question }),
  };
}

function lensed(cells: Scenario[], { tier, skill }: AskedWords): Scenario[] {
  if (tier === undefined && skill === undefined) return cells;
  return [{ ...cells[0], ...(tier !== undefined && { tier }), ...(skill !== undefined && { skill }) }];
}

function keptQuestion(project: Project, text: string): Question {
  const all = project.tuning?.questions ?? [];
  const found = all.find(({ id }) => id === text) ?? all.find(({ name }) => name === text);
  if (found) return found;
  const there = all.length ? `: ${all.map(({ id }) => id).join(', ')}` : ': the project keeps none';
  throw new NoQuestion(`there is no question "${text}"${there}`);
}

function dialsOf(project: Project, { name, dials }: Question): Dial[] {
  return dials.map((kept) => {
    const dial = dialOfKept(project, kept);
    if (!dial) throw new NoQuestion(`question ${name}: ${kept.path} of ${kept.of ?? kept.scope} leads nowhere any more`);
    return dial;
  });
}

function goalOf(project: Project, text: string): QuestionGoal {
  try {
    return goalOfText(project, text);
  } catch (error) {
    if (error instanceof NoGoal) throw new NoQuestion(error.message);
    throw error;
  }
}

/** `/units/clipper/health/max`, with `=16..28`; a word with `=WORD`; a kind of numbers with a star. @throws NoQuestion */
export function dialAsked(project: Project, text: string): Dial {
  let dial;
  try {
    dial = dialOfText(project, text);
  } catch (error) {
    throw new NoQuestion((error as Error).message);
  }
  if (!dial) throw new NoQuestion(`"${text}" leads to no number of the document, or to no such word`);
  const range = /=(.*\.\..*?)!?$/.exec(text)?.[1];
  const ends = range?.split('..').map((end) => (end.trim() === '' ? NaN : Number(end)));
  if (ends && !(ends.length === 2 && ends[0] < ends[1])) throw new NoQuestion(`"${range}" must be LOW..HIGH, such as 16..28`);
  return dial;
}
