/** What a run reads: effective values, whole microseconds, ids turned into numbers. Plain data, made once by `compile`. */
import type { Area, Attack, Dash } from '../model/attack';
import type { AliveCap, Consequence, Wave, WaveGroup } from '../model/encounter';
import type { State } from '../model/state';
import type { Delivery, DeliveryTraits } from '../model/delivery';
import type { CompiledBoost } from '../model/effects/effect';
import type { CompiledEffects } from '../model/effects/list';
import type { Answer } from '../model/player';
import type { FieldTweak } from '../model/tweak';
import type { Tiling } from './rounds/cells';
import type { InvulnerabilityWindow, Temper, Unit, WeakPoint } from '../model/unit';

/** What a state does, in the order of the model's list; the first four look to the target alone. */
export const DO = {
  hold: 0,
  approach: 1,
  band: 2,
  flee: 3,
  strafe: 4,
  wander: 5,
  patrol: 6,
  home: 7,
  search: 8,
  goTo: 9,
  follow: 10,
} as const;

/** What names and ids became: each number is a place in one of these lists. */
export interface Names {
  flags: string[];
  counters: string[];
  waves: string[];
  pools: string[];
  /** Ids of units; points that stand are types too. */
  types: string[];
  roles: string[];
  damageTypes: string[];
  points: string[];
  zones: string[];
  /** Ids of boosts: "unit/attack", and "event/n" for what an encounter's event changes. */
  boosts: string[];
}

export interface CompiledCondition {
  /** Place in SUBJECT_NAMES. */
  subject: number;
  above: boolean;
  /** of a yes or no: whether yes is asked for */
  yes: boolean;
  value: number;
  of: number;
  /** metres or µs */
  within: number;
  /** which of the unit's chances this is */
  node: number;
  parts: CompiledCondition[];
}

/** What its delivery is like, as plain data. */
export type CompiledTraits = Omit<DeliveryTraits, 'called' | 'about' | 'action' | 'blows'>;

export interface CompiledDash {
  way: Dash['way'];
  distance: number;
  speed: number;
  upToTarget: boolean;
  /** µs from the start of the attack */
  start: number;
  hurts: Dash['hurts'];
  stops: boolean;
  reels: number;
  over: number;
}

export interface CompiledAttack {
  id: string;
  name: string;
  delivery: Delivery;
  traits: CompiledTraits;
  targets: Attack['targets'];
  rangeMin: number;
  rangeMax: number;
  needsLine: boolean;
  /** cosine of the facing tolerance; −1: any */
  facingCosine: number;
  /** cosine of half the arc; −1: all round */
  arcCosine: number;
  condition: CompiledCondition | null;
  windup: number;
  active: number;
  /** µs between hits; 0: one hit */
  every: number;
  /** hits in one use */
  hits: number;
  recovery: number;
  cooldown: number;
  cooldownFromEnd: boolean;
  /** s */
  initialMin: number;
  initialMax: number;
  /** share of its pace while attacking: 0, slow or 1 */
  moving: number;
  turns: boolean;
  /** µs from the start of the wind-up */
  cue: number;
  /** Energy spent when the wind-up starts. */
  energy: number;
  /** 0: no charges */
  charges: number;
  recharge: number;
  breakStagger: boolean;
  /** a single hit of at least this breaks it off */
  breakHit: number;
  effects: CompiledEffects;
  everyHit: boolean;
  limit: number;
  friendly: boolean;
  accuracyNear: number;
  accuracyFar: number;
  weakShare: number;
  shotSpeed: number;
  shotRadius: number;
  shotLifetime: number;
  volley: number;
  volleySpread: number;
  lead: number;
  muzzles: { ahead: number; left: number }[];
  pierces: number;
  /** degrees per second */
  homing: number;
  areaAbout: Area['about'];
  areaRadius: number;
  areaCosine: number;
  areaDelay: number;
  /** One bit an answer that works against it, in the order of the model's list. */
  answers: number;
  /** Attack that follows; −1: none. */
  next: number;
  nextWindow: number;
  /** Slot pool; −1: none. */
  pool: number;
  takes: number;
  summonKind: number;
  summonCount: number;
  summonCap: number;
  summonAround: number;
  dash: CompiledDash | null;
}

