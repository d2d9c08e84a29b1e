/**
 * Conditions: trees of comparisons, built by choosing. Each subject is one entry: how it is asked, what it needs beside it,
 * what a new comparison begins with, how it reads aloud. What it comes to in a fight is one entry in the engine's readers.
 */
import { type Clock, countedTurns, withUnit } from '../record/clock';
import { About, ListOf, OneOf, Optional, Quantity, type RefersTo, RefersByName } from './field';
import { LIMITS } from './limits';
import { ConditionRounds, InTurns } from './rounds';

/** How a subject is asked: a number to compare, a yes or no, a chance drawn once, or other conditions. */
export type Asked = 'number' | 'yesNo' | 'chance' | 'group';

export interface SubjectInfo {
  asked: Asked;
  /** Reads on with "is below 3 m", "is so". */
  label: string;
  unit: string;
  /** What `of` names: something of the document, or what a target may be found doing. */
  of?: Extract<RefersTo, 'attack' | 'role' | 'wave' | 'flag' | 'counter' | 'unit' | 'point'> | 'doing';
  /** `of` may be left out: then any. */
  ofOptional?: true;
  /** What `within` limits: metres around, or seconds back. */
  within?: 'm' | 's';
  /** Speaks of the encounter as a whole, so an encounter's events and waves may ask it. */
  encounter?: true;
  /** The most it can be; absent: no limit. */
  most?: number;
  /** What a new comparison is with. */
  start: number;
  /** Where it does not read as label, which, reach, "is below" and value: the whole sentence. */
  sentence?: (condition: Condition) => string;
}

const metres = (label: string) => ({ asked: 'number', label, unit: 'm', start: 5 }) as const;
const seconds = (label: string) => ({ asked: 'number', label, unit: 's', start: 1 }) as const;
const share = (label: string) => ({ asked: 'number', label, unit: '', most: 1, start: 0.5 }) as const;
const count = (label: string, start = 1) => ({ asked: 'number', label, unit: '', start }) as const;
const isSo = (label: string) => ({ asked: 'yesNo', label, unit: '', start: 1 }) as const;
const joined = (label: string) => ({ asked: 'group', label, unit: '', encounter: true, start: 1 }) as const;

export const SUBJECTS = {
  distance: metres('the distance to its target'),
  homeDistance: metres('the distance to its home'),
  nearestFoe: metres('the distance to the nearest foe'),
  nearestFriend: metres('the distance to the nearest friend'),
  healthShare: share('its share of health'),
  shieldShare: share('its share of shield'),
  energy: count('its energy', 20),
  charges: { ...count('the charges left of'), of: 'attack' },
  targetHealthShare: share('its target’s share of health'),
  timeInState: seconds('the time in this state'),
  sinceHit: seconds('the time since it was last hurt'),
  sinceAttack: seconds('the time since it last began an attack'),
  damageTaken: { asked: 'number', label: 'the damage taken', unit: 'hp', within: 's', start: 20 },
  friends: { ...count('the number of friends'), within: 'm' },
  fallen: { ...count('the number of fallen friends'), within: 'm' },
  foes: { ...count('the number of foes'), within: 'm' },
  sees: isSo('it sees its target'),
  line: isSo('the line to its target is clear'),
  strikable: {
    ...isSo('somebody can be struck this turn'),
    sentence: ({ is }) => `${is === 'no' ? 'nobody' : 'somebody'} can be struck this turn, with an attack that is ready`,
  },
  attackReady: {
    ...isSo('off cooldown'),
    of: 'attack',
    ofOptional: true,
    sentence: ({ of, is }) => `${of ?? 'some attack'} is ${is === 'no' ? 'not ' : ''}off cooldown`,
  },
  targetRole: { ...isSo('its target’s role is'), of: 'role' },
  targetDoes: { ...isSo('its target is'), of: 'doing' },
  chance: {
    asked: 'chance',
    label: 'a chance drawn on entering the state, or as it decides',
    unit: '',
    most: 1,
    start: 0.5,
    sentence: ({ value }) => `a chance drawn on entering the state, or as it decides, comes true (${value ?? 0})`,
  },
  clock: { ...seconds('the clock'), encounter: true },
  enemiesAlive: { ...count('the number of living enemies'), encounter: true },
  partyAlive: { ...count('the number of party members standing'), encounter: true },
  killed: { ...count('the number killed of'), of: 'unit', encounter: true },
  kindHealthShare: { ...share('the lowest share of health of'), of: 'unit', encounter: true },
  waveShare: { ...share('the share not yet defeated of'), of: 'wave', encounter: true },
  waveStarted: { ...isSo('has started:'), of: 'wave', encounter: true },
  flag: { ...isSo('is raised: the flag'), of: 'flag', encounter: true },
  pointHealthShare: { ...share('the share of health of what stands at'), of: 'point', encounter: true },
  pointDestroyed: { ...isSo('is destroyed: what stood at'), of: 'point', encounter: true },
  counter: { ...count('the counter'), of: 'counter', encounter: true },
  all: joined('all of'),
  any: joined('any of'),
  not: joined('not'),
} as const satisfies Record<string, SubjectInfo>;

