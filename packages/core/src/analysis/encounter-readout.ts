/** The readout of an encounter: a batch of it in the making, its pressure on the clock, and what became of each group. */
import type { Trigger } from '../engine/records';
import type { Fight } from '../engine/fight';
import { EVENT } from '../record/log';
import { type Run, Runner } from '../engine/run';
import { waits } from '../engine/waves/waiting';
import type { Compiled } from '../engine/tables';
import { SECOND } from '../record/time';
import { ENGINE_VERSION } from '../engine/tuning';
import { isWon } from '../record/outcome';
import { type BatchSummary, summariseRows } from './batch';
import { type Change, pairedChange } from './compare';
import { curveTimes } from '../measures/curves';
import { engagedAt } from '../measures/engaged';
import { lengthOf, lookedAt, pressureClock, told } from '../measures/clock';
import { LULL_LEVEL, lulls, partyLosses, pressureAt, quietAt } from '../measures/pressure';
import { quantileOf } from '../measures/quantile';
import { type Row, rowOf } from '../measures/row';
import { partyHealth } from '../measures/stream';
import { type Summary, summarise } from '../measures/summary';
import type { Project } from '../model/project';
import { type ReadoutWork, nextSeed } from './readout-work';
import type { Scenario } from './scenario';
import { compileScenario } from './compile-scenario';
import { type SimulatedWarning, StuckWatch, simulatedWarnings } from './simulated-warnings';

/** What one run leaves for the encounter's clock. */
export interface ClockRow {
  /** Pressure at the end of each bin, share of full health a second, by type. */
  pressure: Float32Array[];
  /** Enemies in an attack at the end of each bin. */
  engaged: Uint8Array;
  /** 1 where the end of a bin lies within a lull. */
  quiet: Uint8Array;
  /** s, by wave and group; NaN where nobody of it came, +∞ where somebody of it stood to the end. */
  first: number[][];
  last: number[][];
  count: number[][];
  /** By wave: what started it. */
  triggers: Trigger[];
  /** By wave: units that had to wait because the cap was full, and s that they waited in all. */
  waited: number[];
  waitedFor: number[];
  /** Types of which a unit made no way for ten seconds. */
  stuck: number[];
}

export interface EncounterPart {
  rows: readonly Row[];
  clock: readonly ClockRow[];
}

/** A median with its spread, over the runs that have one. */
export interface Spread {
  median: number;
  p10: number;
  p90: number;
  /** Share of runs that have one. */
  share: number;
}

export interface GroupSpan {
  id: string;
  /** s: first spawn and last death; +∞ where it stands to the end */
  first?: Spread;
  last?: Spread;
  /** Mean number of units. */
  count: number;
}

export interface WaveClock {
  id: string;
  name: string;
  started?: Spread;
  /** Shares of runs by what started it. */
  triggers: Record<Trigger, number>;
  /** Units a run that had to wait because the cap was full, and s that one of them waited, in the mean. */
  waited: number;
  waitedFor: number;
  groups: GroupSpan[];
}

export interface EncounterReadout {
  summary: BatchSummary;
  /** One value a run. */
  values: { won: number[]; length: number[]; peakPressure: number[]; longestWithoutLull: number[] };
  /** s: ends of the bins */
  times: number[];
  /** Mean pressure by type, share of full health a second; over the runs that still go, empty where fewer than half do. */
  pressure: { type: string; mean: (number | undefined)[] }[];
  /** Of the whole. */
  p10: (number | undefined)[];
  median: (number | undefined)[];
  p90: (number | undefined)[];
  engaged: (number | undefined)[];
  /** Where at least half of the runs that still go are in a lull, s. */
  lulls: { from: number; to: number }[];
  waves: WaveClock[];
  seeds: { median: number; worst: number; firstLost?: number };
  /** s: how far the clock is worth drawing */
  until: number;
  /** What only fighting shows; empty while there are too few runs to say that something never happens. */
  warnings: SimulatedWarning[];
}

export type EncounterMeasureName = keyof EncounterReadout['values'];

/** An encounter's batch in the making: runs in portions, here or elsewhere, so that a newer edit can take its place. */
export class EncounterWork implements ReadoutWork<EncounterPart, EncounterReadout> {
  readonly compiled: Compiled;
  private readonly runner: Runner;
  readonly rows: Row[] = [];
  private readonly clock: ClockRow[] = [];
  private readonly stuckWatch = new StuckWatch();

  /** @throws Error for an encounter, tier, skill or style that is not there */
  constructor(
    project: Project,
    private readonly scenario: Scenario,
    private readonly firstSeed: number,
  ) {
    this.compiled = compileScenario(project, scenario);
    this.runner = new Runner(this.compiled);
  }

  get key(): string {
    return JSON.stringify([ENGINE_VERSION, this.compiled, this.firstSeed]);
  }

  get count(): number {
    return this.rows.length;
  }

  advance(runs: number): void {
    this.add(this.run(this.firstSeed + this.count, runs));
  }

