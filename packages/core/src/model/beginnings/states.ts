/** What a new state may begin as: what the unit does in it, and the ways into it and out of it that make it happen. */
import { blank, doing } from '../blank';
import type { Condition } from '../condition';
import { LIMITS } from '../limits';
import { PatrolPoint, State, type Transition } from '../state';
import type { Unit } from '../unit';
import type { Beginning } from './beginning';

export interface StateBeginning extends Beginning {
  does: State['does'];
  /** What is said of the state besides what its conduct needs. */
  more?: Partial<State>;
  /** When another state leads here. */
  into?: Condition;
  /** When it leads on to where the unit begins, and not before how many seconds. */
  out?: Condition;
  after?: number;
  /** The unit begins here; what it began with comes afterwards. */
  first?: true;
  /** It is about a thing that stands somewhere: where it goes, and what its way out asks about. */
  thing?: true;
}

const is = (subject: Condition['subject'], word: Condition['is'], value?: number): Condition => ({
  subject,
  is: word,
  ...(value !== undefined && { value }),
});

const stop = (id: string, x: number, y: number): PatrolPoint => ({ ...blank(PatrolPoint), id, x, y, pause: 1 });

export const STATE_BEGINNINGS: readonly StateBeginning[] = [
  { id: 'approach', called: 'goes up to its target', about: 'to 0.9 of its reach, running', name: 'Close in', does: 'approach' },
  {
    id: 'band',
    called: 'keeps a distance',
    about: 'between 5 and 9 m of its target',
    name: 'Keep away',
    does: 'band',
    more: { near: 5, far: 9 },
  },
  {
    id: 'circle',
    called: 'circles its target',
    about: 'at 4 to 7 m, walking',
    name: 'Circle',
    does: 'strafe',
    more: { near: 4, far: 7, pace: 'walk' },
  },
  {
    id: 'back-off',
    called: 'backs off when crowded',
    about: 'from a foe nearer than 3 m, until its target is 6 m away',
    name: 'Back off',
    does: 'flee',
    into: is('nearestFoe', 'below', 3),
    out: is('distance', 'above', 6),
    after: 0.4,
  },
  {
    id: 'flee',
    called: 'flees when badly hurt',
    about: 'once it has less than 30 % of its life',
    name: 'Flee',
    does: 'flee',
    into: is('healthShare', 'below', 0.3),
    more: { attacks: 'none' },
  },
  {
    id: 'wait',
    called: 'holds still after a blow',
    about: 'a second each time it has begun an attack, then goes on',
    name: 'Hold still',
    does: 'hold',
    into: { subject: 'all', parts: [is('sinceAttack', 'below', 0.2), is('timeInState', 'above', 1)] },
    out: is('timeInState', 'above', 1),
    more: { attacks: 'none' },
  },
  {
    id: 'watch',
    called: 'waits until somebody comes near',
    about: 'begins here, still; goes on when a foe is within 8 m or hurts it',
    name: 'Watch',
    does: 'hold',
    out: { subject: 'any', parts: [is('nearestFoe', 'below', 8), is('sinceHit', 'below', 1)] },
    first: true,
  },
  {
    id: 'round',
    called: 'walks its round until it sees somebody',
    about: 'begins here; three stops about its home; goes on when it sees a foe, comes back when it has lost it',
    name: 'Its round',
    does: 'patrol',
    more: { pace: 'walk', patrol: { points: [stop('a', 0, 0), stop('b', -5, 3), stop('c', -5, -3)], order: 'loop', startAt: 0 } },
    into: is('sees', 'no'),
    out: is('sees', 'yes'),
    first: true,
  },
  {
    id: 'wander',
    called: 'wanders until it sees somebody',
    about: 'begins here; within 6 m of its home; goes on when it sees a foe, comes back when it has lost it',
    name: 'Wander',
    does: 'wander',
    more: { pace: 'walk', radius: 6 },
    into: is('sees', 'no'),
    out: is('sees', 'yes'),
    first: true,
  },
  {
    id: 'wreck',
    called: 'wrecks a thing',
    about: 'begins here; goes to the thing, strikes it and whoever hurts it; goes on once it is destroyed',
    name: 'Wreck',
    does: 'goTo',
    more: { strikes: 'hinders' },
    out: is('pointDestroyed', 'yes'),
    first: true,
    thing: true,
  },
];

/** How long a foe must be lost before a unit goes back to what it did until it saw one, s. */
const LOST_FOR = 4;

/**
 * Adds the state and its ways to a unit, changing it: the ways into it are asked first, where a state has room for one more.
 * @param thing the id of a point at which a thing stands, for a beginning that is about one @throws Error where that is missing
 */
export function beginState(unit: Unit, beginning: StateBeginning, own: { id: string; name: string }, thing?: string): void {
  const { does, more, into, out, after = 0, first } = beginning;
  if (beginning.thing && thing === undefined) throw new Error(`a state that ${beginning.called} needs a thing`);
  const goesOn = unit.startsIn ?? unit.states[0]?.id;
  const state = { ...doing({ ...blank(State), ...own, does }, does, thing ?? ''), ...structuredClone(more) };
  const asked = (when: Condition): Condition => ({ ...structuredClone(when), ...(beginning.thing && { of: thing }) });
  const way = (to: string, when: Condition, wait: number): Transition => ({ to, when: asked(when), after: wait });
  if (into)
    for (const other of unit.states) if (other.leaves.length < LIMITS.leaves) other.leaves.unshift(way(own.id, into, first ? LOST_FOR : 0));
  if (out && goesOn !== undefined) state.leaves = [way(goesOn, out, after)];
  unit.states.push(state);
  if (first || goesOn === undefined) unit.startsIn = own.id;
}
