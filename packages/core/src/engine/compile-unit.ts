/** One unit of the document, effective values and all, to the row that a run reads. */
import { hitInstants } from './hit-instants';
import { ANSWER_KINDS } from '../model/answer-kind';
import type { Attack, Dash } from '../model/attack';
import type { CounterChange } from '../model/counter';
import { type Delivery, traitsOf } from '../model/delivery';
import { compileEffects } from '../model/effects/list';
import { unitInRounds } from '../model/in-rounds';
import type { Player } from '../model/player';
import { DOES_NAMES, type State } from '../model/state';
import { CRITERIA_NAMES, type Targeting } from '../model/targeting';
import type { Unit } from '../model/unit';
import { microseconds, SECOND } from '../record/time';
import { cosine, sine } from './body/rotation';
import { compileCondition, type ConditionScope, numberIn } from './compile-condition';
import { compileTurns } from './compile-rounds';
import type { Compiled, GroundRules, Names } from './tables';
import type {
  CompiledAttack,
  CompiledCount,
  CompiledDash,
  CompiledPlayer,
  CompiledPriority,
  CompiledState,
  CompiledTargeting,
  CompiledTraits,
  CompiledUnit,
} from './unit-tables';
import { APPROACH_SHARE, SLOW_ATTACK_SHARE } from './tuning';

/** What compiling a unit needs to know of its encounter. */
export interface UnitContext extends Pick<Compiled, 'names' | 'step' | 'roleOfType' | 'groundRules' | 'keepSource'> {
  /** It fights in turns. */
  turns: boolean;
  /** Everyone is in reach of everyone. */
  groundless: boolean;
  /** The kind of a unit that is summoned. */
  kindOf: (id: string) => number;
}

/** The same once everything is compiled: for a row that a run makes anew. */
export function contextIn({ names, step, roleOfType, groundRules, keepSource, kindOfType, rounds }: Compiled): UnitContext {
  return {
    turns: rounds !== null,
    groundless: rounds !== null && rounds.board === null,
    names,
    step,
    roleOfType,
    groundRules,
    keepSource,
    kindOf: (id) => kindOfType[names.types.indexOf(id)],
  };
}

