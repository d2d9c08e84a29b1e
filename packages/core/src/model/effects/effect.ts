/**
 * Effects: what an attack does to whoever it strikes or helps. Each is one file: its fields, what it comes to in a fight, how
 * it is carried out, what the event says that tells of it, how it reads aloud. `list.ts` names them all; forms, sentences,
 * traces, the engine and the generators of tests read that list.
 */
import type { Clock } from '../../record/clock';
import type { EVENT } from '../../record/log';
import type { FieldTweak } from '../tweak';

/** Whoever is struck or helped, and what can be done to it. Carried out by the engine; durations in µs. */
export interface Struck {
  /** Health up to the maximum, by an amount and a share of it. */
  heal(amount: number, share: number): void;
  /** What lasts until its own end, each use apart. */
  lasts(what: 'slow' | 'mark' | 'lent', value: number, duration: number): void;
  /** Takes energy away. @returns how much there was to take */
  loseEnergy(amount: number): number;
  boost(boost: CompiledBoost): void;
  /** Must go for whoever struck it. */
  taunt(duration: number): void;
  /** Neither moves nor chooses, once every hit of the instant is applied. */
  stagger(duration: number): void;
  /**
   * Is pushed away from where the hit came from, once every hit of the instant is applied.
   * @param distance m, or cells @param crush in turns: hp for each cell that something keeps it from
   */
  push(distance: number, crush: number): void;
  /** Notes the effect's event with its values. */
  tell(event: EventName, ...values: number[]): void;
}

export interface CompiledBoost {
  /** Place in the names' boosts. */
  id: number;
  tweaks: FieldTweak[];
  /** Comes of a trait: laid over before growth, state and other boosts. */
  early?: boolean;
  /** µs; 0: to the end */
  lasts: number;
}

export type EventName = keyof typeof EVENT;

/** What compiling needs of the fight: durations in µs, numbers for names. */
export interface Compiling {
  time(seconds: number): number;
  damageType(name: string | undefined): number;
  /** Of a boost that only this attack gives. */
  boost(): number;
}

/** An event as a trace tells it. */
export interface ToldEvent {
  name: string;
  otherName: string;
  what: string;
  values: Record<string, number>;
  /** What its seconds and metres are told in. */
  clock: Clock;
}

/** From one number to another; one of some values; or, of a list, some of its items. */
export type Typical<T> =
  readonly [from: number, to: number] | { oneOf: readonly T[] } | { someOf: T extends readonly (infer Item)[] ? readonly Item[] : never };

export interface Effect<Given extends object, Compiled extends object, Event extends EventName = EventName> {
  type: new () => Given;
  label: string;
  about?: string;
  /** What it comes to; null: nothing is left to do. */
  compile(given: Given, compiling: Compiling): Compiled | null;
  /** On a foe that is hit. Damage, and what it leaves ticking, are the hit itself. */
  strike?(struck: Struck, compiled: Compiled): void;
  /** On a friend that is helped, or on oneself. Raising the fallen is the help itself. */
  help?(struck: Struck, compiled: Compiled): void;
  /** Belongs to the hit itself (strikes), or to raising (fallen): there is nothing to carry out besides. */
  isItself?: 'hit' | 'raising';
  /** The event that tells of it: what its values mean (`s:` before a name: µs, shown as seconds), and how it reads. */
  event: { name: Event; values: readonly string[]; told: (event: ToldEvent) => string };
  /** "slows by 30 % for 2 s", "for 2 turns". @param each one of several hits of a use */
  sentence(given: Given, each: boolean, clock: Clock): string;
  /** Its turn among the effects of one hit: the lower first. It decides in which order events of one instant are told. */
  turn?: number;
  /** What a new one has instead of its defaults, so that it does something at once. */
  begins?: Partial<Given>;
  /** What generated fights draw its fields from. */
  typical: { [K in keyof Given]?: Typical<Given[K]> };
}

/** Checks an effect's parts against one another. */
export const effect = <Given extends object, Compiled extends object, Event extends EventName>(
  one: Effect<Given, Compiled, Event>,
): Effect<Given, Compiled, Event> => one;
