/**
 * The state of one fight: units and shots in columns, the queue, the log. Allocated once for a compiled encounter and
 * used again for every seed. It only holds; what happens is in the files named after it.
 */
import type { Landing } from './attack';
import { PURPOSES, draw } from './chance';
import type { Compiled, CompiledAttack, CompiledUnit } from './compile';
import { EVENT, EventLog } from './log';
import { Crowd } from './movement';
import { OverTimes } from './over-time';
import { EventQueue } from './queue';
import { PER_MICROSECOND, SECOND } from './tuning';

export const PHASE = { idle: 0, windup: 1, active: 2, recovery: 3 } as const;
export const NOBODY = -1;

export class Fight {
  readonly queue = new EventQueue();
  readonly log = new EventLog();
  seed = 0;
  /** µs: the instant that is being worked out */
  now = 0;
  /** µs: end of the step under way; segments hold until then */
  stepEnd = 0;
  over = false;
  outcome = 0;
  /** Units that ever appeared; the next one's number. */
  count = 0;
  /** Units still to come from waves. */
  pending = 0;
  /** Numbers of the living, ascending; by side, and all. */
  readonly living: [number[], number[]] = [[], []];
  readonly alive: number[] = [];
  /** Those who looked for a better target in this step. */
  readonly reconsidered: number[] = [];

  // who
  readonly kindNumber: Int32Array;
  readonly kinds: CompiledUnit[] = [];
  readonly side: Uint8Array;
  readonly key: Int32Array;
  readonly isAlive: Uint8Array;
  readonly bornAt: Float64Array;
  private readonly draws: Int32Array;
  // where: a straight segment from (x, y) at segmentStart with velocity (vx, vy) in m/s
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly vx: Float64Array;
  readonly vy: Float64Array;
  readonly segmentStart: Float64Array;
  /** Facing, a unit vector, and when it was last turned. */
  readonly fx: Float64Array;
  readonly fy: Float64Array;
  readonly turnedAt: Float64Array;
  readonly speed: Float64Array;
  readonly radius: Float64Array;
  // the way to its target at the beginning of the step: a unit vector, centre distance, distance between edges
  readonly bearingX: Float64Array;
  readonly bearingY: Float64Array;
  readonly bearingLength: Float64Array;
  readonly bearingGap: Float64Array;
  // health as of healthAt; regeneration runs from regenFrom
  readonly health: Float64Array;
  readonly healthAt: Float64Array;
  readonly regenFrom: Float64Array;
  readonly shield: Float64Array;
  readonly shieldAt: Float64Array;
  readonly shieldFrom: Float64Array;
  readonly energy: Float64Array;
  readonly energyAt: Float64Array;
  readonly windowUntil: Float64Array;
  /** Windows by attacker or by attack, where the scope asks for it. */
  readonly windows = new Map<number, number>();
  // what it knows
  readonly alerted: Uint8Array;
  readonly noticing: Uint8Array;
  readonly nextLook: Float64Array;
  readonly lastSeen: Float64Array;
  readonly target: Int32Array;
  readonly nextTarget: Float64Array;
  // what it does
  readonly state: Int32Array;
  readonly stateSince: Float64Array;
  // of its state, kept beside it because every step asks for them
  readonly does: Uint8Array;
  readonly pace: Float64Array;
  readonly near: Float64Array;
  readonly far: Float64Array;
  readonly leaves: Uint8Array;
  readonly mayAttack: Uint8Array;
  // of its kind, likewise
  readonly lose: Float64Array;
  readonly acceleration: Float64Array;
  readonly turnsAtOnce: Uint8Array;
  readonly stepCosine: Float64Array;
  readonly phase: Uint8Array;
  readonly attack: Int32Array;
  readonly attackTarget: Int32Array;
  readonly attackStart: Float64Array;
  /** Share of its pace that the attack under way leaves it; 1 when there is none. */
  readonly moving: Float64Array;
  /** The attack under way holds its facing. */
  readonly held: Uint8Array;
  /** Rises whenever what the unit had planned no longer holds; an event with an older serial is stale. */
  readonly serial: Int32Array;
  readonly pauseUntil: Float64Array;
  /** The instant for which a choice is queued; −1: none. */
  readonly choiceAt: Float64Array;
  /** Earliest instant at which some attack of the choice is off cooldown. */
  readonly nextReady: Float64Array;
  readonly readyAt: Float64Array;
  readonly doing: Uint8Array;
  /** Use in which the unit was last struck by the attacker: by attacker × victim. */
  readonly struckIn: Int32Array;
  readonly use: Int32Array;
  /** Uses of attacks ever begun in these buffers; never reset, so that a number from an earlier run matches nothing. */
  uses = 0;

  readonly shots = new Shots();
  readonly overTime = new OverTimes();
  readonly crowd: Crowd;
  /** Hits that will land at this instant, to be applied once all are settled. */
  readonly landings: Landing[] = [];
  /** Those whom the hit being settled meets, in order, and what they are ordered by. */
  readonly met = new Met();
  /** Units at 0 health whose death is to be dealt with at this instant, and who did it with what. */
  readonly dying: { unit: number; by: number; attack: number }[] = [];

