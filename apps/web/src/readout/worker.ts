/**
 * Computes readouts off the page's thread: the first figures early, then as many runs as are wanted, every second stripe of
 * seeds on another core. The newest request wins: work on an older one is dropped between stripes.
 */
import { type EncounterReadout, type Project, type Readout, type Scenario, encounterChanges, readoutChanges } from '@insidia/core';
import { POLICIES, type Policy, type Work, breathe, workOf } from './gathering';
import type { ReadoutAnswer, ReadoutMessage, ReadoutRequest, StripeAnswer, StripesRequest, StylesAnswer } from './protocol';

type Result = Readout | EncounterReadout;

const known: Record<Scenario['kind'], Map<string, Result>> = { duel: new Map(), encounter: new Map() };
let latest: ReadoutRequest | null = null;
let busy = false;
let overtaken = () => {};

const send = (message: ReadoutMessage) => postMessage(message);

const helper = new Worker(new URL('./helper.ts', import.meta.url), { type: 'module' });
const ask = (request: StripesRequest) => helper.postMessage(request);
let ticket = 0;
/** Stripes that came from the helper and wait for those before them. */
const waiting = new Map<number, unknown>();
helper.onmessage = ({ data }: MessageEvent<StripeAnswer>) => {
  if (data.ticket === ticket) waiting.set(data.stripe, data.part);
};

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
      await one(request);
    } catch (error) {
      send({ failure: { id: request.id, kind: request.scenario.kind, message: (error as Error).message } });
    }
  }
  busy = false;
}

async function one(request: ReadoutRequest): Promise<void> {
  const { now, before, scenario, firstSeed } = request;
  const began = performance.now();
  const policy = POLICIES[scenario.kind];
  let old = before ? recalled(scenario, keyOf(before, scenario, firstSeed)) : undefined;
  const tell = (result: Result, done: boolean) => send({ answer: answerOf(request, result, old, done, performance.now() - began) });
  const readout = await readoutOf(now, scenario, firstSeed, policy, (early) => tell(early, false));
  if (!readout) return;
  if (before && !old && policy.runsBefore) {
    old = await readoutOf(before, scenario, firstSeed, policy).catch(() => undefined);
    if (latest) return;
  }
  tell(readout, true);
  if (scenario.kind === 'duel') {
    const styles = await acrossStyles(request);
    if (styles) send({ styles });
  }
}

function answerOf({ id, scenario }: ReadoutRequest, now: Result, before: Result | undefined, done: boolean, took: number): ReadoutAnswer {
  const told = { id, scenario, done, took };
  if (scenario.kind === 'duel') {
    const [own, old] = [now as Readout, before as Readout | undefined];
    return { ...told, kind: 'duel', now: own, ...(old && { before: old }), changes: old ? readoutChanges(old, own) : {} };
  }
  const [own, old] = [now as EncounterReadout, before as EncounterReadout | undefined];
  return { ...told, kind: 'encounter', now: own, ...(old && { before: old }), changes: old ? encounterChanges(old, own) : {} };
}

/** A readout, from memory where it is known; undefined when a newer request has come. @param early is handed it while runs still come */
async function readoutOf(
  project: Project,
  scenario: Scenario,
  firstSeed: number,
  policy: Policy,
  early?: (readout: Result) => void,
): Promise<Result | undefined> {
  const making = workOf(project, scenario, firstSeed);
  const { key } = making;
  const found = recalled(scenario, key);
  if (found) return found;
  if (!(await gather(making, project, scenario, firstSeed, policy, early && (() => early(making.result() as Result))))) return undefined;
  const result = making.result() as Result;
  remember(scenario, key, result);
  return result;
}

/**
 * ms of running that one thread does by itself: below it, handing half of the seeds to the helper and taking its rows back
 * costs more than it saves, for the page draws itself on the other core at the same time.
 */
const ALONE_MS = 120;
/** What a run of the last readout of each kind took. */
const msPerRun: Record<Scenario['kind'], number> = { duel: Infinity, encounter: Infinity };
/** ms of running between two looks at the messages that may have come. */
const PORTION_MS = 20;

