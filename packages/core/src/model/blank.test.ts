import { expect, test } from '@jest/globals';
import { blankAt } from './blank';
import { Project } from './project';
import { Unit } from './unit';

test('what an absent group begins as: its class’s defaults; of what is no group there is nothing to begin', () => {
  expect(blankAt(Unit, ['shield'])).toHaveProperty('max');
  expect(blankAt(Project, ['units', 'clipper', 'attacks', 'bite', 'beat'])).toHaveProperty('windup');
  expect(blankAt(Unit, ['name'])).toBeUndefined();
  expect(blankAt(Unit, ['attacks'])).toBeUndefined();
  expect(blankAt(Unit, ['no-such-thing'])).toBeUndefined();
});
