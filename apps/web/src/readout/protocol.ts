import type { Change, DuelMeasure, DuelOptions, Project, Readout, ReadoutPart } from '@insidia/core';

/** What the page asks of the worker: the duel as it is now, and as it was before the last change. */
export interface ReadoutRequest {
  id: number;
  now: Project;
  before: Project | null;
  lens: { tier?: string; skill?: string; style?: string };
  duel: DuelOptions;
  firstSeed: number;
  runs: number;
}

export interface ReadoutAnswer {
  id: number;
  now: Readout;
  before?: Readout;
  changes: Partial<Record<DuelMeasure, Change>>;
  /** Shown early: the first runs of a long readout; the whole follows. */
  early?: boolean;
  /** ms of computing */
  took: number;
}

/** The duel's measures at each play style, on fewer runs; medians, absent where no run has a value. */
export interface StylesAnswer {
  id: number;
  runs: number;
  of: { id: string; name: string; timeToKill?: number; timeToDown?: number; won: number }[];
}

export type ReadoutMessage = { answer: ReadoutAnswer } | { styles: StylesAnswer } | { failure: { id: number; message: string } };

/** Some seeds of a readout, for the worker's helper. */
export interface HelperRequest {
  ticket: number;
  project: Project;
  lens: ReadoutRequest['lens'];
  duel: DuelOptions;
  firstSeed: number;
  runs: number;
}

/** No part: a newer request came first. */
export interface HelperAnswer {
  ticket: number;
  part?: ReadoutPart;
  failure?: string;
}