  run(firstSeed: number, runs: number): EncounterPart {
    const part: { rows: Row[]; clock: ClockRow[] } = { rows: [], clock: [] };
    for (let seed = firstSeed; seed < firstSeed + runs; seed++) {
      const run = this.runner.run(seed, (fight, time) => this.stuckWatch.see(fight, time));
      part.rows.push(rowOf({ compiled: this.compiled, run }));
      part.clock.push({ ...clockOf(this.compiled, run, this.runner.fight), stuck: this.stuckWatch.take() });
    }
    return part;
  }

  add({ rows, clock }: EncounterPart): void {
    rows.forEach((row, i) => nextSeed(row, this.firstSeed + this.count + i));
    this.rows.push(...rows);
    this.clock.push(...clock);
  }

  part(): EncounterPart {
    return { rows: this.rows, clock: this.clock };
  }

  result(): EncounterReadout {
    return encounterReadout(this.compiled, this.scenario.id, this.firstSeed, this.part());
  }
}

/** What some runs come to. @param part at least one run, seeds in a row from `firstSeed` */
export function encounterReadout(
  compiled: Compiled,
  encounter: string,
  firstSeed: number,
  { rows, clock }: EncounterPart,
): EncounterReadout {
  const summary = summariseRows(compiled, rows, firstSeed);
  const stuck = compiled.names.types.map((_, type) => clock.filter((row) => row.stuck.includes(type)).length);
  const lengths = rows.map(({ length }) => length);
  const times = binTimes(compiled);
  // Runs end and never begin again: by length, those that still go at the end of a bin are the last ones.
  const byLength = rows.map((_, i) => i).sort((a, b) => lengths[a] - lengths[b] || a - b);
  const going: number[][] = [];
  for (let bin = 0, ended = 0; bin < times.length; bin++) {
    while (ended < rows.length && lengths[byLength[ended]] <= (bin === 0 ? 0 : times[bin - 1])) ended++;
    if ((rows.length - ended) * 2 < rows.length || ended === rows.length) break;
    going.push(byLength.slice(ended).sort((a, b) => a - b));
  }
  const enough = (bin: number) => bin < going.length;
  const totals = going.map((runs, bin) =>
    Float64Array.from(runs, (run) => {
      let sum = 0;
      for (const curve of clock[run].pressure) sum += curve[bin];
      return sum;
    }).sort(),
  );
  const quantiles = (q: number) => times.map((_, bin) => (enough(bin) ? quantileOf(totals[bin], q) : undefined));
  const mean = (of: (run: number, bin: number) => number) =>
    times.map((_, bin) => {
      if (!enough(bin)) return undefined;
      let sum = 0;
      for (const run of going[bin]) sum += of(run, bin);
      return sum / going[bin].length;
    });
  const median = quantiles(0.5);
  return {
    summary,
    values: {
      won: rows.map(({ outcome }) => (isWon(outcome) ? 1 : 0)),
      length: lengths,
      peakPressure: rows.map(({ peakPressureShare }) => peakPressureShare),
      longestWithoutLull: rows.map(({ longestWithoutLull }) => longestWithoutLull),
    },
    times,
    pressure: compiled.names.types.map((type, t) => ({ type, mean: mean((run, bin) => clock[run].pressure[t][bin]) })),
    p10: quantiles(0.1),
    median,
    p90: quantiles(0.9),
    engaged: mean((run, bin) => clock[run].engaged[bin]),
    lulls: lullsOf(
      times,
      times.map((_, bin) => enough(bin) && going[bin].filter((run) => clock[run].quiet[bin]).length * 2 >= going[bin].length),
    ),
    waves: compiled.waves.map((wave, w) => ({
      id: wave.id,
      name: wave.name,
      ...optional('started', spreadOf(rows.map(({ waves }) => waves[w].started))),
      ...startsAndWaits(clock, w),
      groups: wave.groups.map(({ id }, g) => ({
        id,
        ...optional('first', spreadOf(clock.map(({ first }) => first[w][g]))),
        ...optional('last', spreadOf(clock.map(({ last }) => last[w][g]))),
        count: clock.reduce((sum, { count }) => sum + count[w][g], 0) / clock.length,
      })),
    })),
    seeds: seedsOf(rows),
    warnings: rows.length >= ENOUGH_TO_WARN ? simulatedWarnings({ encounter, compiled, rows, summary, stuck }) : [],
    until:
      Math.max(...lengths) <= 0
        ? 1
        : Math.min(
            compiled.limit / SECOND,
            quantileOf(
              [...lengths].sort((a, b) => a - b),
              0.9,
            ) * 1.06,
          ),
  };
}

/** Runs before it is said that something never happens. */
const ENOUGH_TO_WARN = 40;

function binTimes(compiled: Compiled): number[] {
  return Array.from(curveTimes(compiled));
}

function optional<K extends string, V>(key: K, value: V | undefined): Partial<Record<K, V>> {
  return (value === undefined ? {} : { [key]: value }) as Partial<Record<K, V>>;
}

function spreadOf(values: readonly number[]): Spread | undefined {
  const found = values.filter((value) => value === value).sort((a, b) => a - b);
  if (!found.length) return undefined;
  return {
    median: quantileOf(found, 0.5),
    p10: quantileOf(found, 0.1),
    p90: quantileOf(found, 0.9),
    share: found.length / values.length,
  };
}

