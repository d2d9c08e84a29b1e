/** What an editor does to an encounter. Pure; lists are made anew. */
import {
  blank,
  type Condition,
  type Consequence,
  Consequence as ConsequenceClass,
  type Counter,
  Encounter as EncounterClass,
  type Encounter,
  fieldWords,
  type EncounterEvent,
  idFor,
  nameFor,
  type PartyMember,
  type PartySize,
  type Tweak,
  type UnitHead,
  type Wave,
  type WaveGroup,
} from '@insidia/core';
import { moved } from '../../fields/Mini';
import { bearers } from '../../fields/traits';

/** Who joins next: of the party's units one who is not there yet, else one who is, else anybody; undefined where there is nobody at all. */
export function nextMember(encounter: Encounter, list: 'party' | 'allies', heads: readonly UnitHead[]): PartyMember | undefined {
  const there = encounter[list].map(({ unit }) => unit);
  const party = heads.filter(({ side }) => side === 'party');
  const next = party.find(({ id }) => !there.includes(id)) ?? party[0] ?? heads[0];
  const ids = [...encounter.party, ...encounter.allies].map(({ id }) => id);
  return next && { id: idFor(list === 'party' ? 'member' : 'ally', ids), unit: next.id };
}

/** Tweaks for another number of members: at first health in proportion to it, in order of size. */
export function sizeAdded({ bySize, party }: Encounter, members: number): PartySize[] {
  const first: Tweak = { scope: 'enemies', path: '/health/max', op: '×', value: members / Math.max(1, party.length) };
  return [...bySize, { members, tweaks: [first] }].sort((a, b) => a.members - b.members);
}

/** What an event does until it is told something else. */
export const raises = (): Consequence => ({ ...blank(ConsequenceClass), does: 'raise', of: 'flag' });

export function newEvent({ events }: Encounter, when: Condition): EncounterEvent {
  const name = nameFor(
    'Event',
    events.map((event) => event.name),
  );
  const id = idFor(
    name,
    events.map((event) => event.id),
  );
  return { id, name, when, then: [raises()] };
}

/** A copy under a name and an id of its own. */
function copyOf<T extends { id: string; name: string }>(one: T, all: readonly T[]): T {
  const name = nameFor(
    one.name,
    all.map((each) => each.name),
  );
  const id = idFor(
    name,
    all.map((each) => each.id),
  );
  return { ...structuredClone(one), id, name };
}

/** The waves with a copy of one at their end, so that none of the others comes to wait for another than before. */
export function waveCopied(waves: readonly Wave[], id: string): { waves: Wave[]; copy: Wave } {
  const copy = copyOf(
    waves.find((wave) => wave.id === id)!,
    waves,
  );
  return { waves: [...waves, copy], copy };
}

const waits = ({ start }: Wave): boolean => start === 'with' || start === 'defeated';

/** A wave earlier or later among the others: each waits for the one that it waited for. */
export function waveMoved(waves: readonly Wave[], id: string, by: number): Wave[] {
  const index = waves.findIndex((wave) => wave.id === id);
  const named = waves.map((wave, i) => (waits(wave) && i > 0 ? { ...wave, after: wave.after ?? waves[i - 1].id } : wave));
  return moved(named, index, by).map((wave, i, all) => {
    const unsaid = waves.find((one) => one.id === wave.id)!.after === undefined;
    if (!unsaid || wave.after === undefined || wave.after !== all[i - 1]?.id) return wave;
    const { after: _, ...rest } = wave;
    return rest;
  });
}

/** How a wave may start: for another only where there is another. */
export const startsFor = ({ waves }: Encounter): { id: string; name: string }[] =>
  fieldWords(EncounterClass, ['waves', '0', 'start']).filter(({ id }) => waves.length > 1 || (id !== 'with' && id !== 'defeated'));

