import { expect, test } from '@jest/globals';
import { type Loss, pressureAt } from './pressure';

const loss = (time: number, amount: number): Loss => ({ time, amount, wave: 0, type: 0, member: 0 }) as never;

test('pressure counts what was lost in (t − 3, t]: at its own instant yes, three seconds later no more', () => {
  const losses = [loss(1, 6), loss(2, 12)];
  // (6) / 3; (6 + 12) / 3; at 4 s what was lost at 1 s has gone; at 5 s all has.
  expect([...pressureAt(losses, [0.999, 1, 2, 3.999, 4, 4.999, 5])]).toEqual([0, 2, 6, 6, 4, 4, 0]);
});
