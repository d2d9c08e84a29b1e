import { Attack, Delay } from './attack';
import { Condition } from './condition';
import { Group, Identifier, ListOf, Name, OneOf, Optional, Quantity, Text, Words, YesNo } from './field';
import { LIMITS } from './limits';
import { Player } from './player';
import { State } from './state';

export const COLOURS = ['clay', 'umber', 'violet', 'blue', 'teal', 'moss', 'amber', 'orchid', 'navy', 'ink'] as const;
export const GLYPHS = ['seeds', 'elder', 'fork', 'block', 'cross', 'burst', 'lamp', 'bars', 'eye', 'diamond', 'square'] as const;

const metres = (label: string, about: string, max = 200, min = 0) => Quantity({ label, unit: 'm', min, max, about });
const seconds = (label: string, about: string, max = 600) => Quantity({ label, unit: 's', min: 0, max, about });

export class Body {
  @metres('Radius', 'of the body seen from above', 20, 0.05) radius = 0.4;
  @metres('Height', 'of the body', 40, 0.05) height = 1.7;
  @metres('Eye', 'height of the eyes: where lines of sight start', 40) eyeHeight = 1.5;
  @metres('Muzzle', 'height at which its shots start', 40) muzzleHeight = 1.2;
}

/** A share of health at which damage stops: one that holds, until its state has been entered; else it may be skipped. */
export class Gate {
  @Identifier() id: string;
  @Quantity({ label: 'Gate', unit: '', min: 0, max: 1, about: 'share of full health' }) share = 0.5;
  /** The state that is meant to come in here. */
  @Identifier() state: string;
  @YesNo() holds = true;
}

export class Health {
  @Quantity({ label: 'Health', unit: 'hp', min: 0.001, max: 1e7, about: 'full health' }) max = 100;
  @Quantity({ label: 'Regen', unit: 'hp/s', min: 0, max: 1e6, about: 'health regained each second' }) regen = 0;
  @seconds('Regen delay', 'regeneration waits this long after damage') regenDelay = 0;
  @Quantity({ label: 'Regen up to', unit: '', min: 0, max: 1, about: 'share of full health at which regeneration stops' }) regenUpTo = 1;
  @ListOf(() => Gate, LIMITS.gates) gates: Gate[] = [];
}

/** Damage goes through it before it reaches health. */
export class Shield {
  @Quantity({ label: 'Shield', unit: 'hp', min: 0.001, max: 1e7, about: 'full shield' }) max = 10;
  @Quantity({ label: 'Shield regen', unit: 'hp/s', min: 0, max: 1e6, about: 'shield regained each second' }) regen = 0;
  @seconds('Shield delay', 'the shield regains nothing for this long after damage') regenDelay = 0;
}

/** What attacks are paid with. */
export class Energy {
  @Quantity({ label: 'Energy', unit: '', min: 0.001, max: 1e6, about: 'most energy it can hold' }) max = 100;
  @Quantity({ label: 'Energy at first', unit: '', min: 0, max: 1e6, about: 'energy it appears with, at most its most' }) start = 100;
  @Quantity({ label: 'Energy regen', unit: '/s', min: 0, max: 1e6, about: 'energy regained each second' }) regen = 0;
}

/** Share of damage of one type that is taken off; below 0: weak to it. The id is the type. */
export class Resistance {
  @Identifier() id: string;
  @Quantity({ label: 'Resists', unit: '', min: -10, max: 1, about: 'share of damage of this type taken off; below 0: weak to it' }) share =
    0;
}

export class Armour {
  @Quantity({ label: 'Armour', unit: 'hp', min: 0, max: 1e6, about: 'taken off every hit' }) flat = 0;
  @Quantity({ label: 'Least damage', unit: 'hp', min: 0, max: 1e6, about: 'a hit deals at least this in spite of armour' }) minimumDamage =
    0;
  @ListOf(() => Resistance, LIMITS.damageTypes) resist: Resistance[] = [];
  @Optional()
  @Quantity({
    label: 'Guarded arc',
    unit: '°',
    min: 1,
    max: 360,
    about: 'armour and resistance count within this angle ahead; absent: all round',
  })
  arc?: number;
}

