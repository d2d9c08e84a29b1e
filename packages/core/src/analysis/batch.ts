import { Digest } from '../engine/digest';
import { OUTCOME_NAMES, type Outcome } from '../record/outcome';
import { type Run, Runner, type Watcher } from '../engine/run';
import type { Compiled } from '../engine/tables';
import type { CompiledUnit } from '../engine/unit-tables';
import { type AttackUse, noUse } from '../measures/attack-use';
import {
  ENCOUNTER_MEASURES,
  type EncounterMeasure,
  MEMBER_MEASURES,
  type MemberMeasure,
  TYPE_MEASURES,
  type TypeMeasure,
  WAVE_MEASURES,
  type WaveMeasure,
} from '../measures/list';
import { type Fairness, joined } from '../measures/fairness';
import { type Interval, ratioOfSums, wilson } from '../measures/intervals';
import { type KindRow, type Row, rowOf } from '../measures/row';
import { typesOf } from '../measures/stream';
import { type Summary, summarise } from '../measures/summary';
import { type Clock, clockOf } from '../record/clock';
import { TIME_USES, type TimeUse } from '../record/doing';
import { PLAYER_USES, type PlayerUse } from '../measures/time-use';

export type Ratio = { value: number } & Interval;

/** What one attack came to over a batch. */
export type AttackSummary = { id: string; name: string } & AttackUse & {
    /** Share of all damage of its type; of all time its type lived. */
    damageShare: number;
    timeShare: number;
    damagePerUse: number;
    fairness: FairnessSummary;
  };

export interface FairnessSummary extends Omit<Fairness, 'margins'> {
  /** Reaction margins of all its hits, s; for looking at: hits of one run are not independent. */
  margin?: Summary;
  /** Share of damage with no answer available, over runs. */
  unanswerableShare: Ratio;
}

/** The measures of one enemy type or party kind over a batch. */
export type KindSummary = Partial<Record<TypeMeasure, Summary>> & {
  id: string;
  name: string;
  spawned: number;
  killed: number;
  neverDamaged: number;
  neverStruck: number;
  /** Shares of alerted time; they sum to 1. Undefined when it was never alerted. */
  timeUse?: Record<TimeUse, Ratio>;
  /** Damage to anybody's health and shield per second alerted, and per second alive. */
  damagePerAlertedSecond?: number;
  damagePerSecondAlive?: number;
  /** Share of all damage the party took. */
  partyDamageShare: Ratio;
  attacks: AttackSummary[];
  states: { id: string; name: string; share: number; entriesPerLife: number; moves: { to: number; perLife: number }[] }[];
  mostChanges: number;
  healing: KindRow['healing'];
  energySpent: number;
  gatesSkipped: number;
  noPlace: number;
  capped: number;
  helped: number;
};

export interface BatchSummary {
  /** What the fight goes by: what its measures are told in. */
  clock: Clock;
  runs: number;
  firstSeed: number;
  /** Over the digests of all runs in order: same document, same seeds, same digest, wherever it is run. */
  digest: string;
  outcomes: Record<Outcome, number>;
  /** Share of runs the party won: cleared, or survived to the limit where that counts. */
  cleared: Ratio;
  encounter: Partial<Record<EncounterMeasure, Summary>>;
  /** By party member, in the encounter's order, with the id of its unit; of the units of groups that take its place the first forty. */
  members: ({ unit: string } & Partial<Record<MemberMeasure, Summary>> & { time: Record<PlayerUse, Ratio> })[];
  waves: (Partial<Record<WaveMeasure, Summary>> & { id: string; name: string; came: number })[];
  fairness: FairnessSummary;
  kinds: KindSummary[];
}

/** Many seeded runs of one compiled encounter, worked off in portions. Seeds are firstSeed, firstSeed + 1, … */
export class Batch {
  readonly rows: Row[] = [];
  private readonly runner: Runner;

