/**
 * The state of one fight: units in columns, what flies, the queue, the log. Allocated once for a compiled encounter and
 * used again for every seed. It only holds; what happens is in the files named after it.
 */
import { Columns } from '../record/columns';
import { EVENT, EventLog } from '../record/log';
import { SECOND } from '../record/time';
import { Crowd } from './body/crowd';
import { Ground } from './body/ground';
import { OverTimes } from './harm/over-times';
import { Bursts, Met, Shots } from './harm/pools';
import { NOBODY, PHASE, TASK } from './numbers';
import { type Compiled, type CompiledAttack, type CompiledUnit, DO } from './tables';
import { draw, PURPOSES } from './time/chance';
import { EventQueue } from './time/queue';
import { PER_MICROSECOND } from './tuning';
import type { Held } from './waves/holding';

/** A hit that will land at this instant, to be applied once all are settled. */
export interface Landing {
  attacker: number;
  victim: number;
  attack: number;
  use: number;
  /** Where it came from: what it pushes away from, and which side of a guard it meets. */
  x: number;
  y: number;
}

/** A stagger or knockback, carried out once all hits of an instant are applied. */
export interface Jolt {
  attacker: number;
  victim: number;
  attack: number;
  /** µs; 0: none */
  stagger: number;
  /** m; 0: none */
  knockback: number;
  x: number;
  y: number;
  /** one of BREAK, where the hit breaks off an attack; else −1 */
  breaks: number;
}

/** Something that lasts: a slow, a mark, a lent shield, a boost. */
export interface Ill {
  what: number;
  until: number;
  value: number;
  by: number;
}

/** An announced attack that a player has to deal with. */
export interface Threat {
  attacker: number;
  use: number;
  attack: number;
  /** µs */
  cueAt: number;
  hitAt: number;
  /** Its last hit. */
  until: number;
  /** Which answer was tried; −1: none. */
  answer: number;
  verdict: number;
  /** s left after the mean reaction and the quickest answer that works; −Infinity: none works */
  margin: number;
}

/** A part of a slot pool that is taken. */
export interface SlotHold {
  unit: number;
  pool: number;
  target: number;
  takes: number;
}

/** What a wave has come to. */
export interface WaveProgress {
  started: boolean;
  startedAt: number;
  /** Comings that have begun. */
  comings: number;
  /** Units it will ever spawn, and those of each coming. */
  planned: number;
  plannedOf: number[];
  defeated: number;
  defeatedOf: number[];
  /** Its share to be defeated, once reached, stays reached: the most that ever was. */
  reached: number;
  alive: number;
  /** A start or another coming is queued. */
  due: boolean;
  timedOut: boolean;
  called: boolean;
  /** What started it. */
  trigger: Trigger;
  /** Units that had to wait because the cap on the living was full, and µs that those who came waited in all. */
  waited: number;
  waitedFor: number;
}

/** What starts a wave: what its start says, its timeout, an event that calls it; or it has not started. */
export type Trigger = 'start' | 'timeout' | 'event' | 'none';

/** Holds the tables, so that the columns below can ask them for their size. */
class Tables extends Columns {
  constructor(readonly compiled: Compiled) {
    super(compiled.capacity);
  }
}

/** What a run counts and says, at its beginning. */
const AT_FIRST = {
  now: 0,
  stepEnd: 0,
  over: false,
  outcome: 0,
  count: 0,
  pending: 0,
  standing: 0,
  uses: 0,
  pointLost: false,
  holding: false,
  heldSince: 0,
  heldFor: 0,
  work: 0,
};

export class Fight extends Tables {
  readonly queue = this.cleared(new EventQueue());
  readonly log = this.cleared(new EventLog());
  readonly ground = new Ground(this.compiled);
  /** Somebody may search: where foes were last seen is kept. */
  readonly searches = this.compiled.kinds.some(({ states }) => states.some(({ does }) => does === DO.search));
  seed = 0;
  /** µs: the instant that is being worked out */
  now = AT_FIRST.now;
  /** µs: end of the step under way; segments hold until then */
  stepEnd = AT_FIRST.stepEnd;
  over = AT_FIRST.over;
  outcome = AT_FIRST.outcome;
  /** Units that ever appeared; the next one's number. */
  count = AT_FIRST.count;
  /** Steps that units have lived, all together: what a run has cost. */
  work = AT_FIRST.work;
  /** Units still to come from waves. */
  pending = AT_FIRST.pending;
  /** Numbers of the living, ascending; by side, and all. */
  readonly living: [number[], number[]] = [this.list(), this.list()];
  readonly alive = this.list<number>();
  /** Party members that stand; with none left the party is down. */
  standing = AT_FIRST.standing;
  /** Those who looked for a better target in this step. */
  readonly reconsidered = this.list<number>();

