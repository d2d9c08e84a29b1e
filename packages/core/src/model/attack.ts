import { ANSWER_KINDS, type AnswerKind, answersAs } from './answer-kind';
import { Condition } from './condition';
import { DELIVERY_WORDS, type Delivery, type DeliveryTraits, deliveriesWith } from './delivery';
import { Effects } from './effects/list';
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
  type Said,
  SomeOf,
  YesNo,
} from './field';
import { LIMITS } from './limits';
import { AttackRounds, InTurns } from './rounds';

const ATTACK: Reference = { to: ['attack'] };

const metres = (label: string, about: string, max = 200) => Quantity({ label, unit: 'm', min: 0, max, about });
const seconds = (label: string, about: string, max = 600) => Quantity({ label, unit: 's', min: 0, max, about });
const share = (label: string, about: string) => Quantity({ label, unit: '', min: 0, max: 1, about });
const points = (label: string, about: string) => Quantity({ label, unit: 'hp', min: 0, max: 1e6, about });

@About('Between two distances, edge to edge.')
export class Range {
  @metres('Range from', 'nearest distance, between the edges of the bodies, at which the attack is begun') min = 0;
  @metres('Range to', 'farthest distance, between the edges of the bodies, at which the attack is begun and still reaches') max = 1;
}

@About('Between two durations; each use draws uniformly.')
export class Delay {
  @seconds('Shortest', 'shortest wait') min = 0;
  @seconds('Longest', 'longest wait') max = 0;
}

@About('When an attack does what, from the start of its wind-up.')
export class Beat {
  @seconds('Wind-up', 'from the start of the attack to its first hit', 60) windup = 0;
  @seconds('Active', 'how long it can hurt; without a repeat it hits once, at the start', 60) active = 0;
  @Optional()
  @Quantity({ label: 'Every', unit: 's', min: 0.001, max: 60, about: 'time between hits while active; absent: one hit' })
  every?: number;
  @seconds('Recovery', 'after the active part, before anything else can be begun', 60) recovery = 0;
  @seconds('Cooldown', 'until this attack may be used again') cooldown = 1;
  @OneOf({ start: 'its start', end: 'its end' }, { label: 'Cooldown from', about: 'from which of the attack the cooldown counts' })
  cooldownFrom: 'start' | 'end' = 'start';
  @Group(() => Delay, { label: 'First use', about: 'not before this, from its spawn' }) initialDelay: Delay = new Delay();
  @OneOf({ no: 'stands', slow: 'slowly', free: 'freely' }, { label: 'Moving', about: 'how it moves while it attacks' }) moving:
    'no' | 'slow' | 'free' = 'no';
  @OneOf(
    { turns: 'turns', fixed: 'fixed' },
    { label: 'Aim', about: 'turns with its target until the wind-up ends, or keeps the direction it had at its start' },
  )
  tracking: 'turns' | 'fixed' = 'turns';
  @Optional()
  @seconds('Readable after', 'the cue: how long after the start of the wind-up it can be read; absent: at once', 60)
  cue?: number;
}

@About('Whom a hit strikes, and how often.')
export class Hits {
  @OneOf(
    { once: 'once a use', every: 'every hit' },
    { label: 'Each target', about: 'in one use: each target once, or at every hit of the active part' },
  )
  perTarget: 'once' | 'every' = 'once';
  @Optional()
  @Quantity({
    label: 'Targets',
    unit: '',
    min: 1,
    max: 500,
    whole: true,
    about: 'how many a single hit may strike; absent: one, or all in an area',
  })
  limit?: number;
  @YesNo({ label: 'Hurts friends', about: 'strikes friends too, and friends are in the way of its shots' }) friendlyFire = false;
}

@About('Where a shot leaves: metres ahead of and to the left of the body’s centre; shots of a volley use them in turn.')
export class Muzzle {
  @Identifier() id: string;
  @Quantity({ label: 'Ahead', unit: 'm', min: -20, max: 20, about: 'ahead of the centre' }) ahead = 0;
  @Quantity({ label: 'Left', unit: 'm', min: -20, max: 20, about: 'to the left of the centre' }) left = 0;
}

