/** What fields and their words are called where people read them: forms, histories, comparisons. Numbers carry their own label. */
import { GOAL_MEASURES } from '../measures/goals';
import { Arena, Corner, Ground, PartyStart, Point, SpawnPoint, Wall, Zone } from './arena';
import {
  Area,
  Attack,
  Beat,
  Boost,
  Damage,
  Effects,
  FollowUp,
  Hits,
  Interruptible,
  OverTime,
  Projectile,
  SlotUse,
  Summoning,
} from './attack';
import { BAND_MEASURES, Band, Brief, IntendedCurve } from './brief';
import { type Condition, conditionSentence } from './condition';
import { AliveCap, Consequence, Encounter, EncounterEvent, Ends, PoolEntry, Repeat, SlotPool, TypeCap, Wave, WaveGroup } from './encounter';
import { type Constructor, type FieldKind, classFields, fieldAt } from './field';
import { type PatchOperation, difference } from './patch';
import { Answer, HealingItem, Magazine, Player } from './player';
import { pointerSteps, stepInto } from './pointer';
import { Acceptance, type Collection, Project } from './project';
import { OnEnter, Patrol, State, Transition } from './state';
import { NumberTweak, Skill, Style, Tier, Tweak } from './tweak';
import {
  Armour,
  Choice,
  ChoiceEntry,
  Gate,
  Health,
  InvulnerabilityWindow,
  Leash,
  Movement,
  OnDeath,
  Priority,
  Senses,
  Targeting,
  TargetCriterion,
  TargetFilter,
  Temper,
  Unit,
  WeakPoint,
} from './unit';
import { Variant } from './variant';

type Fields = Record<string, string>;

