import type { Change, DuelMeasure, DuelOptions, Project, Readout, ReadoutPart } from '@insidia/core';

/** What the page asks of the worker: the duel as it is now, and as it was before the last change. */
export interface ReadoutRequest {
  id: number;
  now: Project;
  before: Project | null;
  lens: { tier?: string; skill?: string };
  duel: DuelOptions;
  firstSeed: number;
  runs: number;
}

export interface ReadoutAnswer {
  id: number;
  now: Readout;
  before?: Readout;
  changes: Partial<Record<DuelMeasure, Change>>;
  /** ms of computing */
  took: number;
}

export type ReadoutMessage = { answer: ReadoutAnswer } | { failure: { id: number; message: string } };

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
