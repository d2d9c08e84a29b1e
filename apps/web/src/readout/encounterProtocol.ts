import type { EncounterPart, EncounterReadout, Project, encounterChanges } from '@insidia/core';

/** What the page asks of the encounters' worker. */
export interface EncounterRequest {
  id: number;
  now: Project;
  before: Project | null;
  lens: { tier?: string; skill?: string };
  encounter: string;
  firstSeed: number;
}

export interface EncounterAnswer {
  id: number;
  encounter: string;
  now: EncounterReadout;
  before?: EncounterReadout;
  changes: ReturnType<typeof encounterChanges>;
  /** No more runs come. */
  done: boolean;
}

export type EncounterMessage = { answer: EncounterAnswer } | { failure: { id: number; message: string } };

/** Seeds that one thread runs in a row; the threads take turns. */
export const STRIPE = 2;

/** What the encounters' worker asks of its helper: every second stripe of seeds, until told otherwise. */
export interface StripesRequest {
  ticket: number;
  /** None: nothing is wanted any more. */
  work?: Omit<EncounterRequest, 'id' | 'before'> & { stripes: number };
}

export interface StripeAnswer {
  ticket: number;
  stripe: number;
  part: EncounterPart;
}