/** A change of a counter; one that the encounter does not have: none. */
export interface CompiledCount {
  counter: number;
  sets: boolean;
  by: number;
}

export interface CompiledState {
  id: string;
  name: string;
  does: number;
  speed: number;
  near: number;
  far: number;
  /** approach: stops although the line is not clear */
  stopsAnyway: boolean;
  radius: number;
  patrol: { x: number; y: number; pause: number; turns: boolean; fx: number; fy: number }[];
  backAndForth: boolean;
  startAt: number;
  /** go to: a point */
  toPoint: number;
  /** follow: which friend */
  picks: CompiledTargeting | null;
  strikes: State['strikes'];
  /** wander: how; null: from place to place */
  roams: { min: number; max: number; stands: number; zone: number } | null;
  mayAttack: boolean;
  /** Attacks that may be begun; null: all. */
  only: boolean[] | null;
  onTheWay: State['onTheWay'];
  invulnerable: boolean;
  tweaks: FieldTweak[];
  raise: number;
  lower: number;
  refill: boolean;
  enterAttack: number;
  counts: CompiledCount[];
  /** `weight` −1: asked in its order; without a condition as well: otherwise. */
  leaves: { when: CompiledCondition | null; to: number; after: number; weight: number }[];
  /** s between two times that its ways out are asked; 0: at every step */
  decideMin: number;
  decideMax: number;
}

export interface CompiledCriterion {
  /** Place in CRITERIA_NAMES. */
  by: number;
  weight: number;
  /** type or role */
  of: number;
}

export interface CompiledTargeting {
  criteria: CompiledCriterion[];
  /** Nearest and nothing else. */
  nearestOnly: boolean;
  reconsider: number;
  commitment: number;
  /** By type: whether it may be a target; null: all may. */
  allowed: boolean[] | null;
  tracksHarm: boolean;
}

export interface CompiledAnswer {
  kind: number;
  window: number;
  distance: number;
  way: Answer['way'];
  protects: boolean;
  cooldown: number;
  reduces: number;
}

export interface CompiledPlayer {
  viewCosine: number;
  follows: number;
  /** s */
  reactionMean: number;
  reactionSpread: number;
  mistakes: number;
  answers: CompiledAnswer[];
  /** tangent of the aim error; 0: none */
  aimTangent: number;
  rounds: number;
  reload: number;
  /** By attack: whether it takes rounds. */
  takesRound: boolean[];
  doses: number;
  doseBelow: number;
  doseTakes: number;
  doseAmount: number;
  doseShare: number;
  coverBelow: number;
  coverStays: number;
  coverRadius: number;
  /** m; −1: as its state says */
  runsWithin: number;
  downs: boolean;
  bleedOut: number;
  rescueTakes: number;
  rescueReach: number;
  rescueHealth: number;
  lives: number;
  rescuesWithin: number;
  rescueSafe: number;
}