  // who
  readonly kindNumber = this.integers(-1);
  readonly kinds = this.list<CompiledUnit>();
  readonly side = this.bytes();
  readonly key = this.integers();
  readonly isAlive = this.bytes();
  readonly bornAt = this.numbers();
  readonly diedAt = this.numbers();
  private readonly draws = this.integers(0, PURPOSES);
  /** Its wave and which coming of it; −1: none. */
  readonly wave = this.integers(NOBODY);
  readonly coming = this.integers();
  readonly group = this.integers();
  /** Counts among the units its wave must lose. */
  readonly counted = this.bytes();
  readonly summoner = this.integers(NOBODY);
  /** Its living summoned, and how many it ever summoned. */
  readonly helpers = this.integers();
  readonly summoned = this.integers();
  readonly isMember = this.bytes();
  readonly revived = this.integers();
  readonly isDown = this.bytes();
  /** Something that must be kept; the fight is lost with it. */
  readonly defended = this.bytes();
  pointLost = AT_FIRST.pointLost;
  /** Those who came home for good in this step. */
  readonly leaving = this.list<number>();
  /** Units with a simulated player behind them. */
  readonly players = this.list<number>();

  // where: a straight segment from (x, y) at segmentStart with velocity (vx, vy) in m/s
  readonly x = this.numbers();
  readonly y = this.numbers();
  readonly vx = this.numbers();
  readonly vy = this.numbers();
  readonly segmentStart = this.numbers();
  /** Facing, a unit vector, and when it was last turned. */
  readonly fx = this.numbers();
  readonly fy = this.numbers();
  readonly turnedAt = this.numbers();
  readonly speed = this.numbers();
  readonly radius = this.numbers();
  readonly homeX = this.numbers();
  readonly homeY = this.numbers();
  // the way to its target at the beginning of the step: a unit vector, centre distance, distance between edges
  readonly bearingX = this.numbers();
  readonly bearingY = this.numbers();
  readonly bearingLength = this.numbers();
  readonly bearingGap = this.numbers();
  /** Line from its muzzle to its target: when it was looked up, for whom, and whether it is clear. */
  readonly lineAt = this.numbers(-1);
  readonly lineTo = this.integers(NOBODY);
  readonly lineClear = this.bytes();

  // health as of healthAt; regeneration runs from regenFrom
  readonly health = this.numbers();
  readonly healthAt = this.numbers();
  readonly regenFrom = this.numbers();
  readonly shield = this.numbers();
  readonly shieldAt = this.numbers();
  readonly shieldFrom = this.numbers();
  readonly energy = this.numbers();
  readonly energyAt = this.numbers();
  /** What opened each of its windows of invulnerability, and when that ends. */
  readonly windows = this.lists<number>();
  readonly windowEnds = this.lists<number>();
  readonly invulnerable = this.bytes();
  /** One bit a gate whose state has come; and one a gate that was said to hold. */
  readonly gatesPassed = this.integers();
  readonly gatesHeld = this.integers();
  readonly hurtAt = this.numbers(-Infinity);
  readonly hurtBy = this.integers(NOBODY);
  readonly dealt = this.numbers();
  /** Damage taken lately: time, amount, time, amount … */
  readonly recent = this.lists<number>();
  /** What each did to each, where somebody's targeting asks for it: by victim × capacity + attacker. */
  readonly harm = this.cleared(new Map<number, number>());
  readonly staggeredUntil = this.numbers();
  readonly steadyUntil = this.numbers();
  /** What lasts on it; empty for most. */
  readonly ills = this.lists<Ill>();
  readonly slowed = this.numbers();
  readonly marked = this.numbers(1);
  readonly lent = this.numbers();

  // what it knows
  readonly alerted = this.bytes();
  readonly noticing = this.bytes();
  readonly nextLook = this.numbers();
  readonly lastSeen = this.numbers();
  readonly seenFor = this.numbers();
  readonly knownX = this.numbers();
  readonly knownY = this.numbers();
  readonly target = this.integers(NOBODY);
  readonly nextTarget = this.numbers();
  /** Until when it can't leave its target, whatever else. */
  readonly boundUntil = this.numbers();

