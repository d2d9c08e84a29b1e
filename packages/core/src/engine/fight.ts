/** One fight: its state, where bodies are, and what is worked out of both when it is asked for. */
import { EVENT } from '../record/log';
import { SECOND } from '../record/time';
import { Motion } from './body/motion';
import { NOBODY, PHASE, TASK } from './numbers';
import type { CompiledAttack } from './tables';
import { draw, PURPOSES } from './time/chance';
import { PER_MICROSECOND } from './tuning';

export class Fight extends Motion {
  /** The number of the next unit. */
  nextUnit(): number {
    this.takeUnit(this.count);
    return this.count++;
  }

  /** A use of an attack begins; its number. @param readable µs at which it can be read */
  nextUse(readable: number): number {
    this.announced[++this.uses] = readable;
    return this.uses;
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
    return Math.min(charges, this.charges[at] + Math.floor((this.now - this.chargedAt[at]) / recharge));
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

  /** Turns to the idle phase and forgets the attack under way. */
  idle(unit: number): void {
    this.phase[unit] = PHASE.idle;
    this.held[unit] = 0;
    this.attack[unit] = NOBODY;
    this.attackTarget[unit] = NOBODY;
    this.serial[unit]++;
    this.choiceAt[unit] = -1;
    this.setMobility(unit);
  }
}

/** A linear function of time, up to a most: what regenerates is worked out when it is asked for. */
function grown(amount: number, perSecond: number, most: number, from: number, now: number): number {
  return perSecond === 0 || now <= from ? amount : Math.min(most, amount + perSecond * ((now - from) * PER_MICROSECOND));
}
