/** The readout of an enemy: a batch of duels, what it shows, and how it differs from the duels before an edit. */
import type { Compiled } from '../engine/tables';
import { type Fight } from '../engine/fight';
import { NOBODY } from '../engine/numbers';
import { Runner } from '../engine/run';
import { SECOND } from '../record/time';
import { ENGINE_VERSION } from '../engine/tuning';
import { type BatchSummary, summariseRows } from './batch';
import { type Change, pairedChange } from './compare';
import { quantileOf } from '../measures/quantile';
import { firstDown } from '../measures/time-to-kill';
import { type Summary, summarise } from '../measures/summary';
import { type Row, rowOf } from '../measures/row';
import { effectiveUnit } from '../model/effective';
import type { Project } from '../model/project';
import type { Unit } from '../model/unit';
import { type Approach, approach } from './approach';
import { type ChoiceLooks, ChoiceWatch } from './choice-watch';
import { type ReadoutWork, nextSeed } from './readout-work';
import type { Scenario } from './scenario';
import { compileScenario } from './compile-scenario';
import { type PaperDuel, paperDuel } from './paper';
import { whyNobodyIsHurt } from './simulated-warnings';

/** m: width of a bin of time spent by distance */
export const GAP_BIN = 0.25;
const GAP_BINS = 240;

/** The three measures of a duel, one value a run. */
export interface DuelValues {
  timeToKill: number[];
  timeToDown: number[];
  /** share of the party's full health per second */
  peakPressure: number[];
}
export type DuelMeasure = keyof DuelValues;
export const DUEL_MEASURES: readonly DuelMeasure[] = ['timeToKill', 'timeToDown', 'peakPressure'];

export interface Readout {
  summary: BatchSummary;
  values: DuelValues;
  /** The enemy's and the first party member's number among the summary's kinds. */
  enemyKind: number;
  partyKind: number;
  /** The duel's three measures in short; time-to-down of several members is that of the first to go down. */
  timeToDown?: Summary;
  /** Why the party was never hurt; absent: it was. */
  unhurt?: string;
  /** What ruled out each entry of each type's choice. */
  choice: ChoiceLooks;
  /** s of alerted time by distance between edges, in bins of GAP_BIN metres; of a duel in turns nothing */
  timeAtGap: number[];
  /** Median run by time-to-kill: the one whose approach is drawn. */
  approach: Approach;
  /** What the enemy does to the party member, and the party member to it; in turns there is none. */
  paper: { enemy?: PaperDuel; party?: PaperDuel };
}

/** Some of the runs of a readout. */
export interface ReadoutPart {
  rows: readonly Row[];
  timeAtGap: readonly number[];
  choice: ChoiceLooks;
}

/** A duel's readout in the making: runs in portions, here or elsewhere, so that a newer edit can take its place. */
export class DuelWork implements ReadoutWork<ReadoutPart, Readout> {
  readonly compiled: Compiled;
  private readonly runner: Runner;
  readonly rows: Row[] = [];
  private readonly choice: ChoiceWatch;
  private readonly timeAtGap = new Array<number>(GAP_BINS).fill(0);

