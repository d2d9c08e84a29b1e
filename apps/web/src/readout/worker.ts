/**
 * Computes readouts off the page's thread: the first figures early, then as many runs as a second and a half has time for, seeds
 * shared out among the cores; then on by itself, on less of the machine, until every measure is told well enough. The newest
 * request wins: work on an older one is dropped between stripes.
 */
import {
  ACROSS_RUNS,
  type EncounterReadout,
  FIRST_LOOK,
  READOUT_CAP,
  type Readout,
  type Scenario,
  type ToldMeasure,
  encounterChanges,
  endsOfTiers,
  nextLook,
  readoutChanges,
  toldBy,
  toldEnough,
} from '@insidia/core';
import { Fights, type OneFight } from './fights';
import { POLICIES, type Work, breathe, workOf } from './gathering';
import type { PageState, ReadoutAnswer, ReadoutMessage, ReadoutRequest, StylesAnswer, ToWorker } from './protocol';
import { type Hand, Team, threads } from './team';
import { TRAINING_MS, train } from './training';
import Helper from './helper.ts?worker';

const fights = new Fights();
let latest: ReadoutRequest | null = null;
let page: PageState = { visible: true, goOn: true, project: null };
let busy = false;
let trainFor = TRAINING_MS;
let heard = () => {};

const send = (message: ReadoutMessage) => postMessage(message);

const cores = threads(navigator.hardwareConcurrency);
const helpers = Array.from({ length: cores - 1 }, (): Hand => new Helper());
const team = new Team(helpers);

onmessage = ({ data }: MessageEvent<ToWorker>) => {
  if ('request' in data) latest = data.request;
  else page = data.page;
  heard();
  if (!busy) void work();
};

/** Resolves when something is said to this worker. */
const next = () => new Promise<undefined>((done) => (heard = () => done(undefined)));

/** ms without a newer edit before anything but the edit's own runs is run: while somebody drags, nothing else counts. */
const QUIET_MS = 350;
const quiet = async () => {
  const until = new Promise((done) => setTimeout(done, QUIET_MS, true));
  while (!latest && !(await Promise.race([until, next()])));
  return !latest;
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
  await rest();
  busy = false;
  if (latest) void work();
}

/** While nothing is asked: what is left of the training, for this worker and its helpers. */
async function rest(): Promise<void> {
  const { project, visible } = page;
  if (latest || !project || !visible || trainFor <= 0) return;
  team.train(project);
  trainFor -= await train(project, trainFor, () => latest !== null || !page.visible);
}

async function one(request: ReadoutRequest): Promise<void> {
  const { now, scenario, firstSeed } = request;
  const began = performance.now();
  const policy = POLICIES[scenario.kind];
  const own = fights.of(now, scenario, firstSeed);
  // A change that leaves this fight as it was is none of its own: another unit's, another encounter's, a word.
  const was = request.before && fights.known(request.before, scenario, firstSeed);
  const old = was && was.key !== own.key ? was : undefined;
  const tell = (done: boolean, enough?: boolean) =>
    send({ answer: { ...answerOf(request, own, old, done, performance.now() - began), ...(enough !== undefined && { enough }) } });
  if (!own.ready) {
    if (!(await gather(own, policy.most, { picture: () => tell(false) }))) return;
    fights.ready(own);
  }
  if (old && !old.ready && policy.runsBefore) {
    if (await gather(old, policy.most).catch(() => false)) fights.ready(old);
    if (latest) return;
  }
  tell(true, own.enough);
  if (scenario.kind === 'duel') {
    const styles = await acrossStyles(request);
    if (styles) send({ styles });
  }
  await goOn(request, own, old, (enough) => tell(true, enough));
}

function answerOf({ id, scenario }: ReadoutRequest, own: OneFight, old: OneFight | undefined, done: boolean, took: number): ReadoutAnswer {
  const told = { id, scenario, done, took };
  // Some runs for another purpose are no readout to compare with.
  const was = old?.ready ? old.result : undefined;
  if (scenario.kind === 'duel') {
    const [now, before] = [own.result as Readout, was as Readout | undefined];
    return { ...told, kind: 'duel', now, ...(before && { before }), changes: before ? readoutChanges(before, now) : {} };
  }
  const [now, before] = [own.result as EncounterReadout, was as EncounterReadout | undefined];
  return { ...told, kind: 'encounter', now, ...(before && { before }), changes: before ? encounterChanges(before, now) : {} };
}

/**
 * ms of running that one thread does by itself: below it, handing seeds to helpers and taking their rows back costs more than
 * it saves, for the page draws itself on another core at the same time.
 */
const ALONE_MS = 120;
/** What a run of the last readout of each kind took. */
const msPerRun: Record<Scenario['kind'], number> = { duel: Infinity, encounter: Infinity };
/** ms of running between two looks at the messages that may have come. */
const PORTION_MS = 20;

