import { Group, Identifier, Name, OneOf, Optional, Planned, Quantity } from './field';

export const DELIVERIES = ['melee', 'hitscan', 'projectile'] as const;
const PLANNED_DELIVERIES = ['area', 'contact', 'self', 'support', 'summon'] as const;

const metres = (label: string, about: string, max = 200) => Quantity({ label, unit: 'm', min: 0, max, about });
const seconds = (label: string, about: string, max = 600) => Quantity({ label, unit: 's', min: 0, max, about });
const share = (label: string, about: string) => Quantity({ label, unit: '', min: 0, max: 1, about });

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
  @Planned('the instant in the wind-up at which it can be read') cue?: number;
}

export class Damage {
  @Quantity({ label: 'Damage', unit: 'hp', min: 0, max: 1e6, about: 'of one hit, before armour' }) amount = 0;
  @Quantity({ label: 'Spread', unit: 'hp', min: 0, max: 1e6, about: 'each hit is drawn uniformly from amount ± spread, at least 0' })
  spread = 0;
  @Planned('damage types') type?: string;
  @share('Crit chance', 'share of hits that are critical') critChance = 0;
  @Quantity({ label: 'Crit factor', unit: '×', min: 1, max: 100, about: 'a critical hit is multiplied by this' }) critMultiplier = 2;
}

/** Ticks of damage after a hit: at every, 2 × every … up to and including `for`. */
export class OverTime {
  @Quantity({ label: 'Tick damage', unit: 'hp', min: 0, max: 1e6, about: 'of one tick, before armour' }) amount = 0;
  @Quantity({ label: 'Tick every', unit: 's', min: 0.01, max: 60, about: 'time between ticks' }) every = 1;
  @Quantity({ label: 'Lasts', unit: 's', min: 0, max: 600, about: 'ticks fall up to and including this long after the hit' }) for = 4;
  /** A second hit while it runs: moves the end and keeps the phase, adds another, or does nothing. */
  @OneOf(['refresh', 'stack', 'ignore']) stacking: 'refresh' | 'stack' | 'ignore' = 'refresh';
}

export class Effects {
  @Optional() @Group(() => Damage) damage?: Damage;
  @Optional() @Group(() => OverTime) overTime?: OverTime;
  @Planned('healing') heal?: object;
  @Planned('giving shield') shield?: object;
  @Planned('slowing') slow?: object;
  @Planned('staggering') stagger?: object;
  @Planned('knockback') knockback?: object;
  @Planned('boosts') boost?: object;
  @Planned('reviving') revive?: object;
  @Planned('draining energy') drain?: object;
  @Planned('taunting') taunt?: object;
  @Planned('marking') mark?: object;
}

export class Hits {
  /** In one use: each target once, or at every hit of the active part. */
  @OneOf(['once', 'every']) perTarget: 'once' | 'every' = 'once';
  @Quantity({ label: 'Targets', unit: '', min: 1, max: 500, whole: true, about: 'how many a single hit may strike' }) limit = 1;
  @Planned('friendly fire') friendlyFire?: boolean;
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
  @Planned('muzzle offsets') muzzles?: object[];
  @Planned('piercing') pierces?: number;
  @Planned('homing') homing?: number;
}

/** Chance that a hit that meets its target counts: linear from touching to full range. */
export class Aim {
  @share('Accuracy near', 'chance to hit when the bodies touch') near = 1;
  @share('Accuracy far', 'chance to hit at full range; linear between') far = 1;
  @Planned('aiming at weak points') weakPointShare?: number;
}

export class Attack {
  @Identifier() id: string;
  @Name() name: string;
  @OneOf(DELIVERIES, PLANNED_DELIVERIES) delivery: (typeof DELIVERIES)[number];
  @Group(() => Range) range: Range = new Range();
  @Planned('asking for a clear line (there are no walls yet)') needsLine?: boolean;
  @Quantity({ label: 'Facing', unit: '°', min: 0, max: 180, about: 'begun only when the target is within this angle of straight ahead' })
  facing = 180;
  @Quantity({ label: 'Arc', unit: '°', min: 1, max: 360, about: 'a melee hit strikes within this angle, half to either side' }) arc = 90;
  @Planned('attacks on friends, oneself and the fallen') targets?: string;
  @Planned('a condition on an attack') condition?: object;
  @Group(() => Beat) beat: Beat = new Beat();
  @Optional()
  @Quantity({ label: 'Energy cost', unit: '', min: 0, max: 1e6, about: 'spent when the wind-up starts; absent: nothing' })
  energy?: number;
  @Planned('charges and reload') charges?: object;
  @Planned('interruption') interruptible?: object;
  @Group(() => Effects) effects: Effects = new Effects();
  @Group(() => Hits) hits: Hits = new Hits();
  @Optional() @Group(() => Projectile) projectile?: Projectile;
  @Planned('areas') area?: object;
  @Group(() => Aim) aim: Aim = new Aim();
  @Planned('answers') answers?: object;
  @Planned('follow-ups') next?: object;
  @Planned('attack slots') slot?: object;
  @Planned('summons') summon?: object;
}
