import { describe, expect, test } from '@jest/globals';
import { nudges, objectivesOf, parseProject, scenarioKey } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { CROWD, cellOf, dialsOf, dialsText, fightKey, fightsOf, pointOf, ranged, tuneSearch, turnSearch, withDial } from './address';

const demo = parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../../demo/verdance.insidia.json'), 'utf8')));
const lens = { tier: 'bloom', skill: 'regular' };
const query = (text: string) => new URLSearchParams(text);

describe('the fight of the address', () => {
  test('is one of those there are: every encounter, a crowd of every enemy, a boss alone', () => {
    const fights = fightsOf(demo);
    expect(new Set(fights.map(({ key }) => key)).size).toBe(fights.length);
    expect(fights.filter(({ kind }) => kind === 'encounter')).toHaveLength(demo.encounters.length);
    expect(fights.find(({ name }) => name === `${CROWD} × Clipper`)!.key).toBe('duel|clipper|||||copies=6');
    expect(fights.find(({ note }) => note === 'boss')!.key).toBe('duel|head-gardener||||');
    for (const { key } of fights) expect(fightKey(cellOf(demo, query(`fight=${encodeURIComponent(key)}`), lens)!)).toBe(key);
  });

  test('is seen through the lens; the first where it names none that is there; none where there is none', () => {
    expect(cellOf(demo, query('fight=duel|clipper||||'), lens)).toEqual({ kind: 'duel', id: 'clipper', ...lens });
    expect(cellOf(demo, query('fight=duel|nobody||||'), {})).toEqual({ kind: 'encounter', id: demo.encounters[0].id });
    // An address may hold anything.
    expect(cellOf(demo, query('fight=duel|clipper||||||%255B'), {})).toEqual({ kind: 'duel', id: 'clipper' });
    expect(dialsOf(demo, query('dials=/ /units /units/clipper /name /__proto__/x nobody:/units/*/health/max=2..1'))).toEqual([]);
    expect(cellOf({ ...demo, encounters: [], units: [], variants: [] }, query(''), {})).toBeUndefined();
  });
});

describe('what is asked of it', () => {
  test('is what the brief wants there, made up to four by what is usually looked at', () => {
    const shift = objectivesOf(demo, { kind: 'encounter', id: 'evening-shift', ...lens });
    expect(shift.every(({ band }) => band)).toBe(true);
    const bell = objectivesOf(demo, { kind: 'encounter', id: 'first-bell', ...lens });
    expect(bell).toHaveLength(4);
    expect(new Set(bell.map(({ measure }) => measure)).size).toBe(4);
    // A crowd is nobody's goal.
    expect(objectivesOf(demo, { kind: 'duel', id: 'clipper', ...lens, duel: { copies: 6 } }).some(({ band }) => band)).toBe(false);
    expect(objectivesOf(demo, { kind: 'duel', id: 'clipper', ...lens })[0]).toMatchObject({
      measure: 'timeToKill',
      column: 'type clipper timeToKill',
    });
  });

  test('numbers come back from the address with their ranges; what leads nowhere is left out', () => {
    const dials = dialsOf(
      demo,
      query('dials=/units/clipper/health/max=16..28 /units/nobody/health/max nonsense /units/clipper/movement/run'),
    );
    expect(dials.map(({ path, low, high }) => [path, low, high])).toEqual([
      ['/units/clipper/health/max', 16, 28],
      ['/units/clipper/movement/run', 3.5, 10.5],
    ]);
    expect(dialsText(demo, dials)).toBe('/units/clipper/health/max=16..28 /units/clipper/movement/run');
    expect(dialsText(demo, [])).toBeUndefined();
    expect(withDial(dials, dials[1])).toEqual(dials);
    // A range holds what is written.
    expect(ranged(demo, dials[0], { low: 25 })).toMatchObject({ low: 22, high: 28 });
    expect(ranged(demo, dials[0], { high: 40 })).toMatchObject({ low: 16, high: 40 });
  });
});

describe('the point that is looked at', () => {
  const [health, run] = nudges(demo, dialsOf(demo, query('dials=/units/clipper/health/max /units/clipper/movement/run'))).turned;
  const put = (text: string) => pointOf(query(text), health, [health, run]).map(({ from, to }) => [from, to]);

  test('is where the table turns it, a value along it, or a point of a map', () => {
    expect(put('')).toEqual([[22, 24]]);
    expect(put('at=18')).toEqual([[22, 18]]);
    expect(put(`with=${run.dial.id}`)).toEqual([[22, 24]]);
    expect(put(`with=${run.dial.id}&and=8`)).toEqual([
      [22, 22],
      [7, 8],
    ]);
    expect(put(`with=${run.dial.id}&and=8&at=18`)).toEqual([
      [22, 18],
      [7, 8],
    ]);
    // The other number is none of the table's any more, or the chosen one itself.
    expect(put('with=/units/mulcher/health/max&and=8')).toEqual([[22, 24]]);
    expect(put(`with=${health.dial.id}&and=8`)).toEqual([[22, 24]]);
    expect(pointOf(query(''), undefined, [])).toEqual([]);
  });
});

describe('the way to it', () => {
  test('from a cell, with its lens', () => {
    const to = query(tuneSearch({ kind: 'duel', id: 'clipper', ...lens }));
    expect(Object.fromEntries(to)).toEqual({ fight: 'duel|clipper||||', ...lens });
  });

  test('from a number: of an enemy in a crowd of it, of an encounter in its own fight, of a variant as a unit’s', () => {
    const of = (pointer: string) => query(turnSearch(demo, pointer, lens));
    expect(of('/units/clipper/health/max').get('fight')).toBe('duel|clipper|||||copies=6');
    expect(of('/units/head-gardener/health/max').get('fight')).toBe('duel|head-gardener||||');
    expect(of('/encounters/evening-shift/waves/three/delay').get('fight')).toBe('encounter|evening-shift||||');
    const { id } = demo.variants[0];
    expect(of(`/variants/${id}/health/max`).get('dials')).toBe(`/units/${id}/health/max`);
    expect(of('/units/warden/health/max').get('fight')).toBe(scenarioKey({ kind: 'encounter', id: demo.encounters[0].id }));
  });
});