interface Manner {
  /** Shows what there is, now and then. */
  picture?: () => void;
  /** On less of the machine, and not while the page wants none of it; however long it takes. */
  gently?: boolean;
}

/** Runs on to so many runs, in the order of their seeds; false when a newer request came. */
async function gather(fight: OneFight, until: number, { picture, gently = false }: Manner = {}): Promise<boolean> {
  const { scenario, project, firstSeed, work: making } = fight;
  const { least, budget, stripe, firstRuns, firstMs, pictureMs } = POLICIES[scenario.kind];
  const began = performance.now();
  // What goes on by itself leaves a core to the page.
  const helping = gently ? cores - 2 : cores - 1;
  const alone = helping === 0 || msPerRun[scenario.kind] * (until - making.count) < ALONE_MS;
  let given = making.count;
  const hand = () => {
    if (given >= until) return undefined;
    const seed = firstSeed + given;
    given += stripe;
    return { seed, runs: stripe };
  };
  let mine = hand();
  if (!alone) team.begin({ project, scenario, firstSeed }, hand, helping);
  const own = new Map<number, unknown>();
  let ran = 0;
  let pictured = 0;
  let breathed = began;
  try {
    while (making.count < until && (gently || making.count < least || performance.now() - began < budget)) {
      // With nothing left to hand out, whoever would wait for the other's stripe runs it: what comes first counts, and a helper that
      // is gone is no loss.
      mine ??= { seed: firstSeed + making.count, runs: stripe };
      own.set(mine.seed, making.run(mine.seed, mine.runs));
      ran += mine.runs;
      if (performance.now() - breathed > PORTION_MS || !alone || gently) await breathe();
      const now = performance.now();
      breathed = now;
      if (latest || (gently && !(await allowed()))) return false;
      takeIn(making, firstSeed, own);
      mine = hand();
      if (!picture || making.count === 0 || making.count * 2 > until) continue;
      const begins = pictured === 0 && making.count >= firstRuns && now - began >= firstMs;
      if (begins || (pictured > 0 && now - pictured > pictureMs)) {
        fight.result = making.result() as OneFight['result'];
        picture();
        pictured = performance.now();
      }
    }
  } finally {
    team.end();
  }
  if (ran > 0 && !gently) msPerRun[scenario.kind] = (performance.now() - began) / ran;
  fight.result = making.result() as OneFight['result'];
  return true;
}

/** Stripes in the order of their seeds, as far as there is no gap. */
function takeIn(making: Work, firstSeed: number, own: Map<number, unknown>): void {
  for (;;) {
    const seed = firstSeed + making.count;
    const part = own.get(seed) ?? team.take(seed);
    if (!part) return;
    own.delete(seed);
    making.add(part);
  }
}

/** Whether readouts may go on; while they may not, waits. False when a newer request came. */
async function allowed(): Promise<boolean> {
  while (!latest && !(page.goOn && page.visible)) await next();
  return !latest;
}

/** Goes on from look to look until every measure is told well enough; what was before keeps up, so that the change is told as well. */
async function goOn(request: ReadoutRequest, own: OneFight, old: OneFight | undefined, tell: (enough: boolean) => void): Promise<void> {
  if (!(await quiet())) return;
  await rest();
  if (own.enough || !(await allowed())) return;
  const { now, scenario } = request;
  const across: ToldMeasure[][] = [];
  for (const end of endsOfTiers(now, scenario)) {
    const fight = fights.of(now, end, request.firstSeed);
    if (fight.work.count < ACROSS_RUNS && !(await gather(fight, ACROSS_RUNS, { gently: true }))) return;
    fights.keep(fight);
    across.push(toldBy(end, fight.compiled, fight.work.rows));
  }
  for (;;) {
    const { count } = own.work;
    const looks = nextLook(count - 1, FIRST_LOOK) === count || count >= READOUT_CAP;
    if (looks && toldEnough(now, scenario, toldBy(scenario, own.compiled, own.work.rows), across)) own.enough = true;
    if (own.enough) return tell(true);
    // Of what was shown longest ago the rows are gone: they are run again, up to more than was shown.
    const until = Math.min(READOUT_CAP, nextLook(Math.max(count, (own.result?.summary.runs ?? 0) - 1), FIRST_LOOK));
    if (!(await gather(own, until, { gently: true }))) return;
    fights.ready(own);
    if (old && old.work.count < until) {
      if (await gather(old, until, { gently: true }).catch(() => false)) fights.ready(old);
      if (latest) return;
    }
    tell(false);
  }
}

/** Runs at each play style: enough to see how far they lie apart. */
const STYLE_RUNS = 60;
const STYLE_STRIPE = 5;

/** The same duel at each play style, once nothing newer waits; undefined when something newer came. */
async function acrossStyles({ id, now, scenario, firstSeed }: ReadoutRequest): Promise<StylesAnswer | undefined> {
  if (!(await quiet())) return undefined;
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
