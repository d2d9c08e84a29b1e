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

/** How the page is: what a worker does by itself goes by it. */
export interface PageState {
  /** It can be seen. */
  visible: boolean;
  /** Readouts go on by themselves until they have told enough. */
  goOn: boolean;
  /** Whose fights a worker may train with; none: not yet. */
  project: Project | null;
}

export type ToWorker = { request: ReadoutRequest } | { page: PageState };

interface Told {
  id: number;
  scenario: Scenario;
  /** The runs of the first second and a half are in. */
  done: boolean;
  /** What more runs would add is little: every measure is told well enough, or it is at its cap. Absent: nobody has looked. */
  enough?: boolean;
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

/** What a worker says to a helper: what to run from now on, which stripe of it; or to train. A newer ticket ends what was before. */
export interface HelperRequest {
  ticket: number;
  work?: { project: Project; scenario: Scenario; firstSeed: number };
  stripe?: { seed: number; runs: number };
  train?: Project;
}

export interface StripeAnswer {
  ticket: number;
  seed: number;
  part: ReadoutPart | EncounterPart;
}
