/**
 * A run as a trace: its events as typed records with names, positions step by step, and the reasons for every choice.
 * Recording changes nothing: the run's digest is the same with and without.
 */
import type { Fight } from '../engine/fight';
import { clockOf } from '../record/clock';
import { DOING_NAMES, TIME_USES } from '../record/doing';
import { OUTCOME_NAMES } from '../record/outcome';
import { BREAK_NAMES, DASH_END_NAMES, EVENT, EVENT_NAMES, type EventLog, GONE_NAMES, MISS_NAMES, VERDICT_NAMES } from '../record/log';
import { type Run, Runner } from '../engine/run';
import type { Compiled } from '../engine/tables';
import { SECOND } from '../record/time';
import { EFFECTS, EFFECT_NAMES } from '../model/effects/list';
import { ANSWER_KINDS } from '../model/answer-kind';
import { told } from '../measures/clock';
import { REACTIONS } from '../measures/turn-use';
import { type Reasons, reasonsOf } from './reasons';

/** One event. Fields that do not apply are absent. */
export interface TraceEvent {
  /** s; in rounds the instant of the turn, a round a second */
  time: number;
  /** In a fight that takes turns: the round, from 1. */
  round?: number;
  event: (typeof EVENT_NAMES)[number];
  unit?: number;
  name?: string;
  other?: number;
  otherName?: string;
  /** Id of the attack, state, wave, flag, happening or unit it speaks of, or the word for a reason or an outcome. */
  id?: string;
  /** The same as it is called. */
  what?: string;
  /** Why, or how it came out: why a hit missed, what broke an attack off, what became of an answer, of a flag, of a gate. */
  cause?: Cause;
  /** The answer that was tried. */
  answer?: (typeof ANSWER_KINDS)[number] | 'none';
  /** With which traits it appears. */
  traits?: string[];
  /** Numbers by what they are: damage, overkill, dealt, absorbed, distance, seconds, x, y, amount … */
  values?: Record<string, number>;
}

export type Cause =
  | (typeof MISS_NAMES)[number]
  | (typeof BREAK_NAMES)[number]
  | (typeof DASH_END_NAMES)[number]
  | (typeof VERDICT_NAMES)[number]
  | (typeof CAPPED)[number]
  | 'raised'
  | 'lowered'
  | 'stopped'
  | 'passed';
/** What becomes of one that is too many. */
const CAPPED = ['waits', 'leftOut', 'lost'] as const;

/** Where every living unit is at a step. */
export interface TraceStep {
  /** s */
  time: number;
  units: number[];
  /** x, y, facing x, facing y, health share, for each of them */
  places: Float32Array;
}

export interface Trace {
  seed: number;
  digest: string;
  outcome: Run['outcome'];
  /** s */
  length: number;
  /** Name of each unit, by number. */
  names: string[];
  /** Kind and side of each unit. */
  units: { kind: string; side: 'party' | 'enemy'; wave?: string; traits?: string[] }[];
  events: TraceEvent[];
  steps: TraceStep[];
  reasons: Reasons[];
}

export interface TraceOptions {
  /** Keep positions at every n-th step; 0: none. */
  positionsEvery?: number;
  /** Keep the reasons of every change of mind. */
  reasons?: boolean;
}

/** Runs a seed and records it. */
export function trace(compiled: Compiled, seed: number, { positionsEvery = 1, reasons = true }: TraceOptions = {}): Trace {
  return traceWith(new Runner(compiled), seed, { positionsEvery, reasons });
}