const LABELS = new Map<Constructor, Fields>([
  [Project, { name: 'name', accepted: 'accepted warnings' }],
  [
    Unit,
    {
      name: 'Name',
      side: 'Side',
      role: 'Role',
      glyph: 'Sign',
      colour: 'Colour',
      notes: 'Notes',
      body: 'Body',
      health: 'Health',
      shield: 'Shield',
      armour: 'Armour',
      weakPoint: 'Weak point',
      invulnerability: 'Invulnerability window',
      stagger: 'Stagger',
      knockback: 'Knockback',
      energy: 'Energy',
      movement: 'Movement',
      senses: 'Senses',
      temper: 'Temper',
      leash: 'Leash',
      targeting: 'Targeting',
      attacks: 'Attacks',
      choice: 'Choice',
      states: 'States',
      startsIn: 'Begins in',
      onDeath: 'On death',
      player: 'Player',
    },
  ],
  [Health, { gates: 'Gates' }],
  [Gate, { state: 'Until in', holds: 'Holds' }],
  [Armour, { resist: 'Resistance' }],
  [WeakPoint, { lethal: 'Kills outright', exposed: 'Exposed', states: 'In states' }],
  [InvulnerabilityWindow, { scope: 'From' }],
  [Movement, { only: 'Only on ground', never: 'Never on ground' }],
  [Senses, { needsLine: 'Needs a line', reaction: 'Reaction' }],
  [Temper, { manner: 'Manner' }],
  [
    Leash,
    {
      heals: 'Heals at home',
      ignoresDamage: 'Unhurt on the way',
      answersAttack: 'Turns when hurt',
      gone: 'Gone for good',
    },
  ],
  [Targeting, { criteria: 'Criteria', only: 'Only', never: 'Never' }],
  [TargetCriterion, { by: 'By', of: 'Whom' }],
  [TargetFilter, { roles: 'Roles', units: 'Units' }],
  [ChoiceEntry, { attack: 'Attack', condition: 'If', targeting: 'Own targeting' }],
  [Priority, { condition: 'If', entries: 'Entries' }],
  [Choice, { priorities: 'Priorities', pause: 'Pause' }],
  [OnDeath, { attack: 'Last attack' }],
  [
    Attack,
    {
      name: 'Name',
      delivery: 'Delivery',
      range: 'Range',
      needsLine: 'Needs a line',
      targets: 'For',
      condition: 'If',
      beat: 'Beat',
      charges: 'Charges',
      interruptible: 'Broken off',
      effects: 'Effects',
      hits: 'Hits',
      projectile: 'Shot',
      area: 'Area',
      aim: 'Aim',
      answers: 'Answered by',
      next: 'Follow-up',
      slot: 'Attack slot',
      summon: 'Summons',
    },
  ],
  [Beat, { cooldownFrom: 'Cooldown from', initialDelay: 'First use', moving: 'Moving', tracking: 'Aim' }],
  [
    Effects,
    {
      damage: 'Damage',
      overTime: 'Damage over time',
      heal: 'Heal',
      shield: 'Shield',
      slow: 'Slow',
      stagger: 'Stagger',
      knockback: 'Knockback',
      boost: 'Boost',
      revive: 'Revive',
      drain: 'Drain',
      taunt: 'Taunt',
      mark: 'Mark',
    },
  ],
  [Damage, { type: 'Kind' }],
  [OverTime, { type: 'Kind', stacking: 'Again while it runs' }],
  [Boost, { tweaks: 'Tweaks' }],
  [Hits, { perTarget: 'Each target', friendlyFire: 'Hurts friends' }],
  [Projectile, { muzzles: 'Muzzles' }],
  [Area, { about: 'About' }],
  [Interruptible, { stagger: 'By a stagger' }],
  [FollowUp, { attack: 'Attack' }],
  [SlotUse, { pool: 'Pool' }],
  [Summoning, { unit: 'Unit' }],
  [
    State,
    {
      name: 'Name',
      does: 'Does',
      pace: 'Pace',
      patrol: 'Beat',
      to: 'Towards',
      attacks: 'May begin',
      only: 'Attacks',
      onTheWay: 'Foes on the way',
      invulnerable: 'Invulnerable',
      tweaks: 'Tweaks',
      onEnter: 'On entering',
      leaves: 'Leaves',
    },
  ],
  [Transition, { when: 'When', to: 'To' }],
  [Patrol, { points: 'Stops', order: 'Order' }],
  [OnEnter, { raise: 'Raises flag', lower: 'Lowers flag', refill: 'Refills', attack: 'Begins' }],
  [
    Player,
    {
      attention: 'Attention',
      answers: 'Answers',
      magazine: 'Magazine',
      healing: 'Healing item',
      cover: 'Takes cover',
      down: 'Goes down',
      rescues: 'Rescues',
    },
  ],
  [HealingItem, { heal: 'Heals' }],
  [Answer, { kind: 'Answer' }],
  [Magazine, { attacks: 'Loads' }],
  [Tier, { notes: 'Notes', tweaks: 'Tweaks', largestOnly: 'Largest × only' }],
  [Skill, {}],
  [Style, {}],
  [NumberTweak, { path: 'number', op: 'operation', value: 'value' }],
  [Tweak, { scope: 'whose', of: 'of' }],
  [Variant, { basedOn: 'based on', changes: 'changes', tweaks: 'tweaks' }],
  [Arena, { spawnPoints: 'Spawn points', partyStart: 'Party start', walls: 'Walls', ground: 'Ground', zones: 'Zones', points: 'Points' }],
  [Wall, { name: 'Name' }],
  [Corner, {}],
  [Ground, { name: 'Name', kind: 'Kind' }],
  [Zone, { name: 'Name', by: 'Entered by', role: 'Of role', flag: 'Raises flag' }],
  [Point, { name: 'Name' }],
  [SpawnPoint, { name: 'Name' }],
  [PartyStart, {}],
  [
    Encounter,
    {
      name: 'Name',
      notes: 'Notes',
      arena: 'Arena',
      party: 'Party',
      allies: 'Allies',
      waves: 'Waves',
      events: 'Events',
      bySize: 'By party size',
      alive: 'Alive cap',
      ends: 'Ends',
      slots: 'Attack slots',
    },
  ],
  [
    Wave,
    {
      name: 'Name',
      start: 'Starts',
      after: 'After',
      when: 'When',
      groups: 'Groups',
      repeat: 'Repeats',
      holdsBack: 'Holds others back',
      countsSummoned: 'Counts the summoned',
      countsRevived: 'Counts the revived again',
      optional: 'May be left out',
    },
  ],
  [
    WaveGroup,
    {
      enemy: 'Enemy',
      pool: 'Pool',
      draws: 'Draws',
      at: 'At',
      rule: 'Points',
      outOfView: 'Out of view',
      alerted: 'Alerted',
      target: 'Goes for',
      elite: 'Elite',
    },
  ],
  [PoolEntry, { enemy: 'Enemy' }],
  [Repeat, { when: 'Comes again', tweaks: 'Grows by' }],
  [SlotPool, { perTarget: 'For each target' }],
  [AliveCap, { full: 'When full', perType: 'By type' }],
  [TypeCap, { unit: 'Unit' }],
  [EncounterEvent, { name: 'Name', when: 'When', then: 'Then' }],
  [Consequence, { does: 'Does', of: 'Which', as: 'Counts as', tweaks: 'Tweaks' }],
  [Ends, { cleared: 'Won when all are defeated', survive: 'Won by lasting', defend: 'Lost with' }],
  [Acceptance, {}],
  [Brief, { name: 'Name', bands: 'Bands', curves: 'Intended curves' }],
  [
    Band,
    {
      measure: 'Measure',
      scope: 'Of',
      of: 'Which',
      encounter: 'In encounter',
      tier: 'At tier',
      skill: 'At skill',
      statistic: 'By its',
      low: 'At least',
      high: 'At most',
      why: 'Why',
    },
  ],
  [IntendedCurve, { encounter: 'Encounter', tier: 'At tier', points: 'Points' }],
]);

