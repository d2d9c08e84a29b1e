import { Condition } from './condition';
import { CounterChange } from './counter';
import {
  About,
  Group,
  Identifier,
  ListOf,
  Name,
  OneOf,
  Optional,
  Quantity,
  type Reference,
  Refers,
  RefersToSome,
  type Said,
  YesNo,
} from './field';
import { LIMITS } from './limits';
import { InTurns, StateRounds, StopRounds, TransitionRounds } from './rounds';
import { Targeting } from './targeting';
import { FieldTweak } from './tweak';

/** What a unit does in a state. The first five look to its target. */
const DOES = {
  hold: 'hold',
  approach: 'approach',
  band: 'keep a band',
  flee: 'flee',
  strafe: 'circle in a band',
  wander: 'wander',
  patrol: 'walk a round',
  home: 'go home',
  search: 'search',
  goTo: 'go to a point',
  follow: 'follow a friend',
} as const;
export type Does = keyof typeof DOES;
export const DOES_NAMES = Object.keys(DOES) as Does[];

/** Those that keep a distance between two. */
export const keepsBand = (does: Does): boolean => (BAND.when!.does as Does[]).includes(does);

const ATTACK: Reference = { to: ['attack'] };
const FLAG: Reference = { to: ['flag'] };
const BAND: Said = { when: { does: ['band', 'strafe', 'follow'] }, needed: { does: ['band', 'strafe'] } };

const metres = (label: string, about: string, min = 0, said: Said = {}) => Quantity({ label, unit: 'm', min, max: 200, about, ...said });
const seconds = (label: string, about: string) => Quantity({ label, unit: 's', min: 0, max: 600, about });

@About(
  'A way out of a state. Ways with a condition are asked in their order, and the first that holds is taken; of those with a weight one is drawn among those that hold; a way with neither is taken otherwise.',
)
export class Transition {
  @Optional()
  @Group(() => Condition, { label: 'When', about: 'it can be taken while this holds; absent: whenever no way asked before it is' })
  when?: Condition;
  @Refers({ to: ['state'] }, { label: 'To', about: 'the state it leads to' }) to: string;
  @seconds('After', 'not before this long in the state') after = 0;
  @Optional()
  @Quantity({
    label: 'Weight',
    unit: '',
    min: 0,
    max: 1000,
    about: 'of its draw among the ways with a weight that hold; absent: asked in its order',
  })
  weight?: number;
  @InTurns(() => TransitionRounds, ({ after }: Transition) => after > 0)
  rounds?: TransitionRounds;
}

@About('How often a state decides: drawn evenly between the two, anew each time.')
export class Deciding {
  @Quantity({
    label: 'Decides from',
    unit: 's',
    min: 0.05,
    max: 600,
    about: 'ways out are asked this long after entering, and as long after each time',
  })
  min = 0.5;
  @Quantity({ label: 'Decides to', unit: 's', min: 0.05, max: 600, about: 'at the latest' }) max = 0.5;
}

@About('A stop of a round, relative to the unit’s home.')
export class PatrolPoint {
  @Identifier() id: string;
  @metres('East', 'from its home', -200) x = 0;
  @metres('North', 'from its home', -200) y = 0;
  @seconds('Pause', 'how long it stays') pause = 0;
  @Optional()
  @Quantity({ label: 'Facing', unit: '°', min: -360, max: 360, about: 'turns this way while it stays; absent: as it came' })
  facing?: number;
  @InTurns(() => StopRounds, ({ pause }: PatrolPoint) => pause > 0)
  rounds?: StopRounds;
}

@About('The round it walks.')
export class Patrol {
  @ListOf(() => PatrolPoint, LIMITS.patrolPoints, { label: 'Stops', needed: true }) points: PatrolPoint[] = [];
  @OneOf({ loop: 'round and round', backAndForth: 'back and forth' }, { label: 'Order', about: 'in which it visits them' })
  order: 'loop' | 'backAndForth' = 'loop';
  @Quantity({ label: 'Starts at', unit: '', min: 0, max: 31, whole: true, about: 'which point it goes to first, counted from 0' }) startAt =
    0;
}

@About('Goes in one direction for a time, then in another; where its way is closed it slants aside.')
export class Roaming {
  @Quantity({
    label: 'Keeps it from',
    unit: 's',
    min: 0.05,
    max: 600,
    about: 'how long it keeps a direction, at least; each is drawn evenly',
  })
  min = 1;
  @Quantity({ label: 'Keeps it to', unit: 's', min: 0.05, max: 600, about: 'how long it keeps a direction, at most' }) max = 3;
  @Quantity({ label: 'Stands', unit: '', min: 0, max: 1, about: 'share of these times that it stands instead' }) stands = 0;
  @Optional()
  @Refers(
    { to: ['zone'], loose: true, gone: 'blocks' },
    {
      label: 'Zone',
      about: 'a zone of the arena that it keeps within; absent, or where the arena has none of that id: within what it strays from home',
    },
  )
  zone?: string;
}