export function compileUnit(given: Unit, context: UnitContext): CompiledUnit {
  const { names } = context;
  const { rounds } = given;
  const unit = context.turns && rounds ? unitInRounds(given) : given;
  const turned = (unit.movement.turnRate * context.step) / SECOND;
  const scope: ConditionScope = { names, attacks: unit.attacks.map(({ id }) => id), nodes: { count: 0 } };
  const attacks = unit.attacks.map((attack) => compileAttack(attack, unit, scope, context));
  const choice = compileChoice(unit, attacks, scope, context);
  const chosen = new Set(choice.flatMap((priority) => priority.attacks));
  const longest = attacks.reduce((most, { rangeMax }, i) => (chosen.has(i) ? Math.max(most, rangeMax) : most), 0);
  const states = unit.states.map((state) => compileState(state, unit, longest, scope, context));
  if (!states.length) states.push(context.turns && rounds ? { ...HOLDS, speed: rounds.moves } : HOLDS);
  const stateNumber = (id: string) => unit.states.findIndex((state) => state.id === id);
  const { health, senses, temper, leash, weakPoint, stagger, onDeath } = unit;
  return {
    id: unit.id,
    name: unit.name,
    type: numberIn(names.types, unit.id),
    role: numberIn(names.roles, unit.role),
    carries: unit.attacks.map(({ name }) => numberIn(names.attackNames, name)),
    radius: unit.body.radius,
    height: unit.body.height,
    eye: unit.body.eyeHeight,
    muzzle: unit.body.muzzleHeight,
    maxHealth: health.max,
    regen: health.regen,
    regenDelay: microseconds(health.regenDelay),
    regenTop: health.max * health.regenUpTo,
    gates: health.gates
      .map(({ share, state, holds }) => ({ health: share * health.max, state: stateNumber(state), holds }))
      .sort((a, b) => b.health - a.health),
    shield: unit.shield?.max ?? 0,
    shieldRegen: unit.shield?.regen ?? 0,
    shieldDelay: microseconds(unit.shield?.regenDelay ?? 0),
    energy: unit.energy?.max ?? 0,
    energyStart: Math.min(unit.energy?.start ?? 0, unit.energy?.max ?? 0),
    energyRegen: unit.energy?.regen ?? 0,
    armour: unit.armour.flat,
    minimumDamage: unit.armour.minimumDamage,
    guardCosine: halfCosine(unit.armour.arc ?? 360),
    resist: resistances(unit, names),
    weakMultiplier: weakPoint?.multiplier ?? 1,
    weakLethal: weakPoint?.lethal ?? false,
    weakExposed: weakPoint?.exposed ?? 'never',
    weakStates: states.map(({ id }) => weakPoint?.states.includes(id) ?? false),
    window: microseconds(unit.invulnerability.duration),
    windowScope: unit.invulnerability.scope,
    staggerAt: stagger?.threshold ?? 0,
    staggerWindow: microseconds(stagger?.window ?? 0),
    staggerFor: microseconds(stagger?.duration ?? 0),
    staggerImmunity: microseconds(stagger?.immunity ?? 0),
    steadiness: unit.knockback.resist,
    remembers: Math.max(microseconds(stagger?.window ?? 0), longestMemory(unit)),
    walk: unit.movement.walk,
    run: unit.movement.run,
    acceleration: unit.movement.acceleration,
    turnRate: unit.movement.turnRate,
    stepCosine: turned >= 180 ? -1 : cosine(turned),
    stepSine: turned >= 180 ? 0 : sine(turned),
    ground: groundClass(context.groundRules, unit.movement),
    sight: senses.sight,
    sightCosine: halfCosine(senses.angle),
    lose: senses.lose,
    needsLine: senses.needsLine,
    memory: microseconds(senses.memory),
    hearing: senses.hearing,
    reactionMean: senses.reaction.mean,
    reactionSpread: senses.reaction.spread,
    lookEvery: microseconds(senses.interval),
    buildUp: microseconds(senses.buildUp),
    temper: temper.manner,
    alertRadius: temper.alertRadius,
    leash: leash?.radius ?? 0,
    leashHeals: leash?.heals ?? false,
    leashIgnores: leash?.ignoresDamage ?? false,
    leashAnswers: leash?.answersAttack ?? false,
    leashGone: leash?.gone ?? false,
    targeting: compileTargeting(unit.targeting, context),
    pauseMin: unit.choice.pause.min,
    pauseMax: unit.choice.pause.max,
    attacks,
    contacts: context.turns ? [] : attacks.flatMap(({ traits }, i) => (traits.chosen ? [] : [i])),
    choice,
    states,
    startsIn: unit.startsIn === undefined ? 0 : stateNumber(unit.startsIn),
    deathAttack: onDeath.attack === undefined ? -1 : unit.attacks.findIndex(({ id }) => id === onDeath.attack),
    worth: onDeath.worth,
    revivableFor: microseconds(onDeath.revivableFor),
    revivals: onDeath.revivals,
    player: unit.player ? compilePlayer(unit.player, unit) : null,
    turns: context.turns && rounds ? compileTurns(rounds, given.attacks) : null,
    bears: [],
    source: context.keepSource ? given : null,
    grown: [],
  };
}

/** The class of ground that a unit belongs to: units that may go to the same places share one. A class not met yet is added. */
function groundClass(rules: GroundRules[], { only, never }: GroundRules): number {
  const same = (a: readonly string[], b: readonly string[]) => a.length === b.length && a.every((kind, i) => kind === b[i]);
  const known = rules.findIndex((one) => same(one.only, only) && same(one.never, never));
  return known >= 0 ? known : rules.push({ only, never }) - 1;
}

const HOLDS: CompiledState = {
  id: '',
  name: 'hold',
  does: 0,
  speed: 0,
  near: 0,
  far: 0,
  stopsAnyway: true,
  radius: 0,
  patrol: [],
  backAndForth: false,
  startAt: 0,
  toPoint: -1,
  picks: null,
  strikes: 'no',
  roams: null,
  mayAttack: true,
  only: null,
  onTheWay: 'engage',
  invulnerable: false,
  tweaks: [],
  raise: -1,
  lower: -1,
  refill: false,
  enterAttack: -1,
  counts: [],
  leaves: [],
  decideMin: 0,
  decideMax: 0,
};

function halfCosine(degrees: number): number {
  return degrees >= 360 ? -1 : cosine(degrees / 2);
}

function resistances({ armour: { resist }, attacks }: Unit, names: Names): number[] {
  // Types are numbered as they are met; a type nobody resists is nobody's business.
  for (const { effects } of attacks)
    for (const type of [effects.damage?.type, effects.overTime?.type]) if (type) numberIn(names.damageTypes, type);
  const shares: number[] = [];
  for (const { id, share } of resist) {
    const type = numberIn(names.damageTypes, id);
    while (shares.length <= type) shares.push(0);
    shares[type] = share;
  }
  return shares;
}

