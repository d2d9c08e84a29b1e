import { Condition } from './condition';
import { Group, Identifier, ListOf, Name, OneOf, Optional, Places, Quantity, Text, Words, YesNo } from './field';
import { LIMITS } from './limits';
import { NumberTweak, Tweak } from './tweak';

const seconds = (label: string, about: string, max: number = LIMITS.encounterSeconds) => Quantity({ label, unit: 's', min: 0, max, about });
const metres = (label: string, about: string) => Quantity({ label, unit: 'm', min: 0, max: 1000, about });
const share = (label: string, about: string) => Quantity({ label, unit: '', min: 0, max: 1, about });
const units = (label: string, about: string, min = 0) => Quantity({ label, unit: '', min, max: LIMITS.liveUnits, whole: true, about });

export class Count {
  @units('At least', 'fewest units') min = 1;
  @units('At most', 'most units; drawn uniformly') max = 1;
}

/** One enemy of a pool. */
export class PoolEntry {
  /** A unit. */
  @Identifier() enemy: string;
  @Quantity({
    label: 'Weight',
    unit: '',
    min: 0,
    max: 1000,
    about: 'share of the draw; without replacement: how many of it the pool holds',
  })
  weight = 1;
}

/** Tweaks on a share of a group's units. */
export class Elite {
  @share('Elite', 'chance that a unit of the group is one') chance = 0.1;
  @ListOf(() => NumberTweak, 16) tweaks: NumberTweak[] = [];
}

export class WaveGroup {
  @Identifier() id: string;
  /** A unit; or a pool is given. */
  @Optional() @Identifier() enemy?: string;
  @ListOf(() => PoolEntry, 32) pool: PoolEntry[] = [];
  /** Each draw from the whole pool; each entry only as often as its weight; or as many as a budget of worth pays for. */
  @OneOf(['replace', 'once', 'budget']) draws: 'replace' | 'once' | 'budget' = 'replace';
  @Quantity({ label: 'Budget', unit: '', min: 0, max: 1e6, about: 'worth to be spent on the pool' }) budget = 0;
  @Group(() => Count) count: Count = new Count();
  /** Spawn points of the arena. */
  @Places(LIMITS.spawnPoints) at: string[];
  /** Points in turn; the whole count at each; drawn; the nearest to or the farthest from the party. */
  @OneOf(['inTurn', 'each', 'random', 'nearest', 'farthest']) rule: 'inTurn' | 'each' | 'random' | 'nearest' | 'farthest' = 'inTurn';
  @metres('Clear of the party', 'points nearer to a party member than this are passed over while others are left') leastDistance = 0;
  /** Points that a party member sees are passed over while others are left. */
  @YesNo() outOfView = false;
  @seconds('Apart by', 'time between units of the group', 600) spacing = 0;
  /** Knows of the party from the start. */
  @YesNo() alerted = false;
  /** A unit or a role it goes for until that is down. */
  @Optional() @Text(80) target?: string;
  @Optional() @Group(() => Elite) elite?: Elite;
  @Optional() @metres('Leaves beyond', 'a unit farther than this from every party member leaves the fight') leavesBeyond?: number;
}

/** Comes again, each time grown. */
export class Repeat {
  @Quantity({ label: 'Times', unit: '', min: 1, max: LIMITS.repeats, whole: true, about: 'how often the wave comes in all' }) times = 1;
  /** When a share of the last coming is defeated, or so many seconds after the last one. */
  @OneOf(['defeated', 'every']) when: 'defeated' | 'every' = 'defeated';
  @share('Defeated', 'share of the last coming') share = 1;
  @seconds('Every', 'from one coming to the next', 600) every = 20;
  @Quantity({ label: 'Counts', unit: '×', min: 0, max: 10, about: 'counts are multiplied by this each time' }) count = 1;
  /** Tweaks on its units, once more each time. */
  @ListOf(() => NumberTweak, 16) tweaks: NumberTweak[] = [];
}