@About('What happens once on entering a state.')
export class OnEnter {
  @Optional() @Refers(FLAG, { label: 'Raises flag', about: 'conditions may ask whether a flag is raised' }) raise?: string;
  @Optional() @Refers(FLAG, { label: 'Lowers flag' }) lower?: string;
  @YesNo({ label: 'Refills', about: 'energy full, charges full, every attack off cooldown' }) refill = false;
  @Optional()
  @Refers(ATTACK, { label: 'Begins', about: 'an attack begun at once, whatever its cooldown, price and range' })
  attack?: string;
  @ListOf(() => CounterChange, LIMITS.counts, { label: 'Counts', about: 'counters of the encounter that it changes' })
  counts: CounterChange[] = [];
}

/** In metres: they mean nothing where a fight goes by cells. */
function saysDistance({ stopAt, near, far, radius }: Pick<State, 'stopAt' | 'near' | 'far' | 'radius'>): boolean {
  return [stopAt, near, far, radius].some((metres) => metres !== undefined);
}

@About('What a unit does until something leads it to another state.')
export class State {
  @Identifier() id: string;
  @Name() name: string;
  @OneOf(DOES, { label: 'Does' }) does: Does;
  @OneOf({ walk: 'walk', run: 'run' }, { label: 'Pace', about: 'which of its speeds it moves at' }) pace: 'walk' | 'run' = 'run';
  @Quantity({ label: 'Pace factor', unit: '×', min: 0, max: 10, about: 'multiplies walk or run speed in this state' }) paceFactor = 1;
  @Optional()
  @metres('Stops at', 'approach ends at this distance; absent: 0.9 × the longest reach, and not before the line is clear', 0, {
    when: { does: ['approach'] },
  })
  stopAt?: number;
  @Optional()
  @metres(
    'Keeps from',
    'near edge of the distance band it keeps, between the edges of the bodies; a follower backs off when nearer',
    0,
    BAND,
  )
  near?: number;
  @Optional()
  @metres('Keeps to', 'far edge of the distance band it keeps; a follower comes when farther (absent: 4 radii)', 0, BAND)
  far?: number;
  @Optional()
  @metres('Strays', 'how far it wanders or searches from home or from where it last saw its target', 0, {
    when: { does: ['wander', 'search'] },
  })
  radius?: number;
  @Optional()
  @Group(() => Roaming, { label: 'Directions', about: 'absent: from place to place, with a rest at each', when: { does: ['wander'] } })
  roams?: Roaming;
  @Optional() @Group(() => Patrol, { label: 'Round', when: { does: ['patrol'] }, needed: true }) patrol?: Patrol;
  @Optional()
  @Refers(
    { to: { by: 'does', kinds: { goTo: 'point', follow: 'unit' } }, loose: true, gone: 'blocks' },
    {
      label: 'Towards',
      about: 'where it goes: a point of the arena, or the unit or role it follows; absent: it follows any friend',
      when: { does: ['goTo', 'follow'] },
      needed: { does: ['goTo'] },
    },
  )
  to?: string;
  @OneOf(
    { no: 'no', it: 'it alone', both: 'it, and foes in reach', hinders: 'it, and who hurts it' },
    {
      label: 'Strikes it',
      about:
        'where a foe’s thing stands at that point: passes it by; strikes it and takes no notice of foes; strikes it, and foes that come into reach; strikes it, and whoever has hurt itself lately',
      when: { does: ['goTo'] },
    },
  )
  strikes: 'no' | 'it' | 'both' | 'hinders' = 'no';
  @Optional()
  @Group(() => Targeting, { label: 'Whom', about: 'which of those friends it follows; absent: the nearest', when: { does: ['follow'] } })
  picks?: Targeting;
  @OneOf(
    { all: 'all attacks', none: 'no attack', some: 'some attacks' },
    { label: 'May begin', about: 'which attacks may be begun in this state' },
  )
  attacks: 'all' | 'none' | 'some' = 'all';
  @Optional()
  @RefersToSome(ATTACK, LIMITS.attacks, { label: 'Attacks', about: 'that may be begun', when: { attacks: ['some'] }, needed: true })
  only?: string[];
  @OneOf(
    { ignore: 'are ignored', clear: 'are struck in reach', engage: 'are fought' },
    {
      label: 'Foes on the way',
      about: 'on a patrol, on the way home or to a point: takes no notice of foes, strikes whoever is in reach, or leaves its way to fight',
    },
  )
  onTheWay: 'ignore' | 'clear' | 'engage' = 'engage';
  @YesNo({ label: 'Invulnerable', about: 'nothing hurts it in this state' }) invulnerable = false;
  @ListOf(() => FieldTweak, 16, { label: 'Tweaks', about: 'on its numbers while it is in this state' }) tweaks: FieldTweak[] = [];
  @Optional() @Group(() => OnEnter, { label: 'On entering' }) onEnter?: OnEnter;
  @Optional()
  @Group(() => Deciding, { label: 'Decides', about: 'ways out are asked at intervals, each time with new chances; absent: at every step' })
  decides?: Deciding;
  @ListOf(() => Transition, LIMITS.leaves, { label: 'Leaves', about: 'ways out, asked in this order' }) leaves: Transition[] = [];
  @InTurns(() => StateRounds, saysDistance) rounds?: StateRounds;
}
