/**
 * What a unit made for seconds comes to in turns, at so many seconds a round and metres a cell: a beginning, to be changed by
 * hand. Nothing is derived while a fight runs. What happens several times in a round is gathered into one use with more hits,
 * so that the harm of a round stays what it was; whatever takes any time at all takes a turn where it would be told apart.
 */
import type { Attack } from './attack';
import { Condition, subjectOf } from './condition';
import type { Effects } from './effects/list';
import { type Encounter, Repeat, Wave, WaveGroup } from './encounter';
import { type Constructor, classFields } from './field';
import {
  AttackRounds,
  ConditionRounds,
  EncounterRounds,
  GroupRounds,
  LastingRounds,
  PushRounds,
  RepeatRounds,
  StateRounds,
  StopRounds,
  TickRounds,
  TransitionRounds,
  UnitRounds,
  WaveRounds,
} from './rounds';
import { PatrolPoint, type State, Transition } from './state';
import type { Unit } from './unit';

export interface RoundScale {
  /** s */
  round: number;
  /** m */
  cell: number;
}

/** Points of anything that may be said. */
const MOST_POINTS = 1e6;

/** Whether a fight in turns asks for its group: else it is left out. */
const asks = (type: Constructor, object: object) => classFields(type)!.said.get('rounds')!.inTurns!(object);

/** Half up, between two. */
const whole = (value: number, least: number, most: number) => Math.max(least, Math.min(most, Math.floor(value + 0.5 + 1e-9)));

/** Turns of a duration. @param seconds s */
const turns = (seconds: number, { round }: RoundScale, least = 0) => whole(seconds / round, least, 100);

/** Rounds of a duration. @param seconds s */
const rounds = (seconds: number, { round }: RoundScale, least = 0) => whole(seconds / round, least, 500);

/** What is gained in a round, as much as may be said. @param second points a second */
const grown = (second: number, { round }: RoundScale) => Math.min(MOST_POINTS, second * round);

/** Cells of a distance. @param metres m */
const cells = (metres: number, { cell }: RoundScale, least = 0) => whole(metres / cell, least, 64);

/** @returns the unit with a `rounds` group wherever it needs one; what it says in seconds and metres stays as it is */
export function withRounds(unit: Unit, scale: RoundScale): Unit {
  const { health, shield, energy, stagger, invulnerability, onDeath, movement, body } = unit;
  const own = Object.assign(new UnitRounds(), {
    size: whole((2 * body.radius) / scale.cell, 1, 3),
    moves: cells(movement.run * scale.round, scale),
    regen: grown(health.regen, scale),
    regenDelay: turns(health.regenDelay, scale),
    shieldRegen: grown(shield?.regen ?? 0, scale),
    shieldDelay: turns(shield?.regenDelay ?? 0, scale),
    energyRegen: grown(energy?.regen ?? 0, scale),
    shielded: turns(invulnerability.duration, scale),
    staggerWindow: turns(stagger?.window ?? 0, scale, 1),
    staggers: turns(stagger?.duration ?? 0, scale, 1),
    steady: turns(stagger?.immunity ?? 0, scale),
    revivableFor: whole(onDeath.revivableFor / scale.round, onDeath.revivableFor > 0 ? 1 : 0, 500),
  } satisfies Partial<UnitRounds>);
  return {
    ...unit,
    rounds: own,
    attacks: unit.attacks.map((attack) => attackWithRounds(attack, unit.choice.pause.min, scale)),
    choice: {
      ...unit.choice,
      priorities: unit.choice.priorities.map(({ condition, entries }) => ({
        ...(condition && { condition: conditionWithRounds(condition, scale) }),
        entries: entries.map((entry) => ({ ...entry, ...(entry.condition && { condition: conditionWithRounds(entry.condition, scale) }) })),
      })),
    },
    states: unit.states.map((state) => stateWithRounds(state, own.moves, unit, scale)),
  };
}

/** @param pause s: what the unit waits after each of its attacks, at least */
function attackWithRounds(attack: Attack, pause: number, scale: RoundScale): Attack {
  const { beat, range, charges, area, next, summon } = attack;
  const instants = beat.every !== undefined && beat.active > 0 ? Math.ceil(beat.active / beat.every - 1e-9) : 1;
  const takes = beat.windup + beat.active + beat.recovery;
  const cycle = Math.max(takes + pause, beat.cooldown + (beat.cooldownFrom === 'end' ? takes : 0), 1e-3);
  const uses = Math.max(1, whole(scale.round / cycle, 0, 100));
  // Where each target is struck once a use, gathered uses strike it once each; the shots of a volley count as they are.
  const once = attack.hits.perTarget === 'once' && !attack.projectile;
  return {
    ...attack,
    ...(attack.condition && { condition: conditionWithRounds(attack.condition, scale) }),
    effects: effectsWithRounds(attack.effects, scale),
    rounds: Object.assign(new AttackRounds(), {
      from: Math.min(64, Math.floor(range.min / scale.cell + 1e-9)),
      to: cells(range.max, scale, 1),
      windup: turns(beat.windup, scale),
      recovery: turns(beat.recovery, scale),
      cooldown: turns(cycle, scale, 1),
      firstUse: turns(beat.initialDelay.min, scale),
      hits: Math.min(100, once && uses > 1 ? uses : instants * uses),
      ...(once && uses > 1 && { perTarget: 'every' as const }),
      recharge: turns(charges?.reload ?? 0, scale, 1),
      radius: cells(area?.radius ?? 0, scale, 1),
      delay: turns(area?.delay ?? 0, scale),
      follows: turns(next?.window ?? 0, scale, 1),
      around: cells(summon?.around ?? 0, scale, 1),
    } satisfies Partial<AttackRounds>),
  };
}

