/** A readout gathered run by run: how many, how often shown, by which threads. The same for duels and encounters but for its numbers. */
import { DuelWork, EncounterWork, type Project, type ReadoutWork, type Scenario } from '@insidia/core';

export interface Policy {
  /** Runs of the first figures: so many if there is time, and never fewer. */
  most: number;
  least: number;
  /** ms of running after which the least will do. */
  budget: number;
  /** Seeds that one thread runs in a row; the threads take turns. */
  stripe: number;
  /** The first figures are shown after so many runs and so many ms, later ones every so many ms. */
  firstRuns: number;
  firstMs: number;
  pictureMs: number;
  /** Readouts that are kept: what an edit is compared with is asked for again and again. */
  kept: number;
  /** What was before an edit is run where it is not known. */
  runsBefore: boolean;
}

export const POLICIES: Record<Scenario['kind'], Policy> = {
  duel: { most: 200, least: 200, budget: 0, stripe: 10, firstRuns: 1, firstMs: 60, pictureMs: Infinity, kept: 12, runsBefore: true },
  encounter: { most: 400, least: 10, budget: 1500, stripe: 2, firstRuns: 4, firstMs: 0, pictureMs: 450, kept: 6, runsBefore: false },
};

/** Parts and results are those of the scenario's kind. */
export type Work = ReadoutWork<unknown, unknown>;

/** @throws Error for what is not there */
export function workOf(project: Project, scenario: Scenario, firstSeed: number): Work {
  const work = scenario.kind === 'duel' ? new DuelWork(project, scenario, firstSeed) : new EncounterWork(project, scenario, firstSeed);
  return work as Work;
}

const { port1, port2 } = new MessageChannel();
/** Lets messages that have come be heard. */
export function breathe(): Promise<void> {
  return new Promise((done) => {
    port1.onmessage = () => done();
    port2.postMessage(0);
  });
}
