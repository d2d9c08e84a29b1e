import { type AnswerKind, answersAs } from './answer-kind';
import { Healing } from './effects/healing';
import { About, Group, Identifier, ListOf, OneOf, Optional, Quantity, RefersToSome, type Said, YesNo } from './field';
import { LIMITS } from './limits';

const metres = (label: string, about: string, max = 200, said: Said = {}) => Quantity({ label, unit: 'm', min: 0, max, about, ...said });
const seconds = (label: string, about: string, max = 600, said: Said = {}) => Quantity({ label, unit: 's', min: 0, max, about, ...said });
const share = (label: string, about: string, said: Said = {}) => Quantity({ label, unit: '', min: 0, max: 1, about, ...said });

@About('What the player sees of what is coming, and how soon.')
export class Attention {
  @Quantity({ label: 'View', unit: '°', min: 1, max: 360, about: 'threats outside this angle go unseen' }) angle = 360;
  @Quantity({ label: 'Follows', unit: '', min: 0, max: 50, whole: true, about: 'announced attacks it can keep in mind at one time' })
  follows = 3;
  @seconds('Reacts in', 'from the cue of an attack to doing something about it', 10) mean = 0.3;
  @seconds('± spread', 'each reaction is drawn uniformly from mean ± spread', 10) spread = 0.08;
  @share('Mistakes', 'share of seen attacks to which it gives no answer all the same') mistakes = 0;
}

@About('One thing it can do about an announced attack.')
export class Answer {
  @Identifier() id: string;
  @OneOf(answersAs('verb'), { label: 'Answer' }) kind: AnswerKind;
  @seconds('Window', 'how long a dodge or a block protects', 10, { when: { kind: ['dodge', 'block'] } }) window = 0.3;
  @metres('Distance', 'how far a dodge carries it', 50, { when: { kind: ['dodge'] } }) distance = 0;
  @OneOf(
    { sideways: 'sideways', away: 'away', towards: 'towards it' },
    { label: 'Goes', about: 'which way a dodge carries it, from the attacker', when: { kind: ['dodge'] } },
  )
  way: 'sideways' | 'away' | 'towards' = 'sideways';
  @YesNo({
    label: 'Protects',
    about: 'nothing that can be dodged lands within its window; else it is a step that must carry it out of what is coming',
    when: { kind: ['dodge'] },
  })
  protects = true;
  @seconds('Cooldown', 'until it can be given again') cooldown = 0;
  @share('Takes off', 'share of damage that a block takes away', { when: { kind: ['block'] } }) reduces = 1;
}

@About('Rounds that are used up and reloaded.')
export class Magazine {
  @RefersToSome({ to: ['attack'] }, LIMITS.attacks, { label: 'Loads', about: 'the attacks that use it up, one round a use' })
  attacks: string[] = [];
  @Quantity({ label: 'Rounds', unit: '', min: 1, max: 1000, whole: true, about: 'uses until it must reload' }) rounds = 12;
  @Quantity({ label: 'Reload', unit: 's', min: 0.01, max: 60, about: 'how long reloading takes' }) reload = 1.5;
}

@About('What it mends itself with.')
export class HealingItem {
  @Quantity({ label: 'Doses', unit: '', min: 0, max: 100, whole: true, about: 'how often it can be used in a fight' }) count = 1;
  @share('Used below', 'share of health below which it is used') below = 0.4;
  @seconds('Use time', 'how long using it takes', 60) takes = 1;
  @Group(() => Healing, { label: 'Heals' }) heal: Healing = new Healing();
}

@About('When it gets out of the line of fire.')
export class TakesCover {
  @share('Cover below', 'share of health below which it looks for cover') below = 0.3;
  @Quantity({ label: 'Stays', unit: 's', min: 0.1, max: 60, about: 'how long it stays there before it fights on' }) stays = 3;
  @metres('Looks around', 'how far away cover may be') radius = 10;
}

@About('What happens at 0 health: without this a member dies at once.')
export class Downed {
  @seconds('Bleeds out in', 'time in which a friend can still help') bleedOut = 20;
  @seconds('Rescue takes', 'time a friend needs beside it', 60) rescue = 3;
  @metres('Rescue reach', 'between edges', 20) reach = 0.5;
  @share('Rescued with', 'share of full health after a rescue') health = 0.4;
  @Quantity({ label: 'Lives', unit: '', min: 0, max: 100, whole: true, about: 'how often it can be rescued' }) lives = 1;
}

@About('When it helps a friend who is down.')
export class Rescues {
  @metres('Rescues within', 'how far it goes to help a friend who is down') within = 15;
  @metres('Only if clear', 'no foe may be nearer to itself than this when it sets out') safe = 2;
}

@About('The simulated player behind a party member: what it sees, what it can do about it, how it husbands itself.')
export class Player {
  @Group(() => Attention, { label: 'Attention' }) attention: Attention = new Attention();
  @ListOf(() => Answer, LIMITS.answers, {
    label: 'Answers',
    about: 'tried in this order where they can still work in the time left',
  })
  answers: Answer[] = [];
  @Quantity({
    label: 'Aim error',
    unit: '°',
    min: 0,
    max: 45,
    about: 'shots stray within this to either side: small and far bodies are missed',
  })
  aimError = 0;
  @Optional() @Group(() => Magazine, { label: 'Magazine' }) magazine?: Magazine;
  @Optional() @Group(() => HealingItem, { label: 'Healing item' }) healing?: HealingItem;
  @Optional() @Group(() => TakesCover, { label: 'Takes cover' }) cover?: TakesCover;
  @Optional()
  @metres('Runs within', 'runs when a foe is nearer than this and walks otherwise; absent: as its state says')
  runsWithin?: number;
  @Optional() @Group(() => Downed, { label: 'Goes down' }) down?: Downed;
  @Optional() @Group(() => Rescues, { label: 'Rescues' }) rescues?: Rescues;
}
