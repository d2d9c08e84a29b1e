/** What the page and its readout workers say to one another, for duels and encounters alike. */
import type {
  Change,
  DuelMeasure,
  EncounterPart,
  EncounterReadout,
  Project,
  Readout,
  ReadoutPart,
  Scenario,
  encounterChanges,
} from '@insidia/core';

/** What is asked of the worker: the scenario as it is now, and as it was before the last change. */
export interface ReadoutRequest {
  id: number;
  now: Project;
  before: Project | null;
  scenario: Scenario;
  firstSeed: number;
}

interface Told {
  id: number;
  scenario: Scenario;
  /** No more runs come. */
  done: boolean;
  /** ms of computing */
  took: number;
}

export type DuelAnswer = Told & { kind: 'duel'; now: Readout; before?: Readout; changes: Partial<Record<DuelMeasure, Change>> };
export type EncounterAnswer = Told & {
  kind: 'encounter';
  now: EncounterReadout;
  before?: EncounterReadout;
  changes: ReturnType<typeof encounterChanges>;
};
export type ReadoutAnswer = DuelAnswer | EncounterAnswer;

/** A duel's measures at each play style, on fewer runs; medians, absent where no run has a value. */
export interface StylesAnswer {
  id: number;
  runs: number;
  of: { id: string; name: string; timeToKill?: number; timeToDown?: number; won: number }[];
}

export type ReadoutMessage =
  { answer: ReadoutAnswer } | { styles: StylesAnswer } | { failure: { id: number; kind: Scenario['kind']; message: string } };

/** What the worker asks of its helper: every second stripe of seeds, until told otherwise. */
export interface StripesRequest {
  ticket: number;
  /** None: nothing is wanted any more. */
  work?: { project: Project; scenario: Scenario; firstSeed: number; stripes: number; stripe: number };
}

export interface StripeAnswer {
  ticket: number;
  stripe: number;
  part: ReadoutPart | EncounterPart;
}