  constructor(
    readonly compiled: Compiled,
    readonly firstSeed: number,
    readonly runs: number,
    private readonly watch?: Watcher,
    private readonly each?: (run: Run) => void,
  ) {
    if (!Number.isInteger(runs) || runs < 1 || runs > 100_000)
      throw new Error(`runs must be a whole number from 1 to 100000: it is ${runs}`);
    if (!Number.isInteger(firstSeed) || firstSeed < 0 || firstSeed + runs > 2 ** 31) {
      throw new Error(`seed must be a whole number from 0 to ${2 ** 31 - runs}: it is ${firstSeed}`);
    }
    this.runner = new Runner(compiled);
  }

  get done(): boolean {
    return this.rows.length === this.runs;
  }

  /** Runs up to so many more. */
  advance(most: number): void {
    for (let i = 0; i < most && !this.done; i++) {
      const run: Run = this.runner.run(this.firstSeed + this.rows.length, this.watch);
      this.rows.push(rowOf({ compiled: this.compiled, run }));
      this.each?.(run);
    }
  }

  /** Takes over rows that were run elsewhere: those of the seeds that come next. @throws Error for any other seeds */
  append(rows: readonly Row[]): void {
    rows.forEach((row, i) => {
      const expected = this.firstSeed + this.rows.length + i;
      if (row.seed !== expected) throw new Error(`the next row must be of seed ${expected}: it is of ${row.seed}`);
    });
    this.rows.push(...rows);
  }

  summary(): BatchSummary {
    return summariseRows(this.compiled, this.rows, this.firstSeed);
  }
}

/** Runs a whole batch at once. */
export function runBatch(compiled: Compiled, firstSeed: number, runs: number): BatchSummary {
  const batch = new Batch(compiled, firstSeed, runs);
  batch.advance(runs);
  return batch.summary();
}

/** Reduces rows in run order. */
export function summariseRows(compiled: Compiled, rows: readonly Row[], firstSeed: number): BatchSummary {
  const outcomes = Object.fromEntries(OUTCOME_NAMES.map((name) => [name, 0])) as Record<Outcome, number>;
  for (const { outcome } of rows) outcomes[outcome]++;
  const won = outcomes.cleared + outcomes.survived;
  const partyDamage = rows.map(({ kinds }) => kinds.reduce((sum, kind) => sum + kind.partyDamage, 0));
  return {
    clock: clockOf(compiled),
    runs: rows.length,
    firstSeed,
    digest: batchDigest(rows),
    outcomes,
    cleared: { value: won / rows.length, ...wilson(won, rows.length) },
    encounter: summaries(keysOf(ENCOUNTER_MEASURES), rows, (row, id) => row[id]),
    members: compiled.seats.slice(0, MOST_MEMBERS).map(({ kind }, member) => ({
      unit: compiled.kinds[kind].id,
      ...summaries(keysOf(MEMBER_MEASURES), rows, (row, id) => MEMBER_MEASURES[id].of([row, member])),
      time: record(PLAYER_USES, (use) =>
        ratioOfSums(
          rows.map(({ playerTime }) => playerTime[member][PLAYER_USES.indexOf(use)]),
          rows.map(({ length }) => length),
        ),
      ),
    })),
    waves: compiled.waves.map(({ id, name }, wave) => ({
      id,
      name,
      came: rows.filter((row) => row.waves[wave].started >= 0).length,
      ...summaries(keysOf(WAVE_MEASURES), rows, ({ waves }, id) => WAVE_MEASURES[id].of(waves[wave])),
    })),
    fairness: summariseFairness(rows.map(({ kinds }) => joined(kinds.flatMap(({ fairness }) => fairness)))),
    kinds: typesOf(compiled).map((unit, type) =>
      summariseKind(
        unit,
        rows.map((row) => row.kinds[type]),
        partyDamage,
      ),
    ),
  };
}

/** Members of whom a batch tells one by one. */
const MOST_MEMBERS = 40;

const keysOf = <K extends string>(list: Readonly<Record<K, unknown>>) => Object.keys(list) as K[];

/** Each measure of a list over as many values as there are runs; one that no run has is left out. */
function summaries<T, K extends string>(
  keys: readonly K[],
  from: readonly T[],
  of: (from: T, key: K) => number,
): Partial<Record<K, Summary>> {
  const found: Partial<Record<K, Summary>> = {};
  for (const key of keys) {
    const summary = summarise(from.map((one) => of(one, key)));
    if (summary) found[key] = summary;
  }
  return found;
}

