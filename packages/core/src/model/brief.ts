import { AnyNumber, Identifier, ListOf, Name, OneOf, Optional, Quantity, Text } from './field';
import { LIMITS } from './limits';

/** What a band may speak of, each by one key; `measures/goals` says what they are. */
export const BAND_MEASURES = [
  'timeToKill',
  'timeToFirstStrike',
  'timeToDown',
  'lifetime',
  'partyDamage',
  'won',
  'length',
  'peakPressureShare',
  'dose',
  'timeOverLevel',
  'lulls',
  'longestWithoutLull',
  'engagedMean',
  'engagedPeak',
  'partyLeft',
  'unanswerable',
  'clashes',
  'lossOfControl',
  'suddenDowns',
  'raised',
  'gatesSkipped',
  'span',
  'overlap',
  'rest',
  'wavePeak',
  'waveDose',
] as const;
export type BandMeasure = (typeof BAND_MEASURES)[number];

/** Whom a band speaks of: every enemy, a role, one unit; every encounter, one, or one of its waves. */
export const BAND_SCOPES = ['enemies', 'role', 'unit', 'encounters', 'encounter', 'wave'] as const;
export type BandScope = (typeof BAND_SCOPES)[number];
export const STATISTICS = ['median', 'mean', 'p10', 'p90', 'share'] as const;
export type Statistic = (typeof STATISTICS)[number];

/** One design goal: a measure of somebody, at a tier and a skill, is to lie between two values. */
export class Band {
  @Identifier() id: string;
  @OneOf(BAND_MEASURES) measure: BandMeasure;
  @OneOf(BAND_SCOPES) scope: BandScope;
  /** The role, the unit, the encounter or the wave. */
  @Optional() @Text(80) of?: string;
  /** For a wave: its encounter. For enemies: the encounter they are measured in; absent: a duel. */
  @Optional() @Identifier() encounter?: string;
  /** Absent: at every tier. */
  @Optional() @Identifier() tier?: string;
  /** Absent: at every skill that is looked at. */
  @Optional() @Identifier() skill?: string;
  /** What of the runs is to lie there; share: of the runs in which it is so, for what is yes or no. */
  @OneOf(STATISTICS) statistic: Statistic = 'median';
  /** Absent: no limit to that side. */
  @Optional() @AnyNumber() low?: number;
  @Optional() @AnyNumber() high?: number;
  @Optional() @Text(400) why?: string;
}

/** A point of an intended curve. */
export class CurvePoint {
  @Quantity({ label: 'At', unit: 's', min: 0, max: LIMITS.encounterSeconds, about: 'on the encounter’s clock' }) at: number;
  @Quantity({ label: 'Pressure', unit: '/s', min: 0, max: 10, about: 'share of the party’s full health a second' }) value: number;
}

/** What the pressure of an encounter is meant to be, drawn by hand: smooth between its points, nothing before and after. */
export class IntendedCurve {
  @Identifier() id: string;
  @Identifier() encounter: string;
  /** Absent: for every tier that has none of its own. */
  @Optional() @Identifier() tier?: string;
  @Quantity({ label: 'Tolerance', unit: '/s', min: 0, max: 10, about: 'how far the pressure may lie from the curve' }) tolerance = 0.01;
  @ListOf(() => CurvePoint, LIMITS.curvePoints) points: CurvePoint[] = [];
}

/** What the fights are meant to be like. */
export class Brief {
  @Optional() @Name() name?: string;
  @ListOf(() => Band, LIMITS.bands) bands: Band[] = [];
  @ListOf(() => IntendedCurve, LIMITS.curves) curves: IntendedCurve[] = [];
}
