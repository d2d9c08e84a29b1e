/** Damage over time: what a hit leaves on its victim, tick by tick, whatever becomes of whoever left it. */
import type { CompiledAttack } from './compile';
import { hurt } from './damage';
import type { Fight } from './fight';
import { EVENT } from './log';
import { DUE } from './queue';

/** One running effect. */
export interface OverTime {
  attacker: number;
  victim: number;
  attack: number;
  startedAt: number;
  endsAt: number;
  ticks: number;
  running: boolean;
  /** Tells this run from earlier ones of the same pooled object. */
  life: number;
}

export class OverTimes {
  readonly all: OverTime[] = [];
  private used = 0;

  clear(): void {
    for (const effect of this.all) effect.running = false;
    this.used = 0;
  }

  /** The one that an attack of an attacker has running on a victim. */
  find(attacker: number, victim: number, attack: number): OverTime | undefined {
    return this.all.find((each) => each.running && each.attacker === attacker && each.victim === victim && each.attack === attack);
  }

  /** Number of a free object, marked running. */
  take(): number {
    let number = this.used < this.all.length ? this.used++ : this.all.findIndex(({ running }) => !running);
    if (number < 0) {
      number = this.all.push({ attacker: 0, victim: 0, attack: 0, startedAt: 0, endsAt: 0, ticks: 0, running: false, life: 0 }) - 1;
      this.used = this.all.length;
    }
    this.all[number].running = true;
    this.all[number].life++;
    return number;
  }

  /** Dead is dead: what runs on a victim ends with it. */
  endOn(victim: number): void {
    for (const effect of this.all) if (effect.victim === victim) effect.running = false;
  }
}

/** A hit has landed whose attack leaves something behind. */
export function leave(fight: Fight, attacker: number, victim: number, number: number, attack: CompiledAttack): void {
  const { overTime, now } = fight;
  const present = attack.tickStacking === 1 ? undefined : overTime.find(attacker, victim, number);
  if (present) {
    if (attack.tickStacking === 0) present.endsAt = now + attack.tickFor;
    return;
  }
  if (attack.tickFor < attack.tickEvery) return;
  const id = overTime.take();
  const effect = overTime.all[id];
  Object.assign(effect, { attacker, victim, attack: number, startedAt: now, endsAt: now + attack.tickFor, ticks: 0 });
  fight.queue.push(now + attack.tickEvery, DUE.tick, attacker, effect.life, id);
}

/** A tick is due; the next one falls at start + i × every while the effect lasts. */
export function tick(fight: Fight, id: number, life: number): void {
  const effect = fight.overTime.all[id];
  if (!effect.running || effect.life !== life) return;
  const attack = fight.attackOf(effect.attacker, effect.attack);
  hurt(fight, EVENT.tick, effect.attacker, effect.victim, effect.attack, attack.tickAmount);
  const next = effect.startedAt + (++effect.ticks + 1) * attack.tickEvery;
  if (next <= effect.endsAt) fight.queue.push(next, DUE.tick, effect.attacker, life, id);
  else effect.running = false;
}