const WORDS = new Map<Constructor, Record<string, Fields>>([
  [Unit, { side: { enemy: 'enemy', party: 'party' } }],
  [WeakPoint, { exposed: { always: 'always', unshielded: 'while unshielded', staggered: 'while staggered', states: 'in some states' } }],
  [InvulnerabilityWindow, { scope: { any: 'any hit', attacker: 'the same attacker', attack: 'the same attack' } }],
  [Temper, { manner: { hostile: 'attacks on sight', retaliates: 'only when attacked', passive: 'never attacks' } }],
  [
    TargetCriterion,
    {
      by: {
        nearest: 'nearest',
        lowestHealth: 'least health',
        lowestShare: 'least share of health',
        highestDamage: 'most damage a second',
        mostDamageToMe: 'hurt me most',
        lastAttacker: 'hurt me last',
        role: 'role',
        unit: 'one unit',
        random: 'by chance',
      },
    },
  ],
  [
    Attack,
    {
      delivery: {
        melee: 'melee',
        hitscan: 'instant shot',
        projectile: 'shot that flies',
        area: 'area',
        contact: 'contact',
        self: 'itself',
        support: 'support',
        summon: 'summon',
      },
      targets: { foes: 'foes', friends: 'hurt friends', fallen: 'fallen friends' },
      answers: { stepOut: 'stepping out', dodge: 'a dodge', block: 'a block', breakLine: 'breaking the line', interrupt: 'interrupting' },
    },
  ],
  [
    Beat,
    {
      cooldownFrom: { start: 'its start', end: 'its end' },
      moving: { no: 'stands', slow: 'slowly', free: 'freely' },
      tracking: { turns: 'turns', fixed: 'fixed' },
    },
  ],
  [OverTime, { stacking: { refresh: 'moves the end', stack: 'adds another', ignore: 'does nothing' } }],
  [Hits, { perTarget: { once: 'once a use', every: 'every hit' } }],
  [Area, { about: { self: 'itself', target: 'its target', mark: 'a marked point' } }],
  [
    State,
    {
      does: {
        hold: 'hold',
        approach: 'approach',
        band: 'keep a band',
        flee: 'flee',
        strafe: 'circle in a band',
        wander: 'wander about home',
        patrol: 'walk a beat',
        home: 'go home',
        search: 'search',
        goTo: 'go to a point',
        follow: 'follow a friend',
      },
      pace: { walk: 'walk', run: 'run' },
      attacks: { all: 'all attacks', none: 'no attack', some: 'some attacks' },
      onTheWay: { ignore: 'are ignored', clear: 'are struck in reach', engage: 'are fought' },
    },
  ],
  [Patrol, { order: { loop: 'round and round', backAndForth: 'back and forth' } }],
  [
    Wave,
    {
      start: {
        atOnce: 'at once',
        clock: 'at a time',
        with: 'with another wave',
        defeated: 'when another is defeated',
        condition: 'when a condition holds',
        called: 'when an event calls it',
      },
    },
  ],
  [
    WaveGroup,
    {
      draws: { replace: 'each draw from the whole pool', once: 'each as often as its weight', budget: 'for a budget of worth' },
      rule: { inTurn: 'in turn', each: 'all at each', random: 'by chance', nearest: 'nearest to the party', farthest: 'farthest from it' },
    },
  ],
  [Repeat, { when: { defeated: 'when so much is defeated', every: 'after a time' } }],
  [AliveCap, { full: { wait: 'waits in line', skip: 'is left out', replace: 'replaces the oldest' } }],
  [Zone, { by: { party: 'the party', enemies: 'enemies', anybody: 'anybody' } }],
  [
    Consequence,
    {
      does: { raise: 'raise a flag', lower: 'lower a flag', tweak: 'change units', startWave: 'start a wave', end: 'end the fight' },
      as: { cleared: 'won', lost: 'lost', ended: 'neither' },
    },
  ],
  [
    Band,
    {
      // Asked for when it is needed: the measures stand on the model.
      get measure() {
        return Object.fromEntries(BAND_MEASURES.map((id) => [id, GOAL_MEASURES[id].label]));
      },
      scope: {
        enemies: 'every enemy',
        role: 'enemies of a role',
        unit: 'one enemy',
        encounters: 'every encounter',
        encounter: 'one encounter',
        wave: 'one wave',
      },
      statistic: { median: 'median', mean: 'mean', p10: 'p10', p90: 'p90', share: 'share of runs' },
    },
  ],
  [Answer, { kind: { stepOut: 'steps out', dodge: 'dodges', block: 'blocks', breakLine: 'breaks the line', interrupt: 'interrupts' } }],
]);

