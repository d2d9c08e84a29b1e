/**
 * From a document, an encounter and a lens to the tables that a run reads: effective values, whole microseconds, ids
 * turned into numbers. Compile once, run many. The result is plain data and may be sent to a worker.
 */
import type { Attack } from '../model/attack';
import { type Lens, effectiveEncounter, effectiveUnit } from '../model/effective';
import type { Arena, Encounter } from '../model/encounter';
import type { Project } from '../model/project';
import { CONDITION_SUBJECTS, DOES, type State } from '../model/state';
import type { Unit } from '../model/unit';
import { childKey, textKey } from './chance';
import { cosine, sine } from './rotation';
import { microseconds } from './time';
import { APPROACH_SHARE, DEFAULT_STEP_SECONDS, ENGINE_VERSION, SLOW_ATTACK_SHARE } from './tuning';

export const PARTY = 0;
export const ENEMY = 1;
export const MELEE = 0;
export const HITSCAN = 1;
export const PROJECTILE = 2;

export interface CompiledAttack {
  id: string;
  name: string;
  delivery: number;
  rangeMin: number;
  rangeMax: number;
  /** cosine of the facing tolerance; −1: any */
  facingCosine: number;
  /** cosine of half the arc; −1: all round */
  arcCosine: number;
  windup: number;
  active: number;
  /** µs between hits; 0: one hit */
  every: number;
  /** hits in one use */
  hits: number;
  recovery: number;
  cooldown: number;
  cooldownFromEnd: boolean;
  initialMin: number;
  initialMax: number;
  /** share of its pace while attacking: 0, slow or 1 */
  moving: number;
  turns: boolean;
  amount: number;
  spread: number;
  critChance: number;
  critMultiplier: number;
  everyHit: boolean;
  limit: number;
  accuracyNear: number;
  accuracyFar: number;
  shotSpeed: number;
  shotRadius: number;
  shotLifetime: number;
  volley: number;
  volleySpread: number;
  lead: number;
  /** Energy spent when the wind-up starts. */
  energy: number;
  /** Damage over time: of one tick, µs between ticks, µs it lasts; no ticks: none. */
  tickAmount: number;
  tickEvery: number;
  tickFor: number;
  /** 0 refresh, 1 stack, 2 ignore */
  tickStacking: number;
}

export interface CompiledState {
  id: string;
  name: string;
  does: number;
  speed: number;
  near: number;
  far: number;
  mayAttack: boolean;
  leaves: { subject: number; above: boolean; value: number; to: number; after: number }[];
}

export interface CompiledUnit {
  id: string;
  name: string;
  radius: number;
  maxHealth: number;
  regen: number;
  regenDelay: number;
  regenTop: number;
  shield: number;
  shieldRegen: number;
  shieldDelay: number;
  energy: number;
  energyStart: number;
  energyRegen: number;
  armour: number;
  minimumDamage: number;
  window: number;
  /** 0 any hit, 1 same attacker, 2 same attack of the same attacker */
  windowScope: number;
  acceleration: number;
  turnRate: number;
  /** Cosine and sine of what it turns in one step; −1 and 0 from 180° on. */
  stepCosine: number;
  stepSine: number;
  sight: number;
  sightCosine: number;
  lose: number;
  memory: number;
  reactionMean: number;
  reactionSpread: number;
  lookEvery: number;
  reconsider: number;
  commitment: number;
  pauseMin: number;
  pauseMax: number;
  attacks: CompiledAttack[];
  /** Indices into attacks and their weights, priority by priority. */
  choice: { attacks: number[]; weights: number[] }[];
  states: CompiledState[];
  startsIn: number;
}

export interface Compiled {
  engine: number;
  /** µs */
  step: number;
  limit: number;
  halfWidth: number;
  halfDepth: number;
  points: { id: string; x: number; y: number; scatter: number; fx: number; fy: number }[];
  kinds: CompiledUnit[];
  party: { kind: number; key: number; x: number; y: number; fx: number; fy: number }[];
  waves: { id: string; delay: number; key: number; groups: CompiledGroup[] }[];
  /** Most units there can ever be. */
  capacity: number;
  /** Most attacks and of any kind. */
  attackRoom: number;
}

export interface CompiledGroup {
  id: string;
  kind: number;
  key: number;
  min: number;
  max: number;
  points: number[];
  spacing: number;
  alerted: boolean;
}

export interface CompileOptions extends Lens {
  /** An encounter of the project, or one made for the occasion (a duel). */
  encounter: string | Encounter;
  /** The arena of an encounter made for the occasion. */
  arena?: Arena;
  /** s; movement, senses and transitions advance this often */
  stepSeconds?: number;
}