/** µs for which the unit's conditions ask back for damage. */
function longestMemory(unit: Unit): number {
  let longest = 0;
  const look = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return;
    const { subject, within } = value as { subject?: string; within?: number };
    if (subject === 'damageTaken' && within !== undefined) longest = Math.max(longest, microseconds(within));
    Object.values(value).forEach(look);
  };
  look([unit.states.map(({ leaves }) => leaves), unit.choice, unit.attacks.map(({ condition }) => condition)]);
  return longest;
}

function compileChoice(unit: Unit, attacks: CompiledAttack[], scope: ConditionScope, context: UnitContext): CompiledPriority[] {
  const limited = unit.states.some(({ attacks: allowed }) => allowed === 'some');
  const asksLittle = (number: number) => {
    const { targets, traits, charges, energy, condition, pool, id } = attacks[number];
    const fed = unit.player?.magazine?.attacks.includes(id) ?? false;
    return targets === 'foes' && traits.strikes && charges === 0 && energy === 0 && condition === null && pool < 0 && !fed && !limited;
  };
  return unit.choice.priorities.map(({ condition, entries }) => {
    const numbers = entries.map(({ attack }) => scope.attacks.indexOf(attack));
    return {
      condition: condition ? compileCondition(condition, scope) : null,
      attacks: numbers,
      weights: entries.map(({ weight }) => weight),
      conditions: entries.map((entry) => (entry.condition ? compileCondition(entry.condition, scope) : null)),
      targetings: entries.map((entry) => (entry.targeting ? compileTargeting(entry.targeting, context) : null)),
      plain: entries.map((entry, e) => !entry.condition && !entry.targeting && asksLittle(numbers[e])),
    };
  });
}

/** Where what a criterion speaks of is numbered; a unit elsewhere. */
const NAMED_BY: Partial<Record<Targeting['criteria'][number]['by'], 'roles' | 'attackNames'>> = { role: 'roles', carries: 'attackNames' };

function compileTargeting(targeting: Targeting, { names, roleOfType }: UnitContext): CompiledTargeting {
  const criteria = targeting.criteria.map(({ by, weight, of }) => ({
    by: CRITERIA_NAMES.indexOf(by),
    weight,
    of: of === undefined ? -1 : numberIn(names[NAMED_BY[by] ?? 'types'], of),
  }));
  const { only, never } = targeting;
  const speaksOf = (filter: { roles: string[]; units: string[] }, type: string) =>
    filter.units.includes(type) || filter.roles.includes(roleOfType[names.types.indexOf(type)] ?? '');
  const filtered = Boolean((only && only.roles.length + only.units.length) || (never && never.roles.length + never.units.length));
  const may = (type: string) =>
    !(only && only.roles.length + only.units.length && !speaksOf(only, type)) && !(never && speaksOf(never, type));
  return {
    criteria,
    nearestOnly: criteria.every(({ by }) => CRITERIA_NAMES[by] === 'nearest'),
    reconsider: microseconds(targeting.reconsider),
    commitment: targeting.commitment,
    allowed: filtered ? names.types.map(may) : null,
    tracksHarm: criteria.some(({ by }) => CRITERIA_NAMES[by] === 'mostDamageToMe'),
  };
}

/** What an encounter has no counter for is nothing. */
export function compileCounts(counts: readonly CounterChange[], names: Names): CompiledCount[] {
  return counts.flatMap(({ counter, how, by }) => {
    const number = names.counters.indexOf(counter);
    return number < 0 ? [] : [{ counter: number, sets: how === 'set', by }];
  });
}

/** Which friend a follower follows: of those it names, or any; the nearest, where no criteria are given. */
function compilePicks({ to, picks }: State, context: UnitContext): CompiledTargeting {
  const { names, roleOfType } = context;
  const nearest = { criteria: [], reconsider: 0, commitment: 0 };
  const compiled = compileTargeting(picks ?? nearest, context);
  if (to === undefined) return compiled;
  const { allowed } = compiled;
  return { ...compiled, allowed: names.types.map((type, t) => (allowed?.[t] ?? true) && (type === to || roleOfType[t] === to)) };
}

