/**
 * A unit as a fight in rounds reads it: its `rounds` groups in the places of the seconds and metres. A turn stands where a
 * second would, a cell where a metre would; what has no meaning in turns is as if it were not there.
 */
import type { Attack } from './attack';
import { type Condition, subjectOf } from './condition';
import type { Encounter, Wave } from './encounter';
import { EFFECT_NAMES, type Effects } from './effects/list';
import type { LastingRounds, PushRounds, TickRounds } from './rounds';
import type { State } from './state';
import type { Unit } from './unit';

/** Farther than any board is wide. */
const EVERYWHERE = 1e6;

/** @param unit with `rounds` groups wherever it has parts */
export function unitInRounds(unit: Unit): Unit {
  const own = unit.rounds!;
  const { shield, energy, stagger } = unit;
  return {
    ...unit,
    body: { ...unit.body, radius: own.size / 2 },
    // What grows back does so at the start of turns, by the engine's own hand.
    health: { ...unit.health, regen: 0, regenDelay: own.regenDelay },
    ...(shield && { shield: { ...shield, regen: 0, regenDelay: own.shieldDelay } }),
    ...(energy && { energy: { ...energy, regen: 0 } }),
    invulnerability: { ...unit.invulnerability, duration: own.shielded },
    ...(stagger && { stagger: { ...stagger, window: own.staggerWindow, duration: own.staggers + 1, immunity: own.steady } }),
    movement: { ...unit.movement, walk: own.moves, run: own.moves, acceleration: 0, turnRate: 0 },
    senses: {
      ...unit.senses,
      sight: own.senses?.sight ?? EVERYWHERE,
      angle: own.senses?.angle ?? 360,
      lose: own.senses?.sight ?? EVERYWHERE,
      needsLine: own.senses?.needsLine ?? false,
      memory: own.senses?.memory ?? 0,
      hearing: 0,
      reaction: { mean: 0, spread: 0 },
      interval: 0,
      buildUp: 0,
    },
    temper: { ...unit.temper, alertRadius: 0 },
    leash: undefined,
    targeting: { ...unit.targeting, reconsider: 0 },
    attacks: unit.attacks.map(attackInRounds),
    choice: {
      pause: { min: 0, max: 0 },
      priorities: unit.choice.priorities.map(({ condition, entries }) => ({
        ...asked('condition', condition),
        entries: entries.map((entry) => ({ ...entry, ...asked('condition', entry.condition) })),
      })),
    },
    states: unit.states.map((state) => stateInRounds(state, own.moves)),
    onDeath: { ...unit.onDeath, revivableFor: own.revivableFor },
    // Whoever plays in turns does so by its own choice and reactions.
    player: undefined,
  };
}

export function attackInRounds(attack: Attack): Attack {
  const own = attack.rounds!;
  const { charges, area, next, summon } = attack;
  return {
    ...attack,
    range: { min: own.from, max: own.to },
    hits: { ...attack.hits, perTarget: own.perTarget === 'seconds' ? attack.hits.perTarget : own.perTarget },
    facing: 180,
    ...asked('condition', attack.condition),
    beat: {
      windup: own.windup,
      active: 0,
      recovery: own.recovery,
      cooldown: own.cooldown,
      cooldownFrom: 'start',
      initialDelay: { min: own.firstUse, max: own.firstUse },
      moving: 'no',
      tracking: attack.beat.tracking,
    },
    ...(charges && { charges: { ...charges, reload: own.recharge } }),
    effects: effectsInRounds(attack.effects),
    ...(area && { area: { ...area, radius: own.radius, delay: own.delay } }),
    ...(next && { next: { ...next, window: own.follows } }),
    ...(summon && { summon: { ...summon, around: own.around } }),
    dash: undefined,
    slot: undefined,
  };
}

type EffectWithRounds = { rounds?: LastingRounds | TickRounds | PushRounds };

function effectsInRounds(effects: Effects): Effects {
  const given = effects as Record<string, EffectWithRounds | undefined>;
  return Object.fromEntries(
    EFFECT_NAMES.flatMap((name) => {
      const effect = given[name];
      if (!effect) return [];
      const { rounds } = effect;
      if (!rounds) return [[name, effect]];
      if ('cells' in rounds) return [[name, { ...effect, distance: rounds.cells }]];
      // A stagger of one turn loses that turn: it is over at the one after it.
      const said = Object.fromEntries(Object.entries(rounds).filter(([, value]) => value !== undefined));
      return [[name, { ...effect, ...said, ...(name === 'stagger' && { for: rounds.for + 1 }) }]];
    }),
  ) as Effects;
}

function stateInRounds(state: State, moves: number): State {
  const { stopAt, near, far, radius, moves: own = moves } = state.rounds ?? {};
  return {
    ...state,
    pace: 'walk',
    // Of the unit's moves; where it has none, of none.
    paceFactor: moves > 0 ? own / moves : 0,
    ...{ stopAt, near, far, radius },
    decides: undefined,
    ...(state.patrol && {
      patrol: { ...state.patrol, points: state.patrol.points.map((point) => ({ ...point, pause: point.rounds?.pause ?? 0 })) },
    }),
    leaves: state.leaves.map((way) => ({
      ...way,
      ...asked('when', way.when),
      after: way.rounds?.after ?? 0,
    })),
  } as State;
}

/** A field that holds a condition, where there is one. */
function asked<F extends string>(field: F, condition: Condition | undefined): { [K in F]?: Condition } {
  return (condition ? { [field]: conditionInRounds(condition) } : {}) as { [K in F]?: Condition };
}

export function conditionInRounds(condition: Condition): Condition {
  const { unit, within } = subjectOf(condition.subject);
  const { rounds } = condition;
  return {
    ...condition,
    ...((unit === 's' || unit === 'm') && rounds && { value: rounds.value }),
    ...(within && rounds && { within: rounds.within }),
    ...(condition.parts && { parts: condition.parts.map(conditionInRounds) }),
  };
}

/** The same of an encounter: what its waves and events wait for. */
export function encounterInRounds(encounter: Encounter): Encounter {
  return {
    ...encounter,
    limit: encounter.rounds!.limit,
    waves: encounter.waves.map(waveInRounds),
    events: encounter.events.map((event) => ({ ...event, when: conditionInRounds(event.when) })),
    slots: [],
  };
}

export function waveInRounds(wave: Wave): Wave {
  const { at = 1, timeout, delay = 0 } = wave.rounds ?? {};
  const { repeat } = wave;
  return {
    ...wave,
    // Round 1 begins where the clock does.
    at: at - 1,
    timeout,
    delay,
    ...asked('when', wave.when),
    groups: wave.groups.map((group) => ({
      ...group,
      spacing: group.rounds?.spacing ?? 0,
      leastDistance: 0,
      outOfView: false,
      leavesBeyond: undefined,
    })),
    ...(repeat && { repeat: { ...repeat, every: repeat.rounds?.every ?? 3, pause: repeat.rounds?.pause ?? 0 } }),
  };
}