/** @throws Error when the project has no such encounter, tier or skill */
export function compile(project: Project, options: CompileOptions): Compiled {
  const wanted = typeof options.encounter === 'string' ? project.encounters.find(({ id }) => id === options.encounter) : options.encounter;
  if (!wanted) throw new Error(`there is no encounter "${String(options.encounter)}" in ${project.name}`);
  mustExist(project.tiers, options.tier, 'tier', project.name);
  mustExist(project.skills, options.skill, 'skill', project.name);
  const encounter = effectiveEncounter(project, wanted, options).unit;
  const arena = options.arena ?? project.arenas.find(({ id }) => id === encounter.arena);
  if (!arena) throw new Error(`there is no arena "${encounter.arena}" in ${project.name}`);
  const stepSeconds = options.stepSeconds ?? DEFAULT_STEP_SECONDS;
  if (!(stepSeconds >= 0.001 && stepSeconds <= 1)) throw new Error(`step must be between 0.001 and 1 s: it is ${stepSeconds}`);

  const kinds: CompiledUnit[] = [];
  const numbers = new Map<string, number>();
  const kindOf = (id: string): number => {
    const known = numbers.get(id);
    if (known !== undefined) return known;
    numbers.set(id, kinds.length);
    return kinds.push(compileUnit(effectiveUnit(project, id, options).unit, stepSeconds)) - 1;
  };

  const partyKey = textKey(1, 'party');
  const facing = { fx: cosine(arena.partyStart.facing), fy: sine(arena.partyStart.facing) };
  const members = encounter.party.map((member) => ({ kind: kindOf(member.unit), key: textKey(partyKey, member.id) }));
  const party = lineUp(members, kinds, arena.partyStart.x, arena.partyStart.y, facing);

  const pointNumber = new Map(arena.spawnPoints.map(({ id }, i) => [id, i]));
  const waves = encounter.waves.map((wave) => {
    const key = textKey(2, wave.id);
    const groups = wave.groups.map((group) => ({
      id: group.id,
      kind: kindOf(group.enemy),
      key: textKey(key, group.id),
      min: group.count.min,
      max: Math.max(group.count.min, group.count.max),
      points: group.at.map((id) => pointNumber.get(id) as number),
      spacing: microseconds(group.spacing),
      alerted: group.alerted,
    }));
    return { id: wave.id, delay: microseconds(wave.delay), key, groups };
  });

  return {
    engine: ENGINE_VERSION,
    step: microseconds(stepSeconds),
    limit: microseconds(encounter.limit),
    halfWidth: arena.width / 2,
    halfDepth: arena.depth / 2,
    points: arena.spawnPoints.map(({ id, x, y, scatter, facing: f }) => ({ id, x, y, scatter, fx: cosine(f), fy: sine(f) })),
    kinds,
    party,
    waves,
    capacity: party.length + waves.reduce((sum, wave) => sum + wave.groups.reduce((n, { max }) => n + max, 0), 0),
    attackRoom: kinds.reduce((most, { attacks }) => Math.max(most, attacks.length), 1),
  };
}

function mustExist(list: { id: string }[], id: string | undefined, what: string, project: string): void {
  if (id !== undefined && !list.some((item) => item.id === id)) throw new Error(`there is no ${what} "${id}" in ${project}`);
}

/** Side by side across the way they face, half a metre between edges. */
function lineUp(
  members: { kind: number; key: number }[],
  kinds: CompiledUnit[],
  x: number,
  y: number,
  facing: { fx: number; fy: number },
): Compiled['party'] {
  const width = members.reduce((sum, { kind }) => sum + 2 * kinds[kind].radius, 0) + (members.length - 1) * 0.5;
  let offset = -width / 2;
  return members.map(({ kind, key }) => {
    const centre = members.length === 1 ? 0 : offset + kinds[kind].radius;
    offset += 2 * kinds[kind].radius + 0.5;
    return { kind, key, x: x - facing.fy * centre, y: y + facing.fx * centre, ...facing };
  });
}

