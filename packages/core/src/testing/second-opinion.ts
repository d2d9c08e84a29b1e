/**
 * A second opinion on standing fights, for tests alone. It reads the document and works the fight out on its own, in exact
 * fractions, from the rules as docs/simulation.md tells them; it shares no line with the engine. What it knows: wind-up,
 * active, every, recovery, cooldowns from start and end, first delays, several attackers, resistance, flat armour, least
 * damage, lent and own shields, regeneration of both, damage over time in its three stackings, energy, charges, drain,
 * windows in three scopes, gates, priorities, help and boosts for oneself. Nobody moves, and nothing is left to chance.
 */

/** A fraction of whole numbers in lowest terms: what decimals are, exactly. */
export class Exact {
  private constructor(
    readonly over: bigint,
    readonly under: bigint,
  ) {}

  static of(value: number): Exact {
    const [digits, exponent = '0'] = String(value).split('e');
    const [whole, part = ''] = digits.split('.');
    const shift = part.length - Number(exponent);
    const over = BigInt(whole + part);
    return shift >= 0 ? Exact.ratio(over, 10n ** BigInt(shift)) : Exact.ratio(over * 10n ** BigInt(-shift), 1n);
  }

  static ratio(over: bigint, under: bigint): Exact {
    let [a, b] = [over < 0n ? -over : over, under];
    while (b) [a, b] = [b, a % b];
    return a === 0n ? new Exact(0n, 1n) : new Exact(over / a, under / a);
  }

  plus(other: Exact): Exact {
    return Exact.ratio(this.over * other.under + other.over * this.under, this.under * other.under);
  }

  minus(other: Exact): Exact {
    return Exact.ratio(this.over * other.under - other.over * this.under, this.under * other.under);
  }

  times(other: Exact): Exact {
    return Exact.ratio(this.over * other.over, this.under * other.under);
  }

  /** Below 0: less, 0: equal, above 0: more. */
  against(other: Exact): number {
    const difference = this.over * other.under - other.over * this.under;
    return difference < 0n ? -1 : difference > 0n ? 1 : 0;
  }

  least(other: Exact): Exact {
    return this.against(other) <= 0 ? this : other;
  }

  most(other: Exact): Exact {
    return this.against(other) >= 0 ? this : other;
  }

  /** The quotient as a whole number, rounded up. */
  upOver(other: Exact): number {
    const over = this.over * other.under;
    const under = this.under * other.over;
    return Number(over % under === 0n ? over / under : over / under + (over > 0n ? 1n : 0n));
  }

  get value(): number {
    // Beyond what a double holds both are cut alike.
    let [over, under] = [this.over, this.under];
    while (under > 2n ** 900n) [over, under] = [over >> 64n, under >> 64n];
    const scaled = (over * 10n ** 18n) / under;
    return Number(scaled) / 1e18;
  }
}

const NOTHING = Exact.of(0);
const ONE = Exact.of(1);
/** µs; halves go up. */
const micro = (seconds: Exact) => {
  const { over, under } = seconds.times(Exact.of(1e6)).plus(Exact.ratio(1n, 2n));
  return Number(over / under);
};
const microOf = (seconds = 0) => micro(Exact.of(seconds));

// eslint-disable-next-line @typescript-eslint/no-explicit-any
type Json = any;

/** What happened to somebody's health. */
export interface Told {
  kind: 'hit' | 'tick' | 'stopped' | 'heal' | 'death';
  /** µs */
  time: number;
  by: number;
  to: number;
  attack: string;
  lost: number;
  over: number;
  dealt: number;
  absorbed: number;
}

interface Someone {
  json: Json;
  number: number;
  foe: number;
  alive: boolean;
  health: Exact;
  healthAt: number;
  mendsFrom: number;
  shield: Exact;
  shieldAt: number;
  shieldFrom: number;
  energy: Exact;
  energyAt: number;
  lent: { left: Exact; until: number; age: number }[];
  boosts: { attack: Json; until: number }[];
  windows: Map<string, number>;
  passed: Set<number>;
  state: number;
  stateSince: number;
  ready: Map<string, number>;
  charges: Map<string, { left: number; from: number }>;
  use?: { attack: Json; start: number; struck: boolean; phaseEnd: number };
  effects: { by: Someone; attack: Json; from: number; end: number; ticks: number }[];
}

