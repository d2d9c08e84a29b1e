import { expect, test } from '@jest/globals';
import { changedQuery } from './query';

test('a change keeps what others have written, and takes away what is undefined or empty', () => {
  expect(changedQuery('?tier=bloom&at=1.20', { vs: 'seed:4' }).toString()).toBe('tier=bloom&at=1.20&vs=seed%3A4');
  expect(changedQuery('?at=1.20&vs=seed%3A4', { at: '2.00', vs: undefined, unit: '' }).toString()).toBe('at=2.00');
  expect(changedQuery('', { seed: 0 }).toString()).toBe('seed=0');
});
