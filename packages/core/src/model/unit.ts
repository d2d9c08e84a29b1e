import { Attack, Delay } from './attack';
import { Condition } from './condition';
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
  Text,
  YesNo,
  asTheyAre,
} from './field';
import { LIMITS } from './limits';
import { Player } from './player';
import { InTurns, UnitRounds } from './rounds';
import { State } from './state';
import { Targeting } from './targeting';

export const COLOURS = ['clay', 'umber', 'violet', 'blue', 'teal', 'moss', 'amber', 'orchid', 'navy', 'ink'] as const;
export const GLYPHS = ['seeds', 'elder', 'fork', 'block', 'cross', 'burst', 'lamp', 'bars', 'eye', 'diamond', 'square'] as const;

const ATTACK: Reference = { to: ['attack'] };
const STATE: Reference = { to: ['state'] };

const metres = (label: string, about: string, max = 200, min = 0) => Quantity({ label, unit: 'm', min, max, about });
const seconds = (label: string, about: string, max = 600) => Quantity({ label, unit: 's', min: 0, max, about });

@About('How large it is, and from where it sees and shoots.')
export class Body {
  @metres('Radius', 'of the body seen from above', 20, 0.05) radius = 0.4;
  @metres('Height', 'of the body', 40, 0.05) height = 1.7;
  @metres('Eye', 'height of the eyes: where lines of sight start', 40) eyeHeight = 1.5;
  @metres('Muzzle', 'height at which its shots start', 40) muzzleHeight = 1.2;
}

@About('A share of health at which damage stops: one that holds, until its state has been entered; else it may be skipped.')
export class Gate {
  @Identifier() id: string;
  @Quantity({ label: 'Gate', unit: '', min: 0, max: 1, about: 'share of full health' }) share = 0.5;
  @Refers(STATE, { label: 'Until in', about: 'the state that is meant to come in here' }) state: string;
  @YesNo({ label: 'Holds', about: 'damage stops here until that state has been entered' }) holds = true;
}

@About('What damage takes away, and how it comes back.')
export class Health {
  @Quantity({ label: 'Health', unit: 'hp', min: 0.001, max: 1e7, about: 'full health' }) max = 100;
  @Quantity({ label: 'Regen', unit: 'hp/s', min: 0, max: 1e6, about: 'health regained each second' }) regen = 0;
  @seconds('Regen delay', 'regeneration waits this long after damage') regenDelay = 0;
  @Quantity({ label: 'Regen up to', unit: '', min: 0, max: 1, about: 'share of full health at which regeneration stops' }) regenUpTo = 1;
  @ListOf(() => Gate, LIMITS.gates, { label: 'Gates' }) gates: Gate[] = [];
}

@About('Damage goes through it before it reaches health.')
export class Shield {
  @Quantity({ label: 'Shield', unit: 'hp', min: 0.001, max: 1e7, about: 'full shield' }) max = 10;
  @Quantity({ label: 'Shield regen', unit: 'hp/s', min: 0, max: 1e6, about: 'shield regained each second' }) regen = 0;
  @seconds('Shield delay', 'the shield regains nothing for this long after damage') regenDelay = 0;
}

@About('What attacks are paid with.')
export class Energy {
  @Quantity({ label: 'Energy', unit: '', min: 0.001, max: 1e6, about: 'most energy it can hold' }) max = 100;
  @Quantity({ label: 'Energy at first', unit: '', min: 0, max: 1e6, about: 'energy it appears with, at most its most' }) start = 100;
  @Quantity({ label: 'Energy regen', unit: '/s', min: 0, max: 1e6, about: 'energy regained each second' }) regen = 0;
}

@About('Share of damage of one type that is taken off; below 0: weak to it. The id is the type.')
export class Resistance {
  @Identifier() id: string;
  @Quantity({ label: 'Resists', unit: '', min: -10, max: 1, about: 'share of damage of this type taken off; below 0: weak to it' }) share =
    0;
}