/** The class that declares the last step of a pointer. */
function parentOf(root: Constructor, steps: readonly string[]): Constructor | undefined {
  const parent = fieldAt(root, steps.slice(0, -1));
  return parent?.kind === 'group' ? parent.type() : undefined;
}

/** What the field at a pointer is called; the step itself where nothing better is known. */
export function fieldLabel(root: Constructor, steps: readonly string[]): string {
  const field = steps[steps.length - 1] ?? '';
  const type = parentOf(root, steps);
  const kind = type && classFields(type)?.kinds.get(field);
  if (kind?.kind === 'number') return kind.info.label;
  for (let at = type; at && at !== (Object as unknown); at = Object.getPrototypeOf(at) as Constructor) {
    const label = LABELS.get(at)?.[field];
    if (label) return label;
  }
  return field;
}

/** What the words of a field are called, in the order of the model. */
export function fieldWords(root: Constructor, steps: readonly string[]): { id: string; name: string }[] {
  const field = steps[steps.length - 1];
  const type = parentOf(root, steps);
  const kind = type && classFields(type)?.kinds.get(field);
  if (!kind || (kind.kind !== 'word' && kind.kind !== 'someOf')) return [];
  const names = WORDS.get(type)?.[field] ?? {};
  return kind.words.map((id) => ({ id, name: names[id] ?? id }));
}

/** A number of the document as people read it. */
export function numberWords(value: number): string {
  return String(Number(value.toFixed(4))).replace('-', '−');
}

