import { expect, test } from '@jest/globals';
import { Turns } from './turns';

test('one after the other, however much one of them has asked for', () => {
  const turns = new Turns<string>();
  for (const item of ['a1', 'a2', 'a3', 'b1', 'c1', 'c2']) turns.add(item[0], item);
  expect([turns.length, turns.waiting('a'), turns.waiting('d')]).toEqual([6, 3, 0]);
  expect([turns.next(), turns.next()]).toEqual(['a1', 'b1']);
  turns.add('b', 'b2');
  turns.drop('c1');
  turns.drop('gone');
  expect(Array.from({ length: 6 }, () => turns.next())).toEqual(['c2', 'a2', 'b2', 'a3', undefined, undefined]);
  expect(turns.length).toBe(0);
});