interface Coming {
  time: number;
  order: number;
  unit: number;
  age: number;
  what: () => void;
}

/** In the order of one instant. */
const TICK = 0;
const EXPIRY = 1;
const AID = 2;
const HIT = 3;
const PHASE_END = 6;
const CHOICE = 8;

/**
 * @param party one unit of the document; @param enemies those it meets, each as often as it comes
 * @param limit s; @param step s
 */
export function workedOut(party: Json, enemies: Json[], limit: number, step: number): Told[] {
  const told: Told[] = [];
  const all = [party, ...enemies].map(someone);
  let coming: Coming[] = [];
  let now = 0;
  let age = 0;
  let over = false;
  const end = microOf(limit);
  const stepLength = microOf(step);
  const at = (time: number, order: number, unit: number, what: () => void) => coming.push({ time, order, unit, age: age++, what });

  for (const one of all) {
    for (const attack of one.json.attacks) one.ready.set(attack.id, microOf(attack.beat?.initialDelay?.min));
  }

  // --- what somebody has at this instant
  const health = (one: Someone): Exact => {
    const { max, regen = 0, regenUpTo = 1 } = one.json.health;
    const top = Exact.of(max).times(Exact.of(regenUpTo));
    if (regen === 0 || one.health.against(NOTHING) <= 0 || one.health.against(top) >= 0) return one.health;
    return top.least(one.health.plus(grown(regen, Math.max(one.mendsFrom, one.healthAt))));
  };
  const grown = (perSecond: number, from: number) => Exact.of(perSecond).times(Exact.ratio(BigInt(Math.max(0, now - from)), 1_000_000n));
  const shield = (one: Someone): Exact => {
    if (!one.json.shield) return NOTHING;
    const { max, regen = 0 } = one.json.shield;
    return Exact.of(max).least(one.shield.plus(grown(regen, Math.max(one.shieldAt, one.shieldFrom))));
  };
  const energy = (one: Someone): Exact => {
    if (!one.json.energy) return NOTHING;
    const { max, regen = 0 } = one.json.energy;
    return Exact.of(max).least(one.energy.plus(grown(regen, one.energyAt)));
  };
  const setEnergy = (one: Someone, to: Exact) => {
    one.energy = to.most(NOTHING);
    one.energyAt = now;
  };
  const charges = (one: Someone, attack: Json): number => {
    const { count, reload } = attack.charges;
    const held = one.charges.get(attack.id) ?? { left: count, from: 0 };
    return Math.min(count, held.left >= count ? count : held.left + Math.floor((now - held.from) / microOf(reload)));
  };
  /** A number of one of its attacks, as its boosts change it. */
  const boosted = (one: Someone, base: number, path: string): Exact =>
    one.boosts
      .flatMap(({ attack }) => attack.effects.boost.tweaks as Json[])
      .filter((tweak) => tweak.path === path)
      .reduce((value: Exact, { op, value: by }) => (op === '×' ? value.times(Exact.of(by)) : value.plus(Exact.of(by))), Exact.of(base));

  // --- attacks
  const tryAll = () => all.forEach(tryOne);
  function tryOne(one: Someone): void {
    if (!one.alive || one.use || !all[one.foe].alive) return;
    let soonest = Infinity;
    for (const { entries } of one.json.choice.priorities) {
      const attack = one.json.attacks.find(({ id }: Json) => id === entries[0].attack);
      const free = freeAt(one, attack);
      if (free <= now) return begin(one, attack);
      soonest = Math.min(soonest, free);
    }
    if (soonest < Infinity) at(soonest, CHOICE, one.number, () => tryOne(one));
  }
  /** When an attack could be begun, as far as that is known now. */
  function freeAt(one: Someone, attack: Json): number {
    const ready = one.ready.get(attack.id)!;
    if (ready > now) return ready;
    if (attack.charges && charges(one, attack) < 1) {
      const { from } = one.charges.get(attack.id)!;
      const reload = microOf(attack.charges.reload);
      return from + (Math.floor((now - from) / reload) + 1) * reload;
    }
    const lacks = Exact.of(attack.energy ?? 0).minus(energy(one));
    if (lacks.against(NOTHING) <= 0) return now;
    const { max = 0, regen = 0 } = one.json.energy ?? {};
    if (regen === 0 || max < attack.energy) return Infinity;
    return now + lacks.times(Exact.of(1e6)).upOver(Exact.of(regen));
  }
  function begin(one: Someone, attack: Json): void {
    const { windup = 0, active = 0, recovery = 0, every } = attack.beat;
    const use = { attack, start: now, struck: false, phaseEnd: 0 };
    one.use = use;
    if (attack.beat.cooldownFrom !== 'end') cool(one, attack);
    if (attack.energy) setEnergy(one, energy(one).minus(Exact.of(attack.energy)));
    if (attack.charges) {
      const left = charges(one, attack);
      const reload = microOf(attack.charges.reload);
      const held = one.charges.get(attack.id);
      const from = left >= attack.charges.count || !held ? now : held.from + Math.floor((now - held.from) / reload) * reload;
      one.charges.set(attack.id, { left: left - 1, from });
    }
    const first = now + microOf(windup);
    const last = first + microOf(active) + microOf(recovery);
    const own = attack.delivery === 'self';
    const strike = (i: number) => () => {
      if (one.use !== use || !one.alive) return;
      if (every && (i + 1) * microOf(every) < microOf(active))
        at(first + (i + 1) * microOf(every), own ? AID : HIT, one.number, strike(i + 1));
      if (own) help(one, attack);
      else if (all[one.foe].alive) landings.push({ by: one, use });
    };
    at(first, own ? AID : HIT, one.number, strike(0));
    // Phases without length are passed through where the one before them ends; so the last is over with it.
    const ends = [first, first + microOf(active), last];
    const finish = () => {
      if (one.use !== use || !one.alive) return;
      one.use = undefined;
      if (attack.beat.cooldownFrom === 'end') cool(one, attack);
      at(now, CHOICE, one.number, () => tryOne(one));
    };
    const chain = (i: number): void => {
      if (i === ends.length) return finish();
      if (i > 0 && ends[i] === now && ends[i] === ends[i - 1]) return chain(i + 1);
      at(ends[i], PHASE_END, one.number, () => {
        if (one.use === use && one.alive) chain(i + 1);
      });
    };
    chain(0);
  }
  const cool = (one: Someone, attack: Json) =>
    one.ready.set(attack.id, now + micro(boosted(one, attack.beat.cooldown ?? 1, '/attacks/*/beat/cooldown')));

  function help(one: Someone, attack: Json): void {
    const { heal, shield: lends, boost } = attack.effects;
    if (heal) {
      const has = health(one);
      const full = Exact.of(one.json.health.max);
      const amount = Exact.of(heal.amount ?? 0).plus(Exact.of(heal.share ?? 0).times(full));
      const given = amount.least(full.minus(has)).most(NOTHING);
      one.health = has.plus(given);
      one.healthAt = now;
      tell('heal', one, one, attack, given, amount.minus(given));
    }
    if (lends?.amount > 0) {
      one.lent.push({ left: Exact.of(lends.amount), until: now + microOf(lends.for), age: age++ });
      expire(one, now + microOf(lends.for));
    }
    if (boost) {
      const until = boost.for === 0 ? Infinity : now + microOf(boost.for);
      const same = one.boosts.find((other) => other.attack === attack);
      if (same) same.until = Math.max(same.until, until);
      else one.boosts.push({ attack, until });
      if (until < Infinity) expire(one, until);
    }
  }
  const expire = (one: Someone, time: number) =>
    at(time, EXPIRY, one.number, () => {
      one.lent = one.lent.filter(({ until }) => until > now);
      one.boosts = one.boosts.filter(({ until }) => until > now);
    });

  // --- what a hit does
  let landings: { by: Someone; use: NonNullable<Someone['use']> }[] = [];
  function land({ by, use }: (typeof landings)[number]): void {
    const { attack } = use;
    const victim = all[by.foe];
    if (!victim.alive) return;
    const { duration = 0, scope = 'any' } = victim.json.invulnerability ?? {};
    const key = scope === 'any' ? '' : scope === 'attacker' ? `${by.number}` : `${by.number} ${attack.id}`;
    if (duration > 0 && now < (victim.windows.get(key) ?? 0)) return tell('stopped', by, victim, attack, NOTHING, NOTHING);
    if (duration > 0) victim.windows.set(key, now + microOf(duration));
    const { damage, overTime, drain } = attack.effects;
    // A tweak of all attacks' damage speaks of those that have some.
    const amount = damage ? boosted(by, damage.amount, '/attacks/*/effects/damage/amount') : NOTHING;
    hurt('hit', by, victim, attack, amount, damage?.type);
    if (overTime) linger(by, victim, attack);
    if (drain) setEnergy(victim, energy(victim).minus(Exact.of(drain.amount)));
  }
  function hurt(kind: 'hit' | 'tick', by: Someone, victim: Someone, attack: Json, amount: Exact, type?: string): void {
    const { flat = 0, minimumDamage = 0, resist = [] } = victim.json.armour ?? {};
    const share = Exact.of(resist.find(({ id }: Json) => id === type)?.share ?? 0);
    const taken = ONE.minus(share);
    const met = amount.times(taken);
    const dealt =
      taken.against(NOTHING) <= 0
        ? NOTHING
        : met
            .minus(Exact.of(flat))
            .most(met.least(Exact.of(minimumDamage)))
            .most(NOTHING);
    let left = dealt;
    for (const lent of [...victim.lent].sort((a, b) => a.until - b.until || a.age - b.age)) {
      const used = lent.left.least(left);
      lent.left = lent.left.minus(used);
      left = left.minus(used);
    }
    if (victim.json.shield && left.against(NOTHING) > 0) {
      const held = shield(victim);
      const used = held.least(left);
      victim.shield = held.minus(used);
      victim.shieldAt = now;
      victim.shieldFrom = now + microOf(victim.json.shield.regenDelay);
      left = left.minus(used);
    }
    const had = health(victim);
    let rest = had.minus(left);
    if (left.against(NOTHING) > 0) rest = rest.most(gate(victim, rest));
    const full = Exact.of(victim.json.health.max);
    if (rest.against(full.times(Exact.ratio(1n, 1_000_000_000n))) < 0) rest = NOTHING;
    const lost = had.minus(rest).least(left);
    tell(kind, by, victim, attack, lost, left.minus(lost), dealt, dealt.minus(left));
    if (dealt.against(NOTHING) > 0) victim.mendsFrom = now + microOf(victim.json.health.regenDelay);
    victim.health = rest;
    victim.healthAt = now;
  }
  /** The highest gate that holds and would be gone through. */
  function gate(victim: Someone, rest: Exact): Exact {
    const gates = [...((victim.json.health.gates ?? []) as Json[])].sort((a, b) => b.share - a.share);
    for (const [i, { share, holds }] of gates.entries()) {
      const stop = Exact.of(share).times(Exact.of(victim.json.health.max));
      if (rest.against(stop) < 0 && holds && !victim.passed.has(i)) return stop;
    }
    return Exact.of(-1);
  }
  function linger(by: Someone, victim: Someone, attack: Json): void {
    const { for: lasts, stacking = 'refresh', every } = attack.effects.overTime;
    const present = victim.effects.find((one) => one.by === by && one.attack === attack && now <= one.end);
    if (stacking !== 'stack' && present) {
      if (stacking === 'refresh') present.end = now + microOf(lasts);
      return;
    }
    const effect = { by, attack, from: now, end: now + microOf(lasts), ticks: 0 };
    victim.effects.push(effect);
    const next = () =>
      at(effect.from + (effect.ticks + 1) * microOf(every), TICK, by.number, () => {
        if (!victim.alive || now > effect.end) return;
        const { amount, type } = attack.effects.overTime;
        hurt('tick', by, victim, attack, Exact.of(amount), type);
        effect.ticks++;
        next();
      });
    next();
  }

  // --- time
  function bury(): void {
    for (const one of all) {
      if (!one.alive || one.health.against(NOTHING) > 0) continue;
      one.alive = false;
      told.push({ kind: 'death', time: now, by: -1, to: one.number, attack: '', lost: 0, over: 0, dealt: 0, absorbed: 0 });
    }
  }
  function instant(): void {
    for (let pass = 0; coming.some(({ time }) => time === now); pass++) {
      if (pass > 1000) throw new Error(`no end at ${now}`);
      const due = coming.filter(({ time }) => time === now).sort((a, b) => a.order - b.order || a.unit - b.unit || a.age - b.age);
      coming = coming.filter(({ time }) => time !== now);
      for (const one of due.filter(({ order }) => order <= HIT)) one.what();
      const landed = landings;
      landings = [];
      landed.forEach((landing) => {
        const { attack } = landing.use;
        if (attack.hits?.perTarget !== 'every' && landing.use.struck) return;
        landing.use.struck = true;
        land(landing);
      });
      bury();
      for (const one of due.filter(({ order }) => order > HIT)) one.what();
    }
    over = !all[0].alive || all.slice(1).every(({ alive }) => !alive);
  }
  const tell = (
    kind: Told['kind'],
    by: Someone,
    to: Someone,
    attack: Json,
    lost: Exact,
    beyond: Exact,
    dealt = NOTHING,
    absorbed = NOTHING,
  ) =>
    void told.push({
      kind,
      time: now,
      by: by.number,
      to: to.number,
      attack: attack.id,
      lost: lost.value,
      over: beyond.value,
      dealt: dealt.value,
      absorbed: absorbed.value,
    });

  for (let number = 0; !over && number * stepLength < end; number++) {
    now = number * stepLength;
    for (const one of all) changeState(one, now);
    tryAll();
    for (;;) {
      const next = Math.min(...coming.map(({ time }) => time));
      if (over || next > Math.min((number + 1) * stepLength, end)) break;
      now = next;
      instant();
    }
  }
  return told;

  /** Leaves a state once its time has passed; the gates whose state has come let through. */
  function changeState(one: Someone, time: number): void {
    if (!one.alive || !one.json.states?.length) return;
    for (const { when, to, after = 0 } of one.json.states[one.state].leaves ?? []) {
      const stood = time - one.stateSince;
      if (stood < microOf(after) || !(stood > microOf(when.value))) continue;
      one.state = one.json.states.findIndex(({ id }: Json) => id === to);
      one.stateSince = time;
      const gates = [...((one.json.health.gates ?? []) as Json[])].sort((a, b) => b.share - a.share);
      const last = gates.reduce((found, { state }, i) => (state === to ? i : found), -1);
      for (let i = 0; i <= last; i++) one.passed.add(i);
      return;
    }
  }

  function someone(json: Json, number: number): Someone {
    return {
      json,
      number,
      foe: number === 0 ? 1 : 0,
      alive: true,
      health: Exact.of(json.health.max),
      healthAt: 0,
      mendsFrom: 0,
      shield: Exact.of(json.shield?.max ?? 0),
      shieldAt: 0,
      shieldFrom: 0,
      energy: Exact.of(json.energy?.start ?? 0),
      energyAt: 0,
      lent: [],
      boosts: [],
      windows: new Map(),
      passed: new Set(),
      state: 0,
      stateSince: 0,
      ready: new Map(),
      charges: new Map(),
      effects: [],
    };
  }
}
