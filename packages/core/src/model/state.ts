import { Condition } from './condition';
import { Group, Identifier, ListOf, Name, OneOf, Optional, Quantity, Words, YesNo } from './field';
import { LIMITS } from './limits';
import { NumberTweak } from './tweak';

/** What a unit does in a state. The first four look to its target. */
export const DOES = ['hold', 'approach', 'band', 'flee', 'strafe', 'wander', 'patrol', 'home', 'search', 'goTo', 'follow'] as const;
export type Does = (typeof DOES)[number];

const metres = (label: string, about: string, min = 0) => Quantity({ label, unit: 'm', min, max: 200, about });
const seconds = (label: string, about: string) => Quantity({ label, unit: 's', min: 0, max: 600, about });

export class Transition {
  @Group(() => Condition) when: Condition;
  /** The state it leads to. */
  @Identifier() to: string;
  @seconds('After', 'not before this long in the state') after = 0;
}

/** A stop of a beat, relative to the unit's home. */
export class PatrolPoint {
  @Identifier() id: string;
  @metres('East', 'from its home', -200) x = 0;
  @metres('North', 'from its home', -200) y = 0;
  @seconds('Pause', 'how long it stays') pause = 0;
  @Optional()
  @Quantity({ label: 'Facing', unit: '°', min: -360, max: 360, about: 'turns this way while it stays; absent: as it came' })
  facing?: number;
}

export class Patrol {
  @ListOf(() => PatrolPoint, LIMITS.patrolPoints) points: PatrolPoint[] = [];
  @OneOf(['loop', 'backAndForth']) order: 'loop' | 'backAndForth' = 'loop';
  @Quantity({ label: 'Starts at', unit: '', min: 0, max: 31, whole: true, about: 'which point it goes to first, counted from 0' }) startAt =
    0;
}

/** What happens once on entering a state. */
export class OnEnter {
  @Optional() @Identifier() raise?: string;
  @Optional() @Identifier() lower?: string;
  /** Energy full, charges full, every attack off cooldown. */
  @YesNo() refill = false;
  /** An attack begun at once, whatever its cooldown, price and range. */
  @Optional() @Identifier() attack?: string;
}

export class State {
  @Identifier() id: string;
  @Name() name: string;
  @OneOf(DOES) does: Does;
  @OneOf(['walk', 'run']) pace: 'walk' | 'run' = 'run';
  @Quantity({ label: 'Pace factor', unit: '×', min: 0, max: 10, about: 'multiplies walk or run speed in this state' }) paceFactor = 1;
  @Optional()
  @metres('Stops at', 'approach ends at this distance; absent: 0.9 × the longest reach, and not before the line is clear')
  stopAt?: number;
  @Optional() @metres('Keeps from', 'near edge of the distance band it keeps') near?: number;
  @Optional() @metres('Keeps to', 'far edge of the distance band it keeps') far?: number;
  @Optional() @metres('Strays', 'how far it wanders or searches from home or from where it last saw its target') radius?: number;
  @Optional() @Group(() => Patrol) patrol?: Patrol;
  /** Where it goes: a point of the arena (go to), or a unit or role (follow). */
  @Optional() @Identifier() to?: string;
  /** Which attacks may be begun in this state. */
  @OneOf(['all', 'none', 'some']) attacks: 'all' | 'none' | 'some' = 'all';
  /** The attacks of "some". */
  @Optional() @Words(LIMITS.attacks) only?: string[];
  /** On a patrol, on the way home or to a point: takes no notice of foes, strikes whoever is in reach, or leaves its way to fight. */
  @OneOf(['ignore', 'clear', 'engage']) onTheWay: 'ignore' | 'clear' | 'engage' = 'engage';
  @YesNo() invulnerable = false;
  @ListOf(() => NumberTweak, 16) tweaks: NumberTweak[] = [];
  @Optional() @Group(() => OnEnter) onEnter?: OnEnter;
  @ListOf(() => Transition, LIMITS.leaves) leaves: Transition[] = [];
}
