import { Condition } from './condition';
import { Counter, CounterChange } from './counter';
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
  RefersByName,
  RefersToSome,
  type Said,
  Text,
  YesNo,
} from './field';
import { LIMITS } from './limits';
import { EncounterRounds, GroupRounds, InTurns, RepeatRounds, WaveRounds } from './rounds';
import { GroupTrait, TRAIT_SCOPES } from './trait';
import { FieldTweak, Tweak } from './tweak';

const UNIT: Reference = { to: ['unit'] };
const WAVE: Reference = { to: ['wave'] };

/** A group must come somewhere. */
const unlessTheLast = (group: object) => ((group as WaveGroup).at.length > 1 ? 'clears' : 'blocks');

const seconds = (label: string, about: string, max: number = LIMITS.encounterSeconds, said: Said = {}) =>
  Quantity({ label, unit: 's', min: 0, max, about, ...said });
const metres = (label: string, about: string) => Quantity({ label, unit: 'm', min: 0, max: 1000, about });
const share = (label: string, about: string, said: Said = {}) => Quantity({ label, unit: '', min: 0, max: 1, about, ...said });
const units = (label: string, about: string, min = 0) => Quantity({ label, unit: '', min, max: LIMITS.liveUnits, whole: true, about });

@About('How many.')
export class Count {
  @units('Fewest', 'fewest units') min = 1;
  @units('Most', 'most units; drawn uniformly') max = 1;
}

@About('One enemy of a pool.')
export class PoolEntry {
  @Refers(UNIT, { label: 'Enemy' }) enemy: string;
  @Quantity({
    label: 'Weight',
    unit: '',
    min: 0,
    max: 1000,
    about: 'share of the draw; without replacement: how many of it the pool holds',
  })
  weight = 1;
}

@About('Units of a wave that come together.')
export class WaveGroup {
  @Identifier() id: string;
  @OneOf(
    { theirs: 'theirs', ours: 'ours' },
    {
      label: 'Side',
      about: 'against the party; or with it: where the encounter has no party, those of its side take its place',
      fixed: true,
    },
  )
  side: 'theirs' | 'ours' = 'theirs';
  @Optional() @Refers({ ...UNIT, gone: 'takes' }, { label: 'Enemy', about: 'a unit; or a pool is given' }) enemy?: string;
  @ListOf(() => PoolEntry, 32, { label: 'Pool', about: 'units that are drawn', emptied: 'takes' }) pool: PoolEntry[] = [];
  @OneOf(
    { replace: 'each draw from the whole pool', once: 'each as often as its weight', budget: 'for a budget of worth' },
    { label: 'Draws', about: 'each from the whole pool; each entry only as often as its weight; or as many as a budget of worth pays for' },
  )
  draws: 'replace' | 'once' | 'budget' = 'replace';
  @Quantity({ label: 'Budget', unit: '', min: 0, max: 1e6, about: 'worth to be spent on the pool', when: { draws: ['budget'] } })
  budget = 0;
  @Group(() => Count, { label: 'Count' }) count: Count = new Count();
  @RefersToSome({ to: ['spawnPoint'], gone: unlessTheLast }, LIMITS.spawnPoints, { label: 'At', about: 'spawn points of the arena' }, 1)
  at: string[];
  @OneOf(
    { inTurn: 'in turn', each: 'all at each', random: 'by chance', nearest: 'nearest to its foes', farthest: 'farthest from them' },
    { label: 'Points', about: 'in turn; the whole count at each; drawn; the nearest to or the farthest from its foes' },
  )
  rule: 'inTurn' | 'each' | 'random' | 'nearest' | 'farthest' = 'inTurn';
  @metres(
    'Clear of foes',
    'points nearer to a foe of it (of the enemies: to a party member) than this are passed over while others are left',
  )
  leastDistance = 0;
  @YesNo({ label: 'Out of view', about: 'points that a foe of it sees are passed over while others are left' }) outOfView = false;
  @seconds('Apart by', 'time between units of the group', 600) spacing = 0;
  @YesNo({ label: 'Alerted', about: 'knows of its foes from the start' }) alerted = false;
  @Optional()
  @RefersByName({ to: ['unit', 'role'], loose: true }, 80, { label: 'Goes for', about: 'a unit or a role it goes for until that is down' })
  target?: string;
  @ListOf(() => GroupTrait, LIMITS.groupTraits, { label: 'Traits', about: 'that its units come with, or a share of them' })
  traits: GroupTrait[] = [];
  @Optional() @metres('Leaves beyond', 'a unit farther than this from every foe leaves the fight') leavesBeyond?: number;
  @InTurns(() => GroupRounds, ({ spacing }: WaveGroup) => spacing > 0)
  rounds?: GroupRounds;
}

