/** What stands in a fight’s columns as a number. */
import { ANSWER_KINDS, type AnswerKind } from '../model/answer-kind';

export const PHASE = { idle: 0, windup: 1, active: 2, recovery: 3 } as const;

export const NOBODY = -1;

/** What carries a unit straight: a movement of its attack, or an answer. */
export const DASHING = { not: 0, attack: 1, answer: 2 } as const;

/** What keeps a unit from following its state: nothing, an answer, a place to be at, the way home, or standing still. */
export const URGE = { none: 0, evade: 1, goTo: 2, home: 3, still: 4 } as const;

/** What a player is busy with. */
export const TASK = { none: 0, reload: 1, dose: 2, rescue: 3 } as const;

export const ILL = { slow: 0, mark: 1, lent: 2, boost: 3 } as const;

/** A player's answers, as compiled. */
export const ANSWER = Object.fromEntries(ANSWER_KINDS.map((kind, i) => [kind, i])) as Readonly<Record<AnswerKind, number>>;