  // what it does
  readonly state = this.integers();
  readonly stateSince = this.numbers();
  readonly stateEntries = this.integers();
  // of its state, kept beside it because every step asks for them
  readonly does = this.bytes();
  readonly pace = this.numbers();
  readonly near = this.numbers();
  readonly far = this.numbers();
  readonly leaves = this.bytes();
  readonly mayAttack = this.bytes();
  // of its kind, likewise
  readonly lose = this.numbers();
  readonly leashed = this.bytes();
  readonly acceleration = this.numbers();
  readonly turnsAtOnce = this.bytes();
  readonly stepCosine = this.numbers();
  readonly phase = this.bytes();
  readonly attack = this.integers(NOBODY);
  readonly attackTarget = this.integers(NOBODY);
  readonly attackStart = this.numbers();
  /** Where a marked area will burst. */
  readonly markX = this.numbers();
  readonly markY = this.numbers();
  /** Share of its pace that attack, slow and stagger leave it. */
  readonly mobility = this.numbers(1);
  /** The attack under way holds its facing. */
  readonly held = this.bytes();
  /** Rises whenever what the unit had planned no longer holds; an event with an older serial is stale. */
  readonly serial = this.integers();
  readonly pauseUntil = this.numbers();
  /** The instant for which a choice is queued; −1: none. */
  readonly choiceAt = this.numbers(-1);
  /** Earliest instant at which some attack of the choice is off cooldown. */
  readonly nextReady = this.numbers(-1);
  readonly readyAt = this.numbers(0, this.compiled.attackRoom);
  /** Charges left as of an instant from which the next one grows back. */
  readonly charges = this.numbers(0, this.compiled.attackRoom);
  readonly chargedAt = this.numbers(0, this.compiled.attackRoom);
  readonly comboAttack = this.integers(NOBODY);
  /** What a state had it do on entering, not yet begun. */
  readonly owedAttack = this.integers(NOBODY);
  readonly comboUntil = this.numbers();
  readonly attackedAt = this.numbers(-Infinity);
  readonly doing = this.bytes();
  /** Whom the use under way has struck. */
  readonly struck = this.lists<number>();
  readonly use = this.integers();
  /** Uses of attacks ever begun in this run, and µs at which each could be read, by its number. */
  uses = AT_FIRST.uses;
  readonly announced = this.list<number>();
  readonly slots = this.list<SlotHold>();
  /** Last start out of each pool. */
  readonly poolStart = this.list<number>();

  // errands: patrols, wandering, ways around walls
  readonly urge = this.bytes();
  readonly urgeX = this.numbers();
  readonly urgeY = this.numbers();
  readonly urgeSpeed = this.numbers();
  readonly urgeUntil = this.numbers();
  readonly stop = this.integers();
  readonly stopWay = this.integers();
  readonly waitUntil = this.numbers();
  readonly goalX = this.numbers();
  readonly goalY = this.numbers();
  readonly hasGoal = this.bytes();
  readonly wayX = this.numbers();
  readonly wayY = this.numbers();
  readonly wayGoal = this.bytes();
  readonly wayUntil = this.numbers();
  readonly strafeSign = this.numbers();

  // the simulated player
  readonly rounds = this.integers();
  readonly doses = this.integers();
  readonly task = this.bytes();
  readonly taskSerial = this.integers();
  readonly taskOf = this.integers(NOBODY);
  readonly livesLeft = this.integers();
  readonly dodgeFrom = this.numbers();
  readonly dodgeUntil = this.numbers();
  readonly blockUntil = this.numbers();
  readonly blockShare = this.numbers();
  readonly answerReady = this.lists<number>();
  readonly threats = this.lists<Threat>();
  readonly coverUntil = this.numbers();
  readonly nextCover = this.numbers();

