import type { Outcome } from '../record/outcome';
import { type KindFacts, factsOf } from './facts';
import { takesTurns } from './clock';
import { type EncounterMeasure, ENCOUNTER_MEASURES, TYPE_MEASURES, type TypeMeasure } from './list';
import type { Measure } from './measure';
import { bursts } from './pressure';
import type { Stream } from './stream';
import { timesToDown } from './time-to-kill';
import { type WaveSpan, waveSpans } from './wave-span';

/** What one run says of one type: every measure of a type, and what else is told of it. Values that it does not have are NaN. */
export type KindRow = Omit<KindFacts, 'lives' | 'firstStrikes'> & Record<TypeMeasure, number>;

/** One row a run: everything a batch is reduced from. Values that a run does not have are NaN. */
export type Row = Record<EncounterMeasure, number> & {
  seed: number;
  digest: string;
  outcome: Outcome;
  /** s, or the round: where the peak of pressure lies */
  peakAt: number;
  /** s by party member; +∞ for one that did not go down */
  timesToDown: number[];
  bursts: number[];
  /** By party member. */
  scores: number[];
  /** Seconds by PLAYER_USES, by party member. */
  playerTime: number[][];
  waves: WaveSpan[];
  /** By number of the type; party types included. */
  kinds: KindRow[];
};

/** All measures of one run. */
export function rowOf(stream: Stream): Row {
  const { run } = stream;
  const facts = factsOf(stream);
  const row = {
    seed: run.seed,
    digest: run.digest,
    outcome: run.outcome,
    peakAt: takesTurns(stream) ? Math.ceil(facts.pressure.peakAt) : facts.pressure.peakAt,
    timesToDown: timesToDown(stream, facts.lives),
    bursts: bursts(stream),
    scores: facts.score.members,
    playerTime: facts.time.members.map((times) => Array.from(times)),
    waves: waveSpans(stream, facts.losses, facts.score.waves),
    kinds: facts.kinds.map((kind) => measured(stream, OF_TYPE, kind, kept(kind))),
  };
  return measured(stream, OF_ENCOUNTER, facts, row);
}

/** What is kept of a type's facts. Named one by one: a copy of all but two was a good part of what a short run's row takes. */
const kept = (kind: KindFacts): Omit<KindFacts, 'lives' | 'firstStrikes'> => ({
  spawned: kind.spawned,
  killed: kind.killed,
  neverDamaged: kind.neverDamaged,
  neverStruck: kind.neverStruck,
  alive: kind.alive,
  timeUse: kind.timeUse,
  attacks: kind.attacks,
  fairness: kind.fairness,
  partyDamage: kind.partyDamage,
  states: kind.states,
  mostChanges: kind.mostChanges,
  healing: kind.healing,
  energySpent: kind.energySpent,
  gatesSkipped: kind.gatesSkipped,
  turns: kind.turns,
  noPlace: kind.noPlace,
  capped: kind.capped,
  helped: kind.helped,
});

type Listed<K extends string, From> = readonly (readonly [K, Measure<From>])[];

const listed = <K extends string, From>(measures: Readonly<Record<K, Measure<From>>>): Listed<K, From> =>
  Object.entries(measures) as [K, Measure<From>][];

const OF_ENCOUNTER = listed(ENCOUNTER_MEASURES);
const OF_TYPE = listed(TYPE_MEASURES);

/** Adds its measures to what is told of something. Those that mean nothing where a fight takes turns have no value there. */
function measured<K extends string, From, Told extends object>(
  stream: Stream,
  measures: Listed<K, From>,
  from: From,
  told: Told,
): Told & Record<K, number> {
  const turns = takesTurns(stream);
  const values = told as Record<K, number>;
  for (const [key, measure] of measures) values[key] = turns && measure.turns === null ? NaN : measure.of(from);
  return told as Told & Record<K, number>;
}
