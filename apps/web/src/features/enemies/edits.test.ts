import { describe, expect, test } from '@jest/globals';
import { blankState, doing, parseProject, type Choice, type State } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { entryChanged, lifted, outcomeWords, priorityChanged, weightAfter, weightStepped } from './choiceEdits';
import {
  doesSentence,
  drawsAmong,
  FIRST_DECIDES,
  freeName,
  friendsOf,
  leaveAdded,
  leaveChanged,
  mayBegin,
  placesOf,
  zonesOf,
  stopAdded,
  whereTo,
  withoutCondition,
} from './stateEdits';

const demo = parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../../demo/verdance.insidia.json'), 'utf8')));
const priorities = (): Choice['priorities'] => [
  {
    entries: [
      { attack: 'bite', weight: 2 },
      { attack: 'spit', weight: 1 },
    ],
    condition: { subject: 'distance', is: 'below', value: 5 },
  },
  { entries: [{ attack: 'roar', weight: 1 }] },
];

describe('edits of a choice', () => {
  test('an entry goes into another priority, and leaves the first as it was', () => {
    const before = priorities();
    const after = lifted(before, 0, 1, 1);
    expect(after.map(({ entries }) => entries.map(({ attack }) => attack))).toEqual([['bite'], ['roar', 'spit']]);
    expect(after[0].condition).toEqual(before[0].condition);
    expect(before).toEqual(priorities());
  });

  test('one past the last is a new priority; a priority left empty goes', () => {
    expect(lifted(priorities(), 0, 0, 2).map(({ entries }) => entries.map(({ attack }) => attack))).toEqual([['spit'], ['roar'], ['bite']]);
    expect(lifted(priorities(), 1, 0, 0).map(({ entries }) => entries.map(({ attack }) => attack))).toEqual([['bite', 'spit', 'roar']]);
    expect(lifted([{ entries: [{ attack: 'bite', weight: 1 }] }], 0, 0, 1)).toEqual([{ entries: [{ attack: 'bite', weight: 1 }] }]);
  });

  test('a condition or targeting that is taken away leaves nothing behind', () => {
    expect('condition' in priorityChanged(priorities(), 0, { condition: undefined })[0]).toBe(false);
    expect(priorityChanged(priorities(), 1, { entries: [] })[1]).toEqual({ entries: [] });
    const [entry] = entryChanged([{ attack: 'bite', weight: 1, targeting: demo.units[0].targeting }], 0, { targeting: undefined });
    expect(Object.keys(entry)).toEqual(['attack', 'weight']);
    expect(entryChanged([{ attack: 'bite', weight: 1 }], 0, { attack: 'spit' })).toEqual([{ attack: 'spit', weight: 1 }]);
  });

  test('dragging an edge gives a share of the draw: a quarter more than a half is three times the others', () => {
    expect(weightAfter(1, 1, 0.25)).toBe(3);
    expect(weightAfter(1, 1, 0)).toBe(1);
    expect(weightAfter(1, 3, 0.25)).toBe(3);
    // never all of it, never nothing
    expect(weightAfter(1, 1, 9)).toBe(19);
    expect(weightAfter(1, 1, -9)).toBe(0.02);
    expect(weightAfter(0, 0, 0)).toBeGreaterThan(0);
  });

  test('keys step a weight by one, ten, a tenth, and never to nothing', () => {
    const keys = { shiftKey: false, altKey: false };
    expect(weightStepped(2, 1, keys)).toBe(3);
    expect(weightStepped(2, -1, { ...keys, shiftKey: true })).toBe(0.01);
    expect(weightStepped(2, -1, { ...keys, altKey: true })).toBe(1.9);
  });

  test('what came of an entry is said, the greatest causes first, small ones left out', () => {
    expect(outcomeWords(undefined, [])).toBe('Never used.');
    const causes = [
      { by: 'range', share: 0.46 },
      { by: 'cooldown', share: 0.17 },
      { by: 'pause', share: 0.1 },
      { by: 'line', share: 0.05 },
    ] as const;
    const words = outcomeWords(0.314, causes);
    expect(words).toMatch(/^Chosen 31 %\. Idle: .*46, .*17, .*10$/);
    expect(outcomeWords(0.5, [{ by: 'range', share: 0.019 }])).toBe('Chosen 50 %.');
  });
});

