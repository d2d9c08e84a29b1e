/** One fight: its state, where bodies are, and what is worked out of both when it is asked for. */
import { EVENT } from '../record/log';
import { ROUND, SECOND, roundOf } from '../record/time';
import { Motion } from './body/motion';
import { NOBODY, PHASE, TASK } from './numbers';
import type { CompiledAttack } from './unit-tables';
import { draw, PURPOSES } from './time/chance';
import { PER_MICROSECOND } from './tuning';
import { roundFrom, turnWithin } from './rounds/turns';

export class Fight extends Motion {
  /** The number of the next unit. */
  nextUnit(): number {
    this.takeUnit(this.count);
    return this.count++;
  }

  /** The instant at which something that lasts so long on a unit ends. @param lasts µs; in rounds so many of its turns */
  ends(unit: number, lasts: number): number {
    return !this.inTurns ? this.now + lasts : this.turnAfter(unit, lasts / ROUND);
  }

  /** When whatever comes at an instant may come: in rounds as the next begins. */
  begins(time: number): number {
    return !this.inTurns ? time : roundFrom(time);
  }

  /** µs that have gone by since an instant; in rounds how many have begun since. */
  since(time: number): number {
    return !this.inTurns ? this.now - time : (roundOf(this.now) - roundOf(time)) * ROUND;
  }

  /** The instant of a unit's turn in a round. */
  turnOf(unit: number, round: number): number {
    const rounds = this.compiled.rounds!;
    if (rounds.drawn === 'round') return round * ROUND + this.drawnTurn(unit, round);
    if (this.turnAt[unit] === 0) this.turnAt[unit] = this.drawnTurn(unit, round);
    return round * ROUND + this.turnAt[unit];
  }

  private drawnTurn(unit: number, round: number): number {
    const { turns } = this.compiled.kinds[this.kindNumber[unit]];
    return turnWithin(round, { unit, side: this.side[unit], key: this.key[unit], turns: turns! }, this.compiled.rounds!, this.seed);
  }

  /** The round in which a unit has its first turn: who is there from the start, in the first; else in the one after it came. */
  firstRound(unit: number): number {
    return this.bornAt[unit] === 0 ? 0 : roundOf(this.bornAt[unit]) + 1;
  }

  /** The instant of the k-th turn that a unit has from now on. */
  private turnAfter(unit: number, k: number): number {
    if (k <= 0 || k === Infinity) return k === Infinity ? Infinity : this.now;
    const first = Math.max(roundOf(this.now), this.firstRound(unit));
    const next = this.turnOf(unit, first) > this.now ? first : first + 1;
    return this.turnOf(unit, next + Math.ceil(k - 1e-9) - 1);
  }

  /** A use of an attack begins: nobody has been struck by it yet. @param readable µs at which it can be read */
  beginUse(unit: number, readable: number): void {
    this.announced[++this.uses] = readable;
    this.use[unit] = this.uses;
    this.struck[unit].length = 0;
  }

  /** The use under way has struck somebody. */
  strikes(unit: number, victim: number): void {
    this.struck[unit].push(victim);
  }

  /** The next draw of a unit for one purpose, in [0, 1). */
  chance(unit: number, purpose: number): number {
    return draw(this.seed, this.key[unit], purpose, this.draws[unit * PURPOSES + purpose]++);
  }

  /** Uniform on mean ± spread, at least 0. */
  around(unit: number, purpose: number, mean: number, spread: number): number {
    return spread > 0 ? Math.max(0, mean + (2 * this.chance(unit, purpose) - 1) * spread) : mean;
  }

  attackOf(unit: number, attack: number): CompiledAttack {
    return this.kinds[unit].attacks[attack];
  }

  /** Health at this instant, with what has grown back. */
  healthNow(unit: number): number {
    const kind = this.kinds[unit];
    const health = this.health[unit];
    if (kind.regen === 0 || health >= kind.regenTop || health <= 0) return health;
    const from = Math.max(this.regenFrom[unit], this.healthAt[unit]);
    return this.now <= from ? health : Math.min(kind.regenTop, health + (kind.regen * (this.now - from)) / SECOND);
  }

  /** Shield at this instant, with what has grown back; a lent one not counted. */
  shieldNow(unit: number): number {
    const { shield: most, shieldRegen } = this.kinds[unit];
    return grown(this.shield[unit], shieldRegen, most, Math.max(this.shieldFrom[unit], this.shieldAt[unit]), this.now);
  }