export class WeakPoint {
  @Quantity({ label: 'Weak point', unit: '×', min: 1, max: 1000, about: 'a hit on it is multiplied by this' }) multiplier = 2;
  /** A hit on it takes all that is left of shield and health. */
  @YesNo() lethal = false;
  @OneOf(['always', 'unshielded', 'staggered', 'states']) exposed: 'always' | 'unshielded' | 'staggered' | 'states' = 'always';
  /** The states of "states". */
  @Words(LIMITS.states) states: string[] = [];
}

/** Too much damage within a time makes it reel. */
export class Stagger {
  @Quantity({ label: 'Staggers at', unit: 'hp', min: 0.001, max: 1e7, about: 'damage within the window that staggers it' }) threshold = 20;
  @seconds('Counted over', 'window in which damage is added up', 60) window = 2;
  @seconds('Reels for', 'it neither moves nor chooses', 60) duration = 1;
  @seconds('Then steady for', 'after a stagger no other takes hold for this long', 60) immunity = 2;
}

export class Steadiness {
  @Quantity({ label: 'Steadiness', unit: '', min: 0, max: 1, about: 'share of every knockback that is taken off' }) resist = 0;
}

export class Temper {
  /** Attacks on sight; only once it or a friend of it is attacked; never. */
  @OneOf(['hostile', 'retaliates', 'passive']) manner: 'hostile' | 'retaliates' | 'passive' = 'hostile';
  @metres('Calls within', 'friends this near, centre to centre, are alerted with it; 0: none') alertRadius = 0;
}

/** How far from home it lets itself be drawn, and what happens then. */
export class Leash {
  @metres('Leash', 'beyond this distance from home it turns back', 500, 0.1) radius = 20;
  /** Full health once it is home. */
  @YesNo() heals = true;
  /** Nothing hurts it on the way. */
  @YesNo() ignoresDamage = false;
  /** Being hurt on the way makes it turn and fight. */
  @YesNo() answersAttack = false;
  /** Once home it leaves the fight for good. */
  @YesNo() gone = false;
}

export class OnDeath {
  /** One of its attacks, done where it fell by nobody. */
  @Optional() @Identifier() attack?: string;
  @Quantity({ label: 'Worth', unit: '', min: 0, max: 1e6, about: 'what it counts for in budgets and scores' }) worth = 1;
  @seconds('Revivable for', 'how long after its death it can be revived; 0: never') revivableFor = 0;
  @Quantity({ label: 'Revivals', unit: '', min: 0, max: 100, whole: true, about: 'how often' }) revivals = 1;
}

export class InvulnerabilityWindow {
  @seconds('Shielded after a hit', 'no further hit within the scope counts for this long', 60) duration = 0;
  @OneOf(['any', 'attacker', 'attack']) scope: 'any' | 'attacker' | 'attack' = 'any';
}

export class Movement {
  @Quantity({ label: 'Walk', unit: 'm/s', min: 0, max: 100, about: 'walking speed' }) walk = 1.5;
  @Quantity({ label: 'Run', unit: 'm/s', min: 0, max: 100, about: 'running speed' }) run = 4;
  @Quantity({ label: 'Acceleration', unit: 'm/s²', min: 0, max: 1000, about: 'gain of speed; 0: at once' }) acceleration = 0;
  @Quantity({ label: 'Turn', unit: '°/s', min: 0, max: 3600, about: 'how fast it turns; 0: at once' }) turnRate = 0;
  /** Kinds of ground it may only be on (empty: any), and never. */
  @Words(LIMITS.words) only: string[] = [];
  @Words(LIMITS.words) never: string[] = [];
}

export class Reaction {
  @seconds('Notices in', 'from seeing a foe to acting on it', 60) mean = 0;
  @seconds('± spread', 'each reaction is drawn uniformly from mean ± spread', 60) spread = 0;
}

export class Senses {
  @metres('Sight', 'notices a foe at this distance, centre to centre', 500) sight = 14;
  @Quantity({ label: 'Sight angle', unit: '°', min: 1, max: 360, about: '360: all round' }) angle = 360;
  @metres('Lose', 'gives up a foe beyond this distance, centre to centre', 500) lose = 20;
  /** Sees nobody behind a wall that is higher than the line from its eyes. */
  @YesNo() needsLine = true;
  @seconds('Memory', 'how long a lost foe is still pursued') memory = 3;
  @metres('Hearing', 'hears a foe that runs or attacks at this distance, whatever stands between', 500) hearing = 0;
  @Group(() => Reaction) reaction: Reaction = new Reaction();
  @seconds('Looks every', 'time between looks; 0: at every step', 60) interval = 0;
  @seconds('Builds up', 'how long a foe must be in sight before the reaction begins', 60) buildUp = 0;
}

