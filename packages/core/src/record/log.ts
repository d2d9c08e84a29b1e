/**
 * The event stream of a run: one row an event, in columns. Every measure is computed from it, and the digest is taken
 * over it, so two runs with the same stream are the same fight.
 */
import { doubled } from './columns';

/** Kinds of events. What the columns mean is said beside each: actor, other, what; a, b, c, d. */
export const EVENT = {
  /** a unit appears. what: its kind; a, b: place; c: its wave or −1; d: who summoned it or −1 */
  spawn: 0,
  /** a unit notices its foes */
  notice: 1,
  /** a unit loses them */
  lose: 2,
  /** a unit takes `other` as its target */
  target: 3,
  /** a unit enters state `what` */
  state: 4,
  /** a unit begins the wind-up of attack `what` against `other`; a: distance between edges */
  start: 5,
  /** a hit of attack `what` on `other`. a: health lost, b: overkill or stopped by a gate, c: dealt (after armour), d: absorbed by shields */
  hit: 6,
  /** a hit instant of attack `what` that struck nobody, or failed on `other`. a: one of MISS */
  miss: 7,
  /** a hit on `other` that its invulnerability stopped */
  blocked: 8,
  /** a shot leaves */
  shot: 9,
  /** a unit dies. other: by whom, what: by which attack */
  death: 10,
  /** attack `what` is broken off. a: one of BREAK; other: its target */
  interrupted: 11,
  /** why the unit is not attacking changes. what: one of DOING; attacking itself is said by `start` */
  doing: 12,
  /** a unit of kind `what` found no place */
  noPlace: 13,
  /** the fight is over. what: one of OUTCOME */
  end: 14,
  /** a tick of damage over time that attack `what` left on `other`; a to d as for a hit */
  tick: 15,
  /** wave `what` starts; a: which coming of it, from 0 */
  wave: 16,
  /** a unit leaves the fight alive. what: one of GONE */
  gone: 17,
  /** a unit brings `other` back with attack `what` (−1: by helping it up); a: health */
  revive: 18,
  /** a party member goes down but can be helped up. other, what: as for a death */
  down: 19,
  /** a unit heals `other` with attack `what` (−1: a healing item, −2: at home); a: given, b: wasted */
  heal: 20,
  /** a unit lends `other` a shield; a: amount */
  shielded: 21,
  /** `other` is staggered by attack `what` of a unit; a: µs */
  stagger: 22,
  /** `other` is knocked back by attack `what`; a: metres it moved */
  knock: 23,
  /** `other` is slowed; a: share, b: µs */
  slow: 24,
  /** `other` is changed by a boost of attack `what`; a: µs */
  boost: 25,
  /** `other` loses energy; a: how much */
  drain: 26,
  /** `other` must turn on the unit; a: µs */
  taunt: 27,
  /** `other` is marked; a: multiplier, b: µs */
  mark: 28,
  /** gate `what` of a unit stopped damage (a: 0), or was passed without its state having come (a: 1) */
  gate: 29,
  /** flag `what` is raised (a: 1) or lowered (a: 0), by the unit or by the encounter (−1) */
  flag: 30,
  /** a unit turns back for home; a: distance from it */
  leash: 31,
  /** a unit is home again */
  home: 32,
  /** a party member answers attack `what` of `other`. a: which answer (−1: none), b: one of VERDICT, c: reaction margin in s */
  answer: 33,
  /** a hit of attack `what` on party member `other` that it could have answered. a: which answer was tried, b: why it failed, c: margin in s, d: damage */
  exposed: 34,
  /** an event of the encounter happens. what: which */
  happening: 35,
  /** a unit of kind `what` is due but the cap on the living holds: it waits (a: 0) or is left out (a: 1), or a summon is lost (a: 2) */
  capped: 36,
  /** counter `what` is changed by the unit or by the encounter (−1). a: what it is now */
  counter: 37,
  /** the encounter gives score. a: how much */
  score: 38,
  /** wave `what` is stopped for good. a: how many of its units will not come */
  stopped: 39,
  /** a unit's movement in attack `what` begins, `other` its target. a: metres it is to go, b: m/s */
  dash: 40,
  /** it is over. a: metres gone; b: one of DASH_END */
  dashed: 41,
  /** a unit’s turn is over. what: of TIME_USES what it went into, −1: it knows of no foe; a: what the way cost that it went, in cells; b: 1 where it was free to act and somebody could be struck, 0 where nobody could, −1 where it was not free */
  turn: 42,
  /** a unit answers a hit of `other` in nobody’s turn. a: 0 it dodges, 1 it guards, 2 it strikes back */
  reaction: 43,
  /** in turns: `other` is pushed by attack `what` against what it cannot pass; a to d as for a hit */
  crush: 44,
} as const;
export const EVENT_NAMES = Object.keys(EVENT) as (keyof typeof EVENT)[];

