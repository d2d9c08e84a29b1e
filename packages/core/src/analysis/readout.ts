/** The readout of an enemy: a batch of duels, what it shows, and how it differs from the duels before an edit. */
import { compile } from '../engine/compile';
import type { Compiled } from '../engine/tables';
import { NOBODY } from '../engine/fight';
import { SECOND } from '../record/time';
import { ENGINE_VERSION } from '../engine/tuning';
import { Batch, type BatchSummary } from './batch';
import { type Change, pairedChange } from './compare';
import { quantileOf } from '../measures/quantile';
import { firstDown } from '../measures/time-to-kill';
import { type Summary, summarise } from '../measures/summary';
import { type Row } from '../measures/row';
import { type Lens, effectiveUnit } from '../model/effective';
import type { Project } from '../model/project';
import type { Unit } from '../model/unit';
import { type Approach, approach } from './approach';
import { type ChoiceLooks, ChoiceWatch } from './choice-watch';
import { type DuelOptions, duelOptions } from './duel';
import { type PaperDuel, paperDuel } from './paper';

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
  /** What ruled out each entry of each type's choice. */
  choice: ChoiceLooks;
  /** s of alerted time by distance between edges, in bins of GAP_BIN metres */
  timeAtGap: number[];
  /** Median run by time-to-kill: the one whose approach is drawn. */
  approach: Approach;
  /** What the enemy does to the party member, and the party member to it. */
  paper: { enemy?: PaperDuel; party?: PaperDuel };
}

/** Some of the runs of a readout. */
export interface ReadoutPart {
  rows: readonly Row[];
  timeAtGap: readonly number[];
  choice: ChoiceLooks;
}

/** A readout in the making: runs in portions, so that a newer edit can take its place. */
export class ReadoutWork {
  readonly compiled: Compiled;
  private readonly batch: Batch;
  private readonly choice: ChoiceWatch;
  private readonly timeAtGap = new Array<number>(GAP_BINS).fill(0);

  constructor(
    private readonly project: Project,
    private readonly lens: Lens,
    private readonly options: DuelOptions,
    firstSeed: number,
    runs: number,
  ) {
    this.compiled = compile(project, duelOptions(project, lens, options));
    const step = this.compiled.step / SECOND;
    this.choice = new ChoiceWatch(this.compiled);
    this.batch = new Batch(this.compiled, firstSeed, runs, (fight, time) => {
      this.choice.see(fight, time);
      for (const unit of fight.living[1]) {
        if (!fight.alerted[unit] || fight.target[unit] === NOBODY) continue;
        this.timeAtGap[Math.min(GAP_BINS - 1, Math.floor(fight.bearingGap[unit] / GAP_BIN))] += step;
      }
    });
  }

  /** Tells one readout from another: same key, same result. */
  get key(): string {
    return JSON.stringify([ENGINE_VERSION, this.compiled, this.batch.firstSeed, this.batch.runs]);
  }

  get done(): boolean {
    return this.batch.done;
  }

  /** Runs worked off. */
  get count(): number {
    return this.batch.rows.length;
  }

  advance(runs: number): void {
    this.batch.advance(runs);
  }

  /** What has been worked off, to be handed to another thread's work on the same duel. */
  part(): ReadoutPart {
    return { rows: this.batch.rows, timeAtGap: this.timeAtGap, choice: this.choice.looks };
  }

  /** Takes over the seeds that come next from another thread. */
  add({ rows, timeAtGap, choice }: ReadoutPart): void {
    this.batch.append(rows);
    this.choice.add(choice);
    timeAtGap.forEach((time, i) => (this.timeAtGap[i] += time));
  }

  result(): Readout {
    const { rows } = this.batch;
    const { compiled } = this;
    const enemyKind = compiled.kinds[compiled.waves[0].groups[0].kinds[0][0]].type;
    const partyKind = compiled.kinds[compiled.party[0].kind].type;
    const enemy = effectiveUnit(this.project, this.options.enemy, this.lens).unit;
    const { against } = this.options;
    const members = typeof against === 'string' ? [against] : against;
    const party = members.map((id) => effectiveUnit(this.project, id, this.lens).unit);
    const values = {
      timeToKill: rows.map((row) => row.kinds[enemyKind].timeToKill),
      timeToDown: rows.map((row) => firstDown(row.timesToDown)),
      peakPressure: rows.map((row) => row.peakPressureShare),
    };
    return {
      summary: this.batch.summary(),
      values,
      timeToDown: summarise(values.timeToDown),
      choice: this.choice.looks,
      enemyKind,
      partyKind,
      timeAtGap: this.timeAtGap,
      approach: approach(compiled, medianSeed(rows, enemyKind)),
      paper: {
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