@About('Comes again, each time grown.')
export class Repeat {
  @Quantity({ label: 'Times', unit: '', min: 1, max: LIMITS.repeats, whole: true, about: 'how often the wave comes in all' }) times = 1;
  @OneOf(
    { defeated: 'when so much is defeated', every: 'after a time' },
    { label: 'Comes again', about: 'when a share of the last coming is defeated, or so many seconds after the last one' },
  )
  when: 'defeated' | 'every' = 'defeated';
  @share('Defeated', 'share of the last coming', { when: { when: ['defeated'] } }) share = 1;
  @seconds('Every', 'from one coming to the next', 600, { when: { when: ['every'] } }) every = 20;
  @seconds('Pause', 'from when it is due again to its first unit; the delay is of its first coming alone', 600, {
    when: { when: ['defeated'] },
  })
  pause = 0;
  @Quantity({ label: 'Counts', unit: '×', min: 0, max: 10, about: 'counts are multiplied by this each time' }) count = 1;
  @ListOf(() => FieldTweak, 16, { label: 'Grows by', about: 'tweaks on its units, once more each time' }) tweaks: FieldTweak[] = [];
  @InTurns(() => RepeatRounds, ({ times, when, pause }: Repeat) => times > 1 && (when === 'every' || pause > 0))
  rounds?: RepeatRounds;
}

@About('Units that come together, and when.')
export class Wave {
  @Identifier() id: string;
  @Name() name: string;
  @OneOf(
    {
      atOnce: 'at once',
      clock: 'at a time',
      with: 'with another wave',
      defeated: 'when another is defeated',
      condition: 'when a condition holds',
      called: 'when an event calls it',
    },
    {
      label: 'Starts',
      about:
        'at once; at a time; with another wave’s start; when a share of another is defeated; when a condition holds; when an event calls it',
    },
  )
  start: 'atOnce' | 'clock' | 'with' | 'defeated' | 'condition' | 'called' = 'atOnce';
  @seconds('At', 'time on the encounter’s clock', undefined, { when: { start: ['clock'] } }) at = 0;
  @Optional()
  @Refers(WAVE, { label: 'After', about: 'the wave it waits for; absent: the one before', when: { start: ['with', 'defeated'] } })
  after?: string;
  @share('Defeated', 'share of that wave that must be dead or gone', { when: { start: ['defeated'] } }) share = 1;
  @Optional()
  @Group(() => Condition, { label: 'When', about: 'the condition it waits for', when: { start: ['condition'] }, needed: true })
  when?: Condition;
  @Optional()
  @seconds('At the latest', 'so long after the start of the wave it waits for, else of the encounter, it starts whatever else')
  timeout?: number;
  @seconds('Delay', 'from its start to its first unit', 600) delay = 0;
  @ListOf(() => WaveGroup, LIMITS.groups, { label: 'Groups' }) groups: WaveGroup[] = [];
  @RefersToSome({ to: ['trait'] }, LIMITS.given, { label: 'Traits', about: 'that all its units come with' }) traits: string[] = [];
  @Optional() @Group(() => Repeat, { label: 'Repeats' }) repeat?: Repeat;
  @YesNo({ label: 'Holds others back', about: 'while one of its units lives, no other wave starts' }) holdsBack = false;
  @YesNo({ label: 'Counts the summoned', about: 'units that its units summon belong to it and must be defeated too' })
  countsSummoned = false;
  @YesNo({ label: 'Counts the revived again', about: 'a defeated unit that is revived must be defeated again' }) countsRevived = false;
  @YesNo({ label: 'Not needed to win', about: 'the fight may be won without it having come' }) optional = false;
  @InTurns(() => WaveRounds, ({ start, timeout, delay }: Wave) => start === 'clock' || timeout !== undefined || delay > 0)
  rounds?: WaveRounds;
}

