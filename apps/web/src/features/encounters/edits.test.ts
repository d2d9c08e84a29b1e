import { describe, expect, test } from '@jest/globals';
import { parseProject, unitHeads, type Consequence, type Encounter } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { doingOf, eventCopied, givenTo, groupCopied, newEvent, nextMember, raises, sizeAdded, thenChanged, waveCopied } from './edits';

const demo = parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../../demo/verdance.insidia.json'), 'utf8')));
const heads = unitHeads(demo);
const shift = (): Encounter => structuredClone(demo.encounters.find(({ id }) => id === 'evening-shift')!);
const tweak = { scope: 'party', path: '/health/max', op: '×', value: 2 } as Consequence['tweaks'][number];

describe('edits of an encounter', () => {
  test('who joins is of the party and not there yet; when all are, it is somebody all the same', () => {
    const encounter: Encounter = { ...shift(), party: [], allies: [] };
    const party = heads.filter(({ side }) => side === 'party');
    for (const { id } of party) {
      const next = nextMember(encounter, 'party', heads)!;
      expect(next.unit).toBe(id);
      encounter.party = [...encounter.party, next];
    }
    const one = nextMember(encounter, 'party', heads)!;
    expect(one.unit).toBe(heads.find(({ side }) => side === 'party')!.id);
    const enemies = heads.filter(({ side }) => side === 'enemy');
    expect(nextMember(encounter, 'party', [...enemies, heads.find(({ id }) => id === 'warden')!])!.unit).toBe('warden');
    expect(nextMember(encounter, 'party', enemies)!.unit).toBe(enemies[0].id);
    encounter.party = [...encounter.party, one, nextMember(encounter, 'allies', heads)!];
    expect(new Set(encounter.party.map(({ id }) => id)).size).toBe(encounter.party.length);
    expect(nextMember(encounter, 'party', [])).toBeUndefined();
  });

  test('tweaks for a number of members begin with health in proportion, in order of size', () => {
    const encounter = {
      ...shift(),
      party: [
        { id: 'a', unit: 'warden' },
        { id: 'b', unit: 'warden' },
      ],
      bySize: [],
    };
    const [three] = sizeAdded(encounter, 3);
    expect(three.tweaks).toEqual([{ scope: 'enemies', path: '/health/max', op: '×', value: 1.5 }]);
    expect(sizeAdded({ ...encounter, bySize: [three] }, 1).map(({ members }) => members)).toEqual([1, 3]);
    expect(sizeAdded({ ...encounter, party: [] }, 2)[0].tweaks[0].value).toBe(2);
  });

  test('new events have names and ids of their own', () => {
    const encounter = { ...shift(), events: [] as Encounter['events'] };
    const when = { subject: 'clock', is: 'above', value: 5 } as const;
    for (let i = 0; i < 3; i++) encounter.events = [...encounter.events, newEvent(encounter, when)];
    expect(new Set(encounter.events.map(({ id }) => id)).size).toBe(3);
    expect(new Set(encounter.events.map(({ name }) => name)).size).toBe(3);
    expect(encounter.events[0].then).toEqual([raises()]);
  });

  test('a consequence that does something else names what that needs, and nothing that it does not', () => {
    const raise: Consequence = { ...raises(), of: 'alarm' };
    const there = { wave: 'w', counter: 'c', trait: 't' };
    expect(doingOf(raise, 'lower', there)).toMatchObject({ does: 'lower', of: 'alarm', tweaks: [] });
    expect(doingOf(raise, 'startWave', there)).toMatchObject({ does: 'startWave', of: 'w' });
    expect(doingOf({ ...raise, does: 'startWave', of: 'w' }, 'raise', there).of).toBe('flag');
    expect('of' in doingOf(raise, 'end', there)).toBe(false);
    const first = doingOf(raise, 'tweak', there);
    expect(first.tweaks).toHaveLength(1);
    expect('of' in first).toBe(false);
    expect(doingOf(raise, 'stopWave', there)).toMatchObject({ does: 'stopWave', of: 'w' });
    expect(doingOf({ ...raise, does: 'startWave', of: 'second' }, 'stopWave', there).of).toBe('second');
    const counts = doingOf(raise, 'count', there);
    expect(counts).toMatchObject({ does: 'count', counts: { counter: 'c', how: 'add', by: 1 } });
    expect(doingOf(raise, 'score', there).score).toBeGreaterThan(0);
    expect(Object.keys(doingOf(counts, 'raise', there))).not.toContain('counts');
    expect('of' in counts).toBe(false);
    const gives = doingOf(raise, 'trait', there);
    expect(gives).toMatchObject({ does: 'trait', of: 't', to: 'enemies' });
    expect(givenTo(gives, 'role swarm')).toMatchObject({ of: 't', to: 'role', whom: 'swarm' });
    expect('whom' in givenTo(givenTo(gives, 'role swarm'), 'party')).toBe(false);
    const taken = doingOf(givenTo(gives, 'role swarm'), 'raise', there);
    expect(taken.of).toBe('flag');
    expect(Object.keys(taken)).not.toEqual(expect.arrayContaining(['to']));
    expect(Object.keys(taken)).not.toEqual(expect.arrayContaining(['whom']));
    expect(doingOf({ ...raise, tweaks: [tweak] }, 'tweak', there).tweaks).toEqual([tweak]);
    expect(doingOf({ ...raise, does: 'tweak', tweaks: [tweak] }, 'end', there).tweaks).toEqual([]);
  });

  test('one of several consequences changes, the others stay', () => {
    const then = [raises(), { ...raises(), of: 'b' }];
    expect(thenChanged(then, 1, { ...raises(), of: 'c' }).map(({ of }) => of)).toEqual(['flag', 'c']);
    expect(then[1].of).toBe('b');
  });

  test('a copied wave, group or event has an id of its own and is otherwise the same; no other wave waits for another than before', () => {
    const encounter = shift();
    const { waves, copy } = waveCopied(encounter.waves, encounter.waves[1].id);
    expect(waves.slice(0, -1)).toEqual(encounter.waves);
    expect({ ...copy, id: '', name: '' }).toEqual({ ...encounter.waves[1], id: '', name: '' });
    expect(new Set(waves.map(({ id }) => id)).size).toBe(waves.length);
    parseProject({
      ...structuredClone(demo),
      encounters: demo.encounters.map((one) => (one.id === encounter.id ? { ...encounter, waves } : one)),
    });
    const own = encounter.waves[0].groups;
    const first = groupCopied(own, own[0].id);
    expect(first.groups.map(({ id }) => id)).toEqual([own[0].id, first.copy.id, ...own.slice(1).map(({ id }) => id)]);
    const second = groupCopied(first.groups, first.copy.id);
    expect(new Set(second.groups.map(({ id }) => id)).size).toBe(own.length + 2);
    const events = [newEvent(encounter, { subject: 'clock', is: 'above', value: 5 })];
    const copied = eventCopied(events, 0);
    expect(copied.map(({ name }) => name)).toEqual(['Event', 'Event 2']);
    expect(copied[1].then).toEqual(events[0].then);
    expect(copied[1].then).not.toBe(events[0].then);
  });
});
