/**
 * Computes readouts of encounters off the page’s thread: the first figures after four runs, then as many runs as the time
 * allows, every second stripe of seeds on another core. The newest request wins.
 */
import { type EncounterPart, type EncounterReadout, EncounterWork, encounterChanges } from '@insidia/core';
import { type EncounterMessage, type EncounterRequest, STRIPE, type StripeAnswer, type StripesRequest } from './encounterProtocol';
import { breathe } from './portions';

/** Runs behind the first figures. */
const FIRST_RUNS = 4;
/** Fewer say nothing, however slow the machine. */
const LEAST_RUNS = 10;
/** ms of running, and the most runs, for one readout. */
const BUDGET_MS = 1500;
const MOST_RUNS = 400;
/** ms between two pictures of a readout in the making. */
const PICTURE_MS = 450;
const KEPT = 6;

const known = new Map<string, EncounterReadout>();
let latest: EncounterRequest | null = null;
let busy = false;

const send = (message: EncounterMessage) => postMessage(message);

const helper = new Worker(new URL('./encounterHelper.ts', import.meta.url), { type: 'module' });
const ask = (request: StripesRequest) => helper.postMessage(request);
let ticket = 0;
/** Stripes that came from the helper and wait for those before them. */
const waiting = new Map<number, EncounterPart>();
helper.onmessage = ({ data }: MessageEvent<StripeAnswer>) => {
  if (data.ticket === ticket) waiting.set(data.stripe, data.part);
};

onmessage = ({ data }: MessageEvent<EncounterRequest>) => {
  latest = data;
  if (!busy) void work();
};

async function work(): Promise<void> {
  busy = true;
  while (latest) {
    const request = latest;
    latest = null;
    try {
      await one(request);
    } catch (error) {
      send({ failure: { id: request.id, message: (error as Error).message } });
    }
  }
  busy = false;
}

async function one({ id, now, before, lens, encounter, firstSeed }: EncounterRequest): Promise<void> {
  waiting.clear();
  ask({ ticket: ++ticket, work: { now, lens, encounter, firstSeed, stripes: MOST_RUNS / STRIPE } });
  let old: EncounterReadout | null | undefined;
  const tell = (readout: EncounterReadout, done: boolean) => {
    old ??= (before && known.get(keyOf(before, lens, encounter, firstSeed))) ?? null;
    send({
      answer: { id, encounter, now: readout, ...(old && { before: old }), changes: old ? encounterChanges(old, readout) : {}, done },
    });
  };
  try {
    const making = new EncounterWork(now, lens, encounter, firstSeed);
    const { key } = making;
    let readout = known.get(key);
    if (!readout) {
      if (!(await gather(making, firstSeed, () => tell(making.result(), false)))) return;
      readout = making.result();
    }
    remember(key, readout);
    tell(readout, true);
  } finally {
    ask({ ticket: ++ticket });
  }
}

/** Runs as many as the time allows, in the order of their seeds; false when a newer request came. */
async function gather(making: EncounterWork, firstSeed: number, picture: () => void): Promise<boolean> {
  const began = performance.now();
  let pictured = 0;
  let own = 0;
  while (making.count < MOST_RUNS && (making.count < LEAST_RUNS || performance.now() - began < BUDGET_MS)) {
    const next = making.count / STRIPE;
    // Whoever waits for the other's stripe runs it, sooner or later.
    const stripe = own > next + 4 || own * STRIPE >= MOST_RUNS ? next : own;
    const part = making.run(firstSeed + stripe * STRIPE, STRIPE);
    await breathe();
    if (latest) return false;
    waiting.set(stripe, part);
    if (stripe === own) own += 2;
    for (let ready; (ready = waiting.get(making.count / STRIPE));) {
      waiting.delete(making.count / STRIPE);
      making.add(ready);
    }
    const first = pictured === 0 && making.count >= FIRST_RUNS;
    if (first || (pictured > 0 && performance.now() - pictured > PICTURE_MS)) {
      picture();
      pictured = performance.now();
    }
  }
  return true;
}

function keyOf(project: EncounterRequest['now'], lens: EncounterRequest['lens'], encounter: string, firstSeed: number): string {
  try {
    return new EncounterWork(project, lens, encounter, firstSeed).key;
  } catch {
    return ''; // what it was could not be run
  }
}

function remember(key: string, readout: EncounterReadout): void {
  known.delete(key);
  known.set(key, readout);
  if (known.size > KEPT) known.delete(known.keys().next().value as string);
}