/** Runs as many as are wanted, in the order of their seeds; false when a newer request came. */
async function gather(
  making: Work,
  project: Project,
  scenario: Scenario,
  firstSeed: number,
  policy: Policy,
  picture?: () => void,
): Promise<boolean> {
  const { most, least, budget, stripe, firstRuns, firstMs, pictureMs } = policy;
  const began = performance.now();
  const alone = msPerRun[scenario.kind] * most < ALONE_MS;
  const stripes = Math.ceil(most / stripe);
  waiting.clear();
  ticket++;
  if (!alone) ask({ ticket, work: { project, scenario, firstSeed, stripes, stripe } });
  let pictured = 0;
  let own = 0;
  let ran = 0;
  let breathed = began;
  try {
    while (making.count < most && (making.count < least || performance.now() - began < budget)) {
      const next = making.count / stripe;
      // Whoever waits for the other's stripe runs it, sooner or later.
      const number = alone || own > next + 4 || own >= stripes ? next : own;
      waiting.set(number, making.run(firstSeed + number * stripe, stripe));
      ran += stripe;
      if (number === own) own += 2;
      const now = performance.now();
      if (now - breathed > PORTION_MS || !alone) {
        await breathe();
        breathed = performance.now();
        if (latest) return false;
      }
      for (let part; (part = waiting.get(making.count / stripe));) {
        waiting.delete(making.count / stripe);
        making.add(part);
      }
      if (!picture || making.count === 0 || making.count * 2 > most) continue;
      const first = pictured === 0 && making.count >= firstRuns && now - began >= firstMs;
      if (first || (pictured > 0 && now - pictured > pictureMs)) {
        picture();
        pictured = performance.now();
      }
    }
  } finally {
    if (!alone) ask({ ticket: ++ticket });
  }
  msPerRun[scenario.kind] = (performance.now() - began) / Math.max(1, ran);
  return true;
}

function keyOf(project: Project, scenario: Scenario, firstSeed: number): string {
  try {
    return workOf(project, scenario, firstSeed).key;
  } catch {
    return ''; // what it was could not be run
  }
}

function recalled({ kind }: Scenario, key: string): Result | undefined {
  const found = known[kind].get(key);
  // The newest stay.
  if (found) {
    known[kind].delete(key);
    known[kind].set(key, found);
  }
  return found;
}

function remember({ kind }: Scenario, key: string, result: Result): void {
  const of = known[kind];
  of.set(key, result);
  if (of.size > POLICIES[kind].kept) of.delete(of.keys().next().value as string);
}

/** ms without a newer edit before the play styles are run: while somebody drags, nothing but the drag's own runs count. */
const QUIET_MS = 350;
/** Runs at each play style: enough to see how far they lie apart. */
const STYLE_RUNS = 60;
const STYLE_STRIPE = 5;

/** The same duel at each play style, once nothing newer waits; undefined when something newer came. */
async function acrossStyles({ id, now, scenario, firstSeed }: ReadoutRequest): Promise<StylesAnswer | undefined> {
  await Promise.race([new Promise((done) => setTimeout(done, QUIET_MS)), newerRequest()]);
  if (latest) return undefined;
  const of: StylesAnswer['of'] = [];
  for (const style of now.styles) {
    const making = workOf(now, { ...scenario, style: style.id }, firstSeed);
    while (making.count < STYLE_RUNS) {
      making.add(making.run(firstSeed + making.count, STYLE_STRIPE));
      await breathe();
      if (latest) return undefined;
    }
    const { summary, enemyKind, timeToDown } = making.result() as Readout;
    of.push({
      id: style.id,
      name: style.name,
      timeToKill: summary.kinds[enemyKind].timeToKill?.median,
      timeToDown: timeToDown?.median,
      won: summary.cleared.value,
    });
  }
  return { id, runs: STYLE_RUNS, of };
}

/** Resolves when a newer request comes. */
function newerRequest(): Promise<undefined> {
  return new Promise((done) => {
    if (latest) done(undefined);
    else overtaken = () => done(undefined);
  });
}
