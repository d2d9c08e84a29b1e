import { Group, Identifier, ListOf, Name, OneOf, Optional, Planned, Quantity } from './field';
import { LIMITS } from './limits';

export const DOES = ['hold', 'approach', 'band', 'flee'] as const;
const PLANNED_DOES = ['wander', 'patrol', 'strafe', 'home', 'search', 'go', 'follow'] as const;
export const CONDITION_SUBJECTS = ['distance', 'healthShare', 'timeInState'] as const;

/** A comparison; true or false at the start of a step. Trees of comparisons come later. */
export class Condition {
  /** Distance to the target (edge to edge, m), own health share (0–1), or seconds in the state. */
  @OneOf(CONDITION_SUBJECTS, [
    'all',
    'any',
    'not',
    'energy',
    'shield',
    'charges',
    'sees',
    'line',
    'flag',
    'chance',
    'wave',
    'clock',
    'friends',
    'foes',
  ])
  subject: (typeof CONDITION_SUBJECTS)[number];
  @OneOf(['below', 'above']) is: 'below' | 'above';
  @Quantity({ label: 'Value', unit: '', min: 0, max: 3600, about: 'metres, a share or seconds, by what is compared' }) value: number;
}

export class Transition {
  @Group(() => Condition) when: Condition;
  /** The state it leads to. */
  @Identifier() to: string;
  @Quantity({ label: 'After', unit: 's', min: 0, max: 600, about: 'not before this long in the state' }) after = 0;
}

export class State {
  @Identifier() id: string;
  @Name() name: string;
  @OneOf(DOES, PLANNED_DOES) does: (typeof DOES)[number];
  @OneOf(['walk', 'run']) pace: 'walk' | 'run' = 'run';
  @Quantity({ label: 'Pace factor', unit: '×', min: 0, max: 10, about: 'multiplies walk or run speed in this state' }) paceFactor = 1;
  @Optional()
  @Quantity({ label: 'Stops at', unit: 'm', min: 0, max: 200, about: 'approach ends at this distance; absent: 0.9 × the longest reach' })
  stopAt?: number;
  @Optional()
  @Quantity({ label: 'Keeps from', unit: 'm', min: 0, max: 200, about: 'near edge of the distance band it keeps' })
  near?: number;
  @Optional() @Quantity({ label: 'Keeps to', unit: 'm', min: 0, max: 200, about: 'far edge of the distance band it keeps' }) far?: number;
  /** Which attacks may be begun in this state. */
  @OneOf(['all', 'none']) attacks: 'all' | 'none' = 'all';
  @ListOf(() => Transition, LIMITS.leaves) leaves: Transition[] = [];
  @Planned('what it does about foes on the way') onTheWay?: string;
  @Planned('invulnerable states') invulnerable?: boolean;
  @Planned('tweaks while in a state') tweaks?: object[];
  @Planned('acts on entering a state') onEnter?: object;
}
