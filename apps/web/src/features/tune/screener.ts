/** Runs pairs of a screening off the page's thread: every so-many-th one, from a given one on. */
import {
  BASE_RUNS,
  Batch,
  type Design,
  type Objective,
  type PairRan,
  type Project,
  type Scenario,
  Screening,
  compileScenario,
  pairsOfDesign,
  sampleOf,
} from '@insidia/core';

export interface ScreenRequest {
  project: Project;
  cell: Scenario;
  objectives: Objective[];
  design: Design;
  /** Of the design's pairs the first, and how many lie between this worker's. */
  from: number;
  every: number;
}

export type ScreenAnswer = { ran: PairRan } | { failure: string };

/** Seeds of a screening: none of those that are shown. */
const FIRST_SEED = 1_000_001;

const send = (answer: ScreenAnswer) => postMessage(answer);

onmessage = ({ data: { project, cell, objectives, design, from, every } }: MessageEvent<ScreenRequest>) => {
  try {
    const compiled = compileScenario(project, cell);
    const base = new Batch(compiled, 1, BASE_RUNS);
    base.advance(BASE_RUNS);
    const screening = new Screening(project, cell, objectives, design, sampleOf(compiled, base.rows), FIRST_SEED);
    const pairs = pairsOfDesign(design);
    for (let i = from; i < pairs.length; i += every) send({ ran: screening.run(pairs[i]) });
  } catch (error) {
    send({ failure: (error as Error).message });
  }
};
