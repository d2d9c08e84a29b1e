/** What is asked of a fight's numbers, as the project keeps it: which fight, what is wanted of it, what may be turned. */
import {
  About,
  AnyNumber,
  Identifier,
  ListOf,
  Name,
  OneOf,
  Optional,
  Pointer,
  Quantity,
  type Reference,
  Refers,
  RefersByName,
  Text,
  YesNo,
  asTheyAre,
} from './field';
import { type Statistic, STATISTICS } from '../measures/measure';
import { type BandMeasure, GOAL_WORDS } from '../measures/list';
import { LIMITS } from './limits';

/** Whose numbers a dial turns. */
export const DIAL_SCOPES = {
  unit: 'one unit or variant',
  role: 'every unit of a role',
  enemies: 'all enemies',
  party: 'the party',
  encounter: 'an encounter',
  arena: 'an arena',
  trait: 'a trait',
  tier: 'a tier',
  skill: 'a skill',
  style: 'a style',
  variant: 'what a variant changes',
} as const;
export type DialScope = keyof typeof DIAL_SCOPES;

/** Scopes that stand for one thing, which is named. */
const NAMED = ['unit', 'role', 'encounter', 'arena', 'trait', 'tier', 'skill', 'style', 'variant'];

/** What is asked about what is gone goes with it. */
const takes = (to: Reference['to']): Reference => ({ to, gone: 'takes' });

@About('A number, a word, a yes-or-no or an entry of a list that a question turns, and how far.')
export class QuestionDial {
  @OneOf(DIAL_SCOPES, { label: 'Whose' }) scope: DialScope;
  @Optional()
  @RefersByName(
    takes({
      by: 'scope',
      kinds: {
        unit: 'unit',
        role: 'role',
        encounter: 'encounter',
        arena: 'arena',
        trait: 'trait',
        tier: 'tier',
        skill: 'skill',
        style: 'style',
        variant: 'unit',
      },
    }),
    80,
    { label: 'Of', about: 'which one', when: { scope: NAMED }, needed: true, only: true },
  )
  of?: string;
  @Pointer('/health/max', {
    label: 'Number',
    about: 'JSON Pointer (RFC 6901) within it; a step into a list is an item’s id, or `*` for each item',
  })
  path: string;
  @OneOf({ '=': 'is set', '×': 'is multiplied by a factor common to all places' }, { label: 'Turned' }) op: '=' | '×' = '=';
  @Optional() @AnyNumber({ label: 'From', about: 'turned no lower; absent: half of what is written' }) low?: number;
  @Optional() @AnyNumber({ label: 'To', about: 'turned no higher; absent: one and a half times what is written' }) high?: number;
  @Optional()
  @Quantity({ label: 'Step', unit: '', min: 1e-6, max: 1e6, about: 'values lie this far from one another; absent: as people write them' })
  step?: number;
  @Optional()
  @Text(80, { label: 'Put to', about: 'of a word which one, of a yes-or-no `yes` or `no`, of an entry of a list `no`: it is taken out' })
  to?: string;
  @YesNo({ label: 'Locked', about: 'looked at, never turned by a search' }) locked = false;
}

@About('What a question wants of a fight, or only looks at.')
export class QuestionGoal {
  @OneOf(GOAL_WORDS, { label: 'Measure' }) measure: BandMeasure;
  @OneOf(
    { fight: 'the fight', unit: 'an enemy', wave: 'a wave' },
    { label: 'Of', about: 'whom it is measured of: the fight itself, or one enemy or wave of an encounter' },
  )
  scope: 'fight' | 'unit' | 'wave' = 'fight';
  @Optional()
  @RefersByName(takes({ by: 'scope', kinds: { unit: 'unit', wave: 'wave' } }), 80, {
    label: 'Which',
    about: 'the enemy or the wave',
    when: { scope: ['unit', 'wave'] },
    needed: true,
    only: true,
  })
  of?: string;
  @OneOf({ ...asTheyAre(STATISTICS), share: 'share of runs' }, { label: 'By its' }) statistic: Statistic = 'median';
  @Optional() @AnyNumber({ label: 'At least', about: 'absent, and no at most: it is only looked at' }) low?: number;
  @Optional() @AnyNumber({ label: 'At most' }) high?: number;
}

@About('A tier and a skill at which a fight is asked about.')
export class QuestionLens {
  @Optional() @Refers(takes(['tier']), { label: 'At tier', about: 'absent: as written' }) tier?: string;
  @Optional() @Refers(takes(['skill']), { label: 'At skill', about: 'absent: as written' }) skill?: string;
}

/** How a question is looked at. */
export const ASKED = { moves: 'what moves it', along: 'along one', two: 'two at once', find: 'find the numbers' } as const;

/** What a search that finds several ways shall prefer. */
export const PREFERRED = {
  change: 'as little change as can be',
  numbers: 'as few numbers as can be',
  margin: 'as much margin as can be',
} as const;

@About('What is asked of the numbers of a fight. What it leads to is run again, never kept.')
export class Question {
  @Identifier() id: string;
  @Name() name: string;
  @OneOf(ASKED, { label: 'Asked' }) ask: keyof typeof ASKED = 'moves';
  @OneOf({ duel: 'an enemy’s duel', encounter: 'an encounter' }, { label: 'Fight' }) fight: 'duel' | 'encounter';
  @RefersByName(takes({ by: 'fight', kinds: { duel: 'unit', encounter: 'encounter' } }), 80, {
    label: 'Which',
    about: 'the enemy, or the encounter',
  })
  of: string;
  @Quantity({ label: 'Copies', unit: '', min: 1, max: 12, whole: true, about: 'of the enemy of a duel' }) copies = 1;
  @ListOf(() => QuestionLens, LIMITS.questionLenses, { label: 'At', about: 'none: as written' }) at: QuestionLens[] = [];
  @ListOf(() => QuestionGoal, LIMITS.questionGoals, {
    label: 'Goals',
    about: 'none: what the brief wants of the fight',
    called: (goal) => GOAL_WORDS[(goal as QuestionGoal).measure],
  })
  goals: QuestionGoal[] = [];
  @ListOf(() => QuestionDial, LIMITS.questionDials, { label: 'Dials', called: (dial) => (dial as QuestionDial).path })
  dials: QuestionDial[] = [];
  @Quantity({ label: 'Runs', unit: '', min: 50, max: 10_000, whole: true, about: 'of each point' }) runs = 200;
  @OneOf(PREFERRED, { label: 'Preferred', about: 'by a search', when: { ask: ['find'] } }) prefer: keyof typeof PREFERRED = 'change';
  @Optional() @Text(2000, { label: 'Led to', about: 'what was written because of it' }) ledTo?: string;
}

@About('Questions about numbers that the project keeps.')
export class Tuning {
  @ListOf(() => Question, LIMITS.questions, { label: 'Questions' }) questions: Question[] = [];
}
