import { Condition } from './condition';
import { Group, Identifier, ListOf, Name, OneOf, Optional, Quantity, SomeOf, Text, YesNo } from './field';
import { LIMITS } from './limits';
import { NumberTweak } from './tweak';

/** How an attack reaches whom it is meant for. */
export const DELIVERIES = ['melee', 'hitscan', 'projectile', 'area', 'contact', 'self', 'support', 'summon'] as const;
export type Delivery = (typeof DELIVERIES)[number];
/** What a player can do about an attack once it is announced. */
export const ANSWERS = ['stepOut', 'dodge', 'block', 'breakLine', 'interrupt'] as const;
export type AnswerKind = (typeof ANSWERS)[number];

const metres = (label: string, about: string, max = 200) => Quantity({ label, unit: 'm', min: 0, max, about });
const seconds = (label: string, about: string, max = 600) => Quantity({ label, unit: 's', min: 0, max, about });
const share = (label: string, about: string) => Quantity({ label, unit: '', min: 0, max: 1, about });
const points = (label: string, about: string) => Quantity({ label, unit: 'hp', min: 0, max: 1e6, about });

/** Between two distances, edge to edge. */
export class Range {
  @metres('Range from', 'nearest distance, between the edges of the bodies, at which the attack is begun') min = 0;
  @metres('Range to', 'farthest distance, between the edges of the bodies, at which the attack is begun and still reaches') max = 1;
}

/** Between two durations; each use draws uniformly. */
export class Delay {
  @seconds('At least', 'shortest wait') min = 0;
  @seconds('At most', 'longest wait') max = 0;
}

/** When an attack does what, from the start of its wind-up. */
export class Beat {
  @seconds('Wind-up', 'from the start of the attack to its first hit', 60) windup = 0;
  @seconds('Active', 'how long it can hurt; without a repeat it hits once, at the start', 60) active = 0;
  @Optional()
  @Quantity({ label: 'Every', unit: 's', min: 0.001, max: 60, about: 'time between hits while active; absent: one hit' })
  every?: number;
  @seconds('Recovery', 'after the active part, before anything else can be begun', 60) recovery = 0;
  @seconds('Cooldown', 'until this attack may be used again') cooldown = 1;
  @OneOf(['start', 'end']) cooldownFrom: 'start' | 'end' = 'start';
  @Group(() => Delay) initialDelay: Delay = new Delay();
  @OneOf(['no', 'slow', 'free']) moving: 'no' | 'slow' | 'free' = 'no';
  /** Turns with its target until the wind-up ends, or keeps the direction it had at its start. */
  @OneOf(['turns', 'fixed']) tracking: 'turns' | 'fixed' = 'turns';
  @Optional() @seconds('Cue', 'how long after the start of the wind-up it can be read; absent: at once', 60) cue?: number;
}

export class Damage {
  @points('Damage', 'of one hit, before armour') amount = 0;
  @points('Spread', 'each hit is drawn uniformly from amount ± spread, at least 0') spread = 0;
  /** What resistances speak of; absent: none of them counts. */
  @Optional() @Text(40) type?: string;
  @share('Crit chance', 'share of hits that are critical') critChance = 0;
  @Quantity({ label: 'Crit factor', unit: '×', min: 1, max: 100, about: 'a critical hit is multiplied by this' }) critMultiplier = 2;
}

/** Ticks of damage after a hit: at every, 2 × every … up to and including `for`. */
export class OverTime {
  @points('Tick damage', 'of one tick, before armour') amount = 0;
  @Quantity({ label: 'Tick every', unit: 's', min: 0.01, max: 60, about: 'time between ticks' }) every = 1;
  @seconds('Lasts', 'ticks fall up to and including this long after the hit') for = 4;
  /** A second hit while it runs: moves the end and keeps the phase, adds another, or does nothing. */
  @OneOf(['refresh', 'stack', 'ignore']) stacking: 'refresh' | 'stack' | 'ignore' = 'refresh';
  @Optional() @Text(40) type?: string;
}

/** An amount and a share of full health, added together. */
export class Healing {
  @points('Heals', 'health given at each hit') amount = 0;
  @share('Heals share', 'share of full health given besides') share = 0;
}