@About('Somebody who stands in the fight from the start.')
export class PartyMember {
  @Identifier() id: string;
  @Refers(UNIT, { label: 'Unit' }) unit: string;
  @Optional()
  @Refers({ to: ['point'] }, { label: 'Stands at', about: 'a point of the arena; absent: in line with the others where the party starts' })
  at?: string;
}

@About('What changes when so many take part.')
export class PartySize {
  @Quantity({ label: 'Members', unit: '', min: 1, max: LIMITS.party, whole: true, about: 'in the party' }) members = 1;
  @ListOf(() => Tweak, LIMITS.tweaks, { label: 'Tweaks' }) tweaks: Tweak[] = [];
}

@About('A pool of attack slots: how many attacks that need one may be under way.')
export class SlotPool {
  @Identifier() id: string;
  @Quantity({ label: 'Slots', unit: '', min: 1, max: 500, whole: true, about: 'how much may be taken at one time' }) size = 2;
  @YesNo({ label: 'For each target', about: 'counted for each target apart' }) perTarget = false;
  @seconds('Gap', 'between two starts out of the pool', 60) gap = 0;
}

@About('How many of one unit may live at one time.')
export class TypeCap {
  @Refers(UNIT, { label: 'Unit' }) unit: string;
  @units('Alive of it', 'of it alive at one time, at most', 1) most = 1;
}

@About('How many enemies may live at one time, and what becomes of one more.')
export class AliveCap {
  @units('Alive at most', 'enemies alive at one time', 1) most = 20;
  @ListOf(() => TypeCap, LIMITS.units, { label: 'By type' }) perType: TypeCap[] = [];
  @OneOf(
    { wait: 'waits in line', skip: 'is left out', replace: 'replaces the oldest' },
    { label: 'When full', about: 'one more waits in line; is left out; takes the place of the one that has lived longest' },
  )
  full: 'wait' | 'skip' | 'replace' = 'wait';
}

@About('One thing an event does.')
export class Consequence {
  @OneOf(
    {
      raise: 'raise a flag',
      lower: 'lower a flag',
      count: 'count',
      tweak: 'change units',
      trait: 'give a trait',
      startWave: 'start a wave',
      stopWave: 'stop a wave',
      score: 'give score',
      end: 'end the fight',
    },
    { label: 'Does' },
  )
  does: 'raise' | 'lower' | 'count' | 'tweak' | 'trait' | 'startWave' | 'stopWave' | 'score' | 'end';
  @Optional()
  @Refers(
    { to: { by: 'does', kinds: { raise: 'flag', lower: 'flag', trait: 'trait', startWave: 'wave', stopWave: 'wave' } }, gone: 'takes' },
    {
      label: 'Which',
      about: 'the flag, the trait, or the wave',
      when: { does: ['raise', 'lower', 'trait', 'startWave', 'stopWave'] },
      needed: true,
    },
  )
  of?: string;
  @Optional()
  @Group(() => CounterChange, { label: 'Counts', about: 'the counter that changes', when: { does: ['count'] }, needed: true, only: true })
  counts?: CounterChange;
  @Optional()
  @Quantity({
    label: 'Score',
    unit: '',
    min: -1e6,
    max: 1e6,
    about: 'what it gives; less than 0: takes',
    when: { does: ['score'] },
    needed: true,
    only: true,
  })
  score?: number;
  @ListOf(() => Tweak, 16, {
    label: 'Tweaks',
    about: 'on all the living they speak of, and all who come later',
    when: { does: ['tweak'] },
    emptied: 'takes',
  })
  tweaks: Tweak[] = [];
  @Optional()
  @OneOf(TRAIT_SCOPES, {
    label: 'Who',
    about: 'who is given the trait: all the living of them, and all who come later',
    when: { does: ['trait'] },
    needed: true,
    only: true,
  })
  to?: keyof typeof TRAIT_SCOPES;
  @Optional()
  @RefersByName({ to: { by: 'to', kinds: { role: 'role', unit: 'unit' } }, gone: 'takes' }, 80, {
    label: 'Whom',
    about: 'the role, or the unit',
    when: { does: ['trait'], to: ['role', 'unit'] },
    needed: true,
    only: true,
  })
  whom?: string;
  @OneOf({ cleared: 'won', lost: 'lost', ended: 'neither' }, { label: 'Counts as', when: { does: ['end'] } })
  as: 'cleared' | 'lost' | 'ended' = 'ended';
}

