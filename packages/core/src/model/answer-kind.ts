/** What a player can do about an attack once it is announced: what each is called, wherever it is spoken of. */

export interface AnswerWords {
  /** "answered by a dodge" */
  noun: string;
  /** "it dodges" */
  verb: string;
  /** "can: dodge" */
  bare: string;
  /** A word for narrow places. */
  short: string;
}

export const ANSWERS = {
  stepOut: { noun: 'stepping out', verb: 'steps out', bare: 'step out', short: 'step' },
  dodge: { noun: 'a dodge', verb: 'dodges', bare: 'dodge', short: 'dodge' },
  block: { noun: 'a block', verb: 'blocks', bare: 'block', short: 'block' },
  breakLine: { noun: 'breaking the line', verb: 'breaks the line', bare: 'break the line', short: 'line' },
  interrupt: { noun: 'interrupting', verb: 'interrupts', bare: 'interrupt', short: 'interrupt' },
} as const satisfies Record<string, AnswerWords>;

export type AnswerKind = keyof typeof ANSWERS;
export const ANSWER_KINDS = Object.keys(ANSWERS) as AnswerKind[];

/** All of them by one of their words. */
export const answersAs = (form: keyof AnswerWords) =>
  Object.fromEntries(ANSWER_KINDS.map((kind) => [kind, ANSWERS[kind][form]])) as Record<AnswerKind, string>;
