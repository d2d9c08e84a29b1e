import {
  About,
  AnyNumber,
  Identifier,
  ListOf,
  Name,
  OneOf,
  Optional,
  Quantity,
  type Reference,
  Refers,
  RefersByName,
  Text,
  asTheyAre,
} from './field';
import { type Statistic, STATISTICS } from '../measures/measure';
import { type BandMeasure, GOAL_WORDS } from '../measures/list';
import { LIMITS } from './limits';

/** Whom a band speaks of: every enemy, a role, one unit; every encounter, one, or one of its waves. */
const BAND_SCOPES = {
  enemies: 'every enemy',
  role: 'enemies of a role',
  unit: 'one enemy',
  encounters: 'every encounter',
  encounter: 'one encounter',
  wave: 'one wave',
} as const;
export type BandScope = keyof typeof BAND_SCOPES;
export const BAND_SCOPE_NAMES = Object.keys(BAND_SCOPES) as BandScope[];
/** What was aimed at is gone with what it was aimed at. */
const takes = (to: Reference['to']): Reference => ({ to, gone: 'takes' });

@About('One design goal: a measure of somebody, at a tier and a skill, is to lie between two values.')
export class Band {
  @Identifier() id: string;
  @OneOf(GOAL_WORDS, { label: 'Measure' }) measure: BandMeasure;
  @OneOf(BAND_SCOPES, { label: 'Of', about: 'whom it is measured of' }) scope: BandScope;
  @Optional()
  @RefersByName(takes({ by: 'scope', kinds: { role: 'role', unit: 'unit', encounter: 'encounter', wave: 'wave' } }), 80, {
    label: 'Which',
    about: 'the role, the unit, the encounter or the wave',
    when: { scope: ['role', 'unit', 'encounter', 'wave'] },
    needed: true,
  })
  of?: string;
  @Optional()
  @Refers(takes(['encounter']), {
    label: 'In encounter',
    about: 'of a wave; or where an enemy is measured: absent, in a duel',
  })
  encounter?: string;
  @Optional() @Refers(takes(['tier']), { label: 'At tier', about: 'absent: at every tier' }) tier?: string;
  @Optional() @Refers(takes(['skill']), { label: 'At skill', about: 'absent: at every skill that is looked at' }) skill?: string;
  @OneOf(
    { ...asTheyAre(STATISTICS), share: 'share of runs' },
    { label: 'By its', about: 'what of the runs is to lie there; share: of the runs in which it is so, for what is yes or no' },
  )
  statistic: Statistic = 'median';
  @Optional() @AnyNumber({ label: 'At least', about: 'absent: no limit to that side' }) low?: number;
  @Optional() @AnyNumber({ label: 'At most', about: 'absent: no limit to that side' }) high?: number;
  @Optional() @Text(400, { label: 'Why' }) why?: string;
}

@About('A point of an intended curve.')
export class CurvePoint {
  @Quantity({ label: 'At', unit: 's', min: 0, max: LIMITS.encounterSeconds, about: 'on the encounter’s clock' }) at: number;
  @Quantity({ label: 'Pressure', unit: '/s', min: 0, max: 10, about: 'share of the party’s full health a second' }) value: number;
}

@About('What the pressure of an encounter is meant to be, drawn by hand: smooth between its points, nothing before and after.')
export class IntendedCurve {
  @Identifier() id: string;
  @Refers(takes(['encounter']), { label: 'Encounter' }) encounter: string;
  @Optional()
  @Refers(takes(['tier']), { label: 'At tier', about: 'absent: for every tier that has none of its own' })
  tier?: string;
  @Quantity({ label: 'Tolerance', unit: '/s', min: 0, max: 10, about: 'how far the pressure may lie from the curve' }) tolerance = 0.01;
  @ListOf(() => CurvePoint, LIMITS.curvePoints, { label: 'Points' }) points: CurvePoint[] = [];
}

@About('What the fights are meant to be like.')
export class Brief {
  @Optional() @Name() name?: string;
  @ListOf(() => Band, LIMITS.bands, { label: 'Bands', called: (band) => GOAL_WORDS[(band as Band).measure] }) bands: Band[] = [];
  @ListOf(() => IntendedCurve, LIMITS.curves, { label: 'Intended curves' }) curves: IntendedCurve[] = [];
}
