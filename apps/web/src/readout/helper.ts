/** Runs every second stripe of a readout's seeds for the worker that asks. A newer request overtakes an older one. */
import { type Work, breathe, workOf } from './gathering';
import type { StripeAnswer, StripesRequest } from './protocol';

let newest = 0;
const send = (answer: StripeAnswer) => postMessage(answer);

onmessage = ({ data }: MessageEvent<StripesRequest>) => {
  newest = data.ticket;
  if (data.work) void run(data.ticket, data.work);
};

async function run(ticket: number, { project, scenario, firstSeed, stripes, stripe }: NonNullable<StripesRequest['work']>): Promise<void> {
  let work: Work;
  try {
    work = workOf(project, scenario, firstSeed);
  } catch {
    return; // the worker that asks meets the same, and says so
  }
  for (let number = 1; number < stripes && newest === ticket; number += 2) {
    send({ ticket, stripe: number, part: work.run(firstSeed + number * stripe, stripe) as StripeAnswer['part'] });
    await breathe();
  }
}
