/** The measures that a batch summarises, each defined once: name, unit, and where its value is found in a row. */
import type { KindRow, Row } from './row';
import { PLAYER_USES, type PlayerUse } from './time-use';
import type { WaveSpan } from './wave-span';

export interface Measure<T> {
  label: string;
  /** s, hp/s, /s (a share per second), '' for a count or a share */
  unit: string;
  /** One sentence. */
  about: string;
  of: (from: T) => number;
}

const measures = <T, K extends string>(list: Record<K, Measure<T>>): Record<K, Measure<T>> => list;

/** Of the encounter. */
export const ENCOUNTER_MEASURES = measures({
  length: { label: 'length', unit: 's', about: 'from the start to the end, whatever the end', of: (row: Row) => row.length },
  peakPressure: {
    label: 'peak pressure',
    unit: 'hp/s',
    about: 'most health and shield the party lost in 3 s, per second',
    of: (row: Row) => row.peakPressure,
  },
  peakPressureShare: {
    label: 'peak pressure',
    unit: '/s',
    about: 'the same as a share of the party’s full health',
    of: (row: Row) => row.peakPressureShare,
  },
  dose: {
    label: 'pressure dose',
    unit: '',
    about: 'all party damage as a share of its full health: 1 would down everyone once',
    of: (row: Row) => row.dose,
  },
  timeOverLevel: {
    label: 'time under high pressure',
    unit: '',
    about: 'share of fighting time with pressure above 10 % of full health a second',
    of: (row: Row) => row.timeOverLevel,
  },
  lulls: { label: 'lulls', unit: '', about: 'stretches of at least 3 s with next to no pressure', of: (row: Row) => row.lulls },
  longestWithoutLull: {
    label: 'longest stretch without a lull',
    unit: 's',
    about: 'between two lulls, or a lull and an end of the fight',
    of: (row: Row) => row.longestWithoutLull,
  },
  engagedMean: {
    label: 'engaged, mean',
    unit: '',
    about: 'enemies in wind-up, active or recovery against the party, over the fight',
    of: (row: Row) => row.engaged.mean,
  },
  engagedPeak: { label: 'engaged, peak', unit: '', about: 'most of them at one time', of: (row: Row) => row.engaged.peak },
  partyLeft: {
    label: 'party health left',
    unit: '',
    about: 'share of the party’s full health at the end',
    of: (row: Row) => row.partyLeft,
  },
  unanswerable: {
    label: 'unanswerable share',
    unit: '',
    about: 'share of announced damage for which no answer was available',
    of: unanswerableShare,
  },
  clashes: {
    label: 'clashing threats',
    unit: '',
    about: 'share of announced attacks that came while every answer was on cooldown',
    of: clashShare,
  },
  lossOfControl: {
    label: 'longest loss of control',
    unit: 's',
    about: 'one member staggered, slowed or knocked about without a break',
    of: (row: Row) => row.lossOfControl,
  },
  suddenDowns: {
    label: 'sudden downs',
    unit: '',
    about: 'members down from above 80 % of health within 1 s',
    of: (row: Row) => row.suddenDowns,
  },
  raised: { label: 'enemies raised', unit: '', about: 'brought back after they had died', of: (row: Row) => row.raised },
  gatesSkipped: {
    label: 'gates skipped',
    unit: '',
    about: 'health gates passed without their state having come',
    of: ({ kinds }: Row) => kinds.reduce((sum, kind) => sum + kind.gatesSkipped, 0),
  },
});
export type EncounterMeasure = keyof typeof ENCOUNTER_MEASURES;

function clashShare({ kinds }: Row): number {
  let announced = 0;
  let clashes = 0;
  for (const { fairness } of kinds) {
    for (const one of fairness) {
      announced += one.announced;
      clashes += one.clashes;
    }
  }
  return announced > 0 ? clashes / announced : NaN;
}

function unanswerableShare({ kinds }: Row): number {
  let damage = 0;
  let unanswerable = 0;
  for (const { fairness } of kinds) {
    for (const one of fairness) {
      damage += one.damage;
      unanswerable += one.unanswerable;
    }
  }
  return damage > 0 ? unanswerable / damage : NaN;
}

/** Of one type. */
export const TYPE_MEASURES = measures({
  timeToKill: {
    label: 'time-to-kill',
    unit: 's',
    about: 'first damage to death; survivors count as never',
    of: (row: KindRow) => row.timeToKill,
  },
  lifetime: { label: 'lifetime', unit: 's', about: 'spawn to death', of: (row: KindRow) => row.lifetime },
  timeToFirstStrike: {
    label: 'time-to-first-strike',
    unit: 's',
    about: 'from noticing the party to its first hit or miss',
    of: (row: KindRow) => row.timeToFirstStrike,
  },
  partyDamage: {
    label: 'damage to the party',
    unit: 'hp',
    about: 'health and shield its units took',
    of: (row: KindRow) => row.partyDamage,
  },
  effectiveHealthAdded: {
    label: 'effective health added',
    unit: 'hp',
    about: 'healing, shields and revived health it gave, per life',
    of: (row: KindRow) => (row.spawned ? row.healing.added / row.spawned : NaN),
  },
});
export type TypeMeasure = keyof typeof TYPE_MEASURES;

/** Of one wave. */
export const WAVE_MEASURES = measures({
  started: { label: 'started', unit: 's', about: 'on the encounter’s clock', of: (wave: WaveSpan) => wave.started },
  span: { label: 'span', unit: 's', about: 'first spawn to last death', of: (wave: WaveSpan) => wave.span },
  overlap: {
    label: 'overlap',
    unit: 's',
    about: 'for which the next wave ran before this one was over',
    of: (wave: WaveSpan) => wave.overlap,
  },
  rest: { label: 'rest', unit: 's', about: 'of lull between its first unit and the next wave’s', of: (wave: WaveSpan) => wave.rest },
  peakShare: {
    label: 'peak pressure',
    unit: '/s',
    about: 'that its units made, as a share of the party’s full health',
    of: (wave: WaveSpan) => wave.peakShare,
  },
  dose: { label: 'pressure dose', unit: '', about: 'that its units made', of: (wave: WaveSpan) => wave.dose },
});
export type WaveMeasure = keyof typeof WAVE_MEASURES;

/** Of one party member: a row and the member's number. */
export const MEMBER_MEASURES = measures({
  timeToDown: {
    label: 'time-to-down',
    unit: 's',
    about: 'first damage to down',
    of: ([row, member]: [Row, number]) => row.timeToDown[member],
  },
  burst: {
    label: 'burst',
    unit: '',
    about: 'most lost within 1 s, as a share of its full health',
    of: ([row, member]: [Row, number]) => row.bursts[member],
  },
});
export type MemberMeasure = keyof typeof MEMBER_MEASURES;

/** s of a member's time by what it went into. */
export function timeOf(row: Row, member: number, use: PlayerUse): number {
  return row.playerTime[member][PLAYER_USES.indexOf(use)];
}
