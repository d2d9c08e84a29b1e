import { expect, test } from '@jest/globals';
import { beside, holdsWords } from './names';

test('a new project has a name and an id of its own, also of those that may be brought back', () => {
  const there = [
    { id: 'verdance', name: 'Verdance Station' },
    { id: 'new-project', name: 'New project' },
  ];
  expect(beside('Ägypten!', there)).toEqual({ name: 'Ägypten!', id: 'agypten' });
  expect(beside('Verdance Station', there)).toEqual({ name: 'Verdance Station 2', id: 'verdance-station-2' });
  expect(beside('  ', there)).toEqual({ name: 'New project 2', id: 'new-project-2' });
  expect(beside('Cellar', there, [{ id: 'cellar', name: 'Cellar' }])).toEqual({ name: 'Cellar', id: 'cellar-2' });
});

test('what a project holds, in words', () => {
  expect(holdsWords({ enemies: 10, members: 1, encounters: 5, goals: 0 })).toBe('10 enemies, 1 member, 5 encounters');
  expect(holdsWords({ enemies: 0, members: 0, encounters: 0, goals: 0 })).toBe('empty');
});
