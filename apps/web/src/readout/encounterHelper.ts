/** Runs every second stripe of an encounter's seeds for the worker that asks. A newer request overtakes an older one. */
import { EncounterWork } from '@insidia/core';
import { STRIPE, type StripeAnswer, type StripesRequest } from './encounterProtocol';
import { breathe } from './portions';

let newest = 0;
const send = (answer: StripeAnswer) => postMessage(answer);

onmessage = ({ data }: MessageEvent<StripesRequest>) => {
  newest = data.ticket;
  if (data.work) void run(data.ticket, data.work);
};

async function run(ticket: number, { now, lens, encounter, firstSeed, stripes }: NonNullable<StripesRequest['work']>): Promise<void> {
  let work: EncounterWork;
  try {
    work = new EncounterWork(now, lens, encounter, firstSeed);
  } catch {
    return; // the worker that asks meets the same, and says so
  }
  for (let stripe = 1; stripe < stripes && newest === ticket; stripe += 2) {
    send({ ticket, stripe, part: work.run(firstSeed + stripe * STRIPE, STRIPE) });
    await breathe();
  }
}
