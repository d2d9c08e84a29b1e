/** What a run reads of a unit: its attacks, states, conditions and whom it picks, with effective values and whole microseconds. */
import type { Area, Attack, Dash } from '../model/attack';
import type { Delivery, DeliveryTraits } from '../model/delivery';
import type { CompiledEffects } from '../model/effects/list';
import type { Answer } from '../model/player';
import type { State } from '../model/state';
import type { FieldTweak } from '../model/tweak';
import type { InvulnerabilityWindow, Temper, Unit, WeakPoint } from '../model/unit';
import type { CompiledTurns } from './rounds/tables';

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
  /** type, role, or name of an attack */
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
  /** Names of its attacks. */
  carries: number[];
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

export interface CompiledPriority {
  condition: CompiledCondition | null;
  attacks: number[];
  weights: number[];
  conditions: (CompiledCondition | null)[];
  targetings: (CompiledTargeting | null)[];
  /** Entries that ask for nothing but readiness, range, line and facing to the unit's target. */
  plain: boolean[];
}