export const MISS = { reach: 0, arc: 1, aim: 2, flown: 3, dodged: 4, wall: 5, warded: 6, gone: 7 } as const;
export const MISS_NAMES = Object.keys(MISS) as (keyof typeof MISS)[];
export const BREAK = { targetDied: 0, stagger: 1, hit: 2, answer: 3, state: 4, noTarget: 5, wall: 6 } as const;
export const BREAK_NAMES = Object.keys(BREAK) as (keyof typeof BREAK)[];
/** What ended a movement: its distance, a wall, a body; or it was cut short. */
export const DASH_END = { done: 0, wall: 1, body: 2, cut: 3 } as const;
export const DASH_END_NAMES = Object.keys(DASH_END) as (keyof typeof DASH_END)[];
export const GONE = { home: 0, farAway: 1, replaced: 2, bledOut: 3 } as const;
export const GONE_NAMES = Object.keys(GONE) as (keyof typeof GONE)[];

/** What came of an answer to an announced attack, or why there was none. The order is from luck to structure. */
export const VERDICT = { worked: 0, notSeen: 1, mistake: 2, tooLate: 3, cooldown: 4, nowhere: 5, none: 6, tried: 7 } as const;
export const VERDICT_NAMES = Object.keys(VERDICT) as (keyof typeof VERDICT)[];

export class EventLog {
  length = 0;
  time = new Float64Array(256);
  kind = new Uint8Array(256);
  actor = new Int32Array(256);
  other = new Int32Array(256);
  what = new Int32Array(256);
  a = new Float64Array(256);
  b = new Float64Array(256);
  c = new Float64Array(256);
  d = new Float64Array(256);

  clear(): void {
    this.length = 0;
  }

  add(time: number, kind: number, actor: number, other: number, what: number, a = 0, b = 0, c = 0, d = 0): void {
    if (this.length === this.time.length) this.grow();
    const i = this.length++;
    this.time[i] = time;
    this.kind[i] = kind;
    this.actor[i] = actor;
    this.other[i] = other;
    this.what[i] = what;
    this.a[i] = a;
    this.b[i] = b;
    this.c[i] = c;
    this.d[i] = d;
  }

  /** The last two change places: what comes after the end of a fight within one instant belongs before it. */
  swapLast(): void {
    const [i, j] = [this.length - 2, this.length - 1];
    for (const column of [this.time, this.kind, this.actor, this.other, this.what, this.a, this.b, this.c, this.d])
      [column[i], column[j]] = [column[j], column[i]];
  }

  private grow(): void {
    this.time = doubled(this.time);
    this.kind = doubled(this.kind);
    this.actor = doubled(this.actor);
    this.other = doubled(this.other);
    this.what = doubled(this.what);
    this.a = doubled(this.a);
    this.b = doubled(this.b);
    this.c = doubled(this.c);
    this.d = doubled(this.d);
  }
}