/** A wave that starts otherwise says what that needs, and nothing else. @param when the condition of one that waits for something at first */
export function startedBy(waves: readonly Wave[], wave: Wave, start: Wave['start'], when: Condition): Wave {
  const { when: held, after, ...rest } = wave;
  const next: Wave = { ...rest, start };
  if (start === 'condition') return { ...next, when: held ?? when };
  if (!waits(next)) return next;
  const first = waves[0].id === wave.id ? waves[1]?.id : undefined;
  return { ...next, ...((after ?? first) !== undefined && { after: after ?? first }) };
}

/** A group that draws from its pool otherwise: a budget pays at first for as many as came. @param worth of one of them */
export function drawnBy(group: WaveGroup, draws: WaveGroup['draws'], worth: number): WaveGroup {
  const budget = draws === 'budget' && group.budget <= 0 ? Math.max(1, worth * group.count.max) : group.budget;
  return { ...group, draws, budget };
}

/** The groups with a copy of one right after it. */
export function groupCopied(groups: readonly WaveGroup[], id: string): { groups: WaveGroup[]; copy: WaveGroup } {
  const at = groups.findIndex((group) => group.id === id);
  const copy = {
    ...structuredClone(groups[at]),
    id: idFor(
      groups[at].id.replace(/-\d+$/, ''),
      groups.map((group) => group.id),
    ),
  };
  return { groups: [...groups.slice(0, at + 1), copy, ...groups.slice(at + 1)], copy };
}

/** The events with a copy of one right after it. */
export function eventCopied(events: readonly EncounterEvent[], i: number): EncounterEvent[] {
  return [...events.slice(0, i + 1), copyOf(events[i], events), ...events.slice(i + 1)];
}

/** One more counter, of a name of its own. */
export function counterAdded(counters: readonly Counter[]): Counter[] {
  const name = nameFor(
    'Counter',
    counters.map((one) => one.name),
  );
  const id = idFor(
    name,
    counters.map((one) => one.id),
  );
  return [...counters, { id, name, start: 0 }];
}

export const thenChanged = (then: readonly Consequence[], j: number, next: Consequence): Consequence[] =>
  then.map((one, k) => (k === j ? next : one));

/** A faster run, until somebody says what is meant. */
const FIRST_TWEAK: Tweak = { scope: 'enemies', path: '/movement/run', op: '×', value: 1.25 };

/** What an event gives until somebody says what is meant. */
const FIRST_SCORE = 10;

/** Who is given a trait until somebody says who is meant. */
const FIRST_BEARERS = 'enemies';

export const ofWave = (does: Consequence['does']): boolean => does === 'startWave' || does === 'stopWave';

/**
 * A consequence that does something else: it names what that needs, and nothing that it does not.
 * @param first of each kind that it may name the first there is
 */
export function doingOf(
  act: Consequence,
  does: Consequence['does'],
  { wave, counter, trait }: { wave?: string; counter?: string; trait?: string },
): Consequence {
  const { of, to, whom, ...rest } = act;
  const tweaks = does !== 'tweak' ? [] : act.tweaks.length ? act.tweaks : [FIRST_TWEAK];
  delete rest.counts;
  delete rest.score;
  if (does === 'count') return { ...rest, does, counts: act.counts ?? { counter: counter ?? '', how: 'add', by: 1 }, tweaks };
  if (does === 'score') return { ...rest, does, score: act.score ?? FIRST_SCORE, tweaks };
  if (does === 'trait')
    return {
      ...rest,
      does,
      of: act.does === 'trait' ? of : trait,
      to: to ?? FIRST_BEARERS,
      ...(whom !== undefined && { whom }),
      tweaks,
    };
  if (ofWave(does)) return { ...rest, does, of: ofWave(act.does) ? (of ?? wave) : wave, tweaks };
  if (does === 'raise' || does === 'lower')
    return { ...rest, does, of: ofWave(act.does) || act.does === 'trait' ? 'flag' : (of ?? 'flag'), tweaks };
  return { ...rest, does, tweaks };
}

/** The same trait given to others. @param whose a word of those whom a trait may be given to */
export function givenTo({ whom: _, ...act }: Consequence, whose: string): Consequence {
  const { scope, of } = bearers(whose);
  return { ...act, to: scope, ...(of !== undefined && { whom: of }) };
}
