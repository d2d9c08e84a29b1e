/** Runs a share of a readout's seeds for the worker that asks. A newer request overtakes an older one. */
import { ReadoutWork } from '@insidia/core';
import { inPortions } from './portions';
import type { HelperAnswer, HelperRequest } from './protocol';

let newest = 0;
const send = (answer: HelperAnswer) => postMessage(answer);

onmessage = ({ data }: MessageEvent<HelperRequest>) => {
  newest = data.ticket;
  void run(data);
};

async function run({ ticket, project, lens, duel, firstSeed, runs }: HelperRequest): Promise<void> {
  try {
    const work = new ReadoutWork(project, lens, duel, firstSeed, runs);
    const done = await inPortions(work, runs, () => newest !== ticket);
    send({ ticket, part: done ? work.part() : undefined });
  } catch (error) {
    send({ ticket, failure: (error as Error).message });
  }
}