export interface CompiledUnit {
  id: string;
  name: string;
  type: number;
  role: number;
  radius: number;
  height: number;
  eye: number;
  muzzle: number;
  maxHealth: number;
  regen: number;
  regenDelay: number;
  regenTop: number;
  /** In order of falling share. */
  gates: { health: number; state: number; holds: boolean }[];
  shield: number;
  shieldRegen: number;
  shieldDelay: number;
  energy: number;
  energyStart: number;
  energyRegen: number;
  armour: number;
  minimumDamage: number;
  /** cosine of half the guarded arc; −1: all round */
  guardCosine: number;
  /** by damage type */
  resist: number[];
  weakMultiplier: number;
  weakLethal: boolean;
  weakExposed: WeakPoint['exposed'] | 'never';
  weakStates: boolean[];
  window: number;
  windowScope: InvulnerabilityWindow['scope'];
  /** hp; 0: is never staggered by damage */
  staggerAt: number;
  staggerWindow: number;
  staggerFor: number;
  staggerImmunity: number;
  steadiness: number;
  /** µs for which damage taken is remembered */
  remembers: number;
  walk: number;
  run: number;
  acceleration: number;
  turnRate: number;
  /** Cosine and sine of what it turns in one step; −1 and 0 from 180° on. */
  stepCosine: number;
  stepSine: number;
  /** Which set of ground it may be on: place in the encounter's ground classes. */
  ground: number;
  sight: number;
  sightCosine: number;
  lose: number;
  needsLine: boolean;
  memory: number;
  hearing: number;
  reactionMean: number;
  reactionSpread: number;
  lookEvery: number;
  buildUp: number;
  temper: Temper['manner'];
  alertRadius: number;
  /** m; 0: none */
  leash: number;
  leashHeals: boolean;
  leashIgnores: boolean;
  leashAnswers: boolean;
  leashGone: boolean;
  targeting: CompiledTargeting;
  pauseMin: number;
  pauseMax: number;
  attacks: CompiledAttack[];
  /** Attacks that strike whoever touches. */
  contacts: number[];
  choice: CompiledPriority[];
  states: CompiledState[];
  startsIn: number;
  deathAttack: number;
  worth: number;
  revivableFor: number;
  revivals: number;
  player: CompiledPlayer | null;
  /** How it takes its turns, where a fight is fought in rounds. */
  turns: CompiledTurns | null;
  /** Names of the traits that it comes with. */
  bears: string[];
  /** What it was made from, where a run may have to make it anew: a state's tweaks or a boost. */
  source: Unit | null;
  /** What its wave's growth has laid over that. */
  grown: readonly FieldTweak[];
}

/** How a unit takes its turns. */
export interface CompiledTurns {
  order: number;
  spread: number;
  /** attacks that it may begin in one turn */
  actions: number;
  /** cells */
  size: number;
  /** cost of the ground that it may go over in a turn */
  moves: number;
  moving: 'before' | 'after' | 'split';
  row: 'front' | 'back';
  /** What it does about hits, in the order in which it is tried. */
  reactions: CompiledReaction[];
  /** It knows only of whom it has noticed. */
  senses: boolean;
  /** Share of its turns in which it takes the best that it can reach; where it ends them. Null: nobody plays it. */
  plays: { best: number; ends: 'state' | 'careful' | 'forward' | 'still' } | null;
  /** By attack: cells that it goes at its target as it strikes. */
  lunges: number[];
  /** a turn */
  regen: number;
  shieldRegen: number;
  energyRegen: number;
}

/** Something a unit does about a hit, in nobody's turn. */
export interface CompiledReaction {
  does: 'dodge' | 'guard' | 'counter';
  /** a round */
  uses: number;
  /** guard: share of the damage that it takes off */
  reduces: number;
  /** counter: which attack */
  attack: number;
}

/** What a fight in rounds is fought by; a field of the tables that is null where it is fought in seconds. */
export interface CompiledRounds {
  order: 'bySide' | 'byOrder';
  /** The side whose turns come first, where they go by side. */
  first: number;
  /** When an order with a spread is drawn. */
  drawn: 'fight' | 'round';
  /** Without ground everyone is in reach of everyone. */
  board: CompiledBoard | null;
  /** A zone is entered by whoever comes over it; else by who ends its turn there. */
  zonesPassed: boolean;
  /** Without ground: who strikes by hand reaches the back row only where nobody stands in the front. */
  rows: boolean;
}

export interface CompiledBoard {
  tiling: Tiling;
  columns: number;
  rows: number;
  /** m: side of a cell */
  side: number;
  /** By class of ground: cells that nobody of it can be on. */
  blocked: boolean[][];
  /** What it costs to come onto each cell. */
  cost: number[];
  /** m: the middle of each. */
  x: number[];
  y: number[];
}

export interface CompiledPriority {
  condition: CompiledCondition | null;
  attacks: number[];
  weights: number[];
  conditions: (CompiledCondition | null)[];
  targetings: (CompiledTargeting | null)[];
  /** Entries that ask for nothing but readiness, range, line and facing to the unit's target. */
  plain: boolean[];
}

export interface CompiledWall {
  id: string;
  name: string;
  height: number;
  /** Corners counter-clockwise. */
  xs: number[];
  ys: number[];
  left: number;
  right: number;
  bottom: number;
  top: number;
}

/** A convex stretch without height. */
export interface CompiledShape {
  xs: number[];
  ys: number[];
}

