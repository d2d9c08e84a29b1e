import { describe, expect, test } from '@jest/globals';
import { type Project, parseProject } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { addressOf, sectionOf, sharedSearch } from './sections';

const demo: Project = parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../demo/verdance.insidia.json'), 'utf8')));
const at = (path: string, search = '') => ({ pathname: `/projects/verdance/${path}`, search });

describe('sections', () => {
  test('are known by the first step within a project', () => {
    expect(['/projects/a/enemies/clipper', '/projects/a/board', '/projects/a', '/'].map(sectionOf)).toEqual([
      'enemies',
      'board',
      undefined,
      undefined,
    ]);
  });

  test('are found as they were left, through the lens of now; what belongs to one clings to no other', () => {
    const left = at('enemies/clipper/attacks/bite', '?tier=bloom&copies=3&against=tender');
    expect(addressOf(demo, 'enemies', left, '?tier=blight&skill=expert&seed=4&at=2.5')).toEqual(
      at('enemies/clipper/attacks/bite', 'copies=3&against=tender&tier=blight&skill=expert'),
    );
    expect(addressOf(demo, 'enemies', left, '?seed=4')).toEqual(at('enemies/clipper/attacks/bite', 'copies=3&against=tender'));
    expect(addressOf(demo, 'replay', at('replay/duel', '?enemy=clipper&members=warden&seed=4'), '?tier=bloom').search).toBe(
      'enemy=clipper&members=warden&seed=4&tier=bloom',
    );
    expect(sharedSearch('?tier=bloom&edit=tier&seed=4&enemy=clipper')).toBe('tier=bloom&edit=tier');
  });

  test('begin anew where they were not opened yet, and where what was chosen is gone', () => {
    expect(addressOf(demo, 'encounters', undefined, '?tier=bloom&seed=4')).toEqual(at('encounters', 'tier=bloom'));
    expect(addressOf(demo, 'enemies', at('enemies/moth', '?copies=3'), '?tier=bloom')).toEqual(at('enemies', 'tier=bloom'));
    expect(addressOf(demo, 'difficulty', at('difficulty/traits'), '')).toEqual(at('difficulty/traits'));
    expect(addressOf(demo, 'board', at('board', '?measure=won'), '')).toEqual(at('board', 'measure=won'));
    expect(addressOf(demo, 'enemies', { pathname: '/projects/other/enemies/clipper', search: '?copies=3' }, '')).toEqual(at('enemies'));
  });
});
