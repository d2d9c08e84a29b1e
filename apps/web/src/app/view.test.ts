import { describe, expect, test } from '@jest/globals';
import { DUEL_DEFAULTS, type Project, parseProject } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { WHOLE_PARTY, viewOf } from './view';

const demo = (): Project => parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../demo/verdance.insidia.json'), 'utf8')));
const view = (query: string) => viewOf(new URLSearchParams(query), demo());

describe('what the address says', () => {
  test('an empty one is the base, as written, one on open ground, at the distance and by the clock that are usual', () => {
    expect(view('')).toEqual({
      tier: undefined,
      skill: undefined,
      edit: 'base',
      against: undefined,
      arena: undefined,
      copies: DUEL_DEFAULTS.copies,
      distance: undefined,
      clock: undefined,
      with: [],
      from: 'ahead',
    });
  });

  test('what is there is taken over', () => {
    expect(
      view(
        'tier=bloom&skill=novice&edit=tier&against=tender&arena=boiler-court&copies=3&distance=4.5&with=clipper:2,mulcher&from=point:hatch',
      ),
    ).toEqual({
      tier: 'bloom',
      skill: 'novice',
      edit: 'tier',
      against: 'tender',
      arena: 'boiler-court',
      copies: 3,
      distance: 4.5,
      with: [
        { unit: 'clipper', count: 2 },
        { unit: 'mulcher', count: 1 },
      ],
      from: 'point:hatch',
    });
    expect(view(`against=${WHOLE_PARTY}`).against).toBe(WHOLE_PARTY);
  });

  test.each([
    ['tier=winter', 'tier', undefined],
    ['skill=godlike', 'skill', undefined],
    ['against=nobody', 'against', undefined],
    ['arena=moon', 'arena', undefined],
    ['copies=0', 'copies', DUEL_DEFAULTS.copies],
    ['copies=13', 'copies', DUEL_DEFAULTS.copies],
    ['copies=2.9', 'copies', 2],
    ['copies=many', 'copies', DUEL_DEFAULTS.copies],
    ['distance=-1', 'distance', undefined],
    ['distance=201', 'distance', undefined],
    ['clock=rounds', 'clock', 'rounds'],
    ['clock=hours', 'clock', undefined],
    ['distance=0', 'distance', 0],
    ['from=point:hatch', 'from', 'ahead'],
    ['from=point:moon&arena=boiler-court', 'from', 'ahead'],
    ['from=behind', 'from', 'behind'],
    ['wall=1.5', 'wall', 1.5],
    ['wall=0', 'wall', undefined],
    ['wall=', 'wall', undefined],
    ['wall=2&arena=boiler-court', 'wall', undefined],
  ] as const)('%s: what the project does not know, or what is out of range, counts as absent', (query, name, wanted) => {
    expect(view(query)[name]).toBe(wanted);
  });

  test('who stands with the enemy: those there are, in numbers there can be', () => {
    expect(view('with=moth:2,clipper:0,clipper:13,clipper:x,mulcher:1.5,clipper:').with).toEqual([]);
    expect(view(`with=${Array(20).fill('clipper:1').join()}`).with).toHaveLength(8);
  });

  test('nothing is typed into a tier that is not there', () => {
    expect(view('edit=tier').edit).toBe('base');
    expect(view('edit=tier&tier=winter').edit).toBe('base');
    expect(viewOf(new URLSearchParams('tier=bloom&edit=tier'), null)).toMatchObject({ tier: undefined, edit: 'base' });
  });
});
