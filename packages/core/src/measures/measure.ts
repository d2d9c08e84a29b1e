/**
 * Measures: what a fight is judged by. Each is one file: how it is worked out, what it is called, its unit, what it means, of
 * what it is, what of many runs is told of it, whether a brief may speak of it. `list.ts` names them all; batches, benches,
 * boards, briefs, reports and the command line read that list.
 */
import { type Clock, unitIn } from '../record/clock';
import type { KindFacts, RunFacts } from './facts';
import type { Row } from './row';
import type { WaveSpan } from './wave-span';

export const STATISTICS = ['median', 'mean', 'p10', 'p90', 'share'] as const;
export type Statistic = (typeof STATISTICS)[number];

/** Of what a goal is: an enemy in a duel or an encounter, an encounter, one of its waves. */
export type GoalSubject = 'enemy' | 'encounter' | 'wave';

/** How a brief speaks of a measure. */
export interface Goal {
  /** Where it makes sense. */
  of: readonly GoalSubject[];
  /** What of the runs is told unless a band says otherwise; absent: the median. */
  usual?: Statistic;
  /** Shown a hundred times as large, in percent. */
  percent?: true;
  /** Yes or no in each run: told as the share of runs. */
  share?: true;
  /** The harder the fight, the less of it; absent: the more. */
  harder?: 'less';
  /** It has a meaning only where a fight goes by this clock; absent: `turns` says. */
  clock?: Clock;
  /** What a brief calls it, where the measure's own name or key would be taken for another's. */
  key?: string;
  label?: string;
}

export interface Measure<From> {
  label: string;
  /** s, hp/s, /s (a share per second), '' for a count or a share */
  unit: string;
  /** One sentence. */
  about: string;
  /** What it is where a fight takes turns, as far as that is told otherwise; null: it means nothing there. */
  turns?: Partial<Record<'label' | 'unit' | 'about', string>> | null;
  /** Of one run; NaN: the run has none; +∞: it never came to it. */
  of: (from: From) => number;
  /** Absent: a brief does not speak of it. */
  goal?: Goal;
}

/** What a measure is called, told in and means by a clock; undefined: it means nothing there. */
export function measureIn(clock: Clock, { label, unit, about, turns }: Pick<Measure<never>, 'label' | 'unit' | 'about' | 'turns'>) {
  if (clock === 'continuous') return { label, unit, about };
  return turns === null ? undefined : { label, unit: unitIn(clock, unit), about, ...turns };
}

/** Of the whole run. */
export const ofRun = <const M extends Measure<RunFacts>>(measure: M) => measure;
/** Of one type of unit. */
export const ofType = <const M extends Measure<KindFacts>>(measure: M) => measure;
/** Of one wave. */
export const ofWave = <const M extends Measure<WaveSpan>>(measure: M) => measure;
/** Of one party member: a row and the member's number. */
export const ofMember = <const M extends Measure<readonly [Row, number]>>(measure: M) => measure;
/** Of the row as a whole: what only a brief speaks of. */
export const ofRow = <const M extends Measure<Row> & { goal: Goal }>(measure: M) => measure;

export const ENEMY: GoalSubject[] = ['enemy'];
export const ENCOUNTER: GoalSubject[] = ['encounter'];
export const EITHER: GoalSubject[] = ['encounter', 'enemy'];
export const WAVE: GoalSubject[] = ['wave'];
