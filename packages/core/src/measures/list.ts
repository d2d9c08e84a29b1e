/** Every measure, by what it is of. */
import { acts } from './type/acts';
import { answersUsed } from './type/answers-used';
import { burst } from './member/burst';
import { clashes } from './encounter/clashes';
import { dose as waveDose } from './wave/dose';
import { dose } from './encounter/dose';
import { effectiveHealthAdded } from './type/effective-health-added';
import { engagedMean } from './encounter/engaged-mean';
import { engagedPeak } from './encounter/engaged-peak';
import { gatesSkipped } from './encounter/gates-skipped';
import { idleTurns } from './type/idle-turns';
import { length } from './encounter/length';
import { lifetime } from './type/lifetime';
import { longestWithoutLull } from './encounter/longest-without-lull';
import { lossOfControl } from './encounter/loss-of-control';
import { lulls } from './encounter/lulls';
import { overlap } from './wave/overlap';
import { partyDamage } from './type/party-damage';
import { partyLeft } from './encounter/party-left';
import { peakPressure } from './encounter/peak-pressure';
import { peakPressureShare } from './encounter/peak-pressure-share';
import { peakShare } from './wave/peak-share';
import { raised } from './encounter/raised';
import { reach } from './type/reach';

import { rest } from './wave/rest';
import { score } from './encounter/score';
import { score as memberScore } from './member/score';
import { score as waveScore } from './wave/score';
import { span } from './wave/span';
import { started } from './wave/started';
import { suddenDowns } from './encounter/sudden-downs';
import { timeOverLevel } from './encounter/time-over-level';
import { timeToDown as firstDown } from './run/time-to-down';
import { timeToDown } from './member/time-to-down';
import { timeToFirstStrike } from './type/time-to-first-strike';
import { timeToKill } from './type/time-to-kill';
import { unanswerable } from './encounter/unanswerable';
import { won } from './run/won';
import type { Clock } from '../record/clock';
import type { KindFacts, RunFacts } from './facts';
import { type Goal, type GoalSubject, type Measure, type Statistic, measureIn } from './measure';
import type { Row } from './row';
import type { WaveSpan } from './wave-span';

const OF_ENCOUNTER = {
  length,
  peakPressure,
  peakPressureShare,
  dose,
  timeOverLevel,
  lulls,
  longestWithoutLull,
  engagedMean,
  engagedPeak,
  partyLeft,
  unanswerable,
  clashes,
  lossOfControl,
  suddenDowns,
  raised,
  gatesSkipped,
  score,
};
const OF_TYPE = { timeToKill, lifetime, timeToFirstStrike, partyDamage, effectiveHealthAdded, reach, idleTurns, acts, answersUsed };
const OF_WAVE = { started, span, overlap, rest, peakShare, dose: waveDose, score: waveScore };
const OF_MEMBER = { timeToDown, burst, score: memberScore };
/** What only a brief speaks of. */
const OF_ROW = { won, timeToDown: firstDown };

export type EncounterMeasure = keyof typeof OF_ENCOUNTER;
export type TypeMeasure = keyof typeof OF_TYPE;
export type WaveMeasure = keyof typeof OF_WAVE;
export type MemberMeasure = keyof typeof OF_MEMBER;

export const ENCOUNTER_MEASURES: Readonly<Record<EncounterMeasure, Measure<RunFacts>>> = OF_ENCOUNTER;
export const TYPE_MEASURES: Readonly<Record<TypeMeasure, Measure<KindFacts>>> = OF_TYPE;
export const WAVE_MEASURES: Readonly<Record<WaveMeasure, Measure<WaveSpan>>> = OF_WAVE;
export const MEMBER_MEASURES: Readonly<Record<MemberMeasure, Measure<readonly [Row, number]>>> = OF_MEMBER;
export const ROW_MEASURES: Readonly<Record<keyof typeof OF_ROW, Measure<Row>>> = OF_ROW;

/** A measure as a brief speaks of it. */
export interface GoalMeasure extends Omit<Goal, 'usual' | 'key'> {
  label: string;
  unit: string;
  about: string;
  usual: Statistic;
  turns: Measure<never>['turns'];
}

/** What a brief calls those of a list that it speaks of. */
type GoalsOf<L> = {
  [K in keyof L]: L[K] extends { goal: { key: infer N extends string } } ? N : L[K] extends { goal: object } ? K : never;
}[keyof L];
export type BandMeasure = GoalsOf<typeof OF_ENCOUNTER> | GoalsOf<typeof OF_TYPE> | GoalsOf<typeof OF_ROW> | GoalsOf<typeof OF_WAVE>;

/** Where a goal's values stand in a sample: the column's name, before it the type or the wave where it is of one. */
const COLUMNS = new Map<string, { of: 'type' | 'wave' | 'run'; column: string }>();
const GOALS = new Map<string, GoalMeasure>();
for (const [of, list] of [
  ['type', OF_TYPE],
  ['run', OF_ROW],
  ['run', OF_ENCOUNTER],
  ['wave', OF_WAVE],
] as const) {
  for (const [column, { label, unit, about, turns, goal }] of Object.entries(list) as [string, Measure<never>][]) {
    if (!goal) continue;
    const { key = column, label: called = label, usual = 'median', ...rest } = goal;
    if (GOALS.has(key)) throw new Error(`two measures are called ${key} in a brief`);
    GOALS.set(key, { label: called, unit, about, turns, usual, ...rest });
    COLUMNS.set(key, { of, column });
  }
}

/** In the order in which they are offered. */
export const GOAL_MEASURES = Object.fromEntries(GOALS) as Readonly<Record<BandMeasure, GoalMeasure>>;
export const BAND_MEASURES = [...GOALS.keys()] as BandMeasure[];
/** What each is called. */
export const GOAL_WORDS = Object.fromEntries([...GOALS].map(([id, { label }]) => [id, label])) as Record<BandMeasure, string>;

/** Whether a measure means something where a fight goes by a clock. */
export function isTold(measure: BandMeasure, clock: Clock): boolean {
  const { turns, clock: only } = GOAL_MEASURES[measure];
  return (clock === 'continuous' || turns !== null) && (only === undefined || only === clock);
}

/** Why a measure can't be asked of a fight; undefined: it can. @param where the fight, as it is called */
export function meaningless(measure: BandMeasure, clock: Clock, where: string): string | undefined {
  if (isTold(measure, clock)) return undefined;
  return clock === 'rounds'
    ? `means nothing where a fight takes turns, as ${where} does`
    : `means something only where a fight takes turns: ${where} goes on by itself`;
}

/** What a brief calls a measure, and what it is told in, by the clock of the fight it is measured in. */
export function goalIn(measure: BandMeasure, clock: Clock = 'continuous'): { label: string; unit: string; about: string } {
  const goal = GOAL_MEASURES[measure];
  return measureIn(clock, goal) ?? goal;
}

/** What all of these go by; where they differ, or there are none, goals are called and told as by seconds. */
export function commonClock(clocks: Iterable<Clock>): Clock {
  const all = new Set(clocks);
  return all.size === 1 ? [...all][0] : 'continuous';
}

/** Name of the column of a sample that holds a measure. @param id the type or the wave, where it is of one */
export function columnOf(measure: BandMeasure, subject: GoalSubject, id?: string): string {
  const { of, column } = COLUMNS.get(measure)!;
  if (subject === 'wave') return `wave ${id} ${column}`;
  return of === 'type' ? `type ${id} ${column}` : column;
}
