/** Damage over time: what runs on each victim. */
import type { CompiledEffects } from '../../model/effects/list';
import type { Fight } from '../fight';
import { DUE } from '../time/queue';
import { MOST_SHOTS } from '../tuning';

const NONE = -1;

type CompiledOverTime = NonNullable<CompiledEffects['overTime']>;

/** One running effect. */
export interface OverTime {
  attacker: number;
  victim: number;
  attack: number;
  endsAt: number;
  running: boolean;
  /** Tells this run from earlier ones of the same pooled object. */
  life: number;
}

export class OverTimes {
  readonly all: OverTime[] = [];
  private readonly free: number[] = [];
  /** Numbers of those that run on each victim. */
  private readonly on = new Map<number, number[]>();
  /** How many run. */
  running = 0;

  clear(): void {
    this.free.length = 0;
    for (let number = this.all.length - 1; number >= 0; number--) {
      this.all[number].running = false;
      this.free.push(number);
    }
    this.on.clear();
    this.running = 0;
  }

  /** Number of the one that an attack of an attacker has running on a victim; NONE where there is none. */
  find(attacker: number, victim: number, attack: number): number {
    const here = this.on.get(victim);
    if (!here) return NONE;
    for (const number of here) if (this.all[number].attacker === attacker && this.all[number].attack === attack) return number;
    return NONE;
  }

  /** Number of a free object, marked running on a victim. */
  take(victim: number): number {
    const number = this.free.pop() ?? this.all.push({ attacker: 0, victim: 0, attack: 0, endsAt: 0, running: false, life: 0 }) - 1;
    this.all[number].running = true;
    this.all[number].life++;
    const here = this.on.get(victim);
    if (here) here.push(number);
    else this.on.set(victim, [number]);
    this.running++;
    return number;
  }

  end(number: number): void {
    const { victim } = this.all[number];
    const here = this.on.get(victim)!;
    here.splice(here.indexOf(number), 1);
    this.all[number].running = false;
    this.free.push(number);
    this.running--;
  }

  /** Dead is dead: what runs on a victim ends with it. */
  endOn(victim: number): void {
    const here = this.on.get(victim);
    while (here?.length) this.end(here[here.length - 1]);
  }
}

/** A hit has landed whose attack leaves something behind. What one attack of one attacker leaves on one victim is one effect. */
export function leave(fight: Fight, attacker: number, victim: number, number: number, ticks: CompiledOverTime): void {
  const { overTime, now } = fight;
  const present = ticks.stacking === 'stack' ? NONE : overTime.find(attacker, victim, number);
  if (present !== NONE) {
    // It lasts up to and including its end, whether or not a tick falls there; in rounds that turn's ticks have fallen by now.
    const { endsAt } = overTime.all[present];
    if (!fight.inTurns ? now <= endsAt : now < endsAt) {
      if (ticks.stacking === 'refresh') overTime.all[present].endsAt = fight.ends(victim, ticks.lasts);
      return;
    }
    overTime.end(present);
  }
  if (overTime.running >= MOST_SHOTS) return;
  const id = overTime.take(victim);
  const effect = overTime.all[id];
  Object.assign(effect, { attacker, victim, attack: number, endsAt: fight.ends(victim, ticks.lasts) });
  fight.queue.push(fight.ends(victim, ticks.every), DUE.tick, attacker, effect.life, id);
}