function compileAttack(
  attack: Attack,
  unit: Unit,
  scope: ConditionScope,
  { names, kindOf, turns, groundless }: UnitContext,
): CompiledAttack {
  const rounds = turns ? attack.rounds : undefined;
  const { beat, range, effects, hits, projectile, aim, area, summon } = attack;
  const active = microseconds(beat.active);
  const every = beat.every === undefined ? 0 : Math.max(1, microseconds(beat.every));
  return {
    id: attack.id,
    name: attack.name,
    delivery: attack.delivery,
    traits: plainTraits(attack.delivery),
    targets: attack.targets,
    rangeMin: groundless ? 0 : Math.min(range.min, range.max),
    // Without ground whoever strikes by hand does not reach behind a front row.
    rangeMax: groundless ? (attack.delivery === 'melee' ? 0 : 1) : range.max,
    needsLine: attack.needsLine,
    facingCosine: attack.facing >= 180 ? -1 : cosine(attack.facing),
    arcCosine: halfCosine(attack.arc),
    condition: attack.condition ? compileCondition(attack.condition, scope) : null,
    windup: microseconds(beat.windup),
    active,
    every,
    hits: rounds ? rounds.hits : hitInstants(attack),
    recovery: microseconds(beat.recovery),
    cooldown: microseconds(beat.cooldown),
    cooldownFromEnd: beat.cooldownFrom === 'end',
    initialMin: beat.initialDelay.min,
    initialMax: beat.initialDelay.max,
    moving: beat.moving === 'no' ? 0 : beat.moving === 'slow' ? SLOW_ATTACK_SHARE : 1,
    turns: beat.tracking === 'turns',
    cue: Math.min(microseconds(beat.cue ?? 0), microseconds(beat.windup)),
    energy: attack.energy ?? 0,
    charges: attack.charges?.count ?? 0,
    recharge: microseconds(attack.charges?.reload ?? 0),
    breakStagger: attack.interruptible.stagger,
    breakHit: attack.interruptible.hit ?? Infinity,
    effects: compileEffects(effects, {
      time: microseconds,
      damageType: (name) => (name ? numberIn(names.damageTypes, name) : -1),
      boost: () => numberIn(names.boosts, `${unit.id}/${attack.id}`),
    }),
    everyHit: hits.perTarget === 'every',
    limit: hits.limit ?? (traitsOf(attack.delivery).many ? Infinity : 1),
    friendly: hits.friendlyFire,
    accuracyNear: aim.near,
    accuracyFar: aim.far,
    weakShare: aim.weakPointShare,
    shotSpeed: projectile?.speed ?? 0,
    shotRadius: projectile?.radius ?? 0,
    shotLifetime: projectile ? microseconds(projectile.lifetime ?? range.max / projectile.speed) : 0,
    volley: projectile?.count ?? 0,
    volleySpread: projectile?.spread ?? 0,
    lead: projectile?.lead ?? 0,
    muzzles: (projectile?.muzzles ?? []).map(({ ahead, left }) => ({ ahead, left })),
    pierces: projectile?.pierces ?? 0,
    homing: projectile?.homing ?? 0,
    areaAbout: area?.about ?? 'self',
    areaRadius: area?.radius ?? 0,
    areaCosine: halfCosine(area?.angle ?? 360),
    areaDelay: microseconds(area?.delay ?? 0),
    answers: ANSWER_KINDS.reduce((bits, answer, i) => (attack.answers.includes(answer) ? bits | (1 << i) : bits), 0),
    next: attack.next ? scope.attacks.indexOf(attack.next.attack) : -1,
    nextWindow: microseconds(attack.next?.window ?? 0),
    pool: attack.slot ? names.pools.indexOf(attack.slot.pool) : -1,
    takes: attack.slot?.takes ?? 0,
    summonKind: summon ? kindOf(summon.unit) : -1,
    summonCount: summon?.count ?? 0,
    summonCap: summon?.cap ?? 0,
    summonAround: summon?.around ?? 0,
    dash: attack.dash ? compileDash(attack.dash, attack) : null,
  };
}

function compileDash({ during, after, reels, ...dash }: Dash, { beat }: Attack): CompiledDash {
  return { ...dash, start: microseconds(during === 'windup' ? after : beat.windup + after), reels: microseconds(reels) };
}

function plainTraits(delivery: Delivery): CompiledTraits {
  const { strikes, aids, needsTarget, chosen, alongLine, wide, many, forOne, escape } = traitsOf(delivery);
  return { strikes, aids, needsTarget, chosen, alongLine, wide, many, forOne, escape };
}

