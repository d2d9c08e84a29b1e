/** How a fight can end, in the order of their numbers in the record. */

export interface OutcomeWords {
  /** "every wave is defeated" */
  told: string;
  /** In two or three words. */
  short: string;
  /** The party has what it wanted. */
  won?: true;
}

const OUTCOMES = {
  cleared: { told: 'every wave is defeated', short: 'cleared', won: true },
  partyDown: { told: 'the party is down', short: 'party down' },
  timeOut: { told: 'the time is up', short: 'out of time' },
  runaway: { told: 'the fight took too long and was ended', short: 'took too long' },
  survived: { told: 'the party stood to the end', short: 'survived', won: true },
  lost: { told: 'what was to be kept is lost', short: 'lost' },
  ended: { told: 'an event ended it', short: 'ended' },
} as const satisfies Record<string, OutcomeWords>;

export type Outcome = keyof typeof OUTCOMES;
export const OUTCOME_NAMES = Object.keys(OUTCOMES) as Outcome[];
export const OUTCOME = Object.fromEntries(OUTCOME_NAMES.map((name, i) => [name, i])) as Readonly<Record<Outcome, number>>;

/** What an outcome is called, and whether the party has won. */
export const outcomeWords = (outcome: Outcome): OutcomeWords => OUTCOMES[outcome];
export const isWon = (outcome: Outcome): boolean => outcomeWords(outcome).won === true;