/** The same with a fight that is made ready already. */
export function traceWith(runner: Runner, seed: number, { positionsEvery = 1, reasons = true }: TraceOptions = {}): Trace {
  const { compiled } = runner;
  const steps: TraceStep[] = [];
  const told: Reasons[] = [];
  let count = 0;
  const watch = (fight: Fight, time: number) => {
    if (positionsEvery > 0 && count++ % positionsEvery === 0) steps.push(stepOf(fight, time));
  };
  const run = runner.run(
    seed,
    positionsEvery > 0 ? watch : undefined,
    reasons ? (fight, unit) => told.push(reasonsOf(fight, unit)) : undefined,
  );
  const names = unitNames(compiled, run);
  // A name is known whole only at the end: "Clipper" becomes "Clipper 1" when a second one comes.
  for (const one of told) {
    one.name = names[one.unit];
    if (one.target) one.target.name = names[one.target.unit];
    one.candidates?.forEach((candidate) => (candidate.name = names[candidate.unit]));
  }
  return {
    seed,
    digest: run.digest,
    outcome: run.outcome,
    length: run.length / SECOND,
    names,
    units: names.map((_, unit) => ({
      kind: compiled.kinds[run.kinds[unit]].id,
      side: run.sides[unit] === 0 ? 'party' : 'enemy',
      ...(compiled.kinds[run.kinds[unit]].bears.length > 0 && { traits: compiled.kinds[run.kinds[unit]].bears }),
      ...(run.waves[unit] >= 0 && { wave: compiled.waves[run.waves[unit]].name }),
    })),
    events: eventsOf(compiled, run, names),
    steps,
    reasons: told,
  };
}

/** Why one unit does what it does at an instant: the seed is run again up to the last step before it. */
export function reasonsAt(compiled: Compiled, seed: number, unit: number, seconds: number): Reasons | undefined {
  let found: Reasons | undefined;
  new Runner(compiled).run(seed, (fight, time) => {
    if (time / SECOND <= seconds + 1e-9 && fight.alive.includes(unit)) found = reasonsOf(fight, unit);
  });
  return found;
}

function stepOf(fight: Fight, time: number): TraceStep {
  const { alive } = fight;
  const places = new Float32Array(alive.length * 5);
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    places[5 * i] = fight.x[unit];
    places[5 * i + 1] = fight.y[unit];
    places[5 * i + 2] = fight.fx[unit];
    places[5 * i + 3] = fight.fy[unit];
    places[5 * i + 4] = fight.healthNow(unit) / fight.kinds[unit].maxHealth;
  }
  return { time: time / SECOND, units: [...alive], places };
}

/** "Clipper 3": the kind, and which of it in order of appearance where there are more. */
export function unitNames(compiled: Compiled, run: Run): string[] {
  const total = new Map<string, number>();
  const kinds = Array.from({ length: run.units }, (_, unit) => compiled.kinds[run.kinds[unit]].name);
  for (const name of kinds) total.set(name, (total.get(name) ?? 0) + 1);
  const seen = new Map<string, number>();
  return kinds.map((name) => {
    seen.set(name, (seen.get(name) ?? 0) + 1);
    return total.get(name)! > 1 ? `${name} ${seen.get(name)}` : name;
  });
}

const DEALT = ['damage', 'overkill', 'dealt', 'absorbed'];

/** What the columns of each kind of event mean; s stands for µs that are shown as seconds. */
const VALUES: Partial<Record<(typeof EVENT_NAMES)[number], readonly string[]>> = {
  spawn: ['x', 'y'],
  start: ['distance'],
  wave: ['coming'],
  counter: ['value'],
  score: ['score'],
  stopped: ['dropped'],
  dash: ['metres', 'speed'],
  dashed: ['metres'],
  leash: ['distance'],
  exposed: ['', '', 'margin', 'damage'],
  answer: ['', '', 'margin'],
  turn: ['moved', 'reached'],
  crush: DEALT,
};
for (const name of EFFECT_NAMES) VALUES[EFFECTS[name].event.name] = EFFECTS[name].event.values;

