/**
 * The measures that a brief may speak of and a board may show, each by one key; their values are those of the catalogue.
 * Of an enemy they are measured in a duel, or in an encounter it takes part in; of an encounter over the whole of it.
 */
import { ENCOUNTER_MEASURES, TYPE_MEASURES, WAVE_MEASURES, type WaveMeasure } from './catalogue';

export const STATISTICS = ['median', 'mean', 'p10', 'p90', 'share'] as const;
export type Statistic = (typeof STATISTICS)[number];

/** Of what a measure is. */
export type GoalSubject = 'enemy' | 'encounter' | 'wave';

export interface GoalMeasure {
  label: string;
  unit: string;
  about: string;
  /** Yes or no in each run: told as the share of runs. */
  share?: boolean;
  /** What of the runs is told unless a band says otherwise. */
  usual: Statistic;
  /** Shown a hundred times as large, in percent. */
  percent?: boolean;
  /** Where it makes sense. */
  of: readonly GoalSubject[];
}

type Told = Partial<Pick<GoalMeasure, 'usual' | 'percent'>>;

const of = (
  { label, unit, about }: { label: string; unit: string; about: string },
  subjects: readonly GoalSubject[],
  { usual = 'median', percent }: Told = {},
): GoalMeasure => ({ label, unit, about, of: subjects, usual, ...(percent && { percent }) });
const { timeToKill, lifetime, timeToFirstStrike, partyDamage } = TYPE_MEASURES;
const E = ENCOUNTER_MEASURES;
const ENEMY: GoalSubject[] = ['enemy'];
const ENCOUNTER: GoalSubject[] = ['encounter'];
const EITHER: GoalSubject[] = ['encounter', 'enemy'];
const WAVE: GoalSubject[] = ['wave'];
const PERCENT: Told = { percent: true };
const MEAN: Told = { usual: 'mean' };

/** In the order in which they are offered. */
const GOALS = {
  timeToKill: of(timeToKill, ENEMY),
  timeToFirstStrike: of(timeToFirstStrike, ENEMY),
  timeToDown: of({ label: 'time-to-down', unit: 's', about: 'first damage to down, of the first member to go down' }, EITHER),
  lifetime: of(lifetime, ENEMY),
  partyDamage: of(partyDamage, ENEMY, MEAN),
  won: {
    label: 'win share',
    unit: '',
    about: 'share of runs that the party wins',
    share: true,
    usual: 'share',
    percent: true,
    of: EITHER,
  },
  length: of(E.length, EITHER),
  peakPressureShare: of(E.peakPressureShare, EITHER, PERCENT),
  dose: of(E.dose, EITHER, MEAN),
  timeOverLevel: of(E.timeOverLevel, EITHER, { ...MEAN, ...PERCENT }),
  lulls: of(E.lulls, ENCOUNTER),
  longestWithoutLull: of(E.longestWithoutLull, ENCOUNTER, { usual: 'p90' }),
  engagedMean: of(E.engagedMean, ENCOUNTER),
  engagedPeak: of(E.engagedPeak, ENCOUNTER),
  partyLeft: of(E.partyLeft, EITHER, PERCENT),
  unanswerable: of(E.unanswerable, EITHER, { ...MEAN, ...PERCENT }),
  clashes: of(E.clashes, EITHER, { ...MEAN, ...PERCENT }),
  lossOfControl: of(E.lossOfControl, EITHER, { usual: 'p90' }),
  suddenDowns: of(E.suddenDowns, EITHER, MEAN),
  raised: of(E.raised, ENCOUNTER, MEAN),
  gatesSkipped: of(E.gatesSkipped, EITHER, MEAN),
  span: of(WAVE_MEASURES.span, WAVE),
  overlap: of(WAVE_MEASURES.overlap, WAVE),
  rest: of(WAVE_MEASURES.rest, WAVE),
  wavePeak: of({ ...WAVE_MEASURES.peakShare, label: 'wave’s peak pressure' }, WAVE, PERCENT),
  waveDose: of({ ...WAVE_MEASURES.dose, label: 'wave’s pressure dose' }, WAVE, MEAN),
} satisfies Record<string, GoalMeasure>;

export type BandMeasure = keyof typeof GOALS;
export const GOAL_MEASURES: Readonly<Record<BandMeasure, GoalMeasure>> = GOALS;
export const BAND_MEASURES = Object.keys(GOALS) as BandMeasure[];
/** What each is called. */
export const GOAL_WORDS = Object.fromEntries(BAND_MEASURES.map((id) => [id, GOALS[id].label])) as Record<BandMeasure, string>;

/** The catalogue's name of a wave's measure. */
const WAVE_KEYS: Partial<Record<BandMeasure, WaveMeasure>> = {
  span: 'span',
  overlap: 'overlap',
  rest: 'rest',
  wavePeak: 'peakShare',
  waveDose: 'dose',
};

/** Name of the column of a sample that holds a measure. @param id the type or the wave, where it is of one */
export function columnOf(measure: BandMeasure, subject: GoalSubject, id?: string): string {
  if (subject === 'wave') return `wave ${id} ${WAVE_KEYS[measure] ?? measure}`;
  return measure in TYPE_MEASURES ? `type ${id} ${measure}` : measure;
}