  /** Energy at this instant. */
  energyNow(unit: number): number {
    const { energy: most, energyRegen } = this.kinds[unit];
    return grown(this.energy[unit], energyRegen, most, this.energyAt[unit], this.now);
  }

  /** Charges of an attack at this instant: one grows back after another. */
  chargesNow(unit: number, attack: number): number {
    const at = unit * this.compiled.attackRoom + attack;
    const { charges, recharge } = this.kinds[unit].attacks[attack];
    if (this.charges[at] >= charges) return charges;
    return Math.min(charges, this.charges[at] + Math.floor(this.since(this.chargedAt[at]) / recharge));
  }

  /** What a unit is about, where an event of its own says it. */
  setDoing(unit: number, doing: number): void {
    this.doing[unit] = doing;
  }

  /** Says in the log what a unit is about, when that changes. */
  sayDoing(unit: number, doing: number): void {
    if (this.doing[unit] === doing) return;
    this.doing[unit] = doing;
    this.log.add(this.now, EVENT.doing, unit, NOBODY, doing);
    if (this.observer) this.observer(this, unit);
  }

  /** What attack, slow, stagger and a task in hand leave of its pace. */
  setMobility(unit: number): void {
    const attacking = this.phase[unit] !== PHASE.idle ? this.kinds[unit].attacks[this.attack[unit]].moving : 1;
    const reels = this.now < this.staggeredUntil[unit];
    const rooted = this.task[unit] === TASK.dose || this.task[unit] === TASK.rescue;
    this.mobility[unit] = reels || rooted ? 0 : attacking * (1 - this.slowed[unit]);
  }

  /** The wind-up of an attack begins; whatever it had planned no longer holds. */
  beginAttack(unit: number, number: number, target: number, attack: CompiledAttack): void {
    this.serial[unit]++;
    this.choiceAt[unit] = -1;
    this.comboAttack[unit] = NOBODY;
    this.phase[unit] = PHASE.windup;
    this.attack[unit] = number;
    this.attackTarget[unit] = target;
    this.attackStart[unit] = this.attackedAt[unit] = this.now;
    this.hitsAt[unit] = this.ends(unit, attack.windup);
    this.held[unit] = attack.turns ? 0 : 1;
    this.beginUse(unit, this.now + attack.cue);
  }

  /** Wind-up is over: where it strikes is fixed. */
  strikesNow(unit: number): void {
    this.phase[unit] = PHASE.active;
    this.held[unit] = 1;
  }

  recovers(unit: number): void {
    this.phase[unit] = PHASE.recovery;
  }

  /** Turns to the idle phase and forgets the attack under way. */
  idle(unit: number): void {
    if (this.dashing[unit]) this.stand(unit);
    this.phase[unit] = PHASE.idle;
    this.held[unit] = 0;
    this.attack[unit] = NOBODY;
    this.attackTarget[unit] = NOBODY;
    this.serial[unit]++;
    this.choiceAt[unit] = -1;
    this.setMobility(unit);
  }

  /** Its life ends: whatever it was doing or owed is undone. */
  ceases(unit: number): void {
    this.serial[unit]++;
    this.phase[unit] = PHASE.idle;
    this.comboAttack[unit] = this.owedAttack[unit] = NOBODY;
  }

  /** @param lasts µs */
  pauseFor(unit: number, lasts: number): void {
    this.pauseUntil[unit] = this.ends(unit, lasts);
  }

  /** An attack may follow the last one. @param window µs */
  mayFollow(unit: number, attack: number, window: number): void {
    this.comboAttack[unit] = attack;
    this.comboUntil[unit] = this.ends(unit, window);
  }

  endCombo(unit: number): void {
    this.comboAttack[unit] = NOBODY;
  }

  /** What a state has it do on entering, as soon as it can. @param attack NOBODY: it is paid */
  owe(unit: number, attack: number): void {
    this.owedAttack[unit] = attack;
  }

  /** The instant for which a choice is queued; −1: none. */
  awaitChoice(unit: number, at: number): void {
    this.choiceAt[unit] = at;
  }
}

/** A linear function of time, up to a most: what regenerates is worked out when it is asked for. */
function grown(amount: number, perSecond: number, most: number, from: number, now: number): number {
  return perSecond === 0 || now <= from ? amount : Math.min(most, amount + perSecond * ((now - from) * PER_MICROSECOND));
}
