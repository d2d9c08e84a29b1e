/** Things there are many of for a short time, pooled so that a step allocates nothing. */
import { NOBODY } from '../numbers';

/** Whom a hit meets, kept in order of a measure and then of their numbers. Used again for every hit. */
export class Met {
  count = 0;
  readonly units: number[] = [];
  private readonly order: number[] = [];

  clear(): void {
    this.count = 0;
  }

  add(unit: number, order: number): void {
    let at = this.count++;
    while (at > 0 && (this.order[at - 1] > order || (this.order[at - 1] === order && this.units[at - 1] > unit))) {
      this.units[at] = this.units[at - 1];
      this.order[at] = this.order[at - 1];
      at--;
    }
    this.units[at] = unit;
    this.order[at] = order;
  }
}

/** Shots in flight, one object each, pooled. */
export interface Shot {
  owner: number;
  attack: number;
  side: number;
  /** The unit it was meant for. */
  meant: number;
  /** The use of the attack it belongs to. */
  use: number;
  /** Bodies it may still pass through after striking them. */
  pierces: number;
  /** Where it would meet a wall rather than fly on. */
  wall: boolean;
  /** Height at which it started, what it rises a metre, and for how many metres. */
  height: number;
  slope: number;
  aimed: number;
  startedAt: number;
  endsAt: number;
  /** When its lifetime is over, walls aside. */
  diesAt: number;
  x: number;
  y: number;
  vx: number;
  vy: number;
  radius: number;
  flying: boolean;
  missed: boolean;
  /** Tells this flight from earlier ones of the same pooled object. */
  life: number;
  /** Rises whenever its next contact is worked out anew; an impact planned before is stale. */
  plan: number;
  contact: number;
  /** Units it has passed: their aim draw failed, or it went through them. */
  passed: number[];
}

export class Shots {
  readonly all: Shot[] = [];
  readonly flying: number[] = [];
  private readonly free: number[] = [];
  /** Some segment was cut: contacts must be worked out again before the next pass. */
  stale = false;

  clear(): void {
    this.flying.length = this.free.length = 0;
    for (let i = this.all.length - 1; i >= 0; i--) this.free.push(i);
    this.stale = false;
  }

  /** The number of a shot to be filled in. */
  take(): number {
    const number = this.free.pop() ?? this.all.length;
    if (number === this.all.length) {
      this.all.push({
        owner: 0,
        attack: 0,
        side: 0,
        meant: 0,
        use: 0,
        pierces: 0,
        wall: false,
        height: 0,
        slope: 0,
        aimed: 0,
        startedAt: 0,
        endsAt: 0,
        diesAt: 0,
        x: 0,
        y: 0,
        vx: 0,
        vy: 0,
        radius: 0,
        flying: false,
        missed: false,
        life: 0,
        plan: 0,
        contact: NOBODY,
        passed: [],
      });
    }
    const shot = this.all[number];
    shot.flying = true;
    shot.missed = false;
    shot.life++;
    shot.contact = NOBODY;
    shot.passed.length = 0;
    this.flying.push(number);
    return number;
  }

  end(number: number): void {
    this.all[number].flying = false;
    this.all[number].plan++;
    this.flying.splice(this.flying.indexOf(number), 1);
    this.free.push(number);
  }
}

/** A blast that will strike everybody about a place: a marked area, or what the dead leave behind. */
export interface Burst {
  owner: number;
  attack: number;
  side: number;
  use: number;
  x: number;
  y: number;
  fx: number;
  fy: number;
  pending: boolean;
  life: number;
}

export class Bursts {
  readonly all: Burst[] = [];

  clear(): void {
    for (const burst of this.all) burst.pending = false;
  }

  take(): number {
    let number = this.all.findIndex(({ pending }) => !pending);
    if (number < 0) number = this.all.push({ owner: 0, attack: 0, side: 0, use: 0, x: 0, y: 0, fx: 1, fy: 0, pending: false, life: 0 }) - 1;
    this.all[number].pending = true;
    this.all[number].life++;
    return number;
  }
}
