/**
 * A second opinion on fights in turns without ground, for tests alone. It reads the sketch and works the fight out on its own,
 * turn by turn, from the rules as they are told; it shares no line with the engine. What it knows: order by side and over all,
 * actions, wind-up, recovery, cooldowns, first use, charges, energy, regeneration with its delay, armour with least damage,
 * several hits and targets, damage over time in its three stackings, staggers, guards and counters, two rows. Nothing is left
 * to chance, and every number is a whole one or a half.
 */

export interface OwnAttack {
  amount: number;
  melee: boolean;
  limit: number;
  hits: number;
  windup: number;
  recovery: number;
  cooldown: number;
  firstUse: number;
  energy: number;
  charges: number;
  recharge: number;
  stagger: number;
  overTime: { amount: number; every: number; for: number; stacking: 'refresh' | 'stack' | 'ignore' } | null;
}

export interface OwnKind {
  health: number;
  regen: number;
  regenDelay: number;
  energy: number;
  energyRegen: number;
  armour: number;
  least: number;
  order: number;
  actions: number;
  back: boolean;
  /** Priorities of one attack each, in the order of the list. */
  attacks: OwnAttack[];
  guard: { uses: number; reduces: number } | null;
  /** Strikes back with its first attack. */
  counter: { uses: number } | null;
}

export interface OwnFight {
  /** Kinds of those of each side, in the order of their numbers; the party first. */
  sides: [OwnKind[], OwnKind[]];
  bySide: boolean;
  partyFirst: boolean;
  rows: boolean;
  limit: number;
}

export interface OwnTold {
  round: number;
  kind: 'start' | 'hit' | 'tick' | 'death';
  by: number;
  to: number;
  attack: number;
  dealt: number;
}

interface Effect {
  by: number;
  attack: number;
  /** Rounds of its bearer's turns. */
  next: number;
  ends: number;
  ticks: NonNullable<OwnAttack['overTime']>;
}

interface Own {
  number: number;
  side: number;
  kind: OwnKind;
  health: number;
  energy: number;
  regenFrom: number;
  ready: number[];
  uses: { left: number; since: number }[];
  charging: { attack: number; target: number; due: number } | null;
  recovers: number;
  reels: number;
  effects: Effect[];
  guarded: number;
  countered: number;
  target: number;
  /** Rounds in which it has had its turn. */
  acted: number;
  alive: boolean;
}