/** A shield lent for a time; a larger one takes the place of a smaller. */
export class LentShield {
  @points('Shield given', 'absorbs damage before the unit’s own shield') amount = 0;
  @seconds('For', 'how long it lasts') for = 5;
}

export class Slow {
  @share('Slowed by', 'share of speed taken away; the strongest slow counts') share = 0.3;
  @seconds('For', 'how long it lasts') for = 2;
}

export class Lasting {
  @seconds('For', 'how long it lasts') for = 1;
}

export class Knockback {
  @metres('Knocked back', 'away from where the hit came from, stopped by walls', 50) distance = 1;
}

/** Tweaks on whoever is struck or helped, for a time; the same boost again moves its end. */
export class Boost {
  @ListOf(() => NumberTweak, 16) tweaks: NumberTweak[] = [];
  @seconds('For', 'how long it lasts; 0: to the end') for = 5;
}

export class Drain {
  @Quantity({ label: 'Drains', unit: '', min: 0, max: 1e6, about: 'energy taken away' }) amount = 1;
}

export class Mark {
  @Quantity({ label: 'Marked', unit: '×', min: 0, max: 100, about: 'hits on a marked unit are multiplied by this' }) multiplier = 1.25;
  @seconds('For', 'how long it lasts') for = 5;
}

/** What a hit does to a foe, or what help does for a friend. */
export class Effects {
  @Optional() @Group(() => Damage) damage?: Damage;
  @Optional() @Group(() => OverTime) overTime?: OverTime;
  @Optional() @Group(() => Healing) heal?: Healing;
  @Optional() @Group(() => LentShield) shield?: LentShield;
  @Optional() @Group(() => Slow) slow?: Slow;
  @Optional() @Group(() => Lasting) stagger?: Lasting;
  @Optional() @Group(() => Knockback) knockback?: Knockback;
  @Optional() @Group(() => Boost) boost?: Boost;
  /** Brings a fallen friend back with this much health. */
  @Optional() @Group(() => Healing) revive?: Healing;
  @Optional() @Group(() => Drain) drain?: Drain;
  /** The struck unit turns on whoever struck it. */
  @Optional() @Group(() => Lasting) taunt?: Lasting;
  @Optional() @Group(() => Mark) mark?: Mark;
}

export class Hits {
  /** In one use: each target once, or at every hit of the active part. */
  @OneOf(['once', 'every']) perTarget: 'once' | 'every' = 'once';
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
  /** Strikes friends too, and friends are in the way of its shots. */
  @YesNo() friendlyFire = false;
}

/** Where a shot leaves: metres ahead of and to the left of the body's centre; shots of a volley use them in turn. */
export class Muzzle {
  @Identifier() id: string;
  @Quantity({ label: 'Ahead', unit: 'm', min: -20, max: 20, about: 'ahead of the centre' }) ahead = 0;
  @Quantity({ label: 'Left', unit: 'm', min: -20, max: 20, about: 'to the left of the centre' }) left = 0;
}

export class Projectile {
  @Quantity({ label: 'Speed', unit: 'm/s', min: 0.1, max: 1000, about: 'of the shot' }) speed = 20;
  @metres('Shot radius', 'a shot meets a body at this distance from its edge', 5) radius = 0.05;
  @Optional()
  @Quantity({ label: 'Lifetime', unit: 's', min: 0.01, max: 60, about: 'how long a shot flies; absent: as far as its range' })
  lifetime?: number;
  @Quantity({ label: 'Volley', unit: '', min: 1, max: 32, whole: true, about: 'shots launched together at each hit instant' }) count = 1;
  @Quantity({ label: 'Spread', unit: '°', min: 0, max: 180, about: 'each shot leaves within half of this to either side of the aim' })
  spread = 0;
  @share('Lead', 'share of the target’s motion that the aim allows for') lead = 0;
  @ListOf(() => Muzzle, LIMITS.muzzles) muzzles: Muzzle[] = [];
  @Quantity({ label: 'Pierces', unit: '', min: 0, max: 100, whole: true, about: 'bodies a shot passes through after striking them' })
  pierces = 0;
  @Quantity({ label: 'Homing', unit: '°/s', min: 0, max: 3600, about: 'how fast a shot turns towards its target; 0: not at all' })
  homing = 0;
}