@About('What takes from every hit.')
export class Armour {
  @Quantity({ label: 'Armour', unit: 'hp', min: 0, max: 1e6, about: 'taken off every hit' }) flat = 0;
  @Quantity({ label: 'Least damage', unit: 'hp', min: 0, max: 1e6, about: 'a hit deals at least this in spite of armour' }) minimumDamage =
    0;
  @ListOf(() => Resistance, LIMITS.damageTypes, { label: 'Resistance' }) resist: Resistance[] = [];
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

@About('Hits that meet it while it is exposed do more.')
export class WeakPoint {
  @Quantity({ label: 'Weak point', unit: '×', min: 1, max: 1000, about: 'a hit on it is multiplied by this' }) multiplier = 2;
  @YesNo({ label: 'Kills outright', about: 'a hit on it takes all that is left of shield and health' }) lethal = false;
  @OneOf(
    { always: 'always', unshielded: 'while unshielded', staggered: 'while staggered', states: 'in some states' },
    { label: 'Exposed', about: 'when hits can meet it' },
  )
  exposed: 'always' | 'unshielded' | 'staggered' | 'states' = 'always';
  @RefersToSome(STATE, LIMITS.states, { label: 'In states', about: 'in which it is exposed', when: { exposed: ['states'] } })
  states: string[] = [];
}

@About('Too much damage within a time makes it reel.')
export class Stagger {
  @Quantity({ label: 'Staggers at', unit: 'hp', min: 0.001, max: 1e7, about: 'damage within the window that staggers it' }) threshold = 20;
  @seconds('Counted over', 'window in which damage is added up', 60) window = 2;
  @seconds('Reels for', 'it neither moves nor chooses', 60) duration = 1;
  @seconds('Then steady for', 'after a stagger no other takes hold for this long', 60) immunity = 2;
}

@About('How firmly it stands.')
export class Steadiness {
  @Quantity({ label: 'Knockback resisted', unit: '', min: 0, max: 1, about: 'its steadiness: share of every knockback that is taken off' })
  resist = 0;
}

@About('What makes it fight.')
export class Temper {
  @OneOf(
    { hostile: 'attacks on sight', retaliates: 'only when attacked', passive: 'never attacks' },
    { label: 'Manner', about: 'attacks on sight; only once it or a friend of it is attacked; never' },
  )
  manner: 'hostile' | 'retaliates' | 'passive' = 'hostile';
  @metres('Calls within', 'friends this near, centre to centre, are alerted with it; 0: none') alertRadius = 0;
}

@About('How far from home it lets itself be drawn, and what happens then.')
export class Leash {
  @metres('Leash', 'beyond this distance from home it turns back', 500, 0.1) radius = 20;
  @YesNo({ label: 'Heals at home', about: 'full health once it is home' }) heals = true;
  @YesNo({ label: 'Unhurt on the way', about: 'nothing hurts it on the way' }) ignoresDamage = false;
  @YesNo({ label: 'Turns when hurt', about: 'being hurt on the way makes it turn and fight' }) answersAttack = false;
  @YesNo({ label: 'Gone for good', about: 'once home it leaves the fight for good' }) gone = false;
}

@About('What its death brings.')
export class OnDeath {
  @Optional() @Refers(ATTACK, { label: 'Last attack', about: 'one of its attacks, done where it fell by nobody' }) attack?: string;
  @Quantity({ label: 'Worth', unit: '', min: 0, max: 1e6, about: 'what it counts for in budgets and scores' }) worth = 1;
  @seconds('Revivable for', 'how long after its death it can be revived; 0: never') revivableFor = 0;
  @Quantity({ label: 'Revivals', unit: '', min: 0, max: 100, whole: true, about: 'how often' }) revivals = 1;
}

@About('After a hit no other counts for a while.')
export class InvulnerabilityWindow {
  @seconds('Shielded after a hit', 'no further hit within the scope counts for this long', 60) duration = 0;
  @OneOf(
    { any: 'any hit', attacker: 'the same attacker', attack: 'the same attack' },
    { label: 'From', about: 'which further hits do not count' },
  )
  scope: 'any' | 'attacker' | 'attack' = 'any';
}

@About('How it moves, and on what.')
export class Movement {
  @Quantity({ label: 'Walk', unit: 'm/s', min: 0, max: 100, about: 'walking speed' }) walk = 1.5;
  @Quantity({ label: 'Run', unit: 'm/s', min: 0, max: 100, about: 'running speed' }) run = 4;
  @Quantity({ label: 'Acceleration', unit: 'm/s²', min: 0, max: 1000, about: 'gain of speed; 0: at once' }) acceleration = 0;
  @Quantity({ label: 'Turn', unit: '°/s', min: 0, max: 3600, about: 'how fast it turns; 0: at once' }) turnRate = 0;
  @RefersToSome({ to: ['ground'], loose: true }, LIMITS.words, {
    label: 'Only on ground',
    about: 'kinds of ground it may only be on; empty: any',
  })
  only: string[] = [];
  @RefersToSome({ to: ['ground'], loose: true }, LIMITS.words, { label: 'Never on ground', about: 'kinds of ground it is never on' })
  never: string[] = [];
}

@About('From seeing a foe to acting on it.')
export class Reaction {
  @seconds('Notices in', 'from seeing a foe to acting on it', 60) mean = 0;
  @seconds('± spread', 'each reaction is drawn uniformly from mean ± spread', 60) spread = 0;
}

@About('How it notices foes, and loses them.')
export class Senses {
  @metres('Sight', 'notices a foe at this distance, centre to centre', 500) sight = 14;
  @Quantity({ label: 'Sight angle', unit: '°', min: 1, max: 360, about: '360: all round' }) angle = 360;
  @metres('Lose', 'gives up a foe beyond this distance, centre to centre', 500) lose = 20;
  @YesNo({ label: 'Needs a line', about: 'sees nobody behind a wall that is higher than the line from its eyes' }) needsLine = true;
  @seconds('Memory', 'how long a lost foe is still pursued') memory = 3;
  @metres('Hearing', 'hears a foe that runs or attacks at this distance, whatever stands between', 500) hearing = 0;
  @Group(() => Reaction, { label: 'Reaction' }) reaction: Reaction = new Reaction();
  @seconds('Looks every', 'time between looks; 0: at every step', 60) interval = 0;
  @seconds('Builds up', 'how long a foe must be in sight before the reaction begins', 60) buildUp = 0;
}

@About('An attack that may be chosen.')
export class ChoiceEntry {
  @Refers(ATTACK, { label: 'Attack', about: 'an attack of the unit' }) attack: string;
  @Quantity({ label: 'Weight', unit: '', min: 0, max: 1000, about: 'share of the draw among the usable entries' }) weight = 1;
  @Optional() @Group(() => Condition, { label: 'If', about: 'it may be chosen only while this holds' }) condition?: Condition;
  @Optional()
  @Group(() => Targeting, { label: 'Own targeting', about: 'whom this entry is meant for, where that is not the unit’s target' })
  targeting?: Targeting;
}

@About('Entries among which chance decides by weight.')
export class Priority {
  @Optional() @Group(() => Condition, { label: 'If', about: 'its entries may be chosen only while this holds' }) condition?: Condition;
  @ListOf(() => ChoiceEntry, LIMITS.entries, { label: 'Entries', emptied: 'takes' }) entries: ChoiceEntry[] = [];
}

@About('Which attack it begins next.')
export class Choice {
  @ListOf(() => Priority, LIMITS.priorities, {
    label: 'Priorities',
    about: 'tried from the top: the first with a usable entry decides',
    emptied: 'stays',
  })
  priorities: Priority[] = [new Priority()];
  @Group(() => Delay, { label: 'Pause', about: 'after an attack, before another is chosen' }) pause: Delay = new Delay();
}

@About('An enemy or a party member: one shape serves both, and either may stand on either side.')
export class Unit {
  @Identifier() id: string;
  @Name() name: string;
  @OneOf({ enemy: 'enemy', party: 'party' }, { label: 'Side', about: 'the list it is kept in', fixed: true }) side: 'enemy' | 'party';
  @Text(40, { label: 'Role', about: 'tweaks, targeting and goals may speak of all of a role' }) role = '';
  @OneOf(asTheyAre(GLYPHS), { label: 'Sign', about: 'it is drawn with', fixed: true }) glyph: (typeof GLYPHS)[number] = 'block';
  @OneOf(asTheyAre(COLOURS), { label: 'Colour', about: 'it is drawn in', fixed: true }) colour: (typeof COLOURS)[number] = 'ink';
  @Optional() @Text(8000, { label: 'Notes' }) notes?: string;
  @RefersToSome({ to: ['trait'] }, LIMITS.given, { label: 'Traits', about: 'laid over its numbers, before any tier' }) traits: string[] =
    [];
  @Group(() => Body, { label: 'Body' }) body: Body = new Body();
  @Group(() => Health, { label: 'Health' }) health: Health = new Health();
  @Optional() @Group(() => Shield, { label: 'Shield' }) shield?: Shield;
  @Group(() => Armour, { label: 'Armour' }) armour: Armour = new Armour();
  @Optional() @Group(() => WeakPoint, { label: 'Weak point' }) weakPoint?: WeakPoint;
  @Group(() => InvulnerabilityWindow, { label: 'Invulnerability window' })
  invulnerability: InvulnerabilityWindow = new InvulnerabilityWindow();
  @Optional() @Group(() => Stagger, { label: 'Stagger' }) stagger?: Stagger;
  @Group(() => Steadiness, { label: 'Knockback' }) knockback: Steadiness = new Steadiness();
  @Optional() @Group(() => Energy, { label: 'Energy' }) energy?: Energy;
  @Group(() => Movement, { label: 'Movement' }) movement: Movement = new Movement();
  @Group(() => Senses, { label: 'Senses' }) senses: Senses = new Senses();
  @Group(() => Temper, { label: 'Temper' }) temper: Temper = new Temper();
  @Optional() @Group(() => Leash, { label: 'Leash' }) leash?: Leash;
  @Group(() => Targeting, { label: 'Targeting' }) targeting: Targeting = new Targeting();
  @ListOf(() => Attack, LIMITS.attacks, { label: 'Attacks', defines: 'attack' }) attacks: Attack[] = [];
  @Group(() => Choice, { label: 'Choice' }) choice: Choice = new Choice();
  @ListOf(() => State, LIMITS.states, { label: 'States', defines: 'state' }) states: State[] = [];
  @Optional() @Refers(STATE, { label: 'Begins in', about: 'the state it is in from the start; absent: the first' }) startsIn?: string;
  @Group(() => OnDeath, { label: 'On death' }) onDeath: OnDeath = new OnDeath();
  @Optional()
  @Group(() => Player, { label: 'Player', when: { side: ['party'] }, only: true })
  player?: Player;
  @InTurns(() => UnitRounds) rounds?: UnitRounds;
}