function effectsWithRounds(effects: Effects, scale: RoundScale): Effects {
  const lasting = <E extends { for: number }>(effect: E, least = 1) => ({
    ...effect,
    rounds: Object.assign(new LastingRounds(), { for: turns(effect.for, scale, least) }),
  });
  const { overTime, shield, slow, stagger, boost, taunt, mark, knockback } = effects;
  const ticks = overTime ? whole(scale.round / overTime.every, 1, 1e4) : 1;
  return {
    ...effects,
    ...(overTime && {
      overTime: {
        ...overTime,
        rounds: Object.assign(new TickRounds(), {
          // As much in a turn as its ticks of that time come to.
          ...(ticks > 1 && { amount: Math.min(MOST_POINTS, overTime.amount * ticks) }),
          every: turns(overTime.every, scale, 1),
          for: turns(overTime.for, scale, 1),
        }),
      },
    }),
    ...(shield && { shield: lasting(shield) }),
    ...(slow && { slow: lasting(slow) }),
    ...(stagger && { stagger: lasting(stagger) }),
    // One that lasts to the end still does.
    ...(boost && { boost: lasting(boost, boost.for > 0 ? 1 : 0) }),
    ...(taunt && { taunt: lasting(taunt) }),
    ...(mark && { mark: lasting(mark) }),
    ...(knockback && { knockback: { ...knockback, rounds: Object.assign(new PushRounds(), { cells: cells(knockback.distance, scale) }) } }),
  } as Effects;
}

function stateWithRounds(state: State, moves: number, { movement }: Unit, scale: RoundScale): State {
  const pace = (state.pace === 'walk' ? movement.walk : movement.run) * state.paceFactor;
  const own = cells(pace * scale.round, scale);
  const distance = (field: 'stopAt' | 'near' | 'far' | 'radius') => {
    const metres = state[field];
    return metres === undefined ? {} : { [field]: cells(metres, scale) };
  };
  const said = {
    ...(own !== moves && { moves: own }),
    ...distance('stopAt'),
    ...distance('near'),
    ...distance('far'),
    ...distance('radius'),
  };
  return {
    ...state,
    ...(Object.keys(said).length > 0 && { rounds: Object.assign(new StateRounds(), said) }),
    ...(state.patrol && {
      patrol: {
        ...state.patrol,
        points: state.patrol.points.map((point) => ({
          ...point,
          ...(asks(PatrolPoint, point) && { rounds: Object.assign(new StopRounds(), { pause: turns(point.pause, scale, 1) }) }),
        })),
      },
    }),
    leaves: state.leaves.map((way) => ({
      ...way,
      ...(way.when && { when: conditionWithRounds(way.when, scale) }),
      ...(asks(Transition, way) && { rounds: Object.assign(new TransitionRounds(), { after: turns(way.after, scale, 1) }) }),
    })),
  };
}

function conditionWithRounds(condition: Condition, scale: RoundScale): Condition {
  const { unit, within } = subjectOf(condition.subject);
  const inOwn = (value: number | undefined, of: string | undefined) =>
    of === 's' ? turns(value ?? 0, scale) : of === 'm' ? cells(value ?? 0, scale) : 0;
  return {
    ...condition,
    ...(condition.parts && { parts: condition.parts.map((part) => conditionWithRounds(part, scale)) }),
    ...(asks(Condition, condition) && {
      rounds: Object.assign(new ConditionRounds(), { value: inOwn(condition.value, unit), within: inOwn(condition.within, within) }),
    }),
  };
}

/** @returns the encounter in turns, on squares of the scale's cells where it said nothing of them yet */
export function encounterWithRounds(encounter: Encounter, scale: RoundScale): Encounter {
  return {
    ...encounter,
    clock: 'rounds',
    waves: encounter.waves.map((wave) => waveWithRounds(wave, scale)),
    events: encounter.events.map((event) => ({ ...event, when: conditionWithRounds(event.when, scale) })),
    rounds: encounter.rounds ?? Object.assign(new EncounterRounds(), { limit: rounds(encounter.limit, scale, 1), cell: scale.cell }),
  };
}

function waveWithRounds(wave: Wave, scale: RoundScale): Wave {
  const { at, timeout, delay, repeat, when } = wave;
  return {
    ...wave,
    ...(when && { when: conditionWithRounds(when, scale) }),
    // What comes while the first round goes on comes as it begins.
    ...(asks(Wave, wave) && {
      rounds: Object.assign(new WaveRounds(), {
        at: Math.min(500, 1 + rounds(at, scale)),
        ...(timeout !== undefined && { timeout: rounds(timeout, scale) }),
        delay: rounds(delay, scale),
      }),
    }),
    groups: wave.groups.map((group) => ({
      ...group,
      ...(asks(WaveGroup, group) && { rounds: Object.assign(new GroupRounds(), { spacing: rounds(group.spacing, scale) }) }),
    })),
    ...(repeat && {
      repeat: {
        ...repeat,
        ...(asks(Repeat, repeat) && {
          rounds: Object.assign(new RepeatRounds(), { every: rounds(repeat.every, scale, 1), pause: rounds(repeat.pause, scale) }),
        }),
      },
    }),
  };
}
