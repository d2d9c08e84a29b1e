/** What tune is asked: a question that the project keeps, or a fight, goals and dials as options. */
import { type AskedQuestion, type Dial, NoQuestion, type Project, askedQuestion, dialAsked } from '@insidia/core';
import { EXIT, Exit } from './exit';
import { type SubjectOptions, subjectOf } from './simulate';

export interface AskedOptions extends SubjectOptions {
  question?: string;
  goal?: string[];
  dial?: string[];
  runs?: number;
}

/** @throws Exit for what is not there */
export function askedByOptions(project: Project, options: AskedOptions): AskedQuestion {
  const { question, goal: goals, dial: dials, runs, tier, skill } = options;
  if (question && (options.duel || options.encounter))
    throw new Exit(EXIT.usage, '--question says which fight: leave --duel and --encounter out');
  const words = { question, goals, dials, runs, tier, skill };
  return orUsage(() => askedQuestion(project, words, question === undefined ? () => subjectOf(project, options) : undefined));
}

/** @throws Exit */
export const dialOption = (project: Project, text: string): Dial => orUsage(() => dialAsked(project, text));

function orUsage<T>(read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (error instanceof NoQuestion) throw new Exit(EXIT.usage, error.message);
    throw error;
  }
}
