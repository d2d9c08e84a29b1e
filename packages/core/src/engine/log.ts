/**
 * The event stream of a run: one row an event, in columns. Every measure is computed from it, and the digest is taken
 * over it, so two runs with the same stream are the same fight.
 */
import { doubled } from './columns';

/** Kinds of events. What the columns mean is said beside each: actor, other, what; a, b, c. */
export const EVENT = {
  /** a unit appears. what: its kind; a, b: place */
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
  /** a hit of attack `what` on `other`. a: health lost, b: overkill, c: dealt (after armour), d: absorbed by the shield */
  hit: 6,
  /** a hit instant of attack `what` that struck nobody, or whose aim failed on `other`. a: one of MISS */
  miss: 7,
  /** a hit on `other` that its invulnerability window stopped */
  blocked: 8,
  /** a shot leaves */
  shot: 9,
  /** a unit dies, or a party member goes down. other: by whom, what: by which attack */
  death: 10,
  /** attack `what` is broken off in its wind-up because its target died */
  interrupted: 11,
  /** why the unit is not attacking changes. what: one of DOING; attacking itself is said by `start` */
  doing: 12,
  /** a unit of group `what` found no place */
  noPlace: 13,
  /** the fight is over. what: one of OUTCOME */
  end: 14,
  /** a tick of damage over time that attack `what` left on `other`; a to d as for a hit */
  tick: 15,
} as const;

export const MISS = { reach: 0, arc: 1, aim: 2, flown: 3 } as const;

/** What a unit is about: attacking, or why not. The order is the order of the hurdles to an attack. */
export const DOING = {
  unaware: 0,
  noTarget: 1,
  noAttack: 2,
  pause: 3,
  cooldown: 4,
  energy: 5,
  range: 6,
  facing: 7,
  attacking: 8,
} as const;
export const DOING_NAMES = [
  'unaware',
  'noTarget',
  'noAttack',
  'pause',
  'cooldown',
  'range',
  'facing',
  'windup',
  'active',
  'recovery',
] as const;
export type Doing = (typeof DOING_NAMES)[number];

export const OUTCOME = { cleared: 0, partyDown: 1, timeOut: 2, runaway: 3 } as const;
export const OUTCOME_NAMES = ['cleared', 'partyDown', 'timeOut', 'runaway'] as const;
export type Outcome = (typeof OUTCOME_NAMES)[number];

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