@About('A shot that flies.')
export class Projectile {
  @Quantity({ label: 'Speed', unit: 'm/s', min: 0.1, max: 1000, about: 'of the shot' }) speed = 20;
  @metres('Shot radius', 'a shot meets a body at this distance from its edge', 5) radius = 0.05;
  @Optional()
  @Quantity({ label: 'Lifetime', unit: 's', min: 0.01, max: 60, about: 'how long a shot flies; absent: as far as its range' })
  lifetime?: number;
  @Quantity({
    label: 'Shots at once',
    unit: '',
    min: 1,
    max: 32,
    whole: true,
    about: 'the volley: shots launched together at each hit instant',
  })
  count = 1;
  @Quantity({ label: 'Spread angle', unit: '°', min: 0, max: 180, about: 'each shot leaves within half of this to either side of the aim' })
  spread = 0;
  @share('Lead', 'share of the target’s motion that the aim allows for') lead = 0;
  @ListOf(() => Muzzle, LIMITS.muzzles, { label: 'Muzzles', about: 'none: from its centre' }) muzzles: Muzzle[] = [];
  @Quantity({ label: 'Pierces', unit: '', min: 0, max: 100, whole: true, about: 'bodies a shot passes through after striking them' })
  pierces = 0;
  @Quantity({ label: 'Homing', unit: '°/s', min: 0, max: 3600, about: 'how fast a shot turns towards its target; 0: not at all' })
  homing = 0;
}

@About('A circle or a cone that is struck.')
export class Area {
  @OneOf(
    { self: 'itself', target: 'its target', mark: 'a marked point' },
    {
      label: 'About',
      about: 'about itself, about its target, or at a point marked at the end of the wind-up (with fixed tracking: at its start)',
    },
  )
  about: 'self' | 'target' | 'mark' = 'self';
  @Quantity({ label: 'Area radius', unit: 'm', min: 0.05, max: 200, about: 'strikes bodies whose edge is within this of the centre' })
  radius = 2;
  @Quantity({ label: 'Area angle', unit: '°', min: 1, max: 360, about: 'of a cone in the direction faced; 360: a circle' }) angle = 360;
  @seconds('Bursts after', 'between mark and burst', 60) delay = 0;
}

@About('Units that appear beside it.')
export class Summoning {
  @Refers({ to: ['unit'], gone: 'blocks' }, { label: 'Unit', about: 'the unit that appears' }) unit: string;
  @Quantity({ label: 'Summons', unit: '', min: 1, max: 50, whole: true, about: 'how many appear at each hit' }) count = 1;
  @Quantity({ label: 'Alive at most', unit: '', min: 1, max: 100, whole: true, about: 'how many of its summoned may live at one time' })
  cap: number;
  @metres('Around', 'they appear within this distance of its edge', 50) around = 2;
}

@About('Chance that a hit that meets its target counts: linear from touching to full range.')
export class Aim {
  @share('Accuracy near', 'chance to hit when the bodies touch') near = 1;
  @share('Accuracy far', 'chance to hit at full range; linear between') far = 1;
  @share('Finds weak points', 'share of its hits that meet a weak point that is exposed') weakPointShare = 0;
}

@About(
  'A movement that is part of an attack: a lunge, a charge, a leap, a sidestep, a step back. It goes straight and begins at an instant of its own.',
)
export class Dash {
  @OneOf(
    { target: 'towards its target', away: 'away from it', sideways: 'sideways', ahead: 'straight ahead' },
    { label: 'Goes', about: 'which way, as things stand when it begins; sideways: to the side that is clear, drawn where both are' },
  )
  way: 'target' | 'away' | 'sideways' | 'ahead' = 'target';
  @Quantity({ label: 'Distance', unit: 'm', min: 0.05, max: 200, about: 'how far, at most' }) distance = 3;
  @Quantity({ label: 'Speed', unit: 'm/s', min: 0.1, max: 200, about: 'how fast' }) speed = 10;
  @YesNo({ label: 'Up to its target', about: 'no farther than to touch where its target was when it began', when: { way: ['target'] } })
  upToTarget = true;
  @OneOf({ windup: 'in the wind-up', active: 'while active' }, { label: 'Begins', about: 'in which part of the attack' })
  during: 'windup' | 'active' = 'windup';
  @seconds('After', 'from the start of that part', 60) after = 0;
  @OneOf(
    { no: 'no, its hits do', way: 'whom it meets', end: 'at its end' },
    {
      label: 'Hurts',
      about:
        'the attack’s hits fall at their instants; or each body it meets is struck by touch, instead; or its one hit falls where it ends',
      fixed: true,
    },
  )
  hurts: 'no' | 'way' | 'end' = 'no';
  @YesNo({ label: 'Stops at bodies', about: 'ends at the first body it touches; else it passes' }) stops = false;
  @seconds('Reels at walls', 'how long it reels when a wall or the arena’s edge stops it; 0: not at all', 60) reels = 0;
  @metres('Over walls up to', 'height of walls that it leaps over; 0: none', 40) over = 0;
}

