/** Runs pairs of a screening off the page's thread: every so-many-th one, from a given one on. */
import {
  BASE_RUNS,
  Batch,
  type Design,
  type Objective,
  type PairRan,
  type Project,
  type Sample,
  type Scenario,
  Screening,
  compileScenario,
  pairsOfDesign,
  sampleOf,
} from '@insidia/core';

/** The first of a worker says what it is about; a second half follows in the same worker, which has its code warm by then. */
export interface ScreenRequest {
  about?: { project: Project; cell: Scenario; objectives: Objective[] };
  design: Design;
  /** Of the design's pairs the first, and how many lie between this worker's. */
  from: number;
  every: number;
}

export type ScreenAnswer = { ran: PairRan } | { failure: string };

/** Seeds of a screening: none of those that are shown. */
const FIRST_SEED = 1_000_001;

const send = (answer: ScreenAnswer) => postMessage(answer);

let of: (ScreenRequest['about'] & { base: Sample }) | undefined;

onmessage = ({ data: { about, design, from, every } }: MessageEvent<ScreenRequest>) => {
  try {
    if (about) {
      const compiled = compileScenario(about.project, about.cell);
      const batch = new Batch(compiled, 1, BASE_RUNS);
      batch.advance(BASE_RUNS);
      of = { ...about, base: sampleOf(compiled, batch.rows) };
    }
    if (!of) return;
    const { project, cell, objectives, base } = of;
    const screening = new Screening(project, cell, objectives, design, base, FIRST_SEED);
    const pairs = pairsOfDesign(design);
    for (let i = from; i < pairs.length; i += every) send({ ran: screening.run(pairs[i]) });
  } catch (error) {
    send({ failure: (error as Error).message });
  }
};
