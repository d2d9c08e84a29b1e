/**
 * What units, attacks, effects and states are where a fight takes turns: whole turns and cells, beside the seconds and metres
 * of fights that do not. Neither is worked out of the other while a fight runs; `in-rounds.ts` says what each stands for.
 */
import { About, Group, Identifier, ListOf, OneOf, Optional, Quantity, Refers, RefersByName, YesNo } from './field';
import { LIMITS } from './limits';

const turns = (label: string, about: string, min = 0) => Quantity({ label, unit: 'turns', min, max: 100, whole: true, about });
const rounds = (label: string, about: string) => Quantity({ label, unit: 'rounds', min: 0, max: 500, whole: true, about });
const cells = (label: string, about: string, min = 0) => Quantity({ label, unit: 'cells', min, max: 64, whole: true, about });
const points = (label: string, about: string) => Quantity({ label, unit: 'hp', min: 0, max: 1e6, about });

/** The group of a part in turns. @param needed whether a fight in turns needs it; absent: always */
export const InTurns = (type: () => new () => object, needed: (object: never) => boolean = () => true): PropertyDecorator => {
  const optional = Optional();
  const group = Group(type, { label: 'In turns', about: 'what it is in a fight that takes turns', inTurns: needed as never });
  return (target, key) => [optional, group].forEach((decorate) => decorate(target, key));
};

@About('Something that it does about a hit, whoever’s turn it is.')
export class TurnReaction {
  @Identifier() id: string;
  @OneOf(
    { dodge: 'dodges', guard: 'guards', counter: 'counters' },
    { label: 'Does', about: 'before the hit is drawn it dodges or guards; after it, if it lives, it strikes back', fixed: true },
  )
  does: 'dodge' | 'guard' | 'counter';
  @Quantity({ label: 'Uses', unit: '', min: 1, max: 20, whole: true, about: 'how often a round' }) uses = 1;
  @Quantity({
    label: 'Takes off',
    unit: '',
    min: 0,
    max: 1,
    about: 'share of the damage that a guard takes away',
    when: { does: ['guard'] },
  })
  reduces = 0.5;
  @Optional()
  @Refers(
    { to: ['attack'], gone: 'takes' },
    {
      label: 'With',
      about: 'the attack that it strikes back with: in its range, whatever its cooldown',
      when: { does: ['counter'] },
      needed: true,
    },
  )
  attack?: string;
}

@About('How it notices foes, and loses them, in turns. Without it knows of everybody.')
export class SensesRounds {
  @cells('Sight', 'notices a foe at this distance, at the start of its turn; beyond it is given up', 1) sight = 12;
  @Quantity({ label: 'Sight angle', unit: '°', min: 1, max: 360, about: '360: all round' }) angle = 360;
  @YesNo({ label: 'Needs a line', about: 'sees nobody behind a wall that is higher than the line from its eyes' }) needsLine = true;
  @turns('Memory', 'turns in which a lost foe is still pursued') memory = 3;
}

@About('How whoever plays it chooses in its turns.')
export class PlayRounds {
  @Quantity({
    label: 'Takes the best',
    unit: '',
    min: 0,
    max: 1,
    about:
      'share of its turns in which it takes, of all that it can reach, the act that promises most harm and kills; else its own priorities',
  })
  best = 0.7;
  @OneOf(
    {
      state: 'as its state says',
      careful: 'where least can strike it',
      forward: 'nearest to its foes',
      still: 'where it stands, if it can',
    },
    { label: 'Ends', about: 'of the cells that serve as well, where it ends its turn' },
  )
  ends: 'state' | 'careful' | 'forward' | 'still' = 'state';
}