  constructor(readonly compiled: Compiled) {
    const n = compiled.capacity;
    const numbers = () => new Float64Array(n);
    this.kindNumber = new Int32Array(n);
    this.side = new Uint8Array(n);
    this.key = new Int32Array(n);
    this.isAlive = new Uint8Array(n);
    this.bornAt = numbers();
    this.draws = new Int32Array(n * PURPOSES);
    this.x = numbers();
    this.y = numbers();
    this.vx = numbers();
    this.vy = numbers();
    this.segmentStart = numbers();
    this.fx = numbers();
    this.fy = numbers();
    this.turnedAt = numbers();
    this.speed = numbers();
    this.radius = numbers();
    this.bearingX = numbers();
    this.bearingY = numbers();
    this.bearingLength = numbers();
    this.bearingGap = numbers();
    this.health = numbers();
    this.healthAt = numbers();
    this.regenFrom = numbers();
    this.shield = numbers();
    this.shieldAt = numbers();
    this.shieldFrom = numbers();
    this.energy = numbers();
    this.energyAt = numbers();
    this.windowUntil = numbers();
    this.alerted = new Uint8Array(n);
    this.noticing = new Uint8Array(n);
    this.nextLook = numbers();
    this.lastSeen = numbers();
    this.target = new Int32Array(n);
    this.nextTarget = numbers();
    this.state = new Int32Array(n);
    this.stateSince = numbers();
    this.does = new Uint8Array(n);
    this.pace = numbers();
    this.near = numbers();
    this.far = numbers();
    this.leaves = new Uint8Array(n);
    this.mayAttack = new Uint8Array(n);
    this.lose = numbers();
    this.acceleration = numbers();
    this.turnsAtOnce = new Uint8Array(n);
    this.stepCosine = numbers();
    this.moving = numbers();
    this.held = new Uint8Array(n);
    this.phase = new Uint8Array(n);
    this.attack = new Int32Array(n);
    this.attackTarget = new Int32Array(n);
    this.attackStart = numbers();
    this.serial = new Int32Array(n);
    this.pauseUntil = numbers();
    this.choiceAt = numbers();
    this.nextReady = numbers();
    this.readyAt = new Float64Array(n * compiled.attackRoom);
    this.doing = new Uint8Array(n);
    this.struckIn = new Int32Array(n * n);
    this.use = new Int32Array(n);
    this.crowd = new Crowd(n);
  }

  reset(seed: number): void {
    this.seed = seed | 0;
    this.now = this.stepEnd = this.count = this.pending = this.outcome = 0;
    this.over = false;
    this.queue.clear();
    this.log.clear();
    this.living[0].length = this.living[1].length = this.alive.length = this.dying.length = this.landings.length = 0;
    this.crowd.clear();
    this.draws.fill(0);
    this.windows.clear();
    this.shots.clear();
    this.overTime.clear();
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

  xAt(unit: number, time: number): number {
    return this.x[unit] + this.vx[unit] * ((time - this.segmentStart[unit]) * PER_MICROSECOND);
  }

  yAt(unit: number, time: number): number {
    return this.y[unit] + this.vy[unit] * ((time - this.segmentStart[unit]) * PER_MICROSECOND);
  }

  /** Between the edges of two bodies at this instant; at least 0. */
  gap(a: number, b: number): number {
    const dx = this.xAt(b, this.now) - this.xAt(a, this.now);
    const dy = this.yAt(b, this.now) - this.yAt(a, this.now);
    return Math.max(0, Math.sqrt(dx * dx + dy * dy) - this.radius[a] - this.radius[b]);
  }

  /** Health at this instant, with what has grown back. */
  healthNow(unit: number): number {
    const kind = this.kinds[unit];
    const health = this.health[unit];
    if (kind.regen === 0 || health >= kind.regenTop || health <= 0) return health;
    const from = Math.max(this.regenFrom[unit], this.healthAt[unit]);
    return this.now <= from ? health : Math.min(kind.regenTop, health + (kind.regen * (this.now - from)) / SECOND);
  }

  /** Shield at this instant, with what has grown back. */
  shieldNow(unit: number): number {
    const { shield: most, shieldRegen } = this.kinds[unit];
    return grown(this.shield[unit], shieldRegen, most, Math.max(this.shieldFrom[unit], this.shieldAt[unit]), this.now);
  }

  /** Energy at this instant. */
  energyNow(unit: number): number {
    const { energy: most, energyRegen } = this.kinds[unit];
    return grown(this.energy[unit], energyRegen, most, this.energyAt[unit], this.now);
  }

  /** Says in the log what a unit is about, when that changes. */
  sayDoing(unit: number, doing: number): void {
    if (this.doing[unit] === doing) return;
    this.doing[unit] = doing;
    this.log.add(this.now, EVENT.doing, unit, NOBODY, doing);
  }

  /** Ends a unit's segment here: it stands until the next step. */
  stand(unit: number): void {
    if (this.vx[unit] === 0 && this.vy[unit] === 0) return;
    this.x[unit] = this.xAt(unit, this.now);
    this.y[unit] = this.yAt(unit, this.now);
    this.vx[unit] = this.vy[unit] = this.speed[unit] = 0;
    this.segmentStart[unit] = this.now;
    this.shots.stale = true;
  }

  /** Turns to the idle phase and forgets the attack under way. */
  idle(unit: number): void {
    this.phase[unit] = PHASE.idle;
    this.moving[unit] = 1;
    this.held[unit] = 0;
    this.attack[unit] = NOBODY;
    this.attackTarget[unit] = NOBODY;
    this.serial[unit]++;
    this.choiceAt[unit] = -1;
  }
}

/** A linear function of time, up to a most: what regenerates is worked out when it is asked for. */
function grown(amount: number, perSecond: number, most: number, from: number, now: number): number {
  return perSecond === 0 || now <= from ? amount : Math.min(most, amount + perSecond * ((now - from) * PER_MICROSECOND));
}

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
  startedAt: number;
  endsAt: number;
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
  /** Units it has passed: their aim draw failed. */
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
        startedAt: 0,
        endsAt: 0,
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