function compileState(state: State, unit: Unit, longest: number, scope: ConditionScope, context: UnitContext): CompiledState {
  const { names } = scope;
  const speed = (state.pace === 'walk' ? unit.movement.walk : unit.movement.run) * state.paceFactor;
  const approach = state.does === 'approach';
  const goes = ['patrol', 'home', 'goTo', 'wander', 'search'].includes(state.does);
  const to = state.to ?? '';
  return {
    id: state.id,
    name: state.name,
    does: DOES_NAMES.indexOf(state.does),
    speed,
    near: approach ? 0 : (state.near ?? 0),
    far: approach || goes ? (state.stopAt ?? (context.turns ? 1 : APPROACH_SHARE) * longest) : (state.far ?? unit.body.radius * 4),
    stopsAnyway: state.stopAt !== undefined,
    radius: state.radius ?? unit.body.radius * 8,
    patrol: (state.patrol?.points ?? []).map(({ x, y, pause, facing }) => ({
      x,
      y,
      pause: microseconds(pause),
      turns: facing !== undefined,
      fx: cosine(facing ?? 0),
      fy: sine(facing ?? 0),
    })),
    backAndForth: state.patrol?.order === 'backAndForth',
    startAt: state.patrol?.startAt ?? 0,
    toPoint: names.points.indexOf(to),
    strikes: state.does === 'goTo' ? state.strikes : 'no',
    picks: state.does === 'follow' ? compilePicks(state, context) : null,
    roams: state.does === 'wander' && state.roams ? { ...state.roams, zone: names.zones.indexOf(state.roams.zone ?? '') } : null,
    mayAttack: state.attacks !== 'none' && !(goes && state.onTheWay === 'ignore' && !(state.does === 'goTo' && state.strikes !== 'no')),
    only: state.attacks === 'some' ? unit.attacks.map(({ id }) => state.only?.includes(id) ?? false) : null,
    onTheWay: state.onTheWay,
    invulnerable: state.invulnerable,
    tweaks: state.tweaks,
    raise: state.onEnter?.raise === undefined ? -1 : numberIn(names.flags, state.onEnter.raise),
    lower: state.onEnter?.lower === undefined ? -1 : numberIn(names.flags, state.onEnter.lower),
    refill: state.onEnter?.refill ?? false,
    enterAttack: state.onEnter?.attack === undefined ? -1 : scope.attacks.indexOf(state.onEnter.attack),
    counts: compileCounts(state.onEnter?.counts ?? [], names),
    decideMin: Math.min(state.decides?.min ?? 0, state.decides?.max ?? 0),
    decideMax: state.decides?.max ?? 0,
    leaves: state.leaves.map(({ when, to: next, after, weight = -1 }) => ({
      when: when ? compileCondition(when, scope) : null,
      to: unit.states.findIndex(({ id }) => id === next),
      after: microseconds(after),
      weight,
    })),
  };
}

function compilePlayer(player: Player, unit: Unit): CompiledPlayer {
  const { attention, magazine, healing, cover, down, rescues } = player;
  return {
    viewCosine: halfCosine(attention.angle),
    follows: attention.follows,
    reactionMean: attention.mean,
    reactionSpread: attention.spread,
    mistakes: attention.mistakes,
    answers: player.answers.map(({ kind, window, distance, way, protects, cooldown, reduces }) => ({
      kind: ANSWER_KINDS.indexOf(kind),
      window: microseconds(window),
      distance,
      way,
      protects,
      cooldown: microseconds(cooldown),
      reduces,
    })),
    aimTangent: player.aimError > 0 ? sine(player.aimError) / cosine(player.aimError) : 0,
    rounds: magazine?.rounds ?? 0,
    reload: microseconds(magazine?.reload ?? 0),
    takesRound: unit.attacks.map(({ id }) => magazine?.attacks.includes(id) ?? false),
    doses: healing?.count ?? 0,
    doseBelow: healing?.below ?? 0,
    doseTakes: microseconds(healing?.takes ?? 0),
    doseAmount: healing?.heal.amount ?? 0,
    doseShare: healing?.heal.share ?? 0,
    coverBelow: cover?.below ?? 0,
    coverStays: microseconds(cover?.stays ?? 0),
    coverRadius: cover?.radius ?? 0,
    runsWithin: player.runsWithin ?? -1,
    downs: down !== undefined,
    bleedOut: microseconds(down?.bleedOut ?? 0),
    rescueTakes: Math.max(1, microseconds(down?.rescue ?? 0)),
    rescueReach: down?.reach ?? 0,
    rescueHealth: down?.health ?? 0,
    lives: down?.lives ?? 0,
    rescuesWithin: rescues?.within ?? 0,
    rescueSafe: rescues?.safe ?? 0,
  };
}
