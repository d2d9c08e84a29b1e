/** Computes readouts off the page's thread. The newest request wins: work on an older one is dropped between portions. */
import { type Project, type Readout, ReadoutWork, readoutChanges } from '@insidia/core';
import type { ReadoutMessage, ReadoutRequest } from './protocol';

const PORTION = 20;
const KEPT = 12;
const known = new Map<string, Readout>();
let latest: ReadoutRequest | null = null;
let busy = false;

const send = (message: ReadoutMessage) => postMessage(message);

/** Lets messages in: a newer request may have come meanwhile. */
const { port1, port2 } = new MessageChannel();
function breathe(): Promise<void> {
  return new Promise((done) => {
    port1.onmessage = () => done();
    port2.postMessage(0);
  });
}

onmessage = ({ data }: MessageEvent<ReadoutRequest>) => {
  latest = data;
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
  while (!making.done) {
    making.advance(PORTION);
    await breathe();
    if (latest) return undefined;
  }
  const result = making.result();
  known.set(key, result);
  if (known.size > KEPT) known.delete(known.keys().next().value as string);
  return result;
}