export const CRITERIA = [
  'nearest',
  'lowestHealth',
  'lowestShare',
  'highestDamage',
  'mostDamageToMe',
  'lastAttacker',
  'role',
  'unit',
  'random',
] as const;

/** What makes one target better than another: each is brought to 0–1 over the candidates and weighed. */
export class TargetCriterion {
  @OneOf(CRITERIA) by: (typeof CRITERIA)[number];
  @Quantity({ label: 'Weight', unit: '', min: 0, max: 1000, about: 'of this criterion among the others' }) weight = 1;
  /** The role or the unit of "role" and "unit". */
  @Optional() @Text(80) of?: string;
}

/** Roles and units, by name and id. */
export class TargetFilter {
  @Words(LIMITS.words) roles: string[] = [];
  @Words(LIMITS.words) units: string[] = [];
}

export class Targeting {
  @ListOf(() => TargetCriterion, 16) criteria: TargetCriterion[] = [Object.assign(new TargetCriterion(), { by: 'nearest', weight: 1 })];
  @seconds('Reconsiders every', 'time between looks for a better target; 0: at every step', 60) reconsider = 0.5;
  @Quantity({ label: 'Commitment', unit: '', min: 0, max: 1, about: 'another target must be better by this share to be preferred' })
  commitment = 0.1;
  @Optional() @Group(() => TargetFilter) only?: TargetFilter;
  @Optional() @Group(() => TargetFilter) never?: TargetFilter;
}

export class ChoiceEntry {
  /** An attack of the unit. */
  @Identifier() attack: string;
  @Quantity({ label: 'Weight', unit: '', min: 0, max: 1000, about: 'share of the draw among the usable entries' }) weight = 1;
  @Optional() @Group(() => Condition) condition?: Condition;
  /** Whom this entry is meant for, where that is not the unit's target. */
  @Optional() @Group(() => Targeting) targeting?: Targeting;
}

export class Priority {
  @Optional() @Group(() => Condition) condition?: Condition;
  @ListOf(() => ChoiceEntry, LIMITS.entries) entries: ChoiceEntry[] = [];
}

export class Choice {
  /** Tried from the top: the first with a usable entry decides. */
  @ListOf(() => Priority, LIMITS.priorities) priorities: Priority[] = [new Priority()];
  @Group(() => Delay) pause: Delay = new Delay();
}

/** An enemy or a party member: one shape serves both, and either may stand on either side. */
export class Unit {
  @Identifier() id: string;
  @Name() name: string;
  /** The list it is kept in. */
  @OneOf(['enemy', 'party']) side: 'enemy' | 'party';
  @Text(40) role = '';
  @OneOf(GLYPHS) glyph: (typeof GLYPHS)[number] = 'block';
  @OneOf(COLOURS) colour: (typeof COLOURS)[number] = 'ink';
  @Optional() @Text(8000) notes?: string;
  @Group(() => Body) body: Body = new Body();
  @Group(() => Health) health: Health = new Health();
  @Optional() @Group(() => Shield) shield?: Shield;
  @Group(() => Armour) armour: Armour = new Armour();
  @Optional() @Group(() => WeakPoint) weakPoint?: WeakPoint;
  @Group(() => InvulnerabilityWindow) invulnerability: InvulnerabilityWindow = new InvulnerabilityWindow();
  @Optional() @Group(() => Stagger) stagger?: Stagger;
  @Group(() => Steadiness) knockback: Steadiness = new Steadiness();
  @Optional() @Group(() => Energy) energy?: Energy;
  @Group(() => Movement) movement: Movement = new Movement();
  @Group(() => Senses) senses: Senses = new Senses();
  @Group(() => Temper) temper: Temper = new Temper();
  @Optional() @Group(() => Leash) leash?: Leash;
  @Group(() => Targeting) targeting: Targeting = new Targeting();
  @ListOf(() => Attack, LIMITS.attacks) attacks: Attack[] = [];
  @Group(() => Choice) choice: Choice = new Choice();
  @ListOf(() => State, LIMITS.states) states: State[] = [];
  /** The state it is in from the start; absent: the first. */
  @Optional() @Identifier() startsIn?: string;
  @Group(() => OnDeath) onDeath: OnDeath = new OnDeath();
  @Optional() @Group(() => Player) player?: Player;
}
