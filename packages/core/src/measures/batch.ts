import type { Compiled } from '../engine/compile';
import { Digest } from '../engine/digest';
import type { Outcome } from '../engine/log';
import { type Run, Runner, type Watcher } from '../engine/run';
import { type AttackUse, noUse } from './attack-use';
import { type Interval, ratioOfSums, wilson } from './intervals';
import { type Row, rowOf } from './row';
import { type Summary, summarise } from './summary';
import { TIME_USES, type TimeUse } from './time-use';

/** The measures of one enemy type or party kind over a batch. */
export interface KindSummary {
  id: string;
  name: string;
  spawned: number;
  killed: number;
  neverDamaged: number;
  timeToKill?: Summary;
  lifetime?: Summary;
  timeToFirstStrike?: Summary;
  /** Shares of alerted time; they sum to 1. Undefined when it was never alerted. */
  timeUse?: Record<TimeUse, { value: number } & Interval>;
  /** Damage to health per alerted second. */
  damagePerAlertedSecond?: number;
  attacks: ({ id: string; name: string } & AttackUse)[];
}

export interface BatchSummary {
  runs: number;
  firstSeed: number;
  /** Over the digests of all runs in order: same document, same seeds, same digest, wherever it is run. */
  digest: string;
  outcomes: Record<Outcome, number>;
  cleared: { value: number } & Interval;
  length?: Summary;
  /** hp/s */
  peakPressure?: Summary;
  /** share of the party's full health per second */
  peakPressureShare?: Summary;
  dose?: Summary;
  /** By party member, in the encounter's order. */
  timeToDown: (Summary | undefined)[];
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
  const outcomes: Record<Outcome, number> = { cleared: 0, partyDown: 0, timeOut: 0, runaway: 0 };
  for (const { outcome } of rows) outcomes[outcome]++;
  const of = (value: (row: Row) => number) => summarise(rows.map(value));
  return {
    runs: rows.length,
    firstSeed,
    digest: batchDigest(rows),
    outcomes,
    cleared: { value: outcomes.cleared / rows.length, ...wilson(outcomes.cleared, rows.length) },
    length: of((row) => row.length),
    peakPressure: of((row) => row.peakPressure),
    peakPressureShare: of((row) => row.peakPressureShare),
    dose: of((row) => row.dose),
    timeToDown: compiled.party.map((_, member) => of((row) => row.timeToDown[member])),
    kinds: compiled.kinds.map((_, kind) => summariseKind(compiled, rows, kind)),
  };
}

function batchDigest(rows: readonly Row[]): string {
  const digest = new Digest();
  for (const row of rows) {
    digest.word(parseInt(row.digest.slice(0, 8), 16) | 0);
    digest.word(parseInt(row.digest.slice(8), 16) | 0);
  }
  return digest.toString();
}

function summariseKind(compiled: Compiled, rows: readonly Row[], kind: number): KindSummary {
  const { id, name, attacks } = compiled.kinds[kind];
  const own = rows.map((row) => row.kinds[kind]);
  const sum = (value: (row: (typeof own)[number]) => number) => own.reduce((total, row) => total + value(row), 0);
  const alerted = own.map(({ timeUse }) => timeUse.reduce((a, b) => a + b, 0));
  const alertedTotal = alerted.reduce((a, b) => a + b, 0);
  const uses = attacks.map((attack, a) => {
    const total = noUse();
    for (const row of own) for (const key of Object.keys(total) as (keyof AttackUse)[]) total[key] += row.attacks[a][key];
    return { id: attack.id, name: attack.name, ...total };
  });
  const damage = uses.reduce((total, use) => total + use.damage, 0);
  return {
    id,
    name,
    spawned: sum(({ spawned }) => spawned),
    killed: sum(({ killed }) => killed),
    neverDamaged: sum(({ neverDamaged }) => neverDamaged),
    timeToKill: summarise(own.map(({ timeToKill }) => timeToKill)),
    lifetime: summarise(own.map(({ lifetime }) => lifetime)),
    timeToFirstStrike: summarise(own.map(({ timeToFirstStrike }) => timeToFirstStrike)),
    ...(alertedTotal > 0 && {
      timeUse: Object.fromEntries(
        TIME_USES.map((use, u) => [
          use,
          ratioOfSums(
            own.map((row) => row.timeUse[u]),
            alerted,
          ),
        ]),
      ) as KindSummary['timeUse'],
      damagePerAlertedSecond: damage / alertedTotal,
    }),
    attacks: uses,
  };
}
