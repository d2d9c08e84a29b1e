/** What tune is asked: a question that the project keeps, or a fight, goals and dials as options. */
import {
  type Dial,
  NoGoal,
  type Project,
  type Question,
  type QuestionGoal,
  type Scenario,
  cellsOfQuestion,
  dialOfKept,
  dialOfText,
  goalOfText,
} from '@insidia/core';
import { EXIT, Exit } from './exit';
import { type SubjectOptions, asUsage, subjectOf } from './simulate';

export interface AskedOptions extends SubjectOptions {
  question?: string;
  goal?: string[];
  dial?: string[];
  runs?: number;
}

export interface Asked {
  /** The fight at each tier and skill at which it is asked about; of what moves it the first. */
  cells: Scenario[];
  goals: QuestionGoal[];
  /** Absent: the strongest of all. */
  dials?: Dial[];
  runs: number;
  question?: Question;
}

/** Runs of each point where nobody said. */
const USUAL_RUNS = 400;

/** @throws Exit for what is not there */
export function askedOf(project: Project, options: AskedOptions): Asked {
  const question = options.question === undefined ? undefined : keptQuestion(project, options.question);
  if (question && (options.duel || options.encounter))
    throw new Exit(EXIT.usage, '--question says which fight: leave --duel and --encounter out');
  const cells = question ? lensed(cellsOfQuestion(question), options) : [subjectOf(project, options)];
  const goals = options.goal?.map((text) => goalOf(project, text)) ?? question?.goals ?? [];
  const dials = options.dial?.map((text) => dialOf(project, text)) ?? (question?.dials.length ? dialsOf(project, question) : undefined);
  return { cells, goals, ...(dials && { dials }), runs: options.runs ?? question?.runs ?? USUAL_RUNS, ...(question && { question }) };
}

/** Another tier or skill than the question's, where one is given. */
function lensed(cells: Scenario[], { tier, skill }: AskedOptions): Scenario[] {
  if (tier === undefined && skill === undefined) return cells;
  return [{ ...cells[0], ...(tier !== undefined && { tier }), ...(skill !== undefined && { skill }) }];
}

/** By its id, else by its name. */
function keptQuestion(project: Project, text: string): Question {
  const all = project.tuning?.questions ?? [];
  const found = all.find(({ id }) => id === text) ?? all.find(({ name }) => name === text);
  if (found) return found;
  const there = all.length ? `: ${all.map(({ id }) => id).join(', ')}` : ': the project keeps none';
  throw new Exit(EXIT.usage, `there is no question "${text}"${there}`);
}

function dialsOf(project: Project, { name, dials }: Question): Dial[] {
  return dials.map((kept) => {
    const dial = dialOfKept(project, kept);
    if (!dial) throw new Exit(EXIT.usage, `question ${name}: ${kept.path} of ${kept.of ?? kept.scope} leads nowhere any more`);
    return dial;
  });
}

function goalOf(project: Project, text: string): QuestionGoal {
  try {
    return goalOfText(project, text);
  } catch (error) {
    if (error instanceof NoGoal) throw new Exit(EXIT.usage, error.message);
    throw error;
  }
}

/** `/units/clipper/health/max`, with `=16..28`; a word with `=WORD`; a kind of numbers with a star. */
export function dialOf(project: Project, text: string): Dial {
  const dial = asUsage(() => dialOfText(project, text));
  if (!dial) throw new Exit(EXIT.usage, `"${text}" leads to no number of the document, or to no such word`);
  const range = /=(.*\.\..*)$/.exec(text)?.[1];
  const ends = range?.split('..').map((end) => (end.trim() === '' ? NaN : Number(end)));
  if (ends && !(ends.length === 2 && ends[0] < ends[1])) throw new Exit(EXIT.usage, `"${range}" must be LOW..HIGH, such as 16..28`);
  return dial;
}