export type Subject = keyof typeof SUBJECTS;
export const SUBJECT_NAMES = Object.keys(SUBJECTS) as Subject[];
/** What is known of a subject. */
export const subjectOf = (subject: Subject): SubjectInfo => SUBJECTS[subject];
const SUBJECT_LABELS = Object.fromEntries(SUBJECT_NAMES.map((name) => [name, SUBJECTS[name].label]));

/** What a target may be found doing. */
export const TARGET_DOES = ['idle', 'attacking', 'staggered', 'reloading', 'mending', 'evading'] as const;
export type TargetDoes = (typeof TARGET_DOES)[number];

/** Subjects that ask one of these ways, or name something. */
const subjectsThat = (test: (info: SubjectInfo) => unknown) => SUBJECT_NAMES.filter((name) => test(SUBJECTS[name]));

/** What `of` refers to, by subject; what a target does is no part of the document. */
const REFERRED = Object.fromEntries(
  SUBJECT_NAMES.flatMap((name) => {
    const { of }: SubjectInfo = SUBJECTS[name];
    return of === undefined || of === 'doing' ? [] : [[name, of] as const];
  }),
);

@About('A comparison, or several joined; true or false at the instant it is asked.')
export class Condition {
  @OneOf(SUBJECT_LABELS, { label: 'What' }) subject: Subject;
  @Optional()
  @OneOf(
    { below: 'below', above: 'above', yes: 'yes', no: 'no' },
    {
      label: 'Is',
      about: 'below or above a number; yes or no',
      fixed: true,
      when: { subject: subjectsThat(({ asked }) => asked === 'number' || asked === 'yesNo') },
    },
  )
  is?: 'below' | 'above' | 'yes' | 'no';
  @Optional()
  @Quantity({
    label: 'Value',
    unit: '',
    min: 0,
    max: 1e6,
    about: 'metres, seconds, a share or a number, by what is compared',
    when: { subject: subjectsThat(({ asked }) => asked === 'number' || asked === 'chance') },
    needed: true,
    only: true,
  })
  value?: number;
  // The document is not lost with a unit that is asked about; a condition about an attack is nothing without it.
  @Optional()
  @RefersByName({ to: { by: 'subject', kinds: REFERRED }, gone: (holder) => (goneWith(holder as Condition) ? 'takes' : 'blocks') }, 80, {
    label: 'Which',
    about: 'an attack, a role, a wave, a flag, a counter, a point or a unit, by what is compared',
    when: { subject: subjectsThat(({ of }) => of) },
    only: true,
  })
  of?: string;
  @Optional()
  @Quantity({
    label: 'Within',
    unit: '',
    min: 0,
    max: 1000,
    about: 'metres around it, or seconds back, by what is compared',
    when: { subject: subjectsThat(({ within }) => within) },
    needed: true,
    only: true,
  })
  within?: number;
  @Optional()
  @ListOf(() => Condition, LIMITS.conditions, {
    label: 'Parts',
    about: 'what “all”, “any” and “not” speak of',
    when: { subject: subjectsThat(({ asked }) => asked === 'group') },
    needed: true,
    only: true,
    emptied: 'takes',
  })
  parts?: Condition[];
  @InTurns(() => ConditionRounds, ({ subject }: Condition) => goesByClock(subject))
  rounds?: ConditionRounds;
}

/** It compares seconds or metres, or looks so far around or back. */
function goesByClock(subject: Subject): boolean {
  const { unit, within } = subjectOf(subject);
  return unit === 's' || unit === 'm' || within !== undefined;
}

const goneWith = ({ subject }: Condition) => subjectOf(subject).of === 'attack';

/** "its share of health is below 0.5 and not (its target is staggered)"; by the clock of the fight it is asked in. */
export function conditionSentence(condition: Condition, clock: Clock = 'continuous'): string {
  const info = subjectOf(condition.subject);
  if (condition.parts) return joinedSentence(condition.subject, condition.parts, clock);
  if (info.sentence) return info.sentence(condition);
  const { is, of, rounds } = condition;
  const turns = clock === 'rounds' && rounds !== undefined;
  const within = condition.within === undefined ? undefined : turns ? rounds.within : condition.within;
  const value = turns && (info.unit === 's' || info.unit === 'm') ? rounds.value : condition.value;
  const named = of === undefined ? '' : ` ${of}`;
  const told = (amount: number | undefined, unit: string) =>
    turns && unit === 's' && condition.subject !== 'clock'
      ? countedTurns(amount ?? 0)
      : withUnit(turns ? 'rounds' : 'continuous', String(amount), unit).trim();
  const reach = within === undefined ? '' : info.within === 's' ? ` in the last ${told(within, 's')}` : ` within ${told(within, 'm')}`;
  if (info.asked === 'number') return `${info.label}${named}${reach} is ${is} ${told(value, info.unit)}`;
  return `${is === 'no' ? 'not: ' : ''}${info.label}${named}`;
}

function joinedSentence(subject: Subject, parts: Condition[], clock: Clock): string {
  if (subject === 'not') return `not (${parts.map((part) => conditionSentence(part, clock)).join(' and ')})`;
  const bracketed = (part: Condition) =>
    part.parts && part.subject !== 'not' ? `(${conditionSentence(part, clock)})` : conditionSentence(part, clock);
  return parts.map(bracketed).join(subject === 'all' ? ' and ' : ' or ') || 'nothing';
}