@About('Uses that come back one after another.')
export class Charges {
  @Quantity({ label: 'Charges', unit: '', min: 1, max: 100, whole: true, about: 'uses it can hold' }) count = 1;
  @Quantity({ label: 'Recharge', unit: 's', min: 0.01, max: 600, about: 'time until one use comes back, one after another' }) reload = 5;
}

@About('What breaks it off.')
export class Interruptible {
  @YesNo({ label: 'By a stagger', about: 'in wind-up or while active' }) stagger = true;
  @Optional() @points('Broken by', 'a single hit of at least this much breaks it off; absent: none does') hit?: number;
}

@About('An attack that comes right after it.')
export class FollowUp {
  @Refers(ATTACK, { label: 'Attack', about: 'an attack of the same unit' }) attack: string;
  @seconds('Follows within', 'after the recovery; in this time it comes before any other choice and without a pause', 60) window = 0.5;
}

@About('What it needs of a pool of attack slots.')
export class SlotUse {
  @Refers(
    { to: ['slots'], loose: true },
    {
      label: 'Pool',
      about: 'a pool of the encounter; where the encounter has none of that name, nothing is needed',
    },
  )
  pool: string;
  @Quantity({ label: 'Takes', unit: '', min: 1, max: 100, whole: true, about: 'how much of the pool it takes' }) takes = 1;
}

/** A group that one delivery has, and needs, and no other. */
const partOf = (part: DeliveryTraits['part'], label: string): Said => ({
  label,
  when: { delivery: deliveriesWith((traits) => traits.part === part) },
  needed: true,
  only: true,
});

@About('One thing a unit can do to others, or for them.')
export class Attack {
  @Identifier() id: string;
  @Name() name: string;
  @OneOf(DELIVERY_WORDS, { label: 'Delivery', about: 'how it reaches whom it is meant for' }) delivery: Delivery;
  @Group(() => Range, { label: 'Range' }) range: Range = new Range();
  @YesNo({ label: 'Needs a line', about: 'begun only with a clear line from its muzzle to the target' }) needsLine = true;
  @Quantity({ label: 'Facing', unit: '°', min: 0, max: 180, about: 'begun only when the target is within this angle of straight ahead' })
  facing = 180;
  @Quantity({
    label: 'Arc',
    unit: '°',
    min: 1,
    max: 360,
    about: 'a melee hit strikes within this angle, half to either side',
    when: { delivery: ['melee'] },
  })
  arc = 90;
  @OneOf(
    { foes: 'foes', friends: 'hurt friends', fallen: 'fallen friends' },
    { label: 'For', about: 'whom support is for: friends that are hurt, or fallen ones; all else is for foes', fixed: true },
  )
  targets: 'foes' | 'friends' | 'fallen' = 'foes';
  @Optional() @Group(() => Condition, { label: 'If', about: 'begun only while this holds' }) condition?: Condition;
  @Group(() => Beat, { label: 'Beat' }) beat: Beat = new Beat();
  @Optional()
  @Quantity({ label: 'Energy cost', unit: '', min: 0, max: 1e6, about: 'spent when the wind-up starts; absent: nothing' })
  energy?: number;
  @Optional() @Group(() => Charges, { label: 'Charges' }) charges?: Charges;
  @Group(() => Interruptible, { label: 'Broken off' }) interruptible: Interruptible = new Interruptible();
  @Group(() => Effects, { label: 'Effects' }) effects: Effects = new Effects();
  @Group(() => Hits, { label: 'Hits' }) hits: Hits = new Hits();
  @Optional() @Group(() => Projectile, partOf('projectile', 'Shot')) projectile?: Projectile;
  @Optional() @Group(() => Area, partOf('area', 'Area')) area?: Area;
  @Group(() => Aim, { label: 'Aim' }) aim: Aim = new Aim();
  @SomeOf(answersAs('noun'), { label: 'Answered by', about: 'which of a player’s answers work against it' })
  answers: AnswerKind[] = [...ANSWER_KINDS];
  @Optional() @Group(() => FollowUp, { label: 'Follow-up' }) next?: FollowUp;
  @Optional()
  @Group(() => Dash, { label: 'Movement', when: { delivery: deliveriesWith(({ chosen }) => chosen) }, only: true })
  dash?: Dash;
  @Optional() @Group(() => SlotUse, { label: 'Attack slot' }) slot?: SlotUse;
  @Optional() @Group(() => Summoning, partOf('summon', 'Summons')) summon?: Summoning;
  @InTurns(() => AttackRounds) rounds?: AttackRounds;
}
