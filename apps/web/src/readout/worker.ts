/** Computes readouts off the page's thread. The newest request wins: work on an older one is dropped between portions. */
import { type Project, type Readout, type ReadoutPart, ReadoutWork, readoutChanges } from '@insidia/core';
import { inPortions } from './portions';
import type { HelperAnswer, HelperRequest, ReadoutMessage, ReadoutRequest } from './protocol';

const KEPT = 12;
const known = new Map<string, Readout>();
let latest: ReadoutRequest | null = null;
let busy = false;
let overtaken = () => {};

const send = (message: ReadoutMessage) => postMessage(message);

/** Runs the second half of the seeds on another core. */
const helper = new Worker(new URL('./helper.ts', import.meta.url), { type: 'module' });
let ticket = 0;

function secondHalf(request: HelperRequest): Promise<ReadoutPart | undefined> {
  return new Promise((done, fail) => {
    helper.onmessage = ({ data }: MessageEvent<HelperAnswer>) => {
      if (data.ticket !== request.ticket) return;
      if (data.failure) fail(new Error(data.failure));
      else done(data.part);
    };
    helper.postMessage(request);
  });
}

onmessage = ({ data }: MessageEvent<ReadoutRequest>) => {
  latest = data;
  overtaken();
  if (!busy) void work();
};

async function work(): Promise<void> {
  busy = true;
  while (latest) {
    const request = latest;
    latest = null;
    try {
      const started = performance.now();
      const now = await readout(request, request.now);
      const before = now && request.before ? await readout(request, request.before).catch(() => undefined) : undefined;
      if (!now || latest) continue;
      send({
        answer: { id: request.id, now, before, changes: before ? readoutChanges(before, now) : {}, took: performance.now() - started },
      });
    } catch (error) {
      send({ failure: { id: request.id, message: (error as Error).message } });
    }
  }
  busy = false;
}

/** A readout, from memory where it is known; undefined when a newer request has come. */
async function readout({ lens, duel, firstSeed, runs }: ReadoutRequest, project: Project): Promise<Readout | undefined> {
  const making = new ReadoutWork(project, lens, duel, firstSeed, runs);
  const { key } = making;
  const old = known.get(key);
  if (old) {
    // The newest stay: what an edit is compared with is asked for again and again.
    known.delete(key);
    known.set(key, old);
    return old;
  }
  const half = Math.ceil(runs / 2);
  const rest = secondHalf({ ticket: ++ticket, project, lens, duel, firstSeed: firstSeed + half, runs: runs - half });
  const here = await inPortions(making, half, () => latest !== null);
  const there = await Promise.race([rest, newerRequest()]);
  if (!here || !there || latest) return undefined;
  making.add(there);
  const result = making.result();
  known.set(key, result);
  if (known.size > KEPT) known.delete(known.keys().next().value as string);
  return result;
}

/** Resolves when a newer request comes. */
function newerRequest(): Promise<undefined> {
  return new Promise((done) => {
    if (latest) done(undefined);
    else overtaken = () => done(undefined);
  });
}