/** A value of the document in a few words. */
export function valueWords(root: Constructor, steps: readonly string[], value: unknown): string {
  if (value === undefined) return 'none';
  const kind: FieldKind | undefined = fieldAt(root, steps);
  if (typeof value === 'number') {
    const unit = kind?.kind === 'number' ? kind.info.unit : '';
    return `${numberWords(value)}${unit ? ` ${unit}` : ''}`;
  }
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string') return fieldWords(root, steps).find(({ id }) => id === value)?.name ?? (value || 'nothing');
  if (Array.isArray(value)) {
    if (!value.length) return 'none';
    if (value.every((item) => typeof item === 'string'))
      return value.map((item: string) => fieldWords(root, steps).find(({ id }) => id === item)?.name ?? item).join(', ');
    return `${value.length} ${value.length === 1 ? 'entry' : 'entries'}`;
  }
  if (typeof value === 'object' && value !== null && 'subject' in value) return conditionSentence(value as Condition);
  return 'set';
}

/** One difference between two documents. */
export interface Wording {
  path: string;
  /** "Clipper › Bite". */
  where: string;
  /** "Cooldown", "added", "removed". */
  what: string;
  from?: string;
  to?: string;
}

const CLASSES: Record<Collection, Constructor> = {
  units: Unit,
  variants: Variant,
  arenas: Arena,
  encounters: Encounter,
  tiers: Tier,
  skills: Skill,
  styles: Style,
};

/** What differs between two versions of a project, a line for each place. */
export function changesInWords(before: Project, after: Project): Wording[] {
  return difference(before, after).map((operation) => wordingOf(before, after, operation));
}

/** The same within one object of a class (a unit, an attack), whose name is left out. */
export function changesWithin(type: Constructor, before: object, after: object): Wording[] {
  return difference(before, after).map((operation) => within(type, before, after, pointerSteps(operation.path), [], operation));
}

function wordingOf(before: Project, after: Project, operation: PatchOperation): Wording {
  const [collection, id, ...steps] = pointerSteps(operation.path);
  const type = CLASSES[collection as Collection];
  const list = (project: Project) => project[collection as Collection] as { id: string; name: string }[] | undefined;
  if (!type || id === undefined) return within(Project, before, after, pointerSteps(operation.path), [], operation);
  const [old, now] = [before, after].map((project) => list(project)?.find((item) => item.id === id));
  const name = (now ?? old)?.name ?? id;
  if (!steps.length) return { path: operation.path, where: name, what: operation.op === 'remove' ? 'removed' : 'added' };
  return within(type, old ?? {}, now ?? {}, steps, [name], operation);
}

function within(type: Constructor, before: object, after: object, steps: string[], names: string[], { op, path }: PatchOperation): Wording {
  const where = [...names];
  let [old, now]: unknown[] = [before, after];
  let itemAdded = false;
  steps.forEach((step, i) => {
    const inList = fieldAt(type, steps.slice(0, i))?.kind === 'list';
    old = stepInto(old, step);
    now = stepInto(now, step);
    if (inList) {
      const item = (now ?? old) as { name?: string; id?: string } | undefined;
      where.push(item?.name ?? item?.id ?? `${fieldLabel(type, steps.slice(0, i)).toLowerCase()} ${Number(step) + 1}`);
      itemAdded = i === steps.length - 1;
    } else if (i < steps.length - 1 && fieldAt(type, steps.slice(0, i + 1))?.kind === 'group') {
      const label = fieldLabel(type, steps.slice(0, i + 1));
      if (!PLAIN_GROUPS.has(step)) where.push(label.toLowerCase());
    }
  });
  if (itemAdded && op !== 'replace') return { path, where: where.join(' › '), what: op === 'remove' ? 'removed' : 'added' };
  return {
    path,
    where: where.join(' › '),
    what: itemAdded ? 'replaced' : fieldLabel(type, steps),
    from: valueWords(type, steps, old),
    to: valueWords(type, steps, now),
  };
}

/** Groups whose fields' labels say enough by themselves. */
const PLAIN_GROUPS = new Set(['beat', 'range', 'health', 'body', 'movement', 'senses', 'effects', 'hits', 'aim']);

/** "Clipper › Bite: Cooldown 1.6 s → 2.4 s". */
export function wordingSentence({ where, what, from, to }: Wording): string {
  const place = where ? `${where}: ` : '';
  return from === undefined ? `${place}${what}` : `${place}${what} ${from} → ${to}`;
}