@About('How it takes its turns.')
export class UnitRounds {
  @Quantity({ label: 'Order', unit: '', min: 0, max: 100, whole: true, about: 'the higher has its turn before the lower' }) order = 50;
  @Quantity({ label: '± spread', unit: '', min: 0, max: 100, whole: true, about: 'its order is drawn uniformly from order ± spread' })
  spread = 0;
  @Quantity({ label: 'Actions', unit: '', min: 1, max: 5, whole: true, about: 'attacks that it may begin in one turn' }) actions = 1;
  @Quantity({ label: 'Size', unit: 'cells', min: 1, max: 3, whole: true, about: 'of its body, from side to side' }) size = 1;
  @cells('Moves', 'what the ground may cost that it goes over in one turn; plain ground costs 1 a cell') moves = 4;
  @OneOf(
    { before: 'moves, then acts', after: 'acts, then moves', split: 'moves around its acts' },
    { label: 'Turn', about: 'what comes first; or both, as it goes' },
  )
  moving: 'before' | 'after' | 'split' = 'before';
  @OneOf({ front: 'front', back: 'back' }, { label: 'Row', about: 'where it stands in a fight without ground that is fought in two rows' })
  row: 'front' | 'back' = 'front';
  @points('Regen', 'health regained at the start of each of its turns') regen = 0;
  @turns('Regen delay', 'turns without regeneration after damage') regenDelay = 0;
  @points('Shield regen', 'shield regained at the start of each of its turns') shieldRegen = 0;
  @turns('Shield delay', 'turns in which the shield regains nothing after damage') shieldDelay = 0;
  @Quantity({ label: 'Energy regen', unit: '', min: 0, max: 1e6, about: 'energy regained at the start of each of its turns' })
  energyRegen = 0;
  @turns('Shielded after a hit', 'no further hit within the scope of its window counts for this long') shielded = 0;
  @turns('Counted over', 'turns over which damage is added up that staggers it', 1) staggerWindow = 1;
  @turns('Reels for', 'turns that it loses to a stagger', 1) staggers = 1;
  @turns('Then steady for', 'turns after that in which no other stagger takes hold') steady = 0;
  @ListOf(() => TurnReaction, LIMITS.answers, { label: 'Reactions', about: 'tried in this order' }) reactions: TurnReaction[] = [];
  @rounds('Revivable for', 'how long after its death it can be revived; 0: never') revivableFor = 0;
  @Optional() @Group(() => SensesRounds, { label: 'Senses', about: 'absent: it knows of everybody' }) senses?: SensesRounds;
  @Optional()
  @Group(() => PlayRounds, { label: 'Player’s choice', about: 'absent: it goes by its priorities and states alone' })
  plays?: PlayRounds;
}

@About('When and how far it strikes, in turns and cells.')
export class AttackRounds {
  @cells('Range from', 'nearest distance, between the nearest cells of the bodies') from = 0;
  @cells('Range to', 'farthest distance, between the nearest cells of the bodies') to = 1;
  @turns('Wind-up', 'it strikes at the start of its owner’s turn that so many turns later is; 0: at once') windup = 0;
  @turns('Recovery', 'turns that its owner loses after it') recovery = 0;
  @turns('Cooldown', 'until this attack may be used again; 1: once a turn; 0: as often as actions allow') cooldown = 1;
  @turns('First use', 'the turn of its owner from which on it may be used') firstUse = 0;
  @Quantity({ label: 'Hits', unit: '', min: 1, max: 100, whole: true, about: 'hits in one use' }) hits = 1;
  @OneOf(
    { seconds: 'as in seconds', once: 'once a use', every: 'every hit' },
    { label: 'Each target', about: 'of several hits in a turn: each target once, at every hit, or as its hits say for seconds' },
  )
  perTarget: 'seconds' | 'once' | 'every' = 'seconds';
  @turns('Recharge', 'turns until one charge comes back, one after another', 1) recharge = 1;
  @cells('Area radius', 'strikes bodies with a cell this near to its middle') radius = 1;
  @turns('Bursts after', 'between mark and burst') delay = 0;
  @turns('Follows within', 'turns in which its follow-up comes before any other choice', 1) follows = 1;
  @cells('Around', 'those that it summons appear this near', 1) around = 1;
  @cells('Lunges', 'cells that it goes straight at its target as it strikes, stopped by walls and bodies') lunge = 0;
}

@About('How long an effect lasts, in turns of whoever bears it.')
export class LastingRounds {
  @turns('For', 'it ends at the start of the bearer’s turn that so many turns later is') for = 1;
}

@About('When damage over time ticks, in turns of whoever bears it.')
export class TickRounds {
  @Optional() @points('Each tick', 'damage of one tick, before armour; absent: as in its seconds') amount?: number;
  @turns('Tick every', 'turns between ticks', 1) every = 1;
  @turns('Lasts', 'ticks fall up to and including this many turns after the hit', 1) for = 3;
}

@About('How far it pushes.')
export class PushRounds {
  @cells('Knocked back', 'cells away from where the hit came from, stopped by walls and bodies') cells = 1;
  @points('Harm a cell left', 'for each cell of it that a wall, the edge or a body keeps it from; past armour, not past shields') crush = 0;
}

