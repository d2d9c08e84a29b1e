/**
 * The event queue: a binary heap over typed arrays. Its key (time, class, unit, sequence) is total, so the order of
 * events never depends on how they came to be in the queue.
 */
import { doubled } from '../../record/columns';

/** What can come due. The order at one instant is by CLASS_OF, then unit, then sequence. */
export const DUE = {
  tick: 0,
  shotEnd: 1,
  expiry: 2,
  aid: 3,
  task: 4,
  hit: 5,
  impact: 6,
  burst: 7,
  contact: 8,
  counter: 9,
  dash: 10,
  dashMeets: 11,
  dashEnds: 12,
  bleedOut: 13,
  phaseEnd: 14,
  wave: 15,
  timeout: 16,
  notice: 17,
  cue: 18,
  answer: 19,
  dodge: 20,
  block: 21,
  stepOut: 22,
  choice: 23,
  spawn: 24,
  end: 25,
} as const;

/** Classes in the order in which they act within one instant. */
export const CLASS = { tick: 0, expiry: 1, aid: 2, hit: 3, cue: 4, death: 5, phaseEnd: 6, wave: 7, choice: 8, spawn: 9, end: 10 } as const;

const CLASS_OF = [
  CLASS.tick,
  CLASS.expiry,
  CLASS.expiry,
  CLASS.aid,
  CLASS.aid,
  CLASS.hit,
  CLASS.hit,
  CLASS.hit,
  CLASS.hit,
  CLASS.hit,
  CLASS.hit,
  CLASS.hit,
  CLASS.hit,
  CLASS.death,
  CLASS.phaseEnd,
  CLASS.wave,
  CLASS.wave,
  CLASS.choice,
  CLASS.cue,
  CLASS.choice,
  CLASS.choice,
  CLASS.choice,
  CLASS.choice,
  CLASS.choice,
  CLASS.spawn,
  CLASS.end,
];

const UNIT_ROOM = 4096;

const SEQUENCE_ROOM = 2147483648;

export interface Due {
  kind: number;
  unit: number;
  serial: number;
  detail: number;
}

export class EventQueue {
  /** How many events wait. */
  size = 0;
  private sequence = 0;
  private time = new Float64Array(64);
  /** class, unit and sequence in one number: 4 + 12 + 31 bits, exact in a double. */
  private rank = new Float64Array(64);
  private slot = new Int32Array(64);
  private free: number[] = [];
  private slots = 0;
  private kinds = new Uint8Array(64);
  private units = new Int32Array(64);
  private serials = new Int32Array(64);
  private details = new Int32Array(64);
  /** The events taken last, in their order: `takeDue` fills the first so many of them. */
  readonly due: Due[] = [];

  clear(): void {
    this.size = this.sequence = this.slots = 0;
    this.free.length = 0;
  }

  /** Time of the next event; Infinity when none waits. */
  get next(): number {
    return this.size ? this.time[0] : Infinity;
  }

  /**
   * @param time µs
   * @param kind one of DUE
   * @param unit the acting unit's number: the first tie-break
   * @param serial of the act: an event whose serial is no longer the unit's is stale
   * @param detail whatever the kind needs: a shot, a group, which hit of the active part
   */
  push(time: number, kind: number, unit: number, serial: number, detail: number): void {
    if (this.size === this.time.length) this.grow();
    const slot = this.free.pop() ?? this.slots++;
    this.kinds[slot] = kind;
    this.units[slot] = unit;
    this.serials[slot] = serial;
    this.details[slot] = detail;
    const rank = (CLASS_OF[kind] * UNIT_ROOM + unit) * SEQUENCE_ROOM + this.sequence++;
    let at = this.size++;
    while (at > 0) {
      const parent = (at - 1) >> 1;
      if (this.time[parent] < time || (this.time[parent] === time && this.rank[parent] < rank)) break;
      this.place(at, parent);
      at = parent;
    }
    this.time[at] = time;
    this.rank[at] = rank;
    this.slot[at] = slot;
  }

  /** Takes every event of the next instant into `due`, in the order of the key; how many they are. */
  takeDue(): number {
    const instant = this.next;
    let count = 0;
    while (this.size && this.time[0] === instant) this.take(count++);
    return count;
  }

  private take(into: number): void {
    const slot = this.slot[0];
    const due = (this.due[into] ??= { kind: 0, unit: 0, serial: 0, detail: 0 });
    due.kind = this.kinds[slot];
    due.unit = this.units[slot];
    due.serial = this.serials[slot];
    due.detail = this.details[slot];
    this.free.push(slot);
    const last = --this.size;
    const time = this.time[last];
    const rank = this.rank[last];
    const lastSlot = this.slot[last];
    let at = 0;
    for (;;) {
      let child = 2 * at + 1;
      if (child >= last) break;
      if (child + 1 < last && this.before(child + 1, child)) child++;
      if (time < this.time[child] || (time === this.time[child] && rank < this.rank[child])) break;
      this.place(at, child);
      at = child;
    }
    this.time[at] = time;
    this.rank[at] = rank;
    this.slot[at] = lastSlot;
  }

  private before(a: number, b: number): boolean {
    return this.time[a] < this.time[b] || (this.time[a] === this.time[b] && this.rank[a] < this.rank[b]);
  }

  private place(at: number, from: number): void {
    this.time[at] = this.time[from];
    this.rank[at] = this.rank[from];
    this.slot[at] = this.slot[from];
  }

  private grow(): void {
    this.time = doubled(this.time);
    this.rank = doubled(this.rank);
    this.slot = doubled(this.slot);
    this.kinds = doubled(this.kinds);
    this.units = doubled(this.units);
    this.serials = doubled(this.serials);
    this.details = doubled(this.details);
  }
}
