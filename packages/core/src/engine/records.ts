/** What waits, lasts or is counted in a fight, each as one object. */

/** A hit that will land at this instant, to be applied once all are settled. */
export interface Landing {
  attacker: number;
  victim: number;
  attack: number;
  use: number;
  /** Where it came from: what it pushes away from, and which side of a guard it meets. */
  x: number;
  y: number;
  /** In rounds: share of its damage that a guard takes off. */
  guarded: number;
  /** It answers a hit: it is answered by none. */
  counters: boolean;
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
  /** hp, for each cell that it is not pushed */
  crush: number;
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
  /** µs: its wind-up began, it leaves its owner, it strikes, as it looked at its cue */
  begunAt: number;
  leavesAt: number;
  hitAt: number;
  /** Nothing of it can strike any more, and it has been reacted to. */
  until: number;
  /** It was broken off before it left its owner. */
  off: boolean;
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
  /** For good. */
  stopped: boolean;
  /** Units of each coming that has begun which have not been made yet, nor left out. */
  toCome: number[];
  /** The same of all comings together, by side. */
  toComeOf: [number, number];
  /** What started it. */
  trigger: Trigger;
  /** Units that had to wait because the cap on the living was full, and µs that those who came waited in all. */
  waited: number;
  waitedFor: number;
}

/** What starts a wave: what its start says, its timeout, an event that calls it; or it has not started. */
export type Trigger = 'start' | 'timeout' | 'event' | 'none';
