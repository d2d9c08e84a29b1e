import { Attack, Delay } from './attack';
import { Group, Identifier, ListOf, Name, OneOf, Optional, Planned, Quantity, Text } from './field';
import { LIMITS } from './limits';
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

export class Health {
  @Quantity({ label: 'Health', unit: 'hp', min: 0.001, max: 1e7, about: 'full health' }) max = 100;
  @Quantity({ label: 'Regen', unit: 'hp/s', min: 0, max: 1e6, about: 'health regained each second' }) regen = 0;
  @seconds('Regen delay', 'regeneration waits this long after damage') regenDelay = 0;
  @Quantity({ label: 'Regen up to', unit: '', min: 0, max: 1, about: 'share of full health at which regeneration stops' }) regenUpTo = 1;
  @Planned('health gates') gates?: object[];
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

export class Armour {
  @Quantity({ label: 'Armour', unit: 'hp', min: 0, max: 1e6, about: 'taken off every hit' }) flat = 0;
  @Quantity({ label: 'Least damage', unit: 'hp', min: 0, max: 1e6, about: 'a hit deals at least this in spite of armour' }) minimumDamage =
    0;
  @Planned('resistance by damage type') resist?: object;
  @Planned('a guarded arc') arc?: object;
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
  @Planned('kinds of ground') ground?: object;
}

export class Reaction {
  @seconds('Notices in', 'from seeing a foe to acting on it', 60) mean = 0;
  @seconds('± spread', 'each reaction is drawn uniformly from mean ± spread', 60) spread = 0;
}

export class Senses {
  @metres('Sight', 'notices a foe at this distance, centre to centre', 500) sight = 14;
  @Quantity({ label: 'Sight angle', unit: '°', min: 1, max: 360, about: '360: all round' }) angle = 360;
  @metres('Lose', 'gives up a foe beyond this distance, centre to centre', 500) lose = 20;
  @Planned('needing a line to see (there are no walls yet)') needsLine?: boolean;
  @seconds('Memory', 'how long a lost foe is still pursued') memory = 3;
  @Planned('hearing') hearing?: number;
  @Group(() => Reaction) reaction: Reaction = new Reaction();
  @seconds('Looks every', 'time between looks; 0: at every step', 60) interval = 0;
  @Planned('build-up of notice') buildUp?: number;
}

export class TargetCriterion {
  @OneOf(['nearest'], ['lowestHealth', 'lowestShare', 'highestDamage', 'mostDamageToMe', 'role', 'unit', 'lastAttacker', 'random'])
  by: 'nearest';
  @Quantity({ label: 'Weight', unit: '', min: 0, max: 1000, about: 'of this criterion among the others' }) weight = 1;
}

export class Targeting {
  @ListOf(() => TargetCriterion, 16) criteria: TargetCriterion[] = [Object.assign(new TargetCriterion(), { by: 'nearest', weight: 1 })];
  @seconds('Reconsiders every', 'time between looks for a better target; 0: at every step', 60) reconsider = 0.5;
  @Quantity({ label: 'Commitment', unit: '', min: 0, max: 1, about: 'another target must be nearer by this share to be preferred' })
  commitment = 0.1;
  @Planned('filters on targets') only?: object;
  @Planned('filters on targets') never?: object;
}

export class ChoiceEntry {
  /** An attack of the unit. */
  @Identifier() attack: string;
  @Quantity({ label: 'Weight', unit: '', min: 0, max: 1000, about: 'share of the draw among the usable entries' }) weight = 1;
  @Planned('a condition on an entry') condition?: object;
  @Planned('own targeting of an entry') targeting?: object;
}

export class Priority {
  @Planned('a condition on a priority') condition?: object;
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
  @Planned('linked variants') basedOn?: string;
  @Planned('linked variants') tweaks?: object[];
  @Group(() => Body) body: Body = new Body();
  @Group(() => Health) health: Health = new Health();
  @Optional() @Group(() => Shield) shield?: Shield;
  @Group(() => Armour) armour: Armour = new Armour();
  @Planned('weak points') weakPoint?: object;
  @Group(() => InvulnerabilityWindow) invulnerability: InvulnerabilityWindow = new InvulnerabilityWindow();
  @Planned('stagger') stagger?: object;
  @Planned('knockback') knockback?: object;
  @Optional() @Group(() => Energy) energy?: Energy;
  @Group(() => Movement) movement: Movement = new Movement();
  @Group(() => Senses) senses: Senses = new Senses();
  @Planned('temper') temper?: object;
  @Planned('leashes') leash?: object;
  @Group(() => Targeting) targeting: Targeting = new Targeting();
  @ListOf(() => Attack, LIMITS.attacks) attacks: Attack[] = [];
  @Group(() => Choice) choice: Choice = new Choice();
  @ListOf(() => State, LIMITS.states) states: State[] = [];
  /** The state it is in from the start; absent: the first. */
  @Optional() @Identifier() startsIn?: string;
  @Planned('what happens on death') onDeath?: object;
  @Planned('the rest of the simulated player') player?: object;
}