export function eventsOf(compiled: Compiled, run: Run, names: readonly string[]): TraceEvent[] {
  const { log } = run;
  const { kinds } = compiled;
  const events: TraceEvent[] = [];
  for (let i = 0; i < log.length; i++) {
    const event = EVENT_NAMES[log.kind[i]];
    const unit = log.actor[i];
    const other = log.other[i];
    const spoken = spokenOf(compiled, run, i);
    const cause = causeOf(log, i);
    const answer = answerOf(log, i);
    const values = valuesOf(event, log, i);
    events.push({
      time: log.time[i] / SECOND,
      ...(clockOf(compiled) === 'rounds' && { round: told({ compiled, run }, log.time[i]) }),
      event,
      ...(unit >= 0 && { unit, name: names[unit] }),
      ...(other >= 0 && { other, otherName: names[other] }),
      ...(spoken && { id: spoken.id, what: spoken.name }),
      ...(log.kind[i] === EVENT.spawn && kinds[log.what[i]].bears.length > 0 && { traits: kinds[log.what[i]].bears }),
      ...(cause !== undefined && { cause }),
      ...(answer !== undefined && { answer }),
      ...(values && { values }),
    });
  }
  return events;
}

function valuesOf(event: (typeof EVENT_NAMES)[number], log: EventLog, i: number): Record<string, number> | undefined {
  const labels = VALUES[event];
  if (!labels) return undefined;
  const columns = [log.a[i], log.b[i], log.c[i], log.d[i]];
  const values: Record<string, number> = {};
  labels.forEach((label, column) => {
    if (label === '' || !Number.isFinite(columns[column])) return;
    if (label.startsWith('s:')) values[label.slice(2)] = columns[column] / SECOND;
    else values[label] = columns[column];
  });
  return values;
}

/** What an event speaks of. */
function spokenOf(compiled: Compiled, run: Run, i: number): { id: string; name: string } | undefined {
  const { log } = run;
  const what = log.what[i];
  const kindOf = (unit: number) => (unit >= 0 ? compiled.kinds[run.kinds[unit]] : undefined);
  const attack = (unit: number) => kindOf(unit)?.attacks[what];
  const word = (name: string) => ({ id: name, name });
  switch (log.kind[i]) {
    case EVENT.spawn:
    case EVENT.noPlace:
    case EVENT.capped:
      return compiled.kinds[what];
    case EVENT.state:
      return kindOf(log.actor[i])?.states[what];
    case EVENT.doing:
      return word(DOING_NAMES[what]);
    case EVENT.end:
      return word(OUTCOME_NAMES[what]);
    case EVENT.wave:
    case EVENT.stopped:
      return compiled.waves[what];
    case EVENT.flag:
      return word(compiled.names.flags[what]);
    case EVENT.gone:
      return word(GONE_NAMES[what]);
    case EVENT.happening:
    case EVENT.score:
      return compiled.events[what];
    case EVENT.counter:
      return { id: compiled.names.counters[what], name: compiled.counterNames[what] };
    case EVENT.death:
    case EVENT.down:
    case EVENT.answer:
      return attack(log.other[i]);
    case EVENT.turn:
      return word(what < 0 ? 'unaware' : TIME_USES[what]);
    case EVENT.reaction:
      return word(REACTIONS[log.a[i]]);
    case EVENT.notice:
    case EVENT.lose:
    case EVENT.target:
    case EVENT.leash:
    case EVENT.home:
    case EVENT.gate:
      return undefined;
    default:
      return what >= 0 ? attack(log.actor[i]) : { [-1]: { id: 'hand', name: 'by hand' }, [-2]: { id: 'home', name: 'at home' } }[what];
  }
}

function causeOf(log: EventLog, i: number): Cause | undefined {
  switch (log.kind[i]) {
    case EVENT.miss:
      return MISS_NAMES[log.a[i]];
    case EVENT.interrupted:
      return BREAK_NAMES[log.a[i]];
    case EVENT.dashed:
      return DASH_END_NAMES[log.b[i]];
    case EVENT.capped:
      return CAPPED[log.a[i]];
    case EVENT.flag:
      return log.a[i] ? 'raised' : 'lowered';
    case EVENT.gate:
      return log.a[i] ? 'passed' : 'stopped';
    case EVENT.answer:
    case EVENT.exposed:
      return VERDICT_NAMES[log.b[i]];
  }
}

function answerOf(log: EventLog, i: number): TraceEvent['answer'] {
  if (log.kind[i] !== EVENT.answer && log.kind[i] !== EVENT.exposed) return undefined;
  return log.a[i] < 0 ? 'none' : ANSWER_KINDS[log.a[i]];
}
