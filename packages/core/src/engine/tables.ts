/** What a run reads of an encounter: effective values, whole microseconds, ids turned into numbers. Plain data, made once by `compile`. */
import type { CompiledBoost } from '../model/effects/effect';
import type { AliveCap, Consequence, Wave, WaveGroup } from '../model/encounter';
import type { Unit } from '../model/unit';
import type { CompiledRounds } from './rounds/tables';
import type { CompiledCondition, CompiledCount, CompiledUnit } from './unit-tables';

/** What names and ids became: each number is a place in one of these lists. */
export interface Names {
  flags: string[];
  counters: string[];
  waves: string[];
  pools: string[];
  /** Ids of units; points that stand are types too. */
  types: string[];
  roles: string[];
  /** That targets are picked by. */
  attackNames: string[];
  damageTypes: string[];
  points: string[];
  zones: string[];
  /** Ids of boosts: "unit/attack", and "event/n" for what an encounter's event changes. */
  boosts: string[];
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
  /** Whether anybody leaves who has strayed too far. */
  hasStrayers: boolean;
}