describe('edits of states', () => {
  const state = (does: State['does'], more: Partial<State> = {}): State => ({
    ...doing(blankState('a', 'A', 'hold'), does, 'warden'),
    ...more,
  });

  test('what each does is said in a few words with names, not ids', () => {
    const nameOf = whereTo(demo, 'clipper');
    expect(doesSentence(state('band', { near: 2, far: 6.5 }), nameOf)).toBe('band 2–6.5 m');
    expect(doesSentence(state('strafe', { near: 2, far: 6 }), nameOf)).toBe('circles 2–6 m');
    expect(doesSentence(state('approach', { stopAt: undefined }), nameOf)).toBe('approach, to 0.9 of its reach');
    expect(doesSentence(state('approach', { stopAt: 3 }), nameOf)).toBe('approach, to 3 m');
    expect(doesSentence(state('approach', { stopAt: 3 }), nameOf, 'rounds')).toBe('approach, to its longest reach');
    expect(doesSentence(state('approach', { stopAt: 3, rounds: { stopAt: 2 } }), nameOf, 'rounds')).toBe('approach, to 2 cells');
    expect(doesSentence(state('band', { near: 2, far: 6.5, rounds: { near: 1, far: 4 } }), nameOf, 'rounds')).toBe('band 1–4 cells');
    expect(doesSentence(state('follow', { to: 'thistlejack' }), nameOf)).toBe('follows Thistlejack');
    const point = placesOf(demo)[0];
    expect(doesSentence(state('goTo', { to: point.id }), nameOf)).toBe(`goes to ${point.name}`);
    expect(doesSentence(state('follow', { to: undefined }), nameOf)).toBe('follows a friend');
    expect(doesSentence(state('wander'), nameOf)).toBe('wanders about home');
    const [zone] = zonesOf(demo);
    expect(doesSentence(state('wander', { roams: { min: 1, max: 3, stands: 0, zone: zone.id } }), nameOf)).toBe(`wanders in ${zone.name}`);
    expect(doesSentence(state('hold'), nameOf)).not.toBe('');
    // A point that is not there is none, though a unit has its id.
    expect(doesSentence(state('goTo', { to: 'mulcher' }), nameOf)).toBe('goes to a point that is not there');
    expect(doesSentence(state('follow', { to: point.id }), nameOf)).toBe('follows nobody who is there');
  });

  test('friends are every other unit and every role, each once', () => {
    const friends = friendsOf(demo, 'clipper');
    expect(friends.some(({ id }) => id === 'clipper')).toBe(false);
    expect(friends.some(({ id, name }) => id === 'swarm' && name === 'any swarm')).toBe(true);
    expect(new Set(friends.map(({ id }) => id)).size).toBe(friends.length);
  });

  test('a state that may begin some attacks has all of them at first, and forgets them when it may begin all', () => {
    const one = state('hold');
    mayBegin(one, 'some', ['bite', 'spit']);
    expect(one.only).toEqual(['bite', 'spit']);
    one.only = ['bite'];
    mayBegin(one, 'some', ['bite', 'spit']);
    expect(one.only).toEqual(['bite']);
    mayBegin(one, 'none', ['bite']);
    expect('only' in one).toBe(false);
  });

  test('ways out are added last and changed one by one', () => {
    const when = { subject: 'distance', is: 'below', value: 3 } as const;
    const leaves = leaveAdded({ leaves: leaveAdded({ leaves: [] }, when, 'b') }, when, 'c');
    // Of one that decides at intervals a new way is one of its draw.
    expect(leaveAdded({ leaves: [], decides: FIRST_DECIDES }, when, 'b')).toEqual([{ to: 'b', after: 0, weight: 1 }]);
    expect(leaves.map(({ to }) => to)).toEqual(['b', 'c']);
    expect(leaveChanged(leaves, 1, { after: 2 }).map(({ after }) => after)).toEqual([0, 2]);
    const [otherwise] = leaveChanged(leaves, 0, { when: undefined });
    expect(Object.keys(otherwise).sort()).toEqual(['after', 'to']);
    expect(withoutCondition(otherwise)).toBe('otherwise');
    const [weighed] = leaveChanged([otherwise], 0, { weight: 2 });
    expect(withoutCondition(weighed)).toBe('always');
    expect('weight' in leaveChanged([weighed], 0, { weight: undefined })[0]).toBe(false);
  });

  test('weights are shown where a state decides at intervals, or a way has one', () => {
    const when = { subject: 'distance', is: 'below', value: 3 } as const;
    expect(drawsAmong(state('hold', { leaves: leaveAdded({ leaves: [] }, when, 'b') }))).toBe(false);
    expect(drawsAmong(state('hold', { leaves: leaveChanged(leaveAdded({ leaves: [] }, when, 'b'), 0, { weight: 1 }) }))).toBe(true);
    expect(drawsAmong(state('hold', { decides: FIRST_DECIDES }))).toBe(true);
  });

  test('stops are added beside the last, each with an id of its own, past the alphabet too', () => {
    let stops: ReturnType<typeof stopAdded> = [];
    for (let i = 0; i < 30; i++) stops = stopAdded(stops);
    expect(new Set(stops.map(({ id }) => id)).size).toBe(30);
    expect(stops[29]).toMatchObject({ x: 90, y: 0, pause: 1 });
  });

  test('a name is free if no other state has it', () => {
    const states = [state('hold'), { ...state('hold'), id: 'b', name: 'B' }];
    expect(freeName(states, 'a', ' New ')).toBe('New');
    expect(freeName(states, 'a', 'B')).toBeUndefined();
    expect(freeName(states, 'b', 'B')).toBe('B');
    expect(freeName(states, 'b', '  ')).toBeUndefined();
  });
});