export class Area {
  /** About itself, about its target, or at a point marked at the end of the wind-up (with fixed tracking: at its start). */
  @OneOf(['self', 'target', 'mark']) about: 'self' | 'target' | 'mark' = 'self';
  @Quantity({ label: 'Area radius', unit: 'm', min: 0.05, max: 200, about: 'strikes bodies whose edge is within this of the centre' })
  radius = 2;
  @Quantity({ label: 'Area angle', unit: '°', min: 1, max: 360, about: 'of a cone in the direction faced; 360: a circle' }) angle = 360;
  @seconds('Bursts after', 'between mark and burst', 60) delay = 0;
}

export class Summoning {
  /** The unit that appears. */
  @Identifier() unit: string;
  @Quantity({ label: 'Summons', unit: '', min: 1, max: 50, whole: true, about: 'how many appear at each hit' }) count = 1;
  @Quantity({ label: 'At most', unit: '', min: 1, max: 100, whole: true, about: 'how many of its summoned may live at one time' })
  cap: number;
  @metres('Around', 'they appear within this distance of its edge', 50) around = 2;
}

/** Chance that a hit that meets its target counts: linear from touching to full range. */
export class Aim {
  @share('Accuracy near', 'chance to hit when the bodies touch') near = 1;
  @share('Accuracy far', 'chance to hit at full range; linear between') far = 1;
  @share('Weak points', 'share of hits that meet a weak point that is exposed') weakPointShare = 0;
}

export class Charges {
  @Quantity({ label: 'Charges', unit: '', min: 1, max: 100, whole: true, about: 'uses it can hold' }) count = 1;
  @Quantity({ label: 'Recharge', unit: 's', min: 0.01, max: 600, about: 'time until one use comes back, one after another' }) reload = 5;
}

export class Interruptible {
  /** By a stagger, in wind-up or while active. */
  @YesNo() stagger = true;
  @Optional() @points('Broken by', 'a single hit of at least this much breaks it off; absent: none does') hit?: number;
}

export class FollowUp {
  /** An attack of the same unit. */
  @Identifier() attack: string;
  @seconds('Follows within', 'after the recovery; in this time it comes before any other choice and without a pause', 60) window = 0.5;
}

export class SlotUse {
  /** A pool of the encounter; where the encounter has none of that name, nothing is needed. */
  @Identifier() pool: string;
  @Quantity({ label: 'Takes', unit: '', min: 1, max: 100, whole: true, about: 'how much of the pool it takes' }) takes = 1;
}

export class Attack {
  @Identifier() id: string;
  @Name() name: string;
  @OneOf(DELIVERIES) delivery: Delivery;
  @Group(() => Range) range: Range = new Range();
  /** Begun only with a clear line from its muzzle to the target. */
  @YesNo() needsLine = true;
  @Quantity({ label: 'Facing', unit: '°', min: 0, max: 180, about: 'begun only when the target is within this angle of straight ahead' })
  facing = 180;
  @Quantity({ label: 'Arc', unit: '°', min: 1, max: 360, about: 'a melee hit strikes within this angle, half to either side' }) arc = 90;
  /** Whom support is for: friends that are hurt, or fallen ones. */
  @OneOf(['foes', 'friends', 'fallen']) targets: 'foes' | 'friends' | 'fallen' = 'foes';
  @Optional() @Group(() => Condition) condition?: Condition;
  @Group(() => Beat) beat: Beat = new Beat();
  @Optional()
  @Quantity({ label: 'Energy cost', unit: '', min: 0, max: 1e6, about: 'spent when the wind-up starts; absent: nothing' })
  energy?: number;
  @Optional() @Group(() => Charges) charges?: Charges;
  @Group(() => Interruptible) interruptible: Interruptible = new Interruptible();
  @Group(() => Effects) effects: Effects = new Effects();
  @Group(() => Hits) hits: Hits = new Hits();
  @Optional() @Group(() => Projectile) projectile?: Projectile;
  @Optional() @Group(() => Area) area?: Area;
  @Group(() => Aim) aim: Aim = new Aim();
  /** Which of a player's answers work against it. */
  @SomeOf(ANSWERS) answers: AnswerKind[] = [...ANSWERS];
  @Optional() @Group(() => FollowUp) next?: FollowUp;
  @Optional() @Group(() => SlotUse) slot?: SlotUse;
  @Optional() @Group(() => Summoning) summon?: Summoning;
}