function compileUnit(unit: Unit, stepSeconds: number): CompiledUnit {
  const turned = unit.movement.turnRate * stepSeconds;
  const attacks = unit.attacks.map(compileAttack);
  const attackNumber = new Map(unit.attacks.map(({ id }, i) => [id, i]));
  const choice = unit.choice.priorities.map(({ entries }) => ({
    attacks: entries.map(({ attack }) => attackNumber.get(attack) as number),
    weights: entries.map(({ weight }) => weight),
  }));
  const stateNumber = new Map(unit.states.map(({ id }, i) => [id, i]));
  const chosen = new Set(choice.flatMap((priority) => priority.attacks));
  const longest = attacks.reduce((most, { rangeMax }, i) => (chosen.has(i) ? Math.max(most, rangeMax) : most), 0);
  const states = unit.states.map((state) => compileState(state, unit, longest, stateNumber));
  if (!states.length) states.push({ id: '', name: 'hold', does: 0, speed: 0, near: 0, far: 0, mayAttack: true, leaves: [] });
  const {
    health,
    senses,
    targeting,
    choice: { pause },
  } = unit;
  return {
    id: unit.id,
    name: unit.name,
    radius: unit.body.radius,
    maxHealth: health.max,
    regen: health.regen,
    regenDelay: microseconds(health.regenDelay),
    regenTop: health.max * health.regenUpTo,
    shield: unit.shield?.max ?? 0,
    shieldRegen: unit.shield?.regen ?? 0,
    shieldDelay: microseconds(unit.shield?.regenDelay ?? 0),
    energy: unit.energy?.max ?? 0,
    energyStart: Math.min(unit.energy?.start ?? 0, unit.energy?.max ?? 0),
    energyRegen: unit.energy?.regen ?? 0,
    armour: unit.armour.flat,
    minimumDamage: unit.armour.minimumDamage,
    window: microseconds(unit.invulnerability.duration),
    windowScope: ['any', 'attacker', 'attack'].indexOf(unit.invulnerability.scope),
    acceleration: unit.movement.acceleration,
    turnRate: unit.movement.turnRate,
    stepCosine: turned >= 180 ? -1 : cosine(turned),
    stepSine: turned >= 180 ? 0 : sine(turned),
    sight: senses.sight,
    sightCosine: senses.angle >= 360 ? -1 : cosine(senses.angle / 2),
    lose: senses.lose,
    memory: microseconds(senses.memory),
    reactionMean: senses.reaction.mean,
    reactionSpread: senses.reaction.spread,
    lookEvery: microseconds(senses.interval),
    reconsider: microseconds(targeting.reconsider),
    commitment: targeting.commitment,
    pauseMin: pause.min,
    pauseMax: pause.max,
    attacks,
    choice,
    states,
    startsIn: unit.startsIn === undefined ? 0 : (stateNumber.get(unit.startsIn) as number),
  };
}

/** Hits of one use: at i × every while less than `active` has passed; one when nothing is said. */
export function hitsInActive(active: number, every: number): number {
  return every > 0 && active > 0 ? Math.ceil(active / every) : 1;
}

function compileAttack(attack: Attack): CompiledAttack {
  const { beat, range, effects, hits, projectile, aim } = attack;
  const active = microseconds(beat.active);
  const every = beat.every === undefined ? 0 : Math.max(1, microseconds(beat.every));
  return {
    id: attack.id,
    name: attack.name,
    delivery: attack.delivery === 'melee' ? MELEE : attack.delivery === 'hitscan' ? HITSCAN : PROJECTILE,
    rangeMin: Math.min(range.min, range.max),
    rangeMax: range.max,
    facingCosine: attack.facing >= 180 ? -1 : cosine(attack.facing),
    arcCosine: attack.arc >= 360 ? -1 : cosine(attack.arc / 2),
    windup: microseconds(beat.windup),
    active,
    every,
    hits: hitsInActive(active, every),
    recovery: microseconds(beat.recovery),
    cooldown: microseconds(beat.cooldown),
    cooldownFromEnd: beat.cooldownFrom === 'end',
    initialMin: beat.initialDelay.min,
    initialMax: beat.initialDelay.max,
    moving: beat.moving === 'no' ? 0 : beat.moving === 'slow' ? SLOW_ATTACK_SHARE : 1,
    turns: beat.tracking === 'turns',
    amount: effects.damage?.amount ?? 0,
    spread: effects.damage?.spread ?? 0,
    critChance: effects.damage?.critChance ?? 0,
    critMultiplier: effects.damage?.critMultiplier ?? 1,
    everyHit: hits.perTarget === 'every',
    limit: hits.limit,
    accuracyNear: aim.near,
    accuracyFar: aim.far,
    shotSpeed: projectile?.speed ?? 0,
    shotRadius: projectile?.radius ?? 0,
    shotLifetime: projectile ? microseconds(projectile.lifetime ?? range.max / projectile.speed) : 0,
    volley: projectile?.count ?? 0,
    volleySpread: projectile?.spread ?? 0,
    lead: projectile?.lead ?? 0,
    energy: attack.energy ?? 0,
    tickAmount: effects.overTime?.amount ?? 0,
    tickEvery: microseconds(effects.overTime?.every ?? 0),
    tickFor: microseconds(effects.overTime?.for ?? 0),
    tickStacking: ['refresh', 'stack', 'ignore'].indexOf(effects.overTime?.stacking ?? 'refresh'),
  };
}

function compileState(state: State, unit: Unit, longest: number, stateNumber: Map<string, number>): CompiledState {
  const speed = (state.pace === 'walk' ? unit.movement.walk : unit.movement.run) * state.paceFactor;
  const stop = state.stopAt ?? APPROACH_SHARE * longest;
  const approach = state.does === 'approach';
  return {
    id: state.id,
    name: state.name,
    does: DOES.indexOf(state.does),
    speed,
    near: approach ? 0 : (state.near ?? 0),
    far: approach ? stop : (state.far ?? 0),
    mayAttack: state.attacks === 'all',
    leaves: state.leaves.map(({ when, to, after }) => ({
      subject: CONDITION_SUBJECTS.indexOf(when.subject),
      above: when.is === 'above',
      value: when.value,
      to: stateNumber.get(to) as number,
      after: microseconds(after),
    })),
  };
}

/** The key of the n-th unit of a group. */
export function unitKey(group: CompiledGroup, ordinal: number): number {
  return childKey(group.key, ordinal);
}