function startsAndWaits(clock: readonly ClockRow[], wave: number): Pick<WaveClock, 'triggers' | 'waited' | 'waitedFor'> {
  const share = (trigger: Trigger) => clock.filter(({ triggers }) => triggers[wave] === trigger).length / clock.length;
  const waited = clock.reduce((sum, row) => sum + row.waited[wave], 0);
  const seconds = clock.reduce((sum, row) => sum + row.waitedFor[wave], 0);
  return {
    triggers: { start: share('start'), timeout: share('timeout'), event: share('event'), none: share('none') },
    waited: waited / clock.length,
    waitedFor: waited > 0 ? seconds / waited : 0,
  };
}

/** Stretches of quiet bins. */
export function lullsOf(times: readonly number[], quiet: readonly boolean[]): { from: number; to: number }[] {
  const found: { from: number; to: number }[] = [];
  let from: number | undefined;
  for (let bin = 0; bin <= times.length; bin++) {
    if (quiet[bin]) from ??= bin === 0 ? 0 : times[bin - 1];
    else if (from !== undefined) {
      found.push({ from, to: times[bin - 1] });
      from = undefined;
    }
  }
  return found;
}

/** Seeds worth opening: the median by length, the one with the highest peak, the first that was lost. */
function seedsOf(rows: readonly Row[]): EncounterReadout['seeds'] {
  const byLength = [...rows].sort((a, b) => a.length - b.length || a.seed - b.seed);
  const worst = rows.reduce((most, row) => (row.peakPressureShare > most.peakPressureShare ? row : most), rows[0]);
  const lost = rows.find(({ outcome }) => !isWon(outcome));
  return {
    median: byLength[Math.ceil(byLength.length / 2) - 1].seed,
    worst: worst.seed,
    ...(lost && { firstLost: lost.seed }),
  };
}

/** How each measure moved between two readouts, on the seeds that both have. */
export function encounterChanges(
  before: EncounterReadout,
  after: EncounterReadout,
): Partial<Record<EncounterMeasureName, Change & { before?: Summary; after?: Summary }>> {
  if (before.summary.firstSeed !== after.summary.firstSeed) return {};
  const both = Math.min(before.values.length.length, after.values.length.length);
  const changes: Partial<Record<EncounterMeasureName, Change & { before?: Summary; after?: Summary }>> = {};
  for (const name of ['length', 'peakPressure', 'longestWithoutLull'] as const) {
    const [old, now] = [before.values[name].slice(0, both), after.values[name].slice(0, both)];
    const change = pairedChange(old, now);
    if (change) changes[name] = { ...change, before: summarise(old), after: summarise(now) };
  }
  return changes;
}

function clockOf(compiled: Compiled, run: Run, fight: Fight): Omit<ClockRow, 'stuck'> {
  const { log } = run;
  const stream = { compiled, run };
  const losses = partyLosses(stream);
  const full = partyHealth(stream);
  const times = binTimes(compiled);
  const groups = compiled.waves.map(({ groups: own }) => own.length);
  const table = (value: number) => groups.map((length) => new Array<number>(length).fill(value));
  const first = table(NaN);
  const last = table(NaN);
  const count = table(0);
  const gone = table(0);
  for (let i = 0; i < log.length; i++) {
    const time = told(stream, log.time[i]);
    const unit = log.actor[i];
    const kind = log.kind[i];
    if (unit < 0) continue;
    const wave = run.waves[unit];
    const group = fight.group[unit];
    if (wave >= 0 && group >= 0 && group < groups[wave]) {
      if (kind === EVENT.spawn) {
        count[wave][group]++;
        if (!(first[wave][group] <= time)) first[wave][group] = time;
      } else if (kind === EVENT.death || kind === EVENT.gone) {
        gone[wave][group]++;
        last[wave][group] = time;
      } else if (kind === EVENT.revive) {
        const raised = log.other[i];
        if (run.waves[raised] >= 0) gone[run.waves[raised]][fight.group[raised]]--;
      }
    }
  }
  for (let w = 0; w < groups.length; w++) for (let g = 0; g < groups[w]; g++) if (count[w][g] > gone[w][g]) last[w][g] = Infinity;
  const looked = lookedAt(stream, times);
  const clock = pressureClock(stream);
  return {
    pressure: compiled.names.types.map((_, type) =>
      Float32Array.from(
        pressureAt(
          losses.filter(({ by }) => by === type),
          looked,
          clock.window,
        ),
        (value) => value / full,
      ),
    ),
    engaged: Uint8Array.from(engagedAt(stream, looked)),
    quiet: quietAt(lulls(losses, lengthOf(stream), LULL_LEVEL * full, clock).lulls, looked),
    first,
    last,
    count,
    triggers: fight.waves.map(({ trigger }) => trigger),
    waited: fight.waves.map(({ waited }) => waited),
    waitedFor: waits(fight).map((time) => time / SECOND),
  };
}