export class Wave {
  @Identifier() id: string;
  @Name() name: string;
  /** At once; at a time; with another wave's start; when a share of another is defeated; when a condition holds; when an event calls it. */
  @OneOf(['atOnce', 'clock', 'with', 'defeated', 'condition', 'called'])
  start: 'atOnce' | 'clock' | 'with' | 'defeated' | 'condition' | 'called' = 'atOnce';
  @seconds('At', 'time on the encounter’s clock') at = 0;
  /** The wave that "with" and "defeated" speak of; absent: the one before. */
  @Optional() @Identifier() after?: string;
  @share('Defeated', 'share of that wave that must be dead or gone') share = 1;
  @Optional() @Group(() => Condition) when?: Condition;
  /** Starts so long after the wave it waits for, or the encounter, has begun, whatever else. */
  @Optional() @seconds('At the latest', 'after the start of the wave it waits for, else of the encounter') timeout?: number;
  @seconds('Delay', 'from its start to its first unit', 600) delay = 0;
  @ListOf(() => WaveGroup, LIMITS.groups) groups: WaveGroup[] = [];
  @Optional() @Group(() => Repeat) repeat?: Repeat;
  /** While one of its units lives, no other wave starts. */
  @YesNo() holdsBack = false;
  /** Units that its units summon belong to it and must be defeated too. */
  @YesNo() countsSummoned = false;
  /** A defeated unit that is revived must be defeated again. */
  @YesNo() countsRevived = false;
  /** The fight may be won without it having come. */
  @YesNo() optional = false;
}

export class PartyMember {
  @Identifier() id: string;
  /** A unit. */
  @Identifier() unit: string;
}

/** What changes when so many take part. */
export class PartySize {
  @Quantity({ label: 'Members', unit: '', min: 1, max: LIMITS.party, whole: true, about: 'in the party' }) members = 1;
  @ListOf(() => Tweak, LIMITS.tweaks) tweaks: Tweak[] = [];
}

/** A pool of attack slots: how many attacks that need one may be under way. */
export class SlotPool {
  @Identifier() id: string;
  @Quantity({ label: 'Slots', unit: '', min: 1, max: 500, whole: true, about: 'how much may be taken at one time' }) size = 2;
  /** Counted for each target apart. */
  @YesNo() perTarget = false;
  @seconds('Gap', 'between two starts out of the pool', 60) gap = 0;
}

export class TypeCap {
  /** A unit. */
  @Identifier() unit: string;
  @units('At most', 'of it alive at one time', 1) most = 1;
}

/** How many enemies may live at one time, and what becomes of one more. */
export class AliveCap {
  @units('At most', 'enemies alive at one time', 1) most = 20;
  @ListOf(() => TypeCap, LIMITS.units) perType: TypeCap[] = [];
  /** Waits in line; is left out; takes the place of the one that has lived longest. */
  @OneOf(['wait', 'skip', 'replace']) full: 'wait' | 'skip' | 'replace' = 'wait';
}

/** One thing an event does. */
export class Consequence {
  @OneOf(['raise', 'lower', 'tweak', 'startWave', 'end']) does: 'raise' | 'lower' | 'tweak' | 'startWave' | 'end';
  /** The flag, or the wave. */
  @Optional() @Identifier() of?: string;
  /** For "tweak": on all the living they speak of, and all who come later. */
  @ListOf(() => Tweak, 16) tweaks: Tweak[] = [];
  /** For "end": how it counts. */
  @OneOf(['cleared', 'lost', 'ended']) as: 'cleared' | 'lost' | 'ended' = 'ended';
}

/** Happens once, at the first step at which its condition holds. */
export class EncounterEvent {
  @Identifier() id: string;
  @Name() name: string;
  @Group(() => Condition) when: Condition;
  @ListOf(() => Consequence, 16) then: Consequence[] = [];
}

/** What ends the encounter besides the party being down and the time limit. */
export class Ends {
  /** Won when every wave has come and no enemy lives. */
  @YesNo() cleared = true;
  /** Won by standing until the time limit. */
  @YesNo() survive = false;
  /** Points of the arena that stand and must be kept: the fight is lost with the first that falls. */
  @Words(LIMITS.points) defend: string[] = [];
}

export class Encounter {
  @Identifier() id: string;
  @Name() name: string;
  @Optional() @Text(2000) notes?: string;
  /** Turns instead of seconds are part of the format but not built yet. */
  @OneOf(['continuous'], ['rounds']) clock: 'continuous' = 'continuous';
  /** An arena. */
  @Identifier() arena: string;
  @ListOf(() => PartyMember, LIMITS.party) party: PartyMember[] = [];
  @ListOf(() => PartySize, LIMITS.party) bySize: PartySize[] = [];
  /** Stand with the party without being of it. */
  @ListOf(() => PartyMember, LIMITS.party) allies: PartyMember[] = [];
  @ListOf(() => Wave, LIMITS.waves) waves: Wave[] = [];
  @ListOf(() => EncounterEvent, LIMITS.events) events: EncounterEvent[] = [];
  @ListOf(() => SlotPool, LIMITS.pools) slots: SlotPool[] = [];
  @Optional() @Group(() => AliveCap) alive?: AliveCap;
  @Group(() => Ends) ends: Ends = new Ends();
  @Quantity({ label: 'Time limit', unit: 's', min: 0.1, max: LIMITS.encounterSeconds, about: 'the fight ends here at the latest' })
  limit = 120;
}
