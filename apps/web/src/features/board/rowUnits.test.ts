import { expect, test } from '@jest/globals';
import { nameWidth, rowUnits } from './rowUnits';

const seconds = { clock: 'continuous' } as const;
const rounds = { clock: 'rounds' } as const;

test('a unit is said once where all rows have it, and beside those that have another', () => {
  const all = rowUnits('timeToKill', [rounds, rounds]);
  expect([all.common, all.beside(rounds)]).toEqual(['rounds', undefined]);
  const some = rowUnits('timeToKill', [seconds, rounds]);
  expect([some.common, some.beside(seconds), some.beside(rounds)]).toEqual(['s', undefined, 'rounds']);
  // Shares are the same in both.
  expect(rowUnits('won', [seconds, rounds]).beside(rounds)).toBeUndefined();
});

test('names take what cells do not need, and never more than a name does', () => {
  expect([nameWidth(700, 4), nameWidth(700, 3), nameWidth(700, 2), nameWidth(2000, 1)]).toEqual([124, 220, 220, 220]);
  expect(nameWidth(780, 4)).toBe(180);
});
