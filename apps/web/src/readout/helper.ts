/** Runs stripes of a readout's seeds for the worker that asks. A newer ticket overtakes an older one. */
import { type Work, breathe, workOf } from './gathering';
import type { HelperRequest, StripeAnswer } from './protocol';
import { TRAINING_MS, train } from './training';

let newest = 0;
let work: Work | undefined;
const stripes: NonNullable<HelperRequest['stripe']>[] = [];
let busy = false;
let trainFor = TRAINING_MS;
const send = (answer: StripeAnswer) => postMessage(answer);

onmessage = ({ data }: MessageEvent<HelperRequest>) => {
  if (data.ticket !== newest) {
    newest = data.ticket;
    work = undefined;
    stripes.length = 0;
  }
  if (data.work) work = workFor(data.work);
  if (data.stripe) stripes.push(data.stripe);
  if (!busy) void act(data.train);
};

/** The worker that asks meets the same, and says so. */
function workFor({ project, scenario, firstSeed }: NonNullable<HelperRequest['work']>): Work | undefined {
  try {
    return workOf(project, scenario, firstSeed);
  } catch {
    return undefined;
  }
}

async function act(training: HelperRequest['train']): Promise<void> {
  busy = true;
  if (training && !stripes.length) trainFor -= await train(training, trainFor, () => stripes.length > 0);
  for (let stripe; (stripe = stripes.shift());) {
    if (work) send({ ticket: newest, seed: stripe.seed, part: work.run(stripe.seed, stripe.runs) as StripeAnswer['part'] });
    await breathe();
  }
  busy = false;
}
