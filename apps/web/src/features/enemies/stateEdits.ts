/** What an editor does to states, and what it says of them. Pure; lists are made anew. */
import {
  type Clock,
  type Condition,
  fieldWords,
  idFor,
  type Project,
  type State,
  shown,
  Unit as UnitClass,
  unitHeads,
} from '@insidia/core';

export type Leave = State['leaves'][number];
type Stop = NonNullable<State['patrol']>['points'][number];

export const DOES_WORDS = fieldWords(UnitClass, ['states', '0', 'does']);

/** What a state may do: go to a point only where there is one. */
export const doesFor = (project: Project): Offer[] => DOES_WORDS.filter(({ id }) => id !== 'goTo' || placesOf(project).length > 0);

/** What a state does, in a few words; by the clock in view. */
export function doesSentence(state: State, nameOf: NameOf, clock: Clock = 'continuous'): string {
  const turns = clock === 'rounds';
  const { near, far, stopAt } = turns ? (state.rounds ?? {}) : state;
  const unit = turns ? 'cells' : 'm';
  if (state.does === 'band' || state.does === 'strafe')
    return `${state.does === 'band' ? 'band' : 'circles'} ${shown(near ?? 0)}–${shown(far ?? 0)} ${unit}`;
  if (state.does === 'approach')
    return `approach, to ${stopAt !== undefined ? `${shown(stopAt)} ${unit}` : turns ? 'its longest reach' : '0.9 of its reach'}`;
  if (state.does === 'patrol') return `walks ${state.patrol?.points.length ?? 0} stops`;
  if (state.does === 'goTo') return `goes to ${state.to === undefined ? '…' : nameOf('place', state.to)}`;
  if (state.does === 'follow') return `follows ${state.to === undefined ? 'a friend' : nameOf('friend', state.to)}`;
  if (state.does === 'wander')
    return `wanders${state.roams?.zone === undefined ? ' about home' : ` in ${nameOf('zone', state.roams.zone)}`}`;
  return DOES_WORDS.find(({ id }) => id === state.does)?.name ?? state.does;
}

export interface Offer {
  id: string;
  name: string;
}

/** Points of every arena, for a state that goes to one. */
export function placesOf(project: Project): Offer[] {
  return project.arenas.flatMap(({ points, name }) => points.map((point) => ({ id: point.id, name: `${point.name} (${name})` })));
}

/** Points of every arena at which something stands that can be destroyed. */
export function thingsOf(project: Project): Offer[] {
  return project.arenas.flatMap(({ points, name }) =>
    points.filter(({ health }) => health !== undefined).map((point) => ({ id: point.id, name: `${point.name} (${name})` })),
  );
}

/** Zones of every arena, for a state that keeps within one. */
export function zonesOf(project: Project): Offer[] {
  return project.arenas.flatMap(({ zones, name }) => zones.map((zone) => ({ id: zone.id, name: `${zone.name} (${name})` })));
}

/** Counters of every encounter, each id once, for a state that counts. */
export function countersOf(project: Project): Offer[] {
  return project.encounters
    .flatMap(({ counters, name }) => counters.map((one) => ({ id: one.id, name: `${one.name} (${name})` })))
    .filter(({ id }, i, list) => list.findIndex((one) => one.id === id) === i);
}

/** Units and roles, for a state that follows one. An id that is both is named once. */
export function friendsOf(project: Project, unit: string): Offer[] {
  const heads = unitHeads(project);
  return [
    ...heads.filter(({ id }) => id !== unit).map(({ id, name }) => ({ id, name })),
    ...[...new Set(heads.map(({ role }) => role))].filter(Boolean).map((role) => ({ id: role, name: `any ${role}` })),
  ].filter(({ id }, i, list) => list.findIndex((one) => one.id === id) === i);
}

/** What a place, a zone, a unit or a role that a state speaks of is called. */
export type NameOf = (kind: 'place' | 'zone' | 'friend', id: string) => string;

/** Each by its own kind: a place that is not there is none, whatever else has its id. */
export function whereTo(project: Project, unit: string): NameOf {
  const names = (offers: readonly Offer[]) => new Map(offers.map(({ id, name }) => [id, name]));
  const known = { place: names(placesOf(project)), zone: names(zonesOf(project)), friend: names(friendsOf(project, unit)) };
  const none = { place: 'a point that is not there', zone: 'a zone that is not there', friend: 'nobody who is there' };
  return (kind, id) => known[kind].get(id) ?? none[kind];
}

/** A state may begin all attacks, none, or some: then at first all it has. Changes the state. */
export function mayBegin(state: State, word: State['attacks'], attacks: readonly string[]): void {
  state.attacks = word;
  if (word === 'some') state.only ??= [...attacks];
  else delete state.only;
}

/** One more way out, tried last; of a state that decides at intervals, one of its draw. */
export const leaveAdded = ({ leaves, decides }: Pick<State, 'leaves' | 'decides'>, when: Condition, to: string): Leave[] => [
  ...leaves,
  decides ? { to, after: 0, weight: 1 } : { when, to, after: 0 },
];

/** With more said of one way; a condition or weight that is taken away is gone. */
export function leaveChanged(leaves: readonly Leave[], i: number, more: Partial<Leave>): Leave[] {
  return leaves.map((one, j) => {
    if (j !== i) return one;
    const next = { ...one, ...more };
    if (next.when === undefined) delete next.when;
    if (next.weight === undefined) delete next.weight;
    return next;
  });
}

/** What a way without a condition is called: one of a draw holds always, any other is taken otherwise. */
export const withoutCondition = ({ weight }: Leave) => (weight === undefined ? 'otherwise' : 'always');

/** Ways are told apart by weight where the state decides at intervals, or one of them has one. */
export const drawsAmong = ({ decides, leaves }: State) => decides !== undefined || leaves.some(({ weight }) => weight !== undefined);

/** How often a state decides until somebody says otherwise, s. */
export const FIRST_DECIDES = { min: 0.5, max: 0.5 };

/** A wanderer's directions until somebody says otherwise: each for one to three seconds. */
export const FIRST_ROAMS: State['roams'] = { min: 1, max: 3, stands: 0 };

/** How a follower picks until somebody says otherwise: as it does without. */
export const FIRST_PICKS: State['picks'] = { criteria: [{ by: 'nearest', weight: 1 }], reconsider: 0.5, commitment: 0.1 };

/** One more stop, three metres to the right of the last. */
export function stopAdded(stops: readonly Stop[]): Stop[] {
  const last = stops[stops.length - 1];
  const id = idFor(
    'abcdefghijklmnopqrstuvwxyz'[stops.length] ?? 'stop',
    stops.map((stop) => stop.id),
  );
  return [...stops, { id, x: (last?.x ?? 0) + 3, y: last?.y ?? 0, pause: 1 }];
}

/** A name that a state may have among the others; undefined where it is empty or taken. */
export function freeName(states: readonly State[], id: string, name: string): string | undefined {
  const own = name.trim();
  return own && !states.some((one) => one.id !== id && one.name === own) ? own : undefined;
}