/** What happens, in order. Rounds count from 0. */
export function workedOutInRounds(fight: OwnFight): { told: OwnTold[]; outcome: string } {
  const told: OwnTold[] = [];
  let round = 0;
  const all: Own[] = fight.sides.flat().map((kind, number) => ({
    number,
    side: number < fight.sides[0].length ? 0 : 1,
    kind,
    health: kind.health,
    energy: kind.energy,
    regenFrom: 0,
    ready: kind.attacks.map(({ firstUse }) => Math.max(0, firstUse - 1)),
    uses: kind.attacks.map(({ charges }) => ({ left: charges, since: 0 })),
    charging: null,
    recovers: 0,
    reels: -1,
    effects: [],
    guarded: 0,
    countered: 0,
    target: -1,
    acted: -1,
    alive: true,
  }));
  /** The round in which somebody has its k-th turn from now. */
  const turn = (who: Own, k: number) => (k <= 0 ? round : (who.acted >= round ? round : round - 1) + k);
  const standing = (side: number) => all.filter((one) => one.alive && one.side === side);
  /** 0 in reach of every hand; 1 behind a front row. */
  const behind = (who: Own, from: Own) =>
    fight.rows && who.side !== from.side && who.kind.back && standing(who.side).some((one) => !one.kind.back) ? 1 : 0;

  let dying: Own[] = [];

  const hurt = (who: Own, amount: number): number => {
    const dealt = Math.max(amount - who.kind.armour, Math.min(amount, who.kind.least), 0);
    who.health = Math.max(0, who.health - dealt);
    if (dealt > 0) who.regenFrom = Math.max(turn(who, who.kind.regenDelay), 0);
    if (who.health === 0 && !dying.includes(who)) dying.push(who);
    return dealt;
  };

  const lay = (by: Own, number: number, who: Own) => {
    const { overTime: ticks } = by.kind.attacks[number];
    if (!ticks) return;
    const present = ticks.stacking === 'stack' ? undefined : who.effects.find((one) => one.by === by.number && one.attack === number);
    if (present) {
      const over = round > present.ends || (round === present.ends && who.acted >= round);
      if (!over) {
        if (ticks.stacking === 'refresh') present.ends = turn(who, ticks.for);
        return;
      }
      who.effects.splice(who.effects.indexOf(present), 1);
    }
    who.effects.push({ by: by.number, attack: number, next: turn(who, ticks.every), ends: turn(who, ticks.for), ticks });
  };

  /** Hits that have been settled land together; then staggers; then the dead are taken away; then those who were struck strike back. */
  const land = (landings: { by: Own; to: Own; number: number; taken: number; counters: boolean }[]) => {
    const reeling: { who: Own; turns: number }[] = [];
    const back: { by: Own; to: Own }[] = [];
    for (const { by, to, number, taken, counters } of landings) {
      if (!to.alive) continue;
      const attack = by.kind.attacks[number];
      const dealt = hurt(to, attack.amount * (1 - taken));
      told.push({ round, kind: 'hit', by: by.number, to: to.number, attack: number, dealt });
      lay(by, number, to);
      if (attack.stagger > 0) reeling.push({ who: to, turns: attack.stagger });
      const may = to.kind.counter && to.health > 0 && to.countered < to.kind.counter.uses && !isReeling(to);
      if (!counters && may && to.side !== by.side) {
        to.countered++;
        back.push({ by: to, to: by });
      }
    }
    for (const { who, turns } of reeling) {
      if (who.health === 0) continue;
      who.reels = Math.max(who.reels, turn(who, turns + 1));
      who.charging = null;
    }
    bury();
    // In the order of their numbers; of one, in the order in which it was struck.
    back.sort((a, b) => a.by.number - b.by.number);
    const answers = back.flatMap(({ by, to }) =>
      by.alive && to.alive && inReach(by, 0, to) ? [{ by, to, number: 0, taken: guard(to, true), counters: true }] : [],
    );
    if (answers.length) land(answers);
  };

  const isReeling = (who: Own) => round < who.reels || (round === who.reels && who.acted < round);
  const inReach = (by: Own, number: number, to: Own) => !by.kind.attacks[number].melee || behind(to, by) === 0;

  const guard = (who: Own, counters: boolean): number => {
    if (counters || !who.kind.guard || who.guarded >= who.kind.guard.uses || isReeling(who)) return 0;
    who.guarded++;
    return who.kind.guard.reduces;
  };

  const bury = () => {
    for (const who of dying.sort((a, b) => a.number - b.number)) {
      who.alive = false;
      who.effects = [];
      who.charging = null;
      told.push({ round, kind: 'death', by: -1, to: who.number, attack: -1, dealt: 0 });
      for (const other of all) {
        if (other.target === who.number) other.target = -1;
        // Whoever was charging against it alone breaks off.
        const own = other.charging && other.kind.attacks[other.charging.attack];
        const alone = own && other.charging?.target === who.number && (!own.melee || own.limit === 1);
        const over = other.charging && other.acted >= other.charging.due;
        if (alone && !over) other.charging = null;
      }
    }
    dying = [];
  };

  const strike = (who: Own, number: number, aimed: number) => {
    const attack = who.kind.attacks[number];
    const landings: Parameters<typeof land>[0] = [];
    const struck = new Set<number>();
    for (let hit = 0; hit < attack.hits; hit++) {
      const foes = standing(1 - who.side).filter((one) => (attack.melee ? inReach(who, number, one) : one.number === aimed));
      const order = [...foes].sort((a, b) => Number(b.number === aimed) - Number(a.number === aimed) || a.number - b.number);
      let count = 0;
      for (const foe of order) {
        if (count >= attack.limit) break;
        if (struck.has(foe.number)) continue;
        struck.add(foe.number);
        count++;
        landings.push({ by: who, to: foe, number, taken: guard(foe, false), counters: false });
      }
    }
    return landings;
  };

  /** Which attack may be begun now; −1: none. */
  const choose = (who: Own, foe: Own): number =>
    who.kind.attacks.findIndex((attack, number) => {
      const { left, since } = who.uses[number];
      const grown = attack.charges === 0 ? 1 : Math.min(attack.charges, left + Math.floor((round - since) / attack.recharge));
      return who.ready[number] <= round && grown >= 1 && who.energy >= attack.energy && inReach(who, number, foe);
    });

  const begin = (who: Own, number: number, foe: Own) => {
    const attack = who.kind.attacks[number];
    who.ready[number] = turn(who, attack.cooldown);
    who.energy -= attack.energy;
    if (attack.charges > 0) {
      const use = who.uses[number];
      const grown = Math.floor((round - use.since) / attack.recharge);
      const now = Math.min(attack.charges, use.left + grown);
      use.since = now >= attack.charges ? round : use.since + grown * attack.recharge;
      use.left = now - 1;
    }
    told.push({ round, kind: 'start', by: who.number, to: foe.number, attack: number, dealt: 0 });
    if (attack.windup > 0) {
      who.charging = { attack: number, target: foe.number, due: turn(who, attack.windup) };
      return;
    }
    const landings = strike(who, number, foe.number);
    if (attack.recovery > 0) who.recovers = turn(who, attack.recovery);
    land(landings);
  };

  const outcome = () => (standing(0).length === 0 ? 'partyDown' : standing(1).length === 0 ? 'cleared' : '');

  for (; round < fight.limit; round++) {
    for (const who of all) who.guarded = who.countered = 0;
    const first = fight.partyFirst ? 0 : 1;
    const sideOf = (who: Own) => (fight.bySide && who.side !== first ? 1 : 0);
    const queue = all
      .filter(({ alive }) => alive)
      .sort((a, b) => sideOf(a) - sideOf(b) || b.kind.order - a.kind.order || a.number - b.number);
    for (const who of queue) {
      if (!who.alive) continue;
      // Counting down: ticks, then a wind-up that comes due.
      who.acted = round;
      for (const effect of [...who.effects].sort((a, b) => a.by - b.by)) {
        if (effect.next !== round) continue;
        if (round > effect.ends) {
          who.effects.splice(who.effects.indexOf(effect), 1);
          continue;
        }
        const dealt = hurt(who, effect.ticks.amount);
        told.push({ round, kind: 'tick', by: effect.by, to: who.number, attack: effect.attack, dealt });
        effect.next = round + effect.ticks.every;
      }
      const due = who.charging?.due === round ? who.charging : null;
      const landings = due ? strike(who, due.attack, due.target) : [];
      if (due) {
        who.charging = null;
        const { recovery } = who.kind.attacks[due.attack];
        if (recovery > 0) who.recovers = turn(who, recovery);
      }
      land(landings);
      if (outcome()) return { told, outcome: outcome() };
      if (!who.alive) continue;
      if (round >= who.regenFrom) who.health = Math.min(who.kind.health, who.health + who.kind.regen);
      who.energy = Math.min(who.kind.energy, who.energy + who.kind.energyRegen);
      if (round < who.reels) continue;
      aim(who);
      for (let done = 0; done < who.kind.actions; done++) {
        if (!who.alive || who.charging || round < who.recovers || round < who.reels) break;
        if (who.target < 0) aim(who);
        if (who.target < 0) break;
        const number = choose(who, all[who.target]);
        if (number < 0) break;
        begin(who, number, all[who.target]);
        if (outcome()) return { told, outcome: outcome() };
      }
    }
  }
  return { told, outcome: 'timeOut' };

  /** The nearest: whoever is in reach of hands before whoever is behind; it keeps whom it has while nobody is nearer. */
  function aim(who: Own): void {
    const foes = standing(1 - who.side);
    const present = foes.find(({ number }) => number === who.target);
    const nearest = foes.reduce<Own | undefined>((best, one) => (best && behind(best, who) <= behind(one, who) ? best : one), undefined);
    if (nearest && (!present || behind(nearest, who) < behind(present, who))) who.target = nearest.number;
  }
}