  /** @throws Error for what is not there */
  constructor(
    private readonly project: Project,
    private readonly scenario: Scenario,
    private readonly firstSeed: number,
  ) {
    this.compiled = compileScenario(project, scenario);
    this.runner = new Runner(this.compiled);
    this.choice = new ChoiceWatch(this.compiled);
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

  run(firstSeed: number, runs: number): ReadoutPart {
    const { compiled, runner } = this;
    const step = compiled.step / SECOND;
    const choice = new ChoiceWatch(compiled);
    const timeAtGap = new Array<number>(GAP_BINS).fill(0);
    const rows: Row[] = [];
    const watch = (fight: Fight, time: number) => {
      choice.see(fight, time);
      if (fight.inTurns) return;
      for (const unit of fight.living[1]) {
        if (!fight.alerted[unit] || fight.target[unit] === NOBODY) continue;
        timeAtGap[Math.min(GAP_BINS - 1, Math.floor(fight.bearingGap[unit] / GAP_BIN))] += step;
      }
    };
    for (let seed = firstSeed; seed < firstSeed + runs; seed++) rows.push(rowOf({ compiled, run: runner.run(seed, watch) }));
    return { rows, timeAtGap, choice: choice.looks };
  }

  add({ rows, timeAtGap, choice }: ReadoutPart): void {
    rows.forEach((row, i) => nextSeed(row, this.firstSeed + this.count + i));
    this.rows.push(...rows);
    this.choice.add(choice);
    timeAtGap.forEach((time, i) => (this.timeAtGap[i] += time));
  }

  result(): Readout {
    const { rows, compiled, project, scenario } = this;
    const enemyKind = compiled.kinds[compiled.waves[0].groups[0].kinds[0][0][0]].type;
    const partyKind = compiled.kinds[compiled.party[0].kind].type;
    const enemy = effectiveUnit(project, scenario.id, scenario).unit;
    const party = compiled.party.map(({ kind }) => effectiveUnit(project, compiled.kinds[kind].id, scenario).unit);
    const values = {
      timeToKill: rows.map((row) => row.kinds[enemyKind].timeToKill),
      timeToDown: rows.map((row) => firstDown(row.timesToDown)),
      peakPressure: rows.map((row) => row.peakPressureShare),
    };
    const summary = summariseRows(compiled, rows, this.firstSeed);
    const unhurt = whyNobodyIsHurt(compiled, summary);
    return {
      summary,
      values,
      ...(unhurt !== undefined && { unhurt }),
      timeToDown: summarise(values.timeToDown),
      choice: this.choice.looks,
      enemyKind,
      partyKind,
      timeAtGap: this.timeAtGap,
      approach: approach(compiled, medianSeed(rows, enemyKind)),
      paper: compiled.rounds
        ? {}
        : {
            enemy: paperDuel(enemy, party[0]),
            party: together(
              party.map((member) => paperDuel(member, enemy)),
              enemy,
            ),
          },
    };
  }
}

/** What several deal to one on paper: their damage a second added up. */
function together(papers: readonly (PaperDuel | undefined)[], victim: Unit): PaperDuel | undefined {
  const dealing = papers.filter((paper) => paper !== undefined);
  if (dealing.length < 2) return dealing[0];
  const damagePerSecond = dealing.reduce((sum, paper) => sum + paper.damagePerSecond, 0);
  const whole = victim.health.max + (victim.shield?.max ?? 0);
  const share = (of: 'hitsToKill' | 'shotsToKill') =>
    dealing.reduce((sum, paper) => sum + paper[of] * (paper.damagePerSecond / damagePerSecond), 0);
  return { damagePerSecond, hitsToKill: share('hitsToKill'), shotsToKill: share('shotsToKill'), timeToKill: whole / damagePerSecond };
}

/** The seed of the run whose time-to-kill is the median; where none was hurt, whose length is. */
function medianSeed(rows: readonly Row[], kind: number): number {
  const value = (row: Row) => (row.kinds[kind].timeToKill === row.kinds[kind].timeToKill ? row.kinds[kind].timeToKill : row.length);
  const middle = quantileOf(
    rows.map(value).sort((a, b) => a - b),
    0.5,
  );
  return (rows.find((row) => value(row) === middle) ?? rows[0]).seed;
}

/** How each measure moved between two readouts, on the seeds that both have. */
export function readoutChanges(before: Readout, after: Readout): Partial<Record<DuelMeasure, Change>> {
  if (before.summary.firstSeed !== after.summary.firstSeed) return {};
  const both = Math.min(before.summary.runs, after.summary.runs);
  const paired = (measure: DuelMeasure) => pairedChange(before.values[measure].slice(0, both), after.values[measure].slice(0, both));
  return Object.fromEntries(DUEL_MEASURES.map((measure) => [measure, paired(measure)] as const).filter(([, change]) => change));
}