export type GroundRules = Pick<Unit['movement'], 'only' | 'never'>;

export interface CompiledMember {
  kind: number;
  key: number;
  x: number;
  y: number;
  fx: number;
  fy: number;
}

export interface CompiledGroup {
  id: string;
  key: number;
  /** Whose side it comes on. */
  side: number;
  /** By coming: the party's seats that its units take, the first of them; −1: none. */
  seats: number[];
  /** By which of the shared traits a unit has (a bit each, in their order), then by coming of the wave and entry of the pool. */
  kinds: number[][][];
  /** How large a share has each trait. */
  shares: number[];
  weights: number[];
  draws: WaveGroup['draws'];
  budget: number;
  worths: number[];
  /** by coming */
  min: number[];
  max: number[];
  points: number[];
  rule: WaveGroup['rule'];
  leastDistance: number;
  outOfView: boolean;
  spacing: number;
  alerted: boolean;
  targetType: number;
  targetRole: number;
  leavesBeyond: number;
}

export interface CompiledWave {
  id: string;
  name: string;
  key: number;
  start: Wave['start'];
  at: number;
  after: number;
  share: number;
  when: CompiledCondition | null;
  /** µs; 0: none */
  timeout: number;
  delay: number;
  groups: CompiledGroup[];
  /** By side: whether it brings anybody of it. One that brings nobody is the enemies'. */
  brings: [boolean, boolean];
  times: number;
  /** Comes again so long after the last coming; 0: when a share of it is defeated. */
  every: number;
  /** µs before it comes again, once so much is defeated */
  pause: number;
  againShare: number;
  holdsBack: boolean;
  countsSummoned: boolean;
  countsRevived: boolean;
  optional: boolean;
}

export interface CompiledZone {
  id: string;
  shape: CompiledShape;
  middleX: number;
  middleY: number;
  flag: number;
  party: boolean;
  enemies: boolean;
  role: number;
}

export interface CompiledConsequence {
  does: Consequence['does'];
  of: number;
  /** By type, for "tweak": boosts laid over the living and those to come. */
  boosts: (CompiledBoost | null)[];
  counts: CompiledCount | null;
  score: number;
  outcome: number;
}

export interface Compiled {
  engine: number;
  /** null: in seconds */
  rounds: CompiledRounds | null;
  /** µs */
  step: number;
  limit: number;
  halfWidth: number;
  halfDepth: number;
  grid: number;
  walls: CompiledWall[];
  /** By class of unit: the kinds of ground it is confined to and kept from, and the areas closed to it. Class 0: none is. */
  groundRules: GroundRules[];
  closed: CompiledShape[][];
  zones: CompiledZone[];
  points: { id: string; x: number; y: number; scatter: number; fx: number; fy: number }[];
  /** What stands there: kind −1 where nothing does; on the enemies' side what is to be destroyed. */
  places: { id: string; x: number; y: number; kind: number; defended: boolean; enemies: boolean }[];
  names: Names;
  kinds: CompiledUnit[];
  /** The kind by which each type is known, plain where it comes so; −1 for a type that never comes. */
  kindOfType: number[];
  roleOfType: string[];
  party: CompiledMember[];
  /** Who is of the party: its members; where it has none, a place for each unit that groups of its side may bring. */
  seats: { kind: number }[];
  allies: CompiledMember[];
  waves: CompiledWave[];
  events: { id: string; name: string; when: CompiledCondition; then: CompiledConsequence[] }[];
  /** What each counter starts at, and is called. */
  counters: number[];
  counterNames: string[];
  pools: { id: string; size: number; perTarget: boolean; gap: number }[];
  aliveMost: number;
  /** by type */
  aliveMostOfType: number[];
  whenFull: AliveCap['full'];
  winsCleared: boolean;
  winsSurvive: boolean;
  /** The enemies have things standing, with the last of which it is won. */
  winsDestroyed: boolean;
  /** Most units there can ever be. */
  capacity: number;
  /** Most attacks of any kind. */
  attackRoom: number;
  /** Something may change units while they fight: their rows say what they were made from. */
  keepSource: boolean;
  /** Whether anybody answers attacks. */
  hasPlayers: boolean;
}
