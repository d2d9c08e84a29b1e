/**
 * Conditions: trees of comparisons, built by choosing. Each subject says what kind of answer it has, what it needs beside
 * it, and how it reads aloud.
 */
import { LIMITS } from './limits';
import { ListOf, OneOf, Optional, Quantity, Text } from './field';

/** How a subject is asked: a number to compare, a yes or no, a chance drawn once, or other conditions. */
export type Asked = 'number' | 'yesNo' | 'chance' | 'group';

export interface SubjectInfo {
  asked: Asked;
  /** Reads on with "is below 3 m", "is so". */
  label: string;
  unit: string;
  /** What `of` names. */
  of?: 'attack' | 'role' | 'doing' | 'wave' | 'flag' | 'unit';
  /** `of` may be left out: then any. */
  ofOptional?: true;
  /** What `within` limits: metres or seconds. */
  within?: 'm' | 's';
  /** Speaks of the encounter as a whole, so an encounter's events and waves may ask it. */
  encounter?: true;
}

const metres = (label: string): SubjectInfo => ({ asked: 'number', label, unit: 'm' });
const seconds = (label: string): SubjectInfo => ({ asked: 'number', label, unit: 's' });
const share = (label: string): SubjectInfo => ({ asked: 'number', label, unit: '' });

export const SUBJECTS = {
  distance: metres('the distance to its target'),
  homeDistance: metres('the distance to its home'),
  nearestFoe: metres('the distance to the nearest foe'),
  nearestFriend: metres('the distance to the nearest friend'),
  healthShare: share('its share of health'),
  shieldShare: share('its share of shield'),
  energy: share('its energy'),
  charges: { ...share('the charges left of'), of: 'attack' },
  targetHealthShare: share('its target’s share of health'),
  timeInState: seconds('the time in this state'),
  sinceHit: seconds('the time since it was last hurt'),
  sinceAttack: seconds('the time since it last began an attack'),
  damageTaken: { asked: 'number', label: 'the damage taken', unit: 'hp', within: 's' },
  friends: { ...share('the number of friends'), within: 'm' },
  fallen: { ...share('the number of fallen friends'), within: 'm' },
  foes: { ...share('the number of foes'), within: 'm' },
  sees: { asked: 'yesNo', label: 'it sees its target', unit: '' },
  line: { asked: 'yesNo', label: 'the line to its target is clear', unit: '' },
  attackReady: { asked: 'yesNo', label: 'off cooldown', unit: '', of: 'attack', ofOptional: true },
  targetRole: { asked: 'yesNo', label: 'its target’s role is', unit: '', of: 'role' },
  targetDoes: { asked: 'yesNo', label: 'its target is', unit: '', of: 'doing' },
  chance: { asked: 'chance', label: 'a chance drawn on entering the state', unit: '' },
  clock: { ...seconds('the clock'), encounter: true },
  enemiesAlive: { ...share('the number of living enemies'), encounter: true },
  partyAlive: { ...share('the number of party members standing'), encounter: true },
  killed: { ...share('the number killed of'), of: 'unit', encounter: true },
  kindHealthShare: { ...share('the lowest share of health of'), of: 'unit', encounter: true },
  waveShare: { ...share('the share not yet defeated of'), of: 'wave', encounter: true },
  waveStarted: { asked: 'yesNo', label: 'has started:', unit: '', of: 'wave', encounter: true },
  flag: { asked: 'yesNo', label: 'is raised: the flag', unit: '', of: 'flag', encounter: true },
  all: { asked: 'group', label: 'all of', unit: '', encounter: true },
  any: { asked: 'group', label: 'any of', unit: '', encounter: true },
  not: { asked: 'group', label: 'not', unit: '', encounter: true },
} as const satisfies Record<string, SubjectInfo>;

export type Subject = keyof typeof SUBJECTS;
export const SUBJECT_NAMES = Object.keys(SUBJECTS) as Subject[];
/** What a target may be found doing. */
export const TARGET_DOES = ['idle', 'attacking', 'staggered', 'reloading', 'mending', 'evading'] as const;

/** A comparison, or several joined; true or false at the instant it is asked. */
export class Condition {
  @OneOf(SUBJECT_NAMES) subject: Subject;
  @Optional() @OneOf(['below', 'above', 'yes', 'no']) is?: 'below' | 'above' | 'yes' | 'no';
  @Optional()
  @Quantity({ label: 'Value', unit: '', min: 0, max: 1e6, about: 'metres, seconds, a share or a number, by what is compared' })
  value?: number;
  /** An attack, a role, a wave, a flag or a unit, by what is compared. */
  @Optional() @Text(80) of?: string;
  @Optional()
  @Quantity({ label: 'Within', unit: '', min: 0, max: 1000, about: 'metres around it, or seconds back, by what is compared' })
  within?: number;
  /** What `all`, `any` and `not` speak of. */
  @Optional() @ListOf(() => Condition, LIMITS.conditions) parts?: Condition[];
}

/** "its share of health is below 0.5 and not (its target is staggered)". */
export function conditionSentence(condition: Condition): string {
  const info: SubjectInfo = SUBJECTS[condition.subject];
  const { is, value, of, within, parts = [] } = condition;
  if (info.asked === 'group') {
    if (condition.subject === 'not') return `not (${parts.map(conditionSentence).join(' and ')})`;
    const joined = parts.map((part) => (part.parts && part.subject !== 'not' ? `(${conditionSentence(part)})` : conditionSentence(part)));
    return joined.join(condition.subject === 'all' ? ' and ' : ' or ') || 'nothing';
  }
  const named = of === undefined ? '' : ` ${of}`;
  const reach = within === undefined ? '' : info.within === 's' ? ` in the last ${within} s` : ` within ${within} m`;
  if (info.asked === 'chance') return `${info.label} comes true (${value ?? 0})`;
  if (info.asked === 'number') return `${info.label}${named}${reach} is ${is} ${value}${info.unit && ` ${info.unit}`}`;
  if (condition.subject === 'attackReady') return `${of ?? 'some attack'} is ${is === 'no' ? 'not ' : ''}off cooldown`;
  return `${is === 'no' ? 'not: ' : ''}${info.label}${named}`;
}