  readonly shots = this.cleared(new Shots());
  readonly bursts = this.cleared(new Bursts());
  readonly overTime = this.cleared(new OverTimes());
  readonly crowd = this.cleared(new Crowd(this.compiled.capacity));
  /** Hits that will land at this instant, to be applied once all are settled. */
  readonly landings = this.list<Landing>();
  readonly jolts = this.list<Jolt>();
  /** Those whom the hit being settled meets, in order, and what they are ordered by. */
  readonly met = this.cleared(new Met());
  /** Units at 0 health whose death is to be dealt with at this instant, and who did it with what. */
  readonly dying = this.list<{ unit: number; by: number; attack: number }>();
  /** The fallen who can be revived, and until when. */
  readonly fallen = this.list<{ unit: number; until: number }>();
  readonly waves = this.list<WaveProgress>();
  /** Some wave may hold others back. */
  readonly canHold = this.compiled.waves.some(({ holdsBack }) => holdsBack);
  /** One does now; since when, and µs that it was so before. */
  holding = AT_FIRST.holding;
  heldSince = AT_FIRST.heldSince;
  heldFor = AT_FIRST.heldFor;
  /** Starts and spawns that stand still meanwhile, and when each of all is due on their clock. */
  readonly putAside = this.list<Held>();
  readonly dueOnClock = this.cleared(new Map<number, number>());
  /** Spawns that wait because of the cap on the living: wave, coming, group, ordinal, draw. */
  readonly waiting = this.list<number>();
  /** µs since when each of them has waited, by `waitKey`. */
  readonly waitingSince = this.cleared(new Map<number, number>());
  readonly flags = this.list<boolean>();
  readonly happened = this.list<boolean>();
  /** Deaths of each type. */
  readonly killed = this.list<number>();
  readonly aliveOfType = this.list<number>();
  /** Boosts that an encounter's events laid on each type, for those who come later. */
  readonly standingBoosts = this.list<{ type: number; id: number; tweaks: number }>();
  /** Kinds as boosts and states changed them, by what changed them. Kept between runs. */
  readonly changed = new Map<string, CompiledUnit>();
  /** Is told before and after every choice; for traces. Changes nothing. */
  observer: ((fight: Fight, unit: number) => void) | undefined = undefined;

  /** Ready for a run: whatever the last one left is gone. */
  reset(seed: number): void {
    const { compiled } = this;
    this.resetColumns(this.count);
    Object.assign(this, AT_FIRST);
    this.seed = seed | 0;
    refill(this.poolStart, compiled.pools.length, -Infinity);
    refill(this.flags, compiled.names.flags.length, false);
    refill(this.happened, compiled.events.length, false);
    refill(this.killed, compiled.names.types.length, 0);
    refill(this.aliveOfType, compiled.names.types.length, 0);
    for (let wave = 0; wave < compiled.waves.length; wave++) {
      this.waves.push({
        started: false,
        startedAt: 0,
        comings: 0,
        planned: 0,
        plannedOf: [],
        defeated: 0,
        defeatedOf: [],
        reached: 0,
        alive: 0,
        due: false,
        timedOut: false,
        called: false,
        trigger: 'none',
        waited: 0,
        waitedFor: 0,
      });
    }
  }

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

  xAt(unit: number, time: number): number {
    return this.x[unit] + this.vx[unit] * ((time - this.segmentStart[unit]) * PER_MICROSECOND);
  }

  yAt(unit: number, time: number): number {
    return this.y[unit] + this.vy[unit] * ((time - this.segmentStart[unit]) * PER_MICROSECOND);
  }

  /** Between the edges of two bodies at this instant; at least 0. */
  gap(a: number, b: number): number {
    return Math.max(0, this.apart(a, b) - this.radius[a] - this.radius[b]);
  }

  /** Between the centres of two bodies at this instant. */
  apart(a: number, b: number): number {
    const dx = this.xAt(b, this.now) - this.xAt(a, this.now);
    const dy = this.yAt(b, this.now) - this.yAt(a, this.now);
    return Math.sqrt(dx * dx + dy * dy);
  }

  /** Centre to a place at this instant. */
  apartFrom(unit: number, x: number, y: number): number {
    const dx = x - this.xAt(unit, this.now);
    const dy = y - this.yAt(unit, this.now);
    return Math.sqrt(dx * dx + dy * dy);
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

  /** Ends a unit's segment here: it stands until the next step. */
  stand(unit: number): void {
    if (this.vx[unit] === 0 && this.vy[unit] === 0) return;
    const toX = this.xAt(unit, this.now);
    const toY = this.yAt(unit, this.now);
    const { ground } = this.kinds[unit];
    if (!this.ground.isBounded(ground)) return this.moveTo(unit, toX, toY);
    // A straight way from one free place to another may cut the corner of a wall.
    this.ground.slide(ground, this.x[unit], this.y[unit], toX, toY, this.radius[unit]);
    this.moveTo(unit, this.ground.x, this.ground.y);
  }

  /** Puts a unit somewhere at this instant; it stands there until the next step. */
  moveTo(unit: number, x: number, y: number): void {
    this.x[unit] = x;
    this.y[unit] = y;
    this.vx[unit] = this.vy[unit] = this.speed[unit] = 0;
    this.segmentStart[unit] = this.now;
    this.shots.stale = true;
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

function refill<T>(list: T[], length: number, value: T): void {
  list.length = length;
  list.fill(value);
}