function record<K extends string, V>(keys: readonly K[], value: (key: K, place: number) => V): Record<K, V> {
  return Object.fromEntries(keys.map((key, place) => [key, value(key, place)])) as Record<K, V>;
}

function batchDigest(rows: readonly Row[]): string {
  const digest = new Digest();
  for (const row of rows) {
    digest.word(parseInt(row.digest.slice(0, 8), 16) | 0);
    digest.word(parseInt(row.digest.slice(8), 16) | 0);
  }
  return digest.toString();
}

function summariseFairness(own: readonly Fairness[]): FairnessSummary {
  const { margins, ...counts } = joined(own);
  return {
    ...counts,
    margin: summarise(margins),
    unanswerableShare: ratioOfSums(
      own.map(({ unanswerable }) => unanswerable),
      own.map(({ damage }) => damage),
    ),
  };
}

function summariseKind(unit: CompiledUnit, own: readonly KindRow[], partyDamage: readonly number[]): KindSummary {
  const sum = (value: (row: KindRow) => number) => own.reduce((total, row) => total + value(row), 0);
  const alerted = own.map(({ timeUse }) => timeUse.reduce((a, b) => a + b, 0));
  const alertedTotal = alerted.reduce((a, b) => a + b, 0);
  const alive = sum((row) => row.alive);
  const damage = sum(({ attacks }) => attacks.reduce((total, use) => total + use.damage, 0));
  const lives = sum((row) => row.states.entries.reduce((a, b) => a + b, 0) - row.states.moves.reduce((a, b) => a + b, 0));
  const states = unit.states.length;
  return {
    id: unit.id,
    name: unit.name,
    spawned: sum(({ spawned }) => spawned),
    killed: sum(({ killed }) => killed),
    neverDamaged: sum(({ neverDamaged }) => neverDamaged),
    neverStruck: sum(({ neverStruck }) => neverStruck),
    ...summaries(keysOf(TYPE_MEASURES), own, (row, id) => row[id]),
    ...(alertedTotal > 0 && {
      timeUse: record(TIME_USES, (_, u) =>
        ratioOfSums(
          own.map((row) => row.timeUse[u]),
          alerted,
        ),
      ),
      damagePerAlertedSecond: damage / alertedTotal,
    }),
    ...(alive > 0 && { damagePerSecondAlive: damage / alive }),
    partyDamageShare: ratioOfSums(
      own.map((row) => row.partyDamage),
      partyDamage,
    ),
    attacks: unit.attacks.map(({ id, name }, a) => {
      const total = noUse();
      for (const row of own) for (const key of Object.keys(total) as (keyof AttackUse)[]) total[key] += row.attacks[a][key];
      return {
        id,
        name,
        ...total,
        damageShare: damage > 0 ? total.damage / damage : NaN,
        timeShare: alive > 0 ? total.time / alive : NaN,
        damagePerUse: total.starts > 0 ? total.damage / total.starts : NaN,
        fairness: summariseFairness(own.map((row) => row.fairness[a])),
      };
    }),
    states: unit.states.map(({ id, name }, state) => ({
      id,
      name,
      share: alive > 0 ? sum((row) => row.states.time[state]) / alive : NaN,
      entriesPerLife: lives > 0 ? sum((row) => row.states.entries[state]) / lives : NaN,
      moves: Array.from({ length: states }, (_, to) => ({
        to,
        perLife: sum((row) => row.states.moves[state * states + to]) / Math.max(1, lives),
      })).filter(({ perLife }) => perLife > 0),
    })),
    mostChanges: own.reduce((most, row) => Math.max(most, row.mostChanges), 0),
    healing: record(['done', 'received', 'wasted', 'revives', 'lent', 'added'], (key) => sum((row) => row.healing[key])),
    energySpent: sum((row) => row.energySpent),
    gatesSkipped: sum((row) => row.gatesSkipped),
    noPlace: sum((row) => row.noPlace),
    capped: sum((row) => row.capped),
    helped: sum((row) => row.helped),
  };
}