@About('Happens once, at the first step at which its condition holds.')
export class EncounterEvent {
  @Identifier() id: string;
  @Name() name: string;
  @Group(() => Condition, { label: 'When' }) when: Condition;
  @ListOf(() => Consequence, 16, { label: 'Then' }) then: Consequence[] = [];
}

@About('What ends the encounter besides the party being down and the time limit.')
export class Ends {
  @YesNo({ label: 'Won when all are defeated', about: 'when every wave has come and no enemy lives' }) cleared = true;
  @YesNo({ label: 'Won by lasting', about: 'by standing until the time limit' }) survive = false;
  @RefersToSome({ to: ['point'] }, LIMITS.points, {
    label: 'Lost with',
    about: 'points of the arena that stand on the party’s side and must be kept: the fight is lost with the first that falls',
  })
  defend: string[] = [];
  @RefersToSome({ to: ['point'] }, LIMITS.points, {
    label: 'Won with',
    about: 'points of the arena that stand on the enemies’ side: the fight is won with the last that falls',
  })
  destroy: string[] = [];
  @RefersToSome({ to: ['point'] }, LIMITS.points, {
    label: 'Also stand',
    about: 'points with health that stand on the party’s side besides; no other point than those of the three lists stands',
  })
  also: string[] = [];
}

@About('A fight: who meets whom, where, in which order, and what ends it.')
export class Encounter {
  @Identifier() id: string;
  @Name() name: string;
  @Optional() @Text(2000, { label: 'Notes' }) notes?: string;
  @OneOf(
    { continuous: 'in seconds', rounds: 'in turns' },
    { label: 'Clock', about: 'the fight goes on by itself, or in rounds in which everyone has a turn', fixed: true },
  )
  clock: 'continuous' | 'rounds' = 'continuous';
  @Refers({ to: ['arena'], gone: 'blocks' }, { label: 'Arena' }) arena: string;
  @ListOf(() => PartyMember, LIMITS.party, { label: 'Party', about: 'may be empty where groups of its side come' }) party: PartyMember[] =
    [];
  @ListOf(() => PartySize, LIMITS.party, { label: 'By party size' }) bySize: PartySize[] = [];
  @ListOf(() => PartyMember, LIMITS.party, { label: 'Allies', about: 'stand with the party without being of it' })
  allies: PartyMember[] = [];
  @ListOf(() => Wave, LIMITS.waves, { label: 'Waves', defines: 'wave' }) waves: Wave[] = [];
  @ListOf(() => EncounterEvent, LIMITS.events, { label: 'Events' }) events: EncounterEvent[] = [];
  @ListOf(() => Counter, LIMITS.counters, { label: 'Counters', defines: 'counter' }) counters: Counter[] = [];
  @ListOf(() => SlotPool, LIMITS.pools, { label: 'Attack slots', defines: 'slots' }) slots: SlotPool[] = [];
  @Optional() @Group(() => AliveCap, { label: 'Alive cap' }) alive?: AliveCap;
  @Group(() => Ends, { label: 'Ends' }) ends: Ends = new Ends();
  @Quantity({ label: 'Time limit', unit: 's', min: 0.1, max: LIMITS.encounterSeconds, about: 'the fight ends here at the latest' })
  limit = 120;
  @Optional()
  @Group(() => EncounterRounds, { label: 'In turns', about: 'how its turns go', when: { clock: ['rounds'] }, needed: true })
  rounds?: EncounterRounds;
}
