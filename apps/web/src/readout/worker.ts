/** Computes readouts off the page's thread. The newest request wins: work on an older one is dropped between portions. */
import { type Project, type Readout, type ReadoutPart, ReadoutWork, readoutChanges } from '@insidia/core';
import { inPortions } from './portions';
import type { HelperAnswer, HelperRequest, ReadoutMessage, ReadoutRequest, StylesAnswer } from './protocol';

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
      const now = await readout(request, request.now, (early) => {
        const before = request.before ? known.get(keyOf(request, request.before)) : undefined;
        const changes = before ? readoutChanges(before, early) : {};
        send({ answer: { id: request.id, now: early, before, changes, early: true, took: performance.now() - started } });
      });
      const before = now && request.before ? await readout(request, request.before).catch(() => undefined) : undefined;
      if (!now || latest) continue;
      send({
        answer: { id: request.id, now, before, changes: before ? readoutChanges(before, now) : {}, took: performance.now() - started },
      });
      const styles = await acrossStyles(request);
      if (styles) send({ styles });
    } catch (error) {
      send({ failure: { id: request.id, message: (error as Error).message } });
    }
  }
  busy = false;
}

/** ms without a newer edit before the play styles are run: while somebody drags, nothing but the drag's own runs count. */
const QUIET_MS = 350;
/** Runs at each play style: enough to see how far they lie apart. */
const STYLE_RUNS = 60;

/** The same duel at each play style, once nothing newer waits; undefined when something newer came. */
async function acrossStyles(request: ReadoutRequest): Promise<StylesAnswer | undefined> {
  await Promise.race([new Promise((done) => setTimeout(done, QUIET_MS)), newerRequest()]);
  if (latest) return undefined;
  const of: StylesAnswer['of'] = [];
  for (const { id, name } of request.now.styles) {
    const work = new ReadoutWork(request.now, { ...request.lens, style: id }, request.duel, request.firstSeed, STYLE_RUNS);
    if (!(await inPortions(work, STYLE_RUNS, () => latest !== null))) return undefined;
    const { summary, enemyKind, timeToDown } = work.result();
    of.push({
      id,
      name,
      timeToKill: summary.kinds[enemyKind].timeToKill?.median,
      timeToDown: timeToDown?.median,
      won: summary.cleared.value,
    });
  }
  return { id: request.id, runs: STYLE_RUNS, of };
}

/**
 * ms of running that one thread does by itself: below it, handing half of the seeds to the helper and taking its rows back
 * costs more than it saves, for the page draws itself on the other core at the same time.
 */
const ALONE_MS = 120;
/** What a run of the last readout took. */
let msPerRun = Infinity;

/** ms after which the first runs of a long readout are shown by themselves. */
const EARLY_MS = 60;

const keyOf = ({ lens, duel, firstSeed, runs }: ReadoutRequest, project: Project) =>
  new ReadoutWork(project, lens, duel, firstSeed, runs).key;

/**
 * A readout, from memory where it is known; undefined when a newer request has come.
 * @param early is handed the first runs of a readout that takes long
 */
async function readout(
  { lens, duel, firstSeed, runs }: ReadoutRequest,
  project: Project,
  early?: (first: Readout) => void,
): Promise<Readout | undefined> {
  const began = performance.now();
  let shown = early === undefined;
  const making = new ReadoutWork(project, lens, duel, firstSeed, runs);
  const { key } = making;
  const old = known.get(key);
  if (old) {
    // The newest stay: what an edit is compared with is asked for again and again.
    known.delete(key);
    known.set(key, old);
    return old;
  }
  const alone = msPerRun * runs < ALONE_MS;
  const half = alone ? runs : Math.ceil(runs / 2);
  const rest = alone ? undefined : secondHalf({ ticket: ++ticket, project, lens, duel, firstSeed: firstSeed + half, runs: runs - half });
  const here = await inPortions(
    making,
    half,
    () => latest !== null,
    () => {
      if (shown || performance.now() - began < EARLY_MS || making.count * 2 > half) return;
      shown = true;
      early?.(making.result());
    },
  );
  if (here) msPerRun = (performance.now() - began) / half;
  const there = rest && (await Promise.race([rest, newerRequest()]));
  if (!here || (rest && !there) || latest) return undefined;
  if (there) making.add(there);
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