@About('Distances of a state, in cells.')
export class StateRounds {
  @Optional() @cells('Moves', 'in one turn of this state; absent: as the unit does') moves?: number;
  @Optional() @cells('Stops at', 'an approach ends at this distance; absent: the longest reach') stopAt?: number;
  @Optional() @cells('Keeps from', 'near edge of the band it keeps') near?: number;
  @Optional() @cells('Keeps to', 'far edge of the band it keeps') far?: number;
  @Optional() @cells('Strays', 'how far it wanders or searches') radius?: number;
}

@About('When a way out of a state may be taken.')
export class TransitionRounds {
  @turns('After', 'not before this many turns in the state') after = 0;
}

@About('What a condition compares in turns or cells.')
export class ConditionRounds {
  @Quantity({ label: 'Than', unit: '', min: 0, max: 500, whole: true, about: 'turns, rounds or cells' }) value = 0;
  @Quantity({ label: 'Within', unit: '', min: 0, max: 500, whole: true, about: 'cells around, or turns back' }) within = 0;
}

@About('When a wave comes, in rounds.')
export class WaveRounds {
  @Quantity({ label: 'Round', unit: '', min: 1, max: 500, whole: true, about: 'in which it starts' }) at = 1;
  @Optional() @rounds('At the latest', 'rounds after which it starts whatever else') timeout?: number;
  @rounds('Delay', 'from its start to its first unit') delay = 0;
}

@About('When a wave comes again, in rounds.')
export class RepeatRounds {
  @rounds('Every', 'from one coming to the next') every = 3;
  @rounds('Pause', 'from when it is due again to its first unit') pause = 0;
}

@About('When the units of a group come.')
export class GroupRounds {
  @rounds('Apart by', 'rounds between units of the group') spacing = 0;
}

@About('What it costs to come onto ground of a kind.')
export class GroundCost {
  @RefersByName({ to: ['ground'], loose: true }, 80, { label: 'Kind', about: 'of the arena’s ground' }) kind = '';
  @Quantity({ label: 'Costs', unit: '', min: 1, max: 20, whole: true, about: 'of what a unit may go in one turn; plain ground: 1' }) cost =
    2;
}

@About('A stop of a round.')
export class StopRounds {
  @turns('Pause', 'turns that it stays') pause = 1;
}

@About('How the turns of a fight go.')
export class EncounterRounds {
  @Quantity({ label: 'Round limit', unit: 'rounds', min: 1, max: 500, whole: true, about: 'the fight ends after this round at the latest' })
  limit = 30;
  @OneOf(
    { bySide: 'side by side', byOrder: 'by order over all' },
    { label: 'Turns go', about: 'one side after the other; or all by their order' },
  )
  order: 'bySide' | 'byOrder' = 'bySide';
  @OneOf({ ours: 'the party', theirs: 'the enemies' }, { label: 'Begins', about: 'whose turns come first', when: { order: ['bySide'] } })
  first: 'ours' | 'theirs' = 'ours';
  @OneOf({ fight: 'once a fight', round: 'each round' }, { label: 'Drawn', about: 'when orders with a spread are drawn' })
  drawn: 'fight' | 'round' = 'fight';
  @OneOf(
    { none: 'none', squares: 'squares', diagonals: 'squares and diagonals', hexagons: 'hexagons' },
    { label: 'Ground', about: 'without it everyone is in reach of everyone' },
  )
  ground: 'none' | 'squares' | 'diagonals' | 'hexagons' = 'squares';
  @Quantity({
    label: 'Cell',
    unit: 'm',
    min: 0.5,
    max: 20,
    about: 'side of a cell of the arena',
    when: { ground: ['squares', 'diagonals', 'hexagons'] },
  })
  cell = 1;
  @ListOf(() => GroundCost, LIMITS.words, { label: 'Costs of ground', about: 'the dearest of what a cell’s middle lies on counts' })
  costs: GroundCost[] = [];
  @OneOf(
    { end: 'ends its turn there', pass: 'comes there on its way' },
    { label: 'Enters a zone', about: 'who', when: { ground: ['squares', 'diagonals', 'hexagons'] } },
  )
  zones: 'end' | 'pass' = 'end';
  @YesNo({
    label: 'Two rows',
    about: 'who strikes by hand reaches the back row only where nobody stands in the front',
    when: { ground: ['none'] },
  })
  rows = false;
}
